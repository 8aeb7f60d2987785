import type { JobState } from './job-state'
import { openOffers, uncheckedClaims } from '../intake/slice'
import { currentPass } from '../socket/slice'
import type { Station } from '../board/station'
import { stations } from '../board/station'
import { rails, railWords } from '../board/rail'
import { handBackHolds } from '../hand-back/holds'
import { proofStanding } from '../proof/plan'
import { clusters } from '../socket/cluster'
import type { Cluster } from '../socket/cluster'
import { isDamage } from '../socket/mark'
import type { Marks } from '../socket/mark'
import { plan } from '../socket/plan'
import type { Plan, School } from '../socket/plan'
import type { Socket } from '../socket/socket'
import { firstLook, stageReached } from '../triage/stage'
import type { PowerGate } from './power-gate'

export interface WayStop {
  readonly station: Station
  readonly mark: 'untouched' | 'open' | 'settled' | 'passed over'
  readonly note: string
}

/** The seven stations with their marks and a few words each. */
export function way(state: JobState, socket: Socket | null): WayStop[] {
  const pass = currentPass(state.socket)
  const damaged = Object.values(pass?.marks ?? {}).filter(isDamage).length
  const baseline = state.board.baselines.at(-1)
  const owed = proofStanding(state, socket).owed
  const notes: Record<Station, string> = {
    intake:
      openOffers(state.intake).length > 0
        ? 'offer not answered'
        : state.intake.consent
          ? ''
          : 'not signed yet',
    triage: baseline
      ? stageReached(baseline).say
      : Object.keys(state.board.rails).length > 0
        ? 'rails measured'
        : '',
    socket: pass ? `pass ${state.socket.passes.length}, ${damaged} marked` : '',
    firmware: state.firmware.steps.findLast((f) => f.version)?.version ?? '',
    parts: state.parts.noted.length > 0 ? `${state.parts.noted.length} noted` : '',
    proof:
      state.board.baselines.length > 0 || Object.keys(state.proof.results).length > 0
        ? owed === 0
          ? 'all done'
          : `${owed} ${owed === 1 ? 'test' : 'tests'} owed`
        : '',
    'hand-back': state.handBack.done?.outcome ?? '',
  }
  return stations.map((station) => ({
    station,
    mark: state.work.marks[station].mark,
    note: state.work.marks[station].mark === 'passed over' ? state.work.marks[station].why : notes[station],
  }))
}

/** The next sensible stop: where the work stands now. */
export function nextStation(state: JobState, socket: Socket | null): Station {
  const open = (station: Station) =>
    state.work.marks[station].mark === 'untouched' || state.work.marks[station].mark === 'open'
  if (state.handBack.done) return 'hand-back'
  if (!state.intake.consent && open('intake')) return 'intake'
  if (open('triage') && Object.keys(state.board.rails).length < rails.length) return 'triage'
  if (socket && open('socket')) return 'socket'
  return stations.find(open) ?? 'hand-back'
}

/** What the socket has to offer the sentence: the order of work and where the damage lies. */
export interface SocketWork {
  readonly planned: Plan
  readonly clusters: readonly Cluster[]
}

export const socketWork = (socket: Socket, marks: Marks, school: School): SocketWork => ({
  planned: plan(socket, marks, school),
  clusters: clusters(socket, marks),
})

const clusterSay: Readonly<Record<Cluster['shape'], string>> = {
  crater: 'Level the',
  swath: 'Raise the',
  row: 'Run along the',
  patch: 'Work through the',
  stray: 'Mend the',
}
const lower = (s: string) => s.charAt(0).toLowerCase() + s.slice(1)

/** What to do next at a station: one sentence, and why. Computed from the tape, never a slogan. */
export function nextStep(
  station: Station,
  state: JobState,
  socket: Socket | null,
  gate: PowerGate,
  work: SocketWork | null,
): { readonly say: string; readonly why: string } {
  if (state.handBack.done)
    return {
      say: `Handed back: ${state.handBack.done.outcome}.`,
      why: 'A late word from the owner can still be entered below.',
    }
  switch (station) {
    case 'intake': {
      const t = state.intake.ticket
      const offer = openOffers(state.intake)[0]
      if (offer)
        return {
          say: `Ask the owner about the changed offer: ${offer.text}.`,
          why: 'Hand-back is held until it is answered.',
        }
      if (!t.board)
        return { say: 'Say which board this is.', why: 'Socket, landmarks and limits follow from it.' }
      if (!t.complaint)
        return {
          say: 'Write down what the owner says is wrong, in their words.',
          why: 'It is kept as a claim until somebody here has checked it.',
        }
      if (t.history.length === 0)
        return {
          say: 'Ask what happened just before it died.',
          why: 'It decides what to look at first and which risks to name.',
        }
      if (!state.intake.consent)
        return {
          say: 'Read the risks to the owner and have them signed.',
          why: 'Nothing is bent or heated before the owner agrees.',
        }
      const claims = uncheckedClaims(state.intake).length
      if (claims > 0)
        return {
          say: `Ticket taken; ${claims} ${claims === 1 ? 'claim waits' : 'claims wait'} to be checked.`,
          why: 'A claim weighs less until somebody here has checked it.',
        }
      return {
        say: 'The ticket is complete. Look before power: go to triage.',
        why: 'Outside first, then the socket, then the rails.',
      }
    }
    case 'triage': {
      if (!state.board.power.lookedOutside)
        return {
          say: 'Look over the outside of the board, both sides.',
          why: 'Burns, liquid, swollen parts and loose solder are seen before they are powered.',
        }
      const missing = rails.filter((rail) => !state.board.rails[rail])
      if (missing.length > 0)
        return {
          say: `Unplug it and measure the ${missing.length === rails.length ? 'rails' : railWords[missing[0]!]} to ground.`,
          why:
            missing.length === rails.length
              ? 'Seven readings; note whether the CPU is in.'
              : `${missing.length} of ${rails.length} still to do; note whether the CPU is in.`,
        }
      if (!state.board.cell)
        return { say: 'Measure the coin cell.', why: 'A weak cell looks like lost settings.' }
      if (gate.lamp === 'do not power')
        return { say: `Do not power yet: ${gate.reasons[0]!.text}.`, why: gate.reasons[0]!.at.say + '.' }
      const baseline = state.board.baselines.at(-1)
      if (!baseline || state.board.lastPowered < state.board.lastTouched)
        return {
          say:
            state.board.supplyLimitA === null
              ? 'Set a current limit, then power up with as little fitted as possible.'
              : `Power up under ${state.board.supplyLimitA} A and note what it does.`,
          why: 'CPU, one module, no card. Without a baseline no progress can be seen.',
        }
      const reached = stageReached(baseline)
      const told = reached.told[0]
        ? `; what told most: ${reached.told[0].what}`
        : '; note fans, current, lamps and codes'
      if (reached.stopsAt === null)
        return {
          say: 'It runs: prove it.',
          why: `It got there with ${Math.round(reached.sure * 100)} in 100${told}.`,
        }
      return {
        say: `${firstLook[reached.stopsAt]}.`,
        why: `It ${reached.say}, ${Math.round(reached.sure * 100)} in 100${told}.`,
      }
    }
    case 'socket': {
      if (!socket)
        return {
          say: 'Choose this board’s socket in the ticket first.',
          why: 'The library has it, or takes it from a CSV table.',
        }
      const pass = currentPass(state.socket)
      if (!pass)
        return {
          say: 'Look over the whole field and mark what breaks the pattern.',
          why: 'Light from low at one side; the tips must catch it in the same place.',
        }
      const open = work?.planned.steps.filter((s) => s.technique !== 'leave') ?? []
      const first = open[0]
      if (first && work) {
        const short = gate.reasons.find((r) => r.code === 'short' && r.level === 'closed')
        const touching = short ? `; ${lower(short.at.say)} before any power` : ''
        const most = work.clusters[0]
        const level = most && most.names.length >= 4 ? `${clusterSay[most.shape]} ${most.say}` : null
        const begin = `begin with ${first.contact}`
        const big = !level
          ? `Begin with ${first.contact}: ${first.say}`
          : most!.names.includes(first.contact)
            ? `${level}${most!.shape === 'crater' && state.socket.school === 'A' ? ' from its rim inward' : ''}, ${begin}`
            : `First ${first.contact}, then ${lower(level)}`
        return {
          say: `${big}${touching}.`,
          why: `${open.length} to do, about ${Math.max(1, Math.round(work.planned.minutes))} minutes; ${Math.round(work.planned.anySnaps * 100)} in 100 that one of them is lost.`,
        }
      }
      if (Object.values(pass.marks).some(isDamage))
        return {
          say: 'Go through the marked contacts in their order.',
          why: 'The order stands below the map.',
        }
      const looked = Object.keys(pass.looked).length
      if (looked < socket.contacts.length)
        return {
          say: `Look at the other ${socket.contacts.length - looked} contacts.`,
          why: 'One in a thousand is easily missed; people still find one on the next pass.',
        }
      return {
        say: 'The field looks right. Seat the CPU and try.',
        why: 'It must fall flat by its own weight. Heatsink before power.',
      }
    }
    case 'firmware':
      return state.firmware.steps.length === 0
        ? {
            say: 'Do not flash yet: note the version it shows and the chip’s marking.',
            why: 'Firmware is blamed often and wrongly.',
          }
        : {
            say: 'Note each step and the version seen after it.',
            why: 'Labels lie; only the version shown after a start with mains off counts.',
          }
    case 'parts':
      return state.parts.noted.length === 0
        ? {
            say: 'Look round the socket and the firmware chip for missing or cracked small parts.',
            why: 'A missing resistor can look like dead firmware.',
          }
        : {
            say: 'Note each part found, taken off and fitted.',
            why: 'What was taken off holds the power gate until it is accounted for.',
          }
    case 'proof': {
      const standing = proofStanding(state, socket)
      if (standing.failed > 0)
        return {
          say: `${standing.failed} ${standing.failed === 1 ? 'test' : 'tests'} failed: back to triage with what was seen.`,
          why: 'A second fault often hides behind the first.',
        }
      const next = standing.tests.find((t) => t.result === null)
      return next
        ? { say: `${next.test}.`, why: `${next.why}; passes when: ${next.limit}. ${standing.owed} owed.` }
        : {
            say: 'Everything owed is proved. Hand it back.',
            why: 'What could not be run here stands on the sheet.',
          }
    }
    case 'hand-back': {
      const holds = handBackHolds(state)
      if (holds.length > 0)
        return {
          say: `Held: ${holds[0]!.text}.`,
          why: holds.length > 1 ? `and ${holds.length - 1} more below` : 'Clear it, then hand back.',
        }
      const owed = proofStanding(state, socket).owed
      return owed > 0
        ? {
            say: `${owed} ${owed === 1 ? 'test is' : 'tests are'} still owed; the sheet will say so.`,
            why: 'What is not proved is listed with the odds, never left out.',
          }
        : {
            say: 'Print the sheet, name the outcome, hand it over.',
            why: 'Found, done, proved, not proved, advice, safety.',
          }
    }
  }
}

import { chipOff, refitForbids } from '../firmware/chip/refit'
import { lastNoted } from '../firmware/slice'
import type { JobState } from './job-state'
import { unaccounted } from '../board/slice'
import { currentPass } from '../socket/slice'
import type { OwnRail, Rail } from '../board/rail'
import { sayOhms } from '../maths/units'
import { railsOf, sayRail } from '../board/rail'
import { contactVerdict } from '../socket/contact/contact-force'
import { functionLaw } from '../socket/contact/function-law'
import { isDamage, isGone } from '../socket/damage/mark'
import type { Mark } from '../socket/damage/mark'
import { shorts, touchesNobodyNamed } from '../socket/damage/short'
import { fieldOf } from '../socket/model/socket'
import type { Contact, Socket } from '../socket/model/socket'
import { hazardWords } from '../board/hazard'
import { OPEN_OHM, railState } from '../board/rail-limits'
import { gradeForPower, possibleShorts } from '../socket/damage/closing-shorts'
import { hasPicture, isPicture } from '../board/baseline'
import { wentWrong } from '../board/power-history'
import { testOf } from '../triage/reason/hypotheses'
import type { PowerEvidence } from './gate-evidence'
import type { RailSeen } from '../board/rail-limits'

/** The gate's evidence as the tape has it. */
export function powerEvidence(state: JobState, socket: Socket | null): PowerEvidence {
  const { power } = state.board
  const pass = currentPass(state.socket)
  const marks = pass?.marks ?? {}
  const looked = pass?.looked ?? {}
  const named = socket ? fieldOf(socket).named : new Map<string, Contact>()
  const damaged = Object.entries(marks).filter(([, mark]) => isDamage(mark))
  const of = (fits: (mark: Mark) => boolean) => damaged.filter(([, mark]) => fits(mark)).map(([name]) => name)
  const lost = damaged
    .filter(([, mark]) => gone(mark) || contactVerdict(mark, socket?.kind).makesContact < 0.9)
    .map(([name]) => name)
  const effect = (name: string) => {
    const group = named.get(name)?.group ?? 'unknown'
    return group === 'unknown' ? 'unknown' : functionLaw[group].effect
  }
  const chip = (field: 'chipVolts' | 'programmerVolts') => lastNoted(state.firmware, field) ?? null
  const read = railsRead(state)
  const notLooked = socket ? socket.contacts.filter((c) => !looked[c.name] && !marks[c.name]) : []
  return {
    ...read,
    ownRails: state.board.ownRails,
    railsOwedWhy: power.railsOwedWhy,
    questions: [...read.questions, ...reversedVolts(state), ...cellOver(power.cellOver)],
    volts: [
      ...Object.values(power.over).map((v) => ({
        ...v,
        is: 'too high' as const,
        workedOn: power.putRight > v.seq && read.railsOwed.length === 0,
      })),
      ...Object.values(power.under).map((v) => ({ ...v, is: 'low' as const, workedOn: true })),
    ],
    shorts: socket
      ? possibleShorts(socket, marks).map((s) => ({
          ...s,
          nets: joinWords(named.get(s.a), named.get(s.b)),
        }))
      : [],
    touchesUnnamed: unnamed(socket, damaged),
    lodged: of((mark) => mark.kind === 'lodged' || mark.maybe === 'lodged'),
    paste: of((mark) => mark.kind === 'paste'),
    lostSense: lost.filter((name) => effect(name) === 'danger'),
    lostUnknown: socket ? lost.filter((name) => effect(name) === 'unknown') : [],
    notLooked: notLooked.length,
    contacts: socket?.contacts.length ?? 0,
    notLookedNear: socket
      ? nearDamage(
          socket,
          damaged.map(([name]) => name),
          notLooked,
        )
      : [],
    socketFound: power.socketFound,
    cpuFitted: power.cpu === 'in',
    heatsink: state.board.fitted.heatsink,
    seat: seatOf(state),
    pinGrid: socket?.kind === 'pin-grid',
    unaccounted: unaccounted(state.board).map((i) => i.what),
    hazards: Object.values(power.found)
      .filter((f) => f.hazard !== 'harmless' && f.hazard !== 'part gone' && f.hazard !== 'not told')
      .map((f) => `${f.say} (${hazardWords[f.hazard as keyof typeof hazardWords]})`),
    notTold: Object.values(power.found)
      .filter((f) => f.hazard === 'not told')
      .map((f) => f.say),
    damagedParts: Object.keys(power.damagedParts),
    lookedOutside: power.lookedOutside,
    ranHere: power.ranHere,
    runs: runs(state),
    standbyHot: power.standbyHot,
    chipVolts: chip('chipVolts'),
    programmerVolts: chip('programmerVolts'),
    clipOn: lastNoted(state.firmware, 'clipOn') ?? false,
    chipFault: chipFault(state),
    supplyLimitA: state.board.supplyLimitA,
    provedUnderLimit: power.proved > power.changed,
    changedWhat: power.changedWhat,
    provedNothing: power.provedNothing,
    tripped: power.tripped > 0 && power.tripped >= power.railsOwedSince && read.railsOwed.length > 0,
  }
}

/**
 * Whether it came up at its last start here, and nothing was done since that could have put a rail to ground. In proportion:
 * such a machine is not measured through before its next start. Another cell, module or card is no such thing.
 */
function runs({ board, triage }: JobState): boolean {
  const last = board.baselines.at(-1)
  if (!last || !hasPicture(last) || wentWrong(last, board.supplyLimitA)) return false
  const { reworked, railsOwedSince } = board.power
  const startedSince = [
    ...triage.trials.filter((t) => testOf(t.test).byStage && !isPicture(t.outcome)),
    ...triage.swaps,
    ...board.currents,
  ]
  return last.seq > Math.max(reworked, railsOwedSince) && startedSince.every((start) => start.seq < last.seq)
}

const gone = (mark: Mark) => isGone(mark) || (mark.maybe !== undefined && isGone({ kind: mark.maybe }))

function chipFault({ firmware }: JobState): string {
  if (chipOff(firmware)) return 'The firmware chip is off the board'
  const point = refitForbids(firmware)
  return point ? `The fitted firmware chip, ${point.point}: ${point.say}` : ''
}

/**
 * What stands of the readings to ground: the last of each rail with the CPU in and out, and which rails are owed.
 * A short is heard even where the reading is asked about; a good one counts only when nothing contradicts it. One that is
 * no short after one that was, where nothing done since could have mended that, leaves it open which of the two was the slip: a third settles
 * it. An open reading is the probe until the same rail reads open twice while others do not.
 */
function railsRead({
  board: {
    ownRails,
    railLog: log,
    told,
    power: { railsOwedSince, railsSaid, shortLifted },
  },
}: JobState): Pick<PowerEvidence, 'rails' | 'railsToldGood' | 'railsOwed' | 'questions'> {
  const standing = new Map<string, RailSeen>()
  const asked = new Map<string, { say: string; mend: string }>()
  const open = new Map<string, boolean>()
  const since = new Map<Rail, number>()
  /** What each was at last, where that tells anything: a short however it was read, else a reading nobody asks about. */
  const before = new Map<string, { readonly seq: number; readonly short: boolean }>()
  const onGround = log.some((r) => r.ohms < OPEN_OHM)
  for (const r of log) {
    const key = `${r.rail} ${r.cpu}`
    const seen = { rail: r.rail, ohms: r.ohms, cpu: r.cpu }
    const isOpen = r.ohms >= OPEN_OHM
    const twice = isOpen && open.get(key) === true && onGround
    open.set(key, isOpen)
    const short = railState(seen, ownRails) === 'short'
    const said = railsSaid[r.rail]
    const read = before.get(key)
    const word = said && said.seq < r.seq && said.seq > (read?.seq ?? 0) ? said : null
    const last = word ? { seq: word.seq, short: word.is === 'short' } : read
    const differs = !r.asked && !short && last?.short === true && last.seq > shortLifted
    if (short || !(r.asked || (isOpen && !twice))) before.set(key, { seq: r.seq, short })
    if (r.asked) asked.set(key, contradicts(r.rail, r.cpu))
    else if (isOpen && !twice)
      asked.set(key, {
        say: `${sayRail(r.rail)} reads open (${sayOhms(r.ohms)}): a whole rail never does`,
        mend: 'Was the probe on the rail and on ground? Measure it again',
      })
    else if (differs)
      asked.set(key, {
        say: `${sayRail(r.rail)} was shorted to ground, then read ${sayOhms(r.ohms)}, and nothing done since could have mended that`,
        mend: `Measure ${sayRail(r.rail)} to ground once more`,
      })
    else asked.delete(key)
    const counts = !asked.has(key)
    if (
      counts ||
      differs ||
      short ||
      (railState(seen, ownRails) === 'low' && !hides(standing.get(key), ownRails))
    )
      standing.set(key, seen)
    if (counts || differs) since.set(r.rail, r.seq)
  }
  /** Figures alone clear what was said to be at ground or low. */
  const figures = new Map(since)
  const listed = railsOf(ownRails)
  const good = new Set<Rail>()
  for (const { rail, is, seq, cpu, asked: contrary } of told.rails) {
    const figure = figures.get(rail) ?? 0
    if (contrary && seq > figure) asked.set(`${rail} told`, contradicts(rail, cpu ?? 'out'))
    else asked.delete(`${rail} told`)
    if (is !== 'good' || contrary) continue
    // A word counts where there is no figure that stands; it takes nothing from one that does.
    if (figure <= railsOwedSince) good.add(rail)
    since.set(rail, Math.max(since.get(rail) ?? 0, seq))
  }
  return {
    rails: [...standing.values()],
    railsToldGood: [...good],
    railsOwed: listed.filter((rail) => since.has(rail) && since.get(rail)! <= railsOwedSince),
    questions: [
      ...asked.values(),
      ...listed
        .filter((rail) => !figures.has(rail) && [...standing.values()].some((s) => s.rail === rail))
        .map((rail) => ({
          say: `${sayRail(rail)} has no reading that counts`,
          mend: `Measure ${sayRail(rail)} again`,
        })),
      ...[...listed, 'other']
        .filter((rail) => railsSaid[rail] && (figures.get(rail) ?? 0) < railsSaid[rail].seq)
        .map((rail) => ({
          say: `${sayRail(rail)} was found ${saidWords[railsSaid[rail]!.is] ?? 'low'}`,
          mend:
            rail === 'other'
              ? railsSaid[rail]!.is === 'short, then good'
                ? 'Measure the other rails once more'
                : 'Find which and why, then measure the other rails again'
              : `Measure ${sayRail(rail)} in ohms`,
        })),
    ],
  }
}

const saidWords: Readonly<Record<string, string>> = {
  short: 'shorted to ground',
  'short, then good': 'shorted to ground, then good, and nothing done since could have mended that',
}

const contradicts = (rail: Rail, cpu: 'in' | 'out') => ({
  say: `${sayRail(rail)} was read with the CPU ${cpu}, and the CPU is noted as ${cpu === 'in' ? 'out' : 'in'}`,
  mend: `Say what is fitted, then measure ${sayRail(rail)} again`,
})

const hides = (seen: RailSeen | undefined, own: readonly OwnRail[]) =>
  seen !== undefined && railState(seen, own) === 'short'

const cellOver = (volts: number | null) =>
  volts === null
    ? []
    : [
        {
          say: `The coin cell reads ${volts} V: more than a cell gives`,
          mend: 'Take the cell out, measure it by itself; if it is the board that feeds it, leave it out and find why',
        },
      ]

const reversedVolts = (state: JobState) =>
  Object.values(state.board.power.reversed).map((v) => ({
    say: `${sayRail(v.rail)} at ${v.volts} V: below ground can not be`,
    mend: 'Are the leads the wrong way round? Read it again',
  }))

function seatOf({
  board: {
    power: { seat },
  },
}: JobState): PowerEvidence['seat'] {
  if (!seat) return null
  if (seat.turned) return 'turned'
  if (seat.drop === 'needed force') return 'needed force'
  if (seat.drop === 'light push' && !seat.uneven) return 'light push'
  return 'proud'
}

/** Touching or folded, or perhaps folded, over nobody knows whom: the gravest of all it can reach. */
function unnamed(
  socket: Socket | null,
  damaged: readonly (readonly [string, Mark])[],
): PowerEvidence['touchesUnnamed'] {
  return damaged.flatMap(([contact, mark]) => {
    if (!touchesNobodyNamed(mark, socket)) return []
    const from = socket && fieldOf(socket).named.get(contact)
    if (!socket || !from) return [{ contact, nets: 'what it can reach is not known' }]
    const grave = ['gravest', 'grave', 'unknown', 'signal'] as const
    const worst = shorts(socket, { [contact]: mark })
      .filter((s) => s.a === contact)
      .map((s) => fieldOf(socket).named.get(s.b)!)
      .map((b) => ({ b, rank: grave.findIndex((g) => g === gradeForPower(from, b)) }))
      .filter((w) => w.rank >= 0)
      .sort((x, y) => x.rank - y.rank)[0]
    return worst ? [{ contact, nets: `at worst ${worst.b.name}, ${joinWords(from, worst.b)}` }] : []
  })
}

/** How far round damage everything is looked at before power, in pitches. */
const ROUND = 1.6

/** Contacts nobody has looked at that stand close to damage. */
function nearDamage(socket: Socket, damaged: readonly string[], notLooked: readonly Contact[]): string[] {
  const unseen = new Set(notLooked)
  if (unseen.size === 0) return []
  const { named, near } = fieldOf(socket)
  const found = new Set<string>()
  for (const name of damaged) {
    const c = named.get(name)
    if (!c) continue
    for (const i of near.within(c.xMm, c.yMm, ROUND * socket.pitchMm))
      if (unseen.has(socket.contacts[i]!)) found.add(socket.contacts[i]!.name)
  }
  return [...found]
}

const groupWords: Readonly<Record<string, string>> = {
  'core power': 'core rail',
  'memory power': 'memory rail',
  'io power': 'input-output rail',
  ground: 'ground',
}

function joinWords(
  a: { group: string; net: string } | undefined,
  b: { group: string; net: string } | undefined,
): string {
  if (!a || !b) return 'what it carries is not known'
  const word = (c: { group: string; net: string }) =>
    groupWords[c.group] ?? (c.group === 'unknown' ? 'unknown' : `${c.group} (${c.net})`)
  return a.net === b.net ? `both ${word(a)}` : `${word(a)} to ${word(b)}`
}

import type { ShortGrade } from '../socket/function-law'
import { rails, railWords } from './entry'
import type { Rail, Station } from './entry'

/** What the gate looks at; nothing else moves it. */
export interface PowerEvidence {
  readonly rails: readonly { readonly rail: Rail; readonly ohms: number; readonly cpu: 'in' | 'out' }[]
  readonly shorts: readonly {
    readonly a: string
    readonly b: string
    readonly nets: string
    readonly grade: ShortGrade
    readonly odds: number
  }[]
  /** Voltage-sense contacts that do not reach the CPU. */
  readonly lostSense: readonly string[]
  /** Contacts not looked at in the last pass, and how many there are; zero of zero when there is no map of this socket. */
  readonly notLooked: number
  readonly contacts: number
  readonly cpuFitted: boolean
  readonly heatsink: boolean
  readonly unaccounted: readonly string[]
  /** What was seen that speaks against power: burns, liquid. */
  readonly hazards: readonly string[]
  readonly chipVolts: number | null
  readonly programmerVolts: number | null
  readonly clipOn: boolean
  readonly supplyLimitA: number | null
  /** A limited power-up went well after the last change to socket or parts. */
  readonly provedUnderLimit: boolean
  /** The supply tripped at the last power-up and no rail was measured since. */
  readonly tripped: boolean
}

export interface GateReason {
  readonly level: 'closed' | 'limit'
  readonly code: string
  readonly text: string
  /** Where on screen it can be cleared. */
  readonly at: { readonly station: Station; readonly part: string; readonly say: string }
}

export interface PowerGate {
  readonly lamp: 'clear' | 'limit the current' | 'do not power'
  readonly reasons: readonly GateReason[]
}

/**
 * Resistance to ground below which a rail counts as shorted, and below which it is suspect, Ω (bench default).
 * The core rail reads low with a CPU fitted.
 */
export const railLimits: Readonly<
  Record<
    Rail,
    {
      readonly shortOhm: number
      readonly lowOhm: number
      readonly shortWithCpuOhm?: number
      readonly lowWithCpuOhm?: number
    }
  >
> = {
  '12v': { shortOhm: 10, lowOhm: 60 },
  '5v': { shortOhm: 5, lowOhm: 40 },
  '3v3': { shortOhm: 5, lowOhm: 40 },
  standby: { shortOhm: 10, lowOhm: 60 },
  vcore: { shortOhm: 0.8, lowOhm: 2, shortWithCpuOhm: 0.15, lowWithCpuOhm: 0.4 },
  vmem: { shortOhm: 4, lowOhm: 20 },
  vsys: { shortOhm: 1.5, lowOhm: 5, shortWithCpuOhm: 0.6, lowWithCpuOhm: 1.5 },
}

export function railState(reading: {
  readonly rail: Rail
  readonly ohms: number
  readonly cpu: 'in' | 'out'
}): 'short' | 'low' | 'good' {
  const limit = railLimits[reading.rail]
  const short = reading.cpu === 'in' ? (limit.shortWithCpuOhm ?? limit.shortOhm) : limit.shortOhm
  const low = reading.cpu === 'in' ? (limit.lowWithCpuOhm ?? limit.lowOhm) : limit.lowOhm
  return reading.ohms <= short ? 'short' : reading.ohms < low ? 'low' : 'good'
}

/**
 * May this board be powered? A pure function of the evidence: the gravest reason decides the lamp.
 * Adding a hazard never opens the gate (a property that is tested). The gate advises; local rules and licensed
 * practice come first.
 */
export function powerGate(e: PowerEvidence): PowerGate {
  const reasons: GateReason[] = []
  const say = (
    level: GateReason['level'],
    code: string,
    text: string,
    station: Station,
    part: string,
    mend: string,
  ) => reasons.push({ level, code, text, at: { station, part, say: mend } })

  for (const s of e.shorts) {
    if (s.grade === 'harmless') continue
    const level = s.odds > 0.5 || s.grade === 'gravest' ? 'closed' : 'limit'
    const verb = s.odds >= 0.999 ? 'touches' : 'may touch'
    say(level, 'short', `${s.a} ${verb} ${s.b}: ${s.nets}`, 'socket', s.a, `Part ${s.a} from ${s.b}`)
  }
  for (const item of e.unaccounted)
    say(
      'closed',
      'unaccounted',
      `${item} is not accounted for`,
      'socket',
      'ledger',
      'Find it, or say where it went',
    )
  for (const reading of e.rails) {
    const state = railState(reading)
    if (state === 'short')
      say(
        'closed',
        'rail short',
        `${railWords[reading.rail]} is at ground: ${reading.ohms} Ω, CPU ${reading.cpu}`,
        'triage',
        'rails',
        'Find the short, measure again',
      )
    if (state === 'low')
      say(
        'limit',
        'rail low',
        `${railWords[reading.rail]} reads low: ${reading.ohms} Ω, CPU ${reading.cpu}`,
        'triage',
        'rails',
        'Measure again, compare with a good board',
      )
  }
  const unmeasured = rails.filter((rail) => !e.rails.some((r) => r.rail === rail))
  if (unmeasured.length > 0) {
    const which =
      unmeasured.length === rails.length
        ? 'No rail is measured yet'
        : `${unmeasured.map((r) => railWords[r]).join(', ')} not measured`
    say('closed', 'rail unmeasured', which, 'triage', 'rails', 'Measure ohms to ground, unplugged')
  }
  for (const name of e.lostSense)
    if (e.cpuFitted)
      say(
        'closed',
        'sense lost',
        `${name} carries voltage sense and makes no contact`,
        'socket',
        name,
        'Mend it or take the CPU out',
      )
  if (e.contacts === 0)
    say(
      'limit',
      'no socket',
      'No socket is chosen, so its contacts are not judged',
      'intake',
      'board',
      'Choose the socket in the ticket',
    )
  else if (e.notLooked === e.contacts)
    say(
      'closed',
      'not looked',
      'Nobody has looked at the socket yet',
      'socket',
      'map',
      'Look at the whole field',
    )
  else if (e.notLooked > 0)
    say(
      'limit',
      'not looked',
      `${e.notLooked} of ${e.contacts} contacts not looked at`,
      'socket',
      'map',
      'Look at the rest',
    )
  if (e.cpuFitted && !e.heatsink)
    say(
      'closed',
      'no heatsink',
      'CPU fitted without a heatsink',
      'triage',
      'fitted',
      'Fit the heatsink or take the CPU out',
    )
  if (e.clipOn) {
    say(
      'closed',
      'clip on',
      'The programmer’s clip is on the firmware chip',
      'firmware',
      'clip',
      'Take the clip off before any power',
    )
    if (e.chipVolts !== null && e.programmerVolts !== null && e.programmerVolts > e.chipVolts * 1.1)
      say(
        'closed',
        'chip volts',
        `Programmer at ${e.programmerVolts} V on a ${e.chipVolts} V chip`,
        'firmware',
        'chip',
        'Use the right adapter',
      )
  }
  for (const hazard of e.hazards)
    say('closed', 'hazard', hazard, 'triage', 'look', 'Clean or clear it, then look again')
  if (e.tripped)
    say(
      'closed',
      'supply trips',
      'The supply tripped at the last power-up',
      'triage',
      'rails',
      'Measure the rails again',
    )
  if (!e.provedUnderLimit) {
    const text =
      e.supplyLimitA === null
        ? 'First power after a change: set a current limit'
        : `First power after a change: limit ${e.supplyLimitA} A, standby first`
    say(
      'limit',
      'first power',
      text,
      'triage',
      'baseline',
      'Power up with the limit set and note what it does',
    )
  }
  reasons.sort((a, b) => (a.level === b.level ? 0 : a.level === 'closed' ? -1 : 1))
  const lamp = reasons.some((r) => r.level === 'closed')
    ? 'do not power'
    : reasons.length > 0
      ? 'limit the current'
      : 'clear'
  return { lamp, reasons }
}

import { functionLaw } from '../socket/function-law'
import { isDamage, isGone } from '../socket/mark'
import { contactVerdict } from '../socket/contact-force'
import { shorts } from '../socket/short'
import type { ShortGrade } from '../socket/function-law'
import type { Socket } from '../socket/socket'
import { rails, railWords } from './entry'
import type { Rail, Station } from './entry'
import { currentPass, openOffers, unaccounted } from './state'
import type { JobState } from './state'

/** What the gate looks at; nothing else moves it. */
export interface PowerEvidence {
  readonly rails: readonly { readonly rail: Rail; readonly ohms: number; readonly cpu: 'in' | 'out' }[]
  readonly shorts: readonly { readonly a: string; readonly b: string; readonly nets: string; readonly grade: ShortGrade; readonly odds: number }[]
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
  readonly lastCurrent: string | null
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
export const railLimits: Readonly<Record<Rail, { readonly shortOhm: number; readonly lowOhm: number; readonly shortWithCpuOhm?: number; readonly lowWithCpuOhm?: number }>> = {
  '12v': { shortOhm: 10, lowOhm: 60 },
  '5v': { shortOhm: 5, lowOhm: 40 },
  '3v3': { shortOhm: 5, lowOhm: 40 },
  standby: { shortOhm: 10, lowOhm: 60 },
  vcore: { shortOhm: 0.8, lowOhm: 2, shortWithCpuOhm: 0.15, lowWithCpuOhm: 0.4 },
  vmem: { shortOhm: 4, lowOhm: 20 },
  vsys: { shortOhm: 1.5, lowOhm: 5, shortWithCpuOhm: 0.6, lowWithCpuOhm: 1.5 },
}

export function railState(reading: { readonly rail: Rail; readonly ohms: number; readonly cpu: 'in' | 'out' }): 'short' | 'low' | 'good' {
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
  const say = (level: GateReason['level'], code: string, text: string, station: Station, part: string, mend: string) => reasons.push({ level, code, text, at: { station, part, say: mend } })

  for (const s of e.shorts) {
    if (s.grade === 'harmless') continue
    const level = s.odds > 0.5 || s.grade === 'gravest' ? 'closed' : 'limit'
    const verb = s.odds >= 0.999 ? 'touches' : 'may touch'
    say(level, 'short', `${s.a} ${verb} ${s.b}: ${s.nets}`, 'socket', s.a, `Part ${s.a} from ${s.b}`)
  }
  for (const item of e.unaccounted) say('closed', 'unaccounted', `${item} is not accounted for`, 'socket', 'ledger', 'Find it, or say where it went')
  for (const reading of e.rails) {
    const state = railState(reading)
    if (state === 'short') say('closed', 'rail short', `${railWords[reading.rail]} is at ground: ${reading.ohms} Ω, CPU ${reading.cpu}`, 'triage', 'rails', 'Find the short, measure again')
    if (state === 'low') say('limit', 'rail low', `${railWords[reading.rail]} reads low: ${reading.ohms} Ω, CPU ${reading.cpu}`, 'triage', 'rails', 'Measure again, compare with a good board')
  }
  const unmeasured = rails.filter((rail) => !e.rails.some((r) => r.rail === rail))
  if (unmeasured.length > 0) {
    const which = unmeasured.length === rails.length ? 'No rail is measured yet' : `${unmeasured.map((r) => railWords[r]).join(', ')} not measured`
    say('closed', 'rail unmeasured', which, 'triage', 'rails', 'Measure ohms to ground, unplugged')
  }
  for (const name of e.lostSense) if (e.cpuFitted) say('closed', 'sense lost', `${name} carries voltage sense and makes no contact`, 'socket', name, 'Mend it or take the CPU out')
  if (e.contacts > 0 && e.notLooked === e.contacts) say('closed', 'not looked', 'Nobody has looked at the socket yet', 'socket', 'map', 'Look at the whole field')
  else if (e.notLooked > 0) say('limit', 'not looked', `${e.notLooked} of ${e.contacts} contacts not looked at`, 'socket', 'map', 'Look at the rest')
  if (e.cpuFitted && !e.heatsink) say('closed', 'no heatsink', 'CPU fitted without a heatsink', 'triage', 'fitted', 'Fit the heatsink or take the CPU out')
  if (e.clipOn) {
    say('closed', 'clip on', 'The programmer’s clip is on the firmware chip', 'firmware', 'clip', 'Take the clip off before any power')
    if (e.chipVolts !== null && e.programmerVolts !== null && e.programmerVolts > e.chipVolts * 1.1) say('closed', 'chip volts', `Programmer at ${e.programmerVolts} V on a ${e.chipVolts} V chip`, 'firmware', 'chip', 'Use the right adapter')
  }
  for (const hazard of e.hazards) say('closed', 'hazard', hazard, 'triage', 'look', 'Clean or clear it, then look again')
  if (e.lastCurrent === 'trips') say('closed', 'supply trips', 'The supply tripped at the last power-up', 'triage', 'rails', 'Measure the rails again')
  if (!e.provedUnderLimit) {
    const text = e.supplyLimitA === null ? 'First power after a change: set a current limit' : `First power after a change: limit ${e.supplyLimitA} A, standby first`
    say('limit', 'first power', text, 'triage', 'baseline', 'Power up with the limit set and note what it does')
  }
  reasons.sort((a, b) => (a.level === b.level ? 0 : a.level === 'closed' ? -1 : 1))
  const lamp = reasons.some((r) => r.level === 'closed') ? 'do not power' : reasons.length > 0 ? 'limit the current' : 'clear'
  return { lamp, reasons }
}

/** The gate's evidence as the tape has it. */
export function powerEvidence(state: JobState, socket: Socket | null): PowerEvidence {
  const pass = currentPass(state)
  const marks = pass?.marks ?? {}
  const named = new Map(socket?.contacts.map((c) => [c.name, c]) ?? [])
  const looked = pass?.looked ?? {}
  const found = socket ? shorts(socket, marks).filter((s) => s.odds >= 0.15) : []
  const lostSense = Object.entries(marks)
    .filter(([name, mark]) => functionLaw[named.get(name)?.group ?? 'unknown'].effect === 'danger' && isDamage(mark) && (isGone(mark) || contactVerdict(mark).makesContact < 0.9))
    .map(([name]) => name)
  const chip = (field: 'chipVolts' | 'programmerVolts') => state.firmware.findLast((f) => f[field] !== undefined)?.[field] ?? null
  const seen = new Map(state.looks.map((look) => [look.what, look]))
  return {
    rails: Object.values(state.rails).map(({ rail, ohms, cpu }) => ({ rail, ohms, cpu })),
    shorts: found.map((s) => ({ a: s.a, b: s.b, nets: joinWords(named.get(s.a), named.get(s.b)), grade: s.grade, odds: s.odds })),
    lostSense,
    notLooked: socket ? socket.contacts.filter((c) => !looked[c.name] && !marks[c.name]).length : 0,
    contacts: socket?.contacts.length ?? 0,
    cpuFitted: state.fitted.cpu !== null,
    heatsink: state.fitted.heatsink,
    unaccounted: unaccounted(state).map((i) => i.what),
    hazards: [...seen.values()].filter((look) => !look.clear && /burn|liquid|corro|scorch/i.test(`${look.what} ${look.seen}`)).map((look) => `${look.what}: ${look.seen}`),
    chipVolts: chip('chipVolts'),
    programmerVolts: chip('programmerVolts'),
    clipOn: state.firmware.findLast((f) => f.clipOn !== undefined)?.clipOn ?? false,
    supplyLimitA: state.supplyLimitA,
    provedUnderLimit: state.lastPowered > state.lastTouched && state.limitedSinceTouch,
    lastCurrent: state.baselines.at(-1)?.current ?? null,
  }
}

const groupWords: Readonly<Record<string, string>> = { 'core power': 'core rail', 'memory power': 'memory rail', 'io power': 'input-output rail', ground: 'ground' }

function joinWords(a: { group: string; net: string } | undefined, b: { group: string; net: string } | undefined): string {
  if (!a || !b) return 'what it carries is not known'
  const word = (c: { group: string; net: string }) => groupWords[c.group] ?? (c.group === 'unknown' ? 'unknown' : `${c.group} (${c.net})`)
  return a.net === b.net ? `both ${word(a)}` : `${word(a)} to ${word(b)}`
}

/** What keeps the board from being handed back. */
export function handBackHolds(state: JobState): { readonly text: string; readonly at: { readonly station: Station; readonly part: string } }[] {
  const holds: { text: string; at: { station: Station; part: string } }[] = []
  for (const offer of openOffers(state)) holds.push({ text: `The owner has not answered the changed offer: ${offer.text}`, at: { station: 'intake', part: 'offers' } })
  for (const item of unaccounted(state)) holds.push({ text: `${item.what} is not accounted for`, at: { station: 'socket', part: 'ledger' } })
  if (!state.consent) holds.push({ text: 'The owner has not signed', at: { station: 'intake', part: 'consent' } })
  return holds
}

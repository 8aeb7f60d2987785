import type { GateReason, PowerGate } from '../board/gate-reason'
import { OPEN_OHM, railState } from '../board/rail-limits'
import type { RailSeen } from '../board/rail-limits'
import type { Station } from '../board/station'
import type { Rail } from '../board/rail'
import { rails, railWords } from '../board/rail'
import type { ShortGrade } from '../socket/contact/function-law'
import { inHundred } from '../maths/in-hundred'
import { FIRST_POWER_MOST_A } from '../board/power-history'

export interface PossibleShort {
  readonly a: string
  readonly b: string
  readonly nets: string
  readonly grade: ShortGrade
  readonly odds: number
}

/** What the gate looks at; nothing else moves it. */
export interface PowerEvidence {
  readonly rails: readonly RailSeen[]
  /** Rails that were said to be good, where no figure stands. */
  readonly railsToldGood: readonly Rail[]
  /** Rails measured once that are owed again, and why. */
  readonly railsOwed: readonly Rail[]
  readonly railsOwedWhy: string
  /** Readings that contradict something or can not be: each is asked about and counts for nothing. */
  readonly questions: readonly { readonly say: string; readonly mend: string }[]
  /** Volts out of range that no later reading under the same conditions has cleared. */
  readonly volts: readonly {
    readonly rail: Rail
    readonly volts: number
    readonly cpu: 'in' | 'out' | null
    readonly is: 'too high' | 'low'
    /** Something was put right and the rails measured since. */
    readonly workedOn: boolean
  }[]
  readonly shorts: readonly PossibleShort[]
  /** Places in the socket where a foreign piece sits. */
  readonly lodged: readonly string[]
  readonly paste: readonly string[]
  /** Contacts that touch or lie over a neighbour nobody has named and that could be harmful: the gravest it could be. */
  readonly touchesUnnamed: readonly { readonly contact: string; readonly nets: string }[]
  /** Voltage-sense contacts that do not reach the CPU, and lost contacts of which nobody knows what they carry. */
  readonly lostSense: readonly string[]
  readonly lostUnknown: readonly string[]
  /** Contacts not looked at in this pass, and how many there are; zero of zero when there is no map of this socket. */
  readonly notLooked: number
  readonly contacts: number
  /** Contacts close to damage that nobody has looked at. */
  readonly notLookedNear: readonly string[]
  /** What a look at the socket found in the words of a test, while no look has cleared it. */
  readonly socketFound: string
  readonly cpuFitted: boolean
  readonly heatsink: boolean
  /** How the CPU last went in, while that speaks against power; an even light push is for pin grids only. */
  readonly seat: 'proud' | 'needed force' | 'turned' | 'light push' | null
  readonly pinGrid: boolean
  readonly unaccounted: readonly string[]
  /** What was seen that speaks against power, or of which nobody has said whether it does. */
  readonly hazards: readonly string[]
  readonly notTold: readonly string[]
  readonly damagedParts: readonly string[]
  readonly lookedOutside: boolean
  /** It was seen running here, with a picture. */
  readonly ranHere: boolean
  readonly standbyHot: boolean
  readonly chipVolts: number | null
  readonly programmerVolts: number | null
  readonly clipOn: boolean
  readonly supplyLimitA: number | null
  /** A start under a limit went well after the last change to the board. */
  readonly provedUnderLimit: boolean
  /** The last change, and why the last start proved nothing; empty where there is none. */
  readonly changedWhat: string
  readonly provedNothing: string
  /** The supply tripped and not every rail was measured since. */
  readonly tripped: boolean
}

/** Evidence of which nothing is known yet. */
export const nothingSeen: PowerEvidence = {
  rails: [],
  railsToldGood: [],
  railsOwed: [],
  railsOwedWhy: '',
  questions: [],
  volts: [],
  shorts: [],
  lodged: [],
  paste: [],
  touchesUnnamed: [],
  lostSense: [],
  lostUnknown: [],
  notLooked: 0,
  contacts: 0,
  notLookedNear: [],
  socketFound: '',
  cpuFitted: false,
  heatsink: false,
  seat: null,
  pinGrid: false,
  unaccounted: [],
  hazards: [],
  notTold: [],
  damagedParts: [],
  lookedOutside: false,
  ranHere: false,
  standbyHot: false,
  chipVolts: null,
  programmerVolts: null,
  clipOn: false,
  supplyLimitA: null,
  provedUnderLimit: false,
  changedWhat: '',
  provedNothing: '',
  tripped: false,
}

/** Share of the field that may be not looked at before the gate is closed; any of it limits (bench default). */
const NEARLY_ALL = 0.05
/**
 * Odds from which possible shorts close the gate, and from which they limit: between supplies, or of what nobody knows,
 * one in ten is too much; between signals it takes more than half (bench default).
 */
const closesAt = { harmful: 0.1, signal: 0.5 } as const
const limitsAt = { harmful: 0.02, signal: 0.05 } as const
const kindOf = (grade: ShortGrade) => (grade === 'signal' ? 'signal' : 'harmful')

/** Chance that at least one of several is so, taken as independent. */
const anyOf = (odds: readonly number[]) => 1 - odds.reduce((none, p) => none * (1 - p), 1)

const seatSays = {
  proud: 'The CPU stayed proud when it was last seated',
  'needed force': 'The CPU needed force when it was last seated',
  turned: 'The CPU’s mark and the socket’s did not meet',
  'light push': 'The CPU wanted a light push',
} as const

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

  shortReasons(e, say)
  for (const { contact, nets } of e.touchesUnnamed)
    say(
      'closed',
      'short',
      `${contact} touches a neighbour that is not named: ${nets}`,
      'socket',
      contact,
      `Say which neighbour ${contact} touches, and part them`,
    )
  for (const name of e.lodged)
    say('closed', 'lodged', `Something is lodged at ${name}`, 'socket', name, 'Take it out, then look again')
  for (const item of e.unaccounted)
    say(
      'closed',
      'unaccounted',
      `${item} is not accounted for`,
      'socket',
      'ledger',
      'Find it, or say where it went',
    )
  railReasons(e, say)
  if (e.seat !== null)
    say(
      e.seat === 'light push' && e.pinGrid ? 'limit' : 'closed',
      'seat',
      seatSays[e.seat],
      'socket',
      'seat',
      'Take it out, find what holds it up, seat it again: it must fall flat by itself',
    )
  if (e.socketFound)
    say('closed', 'socket', `The socket: ${e.socketFound}`, 'socket', 'map', 'Part them, then look again')
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
  if (e.lostUnknown.length > 0 && e.cpuFitted)
    say(
      'limit',
      'unknown lost',
      `${some(e.lostUnknown)} makes no contact, and nobody knows what it carries`,
      'socket',
      e.lostUnknown[0]!,
      'Find its function, mend it or take the CPU out',
    )
  lookReasons(e, say)
  if (e.cpuFitted && !e.heatsink)
    say(
      'closed',
      'no heatsink',
      'CPU fitted, no heatsink noted',
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
  if (e.standbyHot)
    say('limit', 'standby', 'Standby draws too much', 'triage', 'baseline', 'Find what gets warm on standby')
  if (e.tripped)
    say('closed', 'supply trips', 'The supply tripped', 'triage', 'rails', 'Measure every rail again')
  if (!e.provedUnderLimit) {
    const noLimit = e.supplyLimitA === null || e.supplyLimitA > FIRST_POWER_MOST_A
    const text = noLimit
      ? `First power after a change${e.changedWhat ? ` (${e.changedWhat})` : ''}: set a current limit`
      : `First power after a change${e.changedWhat ? ` (${e.changedWhat})` : ''}: limit ${e.supplyLimitA} A, standby first`
    say(
      'limit',
      'first power',
      e.provedNothing ? `${text}; the last start proved nothing: ${e.provedNothing}` : text,
      'triage',
      'baseline',
      noLimit
        ? `Set a limit of up to ${FIRST_POWER_MOST_A} A, power up and note what it does`
        : 'Power up with the limit set and note what it does',
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

type Say = (
  level: GateReason['level'],
  code: string,
  text: string,
  station: Station,
  part: string,
  mend: string,
) => void

const some = (names: readonly string[]) =>
  names.length <= 3 ? names.join(', ') : `${names.slice(0, 3).join(', ')} and ${names.length - 3} more`

/** Each possible short by itself, then any of those that alone would not close the gate. */
function shortReasons(e: PowerEvidence, say: Say): void {
  const open: Record<'harmful' | 'signal', PossibleShort[]> = { harmful: [], signal: [] }
  for (const s of e.shorts) {
    if (s.grade === 'harmless') continue
    const kind = kindOf(s.grade)
    const closes = kind === 'signal' ? s.odds > closesAt.signal : s.odds >= closesAt.harmful
    if (!closes) open[kind].push(s)
    if (!closes && s.odds < 0.15) continue
    const verb = s.odds >= 0.999 ? 'touches' : 'may touch'
    say(
      closes ? 'closed' : 'limit',
      'short',
      `${s.a} ${verb} ${s.b}: ${s.nets}`,
      'socket',
      s.a,
      `Part ${s.a} from ${s.b}`,
    )
  }
  for (const kind of ['harmful', 'signal'] as const) {
    const any = anyOf(open[kind].map((s) => s.odds))
    if (any < limitsAt[kind]) continue
    const closes = kind === 'signal' ? any > closesAt.signal : any >= closesAt.harmful
    const first = open[kind].reduce((a, b) => (b.odds > a.odds ? b : a))
    if (!closes && first.odds >= 0.15) continue // it is said by itself
    say(
      closes ? 'closed' : 'limit',
      'any short',
      open[kind].length === 1
        ? `${first.a} may touch ${first.b} (${inHundred(first.odds)} in 100): ${first.nets}`
        : `${inHundred(any)} in 100 that any of ${open[kind].length} close pairs touches; closest ${first.a} to ${first.b}: ${first.nets}`,
      'socket',
      first.a,
      `Look closer, ${first.a} first, and part what is close`,
    )
  }
}

function railReasons(e: PowerEvidence, say: Say): void {
  for (const { say: text, mend } of e.questions) say('closed', 'question', text, 'triage', 'rails', mend)
  for (const reading of e.rails) {
    const state = railState(reading)
    if (state === 'short')
      say(
        'closed',
        'rail short',
        `${railWords[reading.rail]} is at ground: ${reading.ohms} Ω, CPU ${reading.cpu}`,
        'triage',
        'rails',
        `Find the short, then measure it again with the CPU ${reading.cpu}`,
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
    if (reading.ohms >= OPEN_OHM)
      say(
        'limit',
        'rail open',
        `${railWords[reading.rail]} read open twice`,
        'triage',
        'rails',
        'Find where the rail is broken off',
      )
  }
  const figured = new Set(e.rails.map((r) => r.rail))
  const told = e.railsToldGood
  const unmeasured = rails.filter((rail) => !figured.has(rail) && !told.includes(rail))
  if (told.length > 0)
    say(
      'limit',
      'rail told',
      `${some(told.map((r) => railWords[r]))} ${told.length === 1 ? 'is' : 'are'} said to be good, without a figure`,
      'triage',
      'rails',
      'Note the ohms that were read',
    )
  if (unmeasured.length > 0)
    say(
      'closed',
      'rail unmeasured',
      unmeasured.length === rails.length
        ? 'No rail is measured yet'
        : `${unmeasured.map((r) => railWords[r]).join(', ')} not measured`,
      'triage',
      'rails',
      'Measure ohms to ground, unplugged',
    )
  const owed = e.railsOwed.filter((rail) => !unmeasured.includes(rail))
  if (owed.length > 0)
    say(
      'closed',
      'rail owed',
      `${owed.length === rails.length ? 'Every rail is' : `${owed.map((r) => railWords[r]).join(', ')} ${owed.length === 1 ? 'is' : 'are'}`} owed again: ${e.railsOwedWhy || 'the board was changed'}`,
      'triage',
      'rails',
      'Measure ohms to ground again, unplugged',
    )
  for (const v of e.volts) {
    const where = v.cpu === null ? '' : `, CPU ${v.cpu}`
    if (v.is === 'too high' && !v.workedOn)
      say(
        'closed',
        'volts high',
        `${railWords[v.rail]} was at ${v.volts} V${where}: too high`,
        'triage',
        'rails',
        'Take the CPU out, put right what feeds the rail, measure every rail to ground',
      )
    else
      say(
        'limit',
        v.is === 'low' ? 'volts low' : 'volts high',
        `${railWords[v.rail]} was at ${v.volts} V${where}: ${v.is}`,
        'triage',
        'rails',
        'Read its volts again under a limit, with the same fitted',
      )
  }
}

function lookReasons(e: PowerEvidence, say: Say): void {
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
  else {
    if (e.notLooked > 0)
      say(
        e.notLooked > NEARLY_ALL * e.contacts ? 'closed' : 'limit',
        'not looked',
        `${e.notLooked} of ${e.contacts} contacts not looked at`,
        'socket',
        'map',
        'Look at the rest',
      )
    if (e.notLookedNear.length > 0)
      say(
        'closed',
        'not looked near',
        `${some(e.notLookedNear)} close to damage and not looked at`,
        'socket',
        e.notLookedNear[0]!,
        'Look all round what is damaged',
      )
  }
  for (const hazard of e.hazards)
    say('closed', 'hazard', hazard, 'triage', 'look', 'Clean or clear it, then look again')
  for (const look of e.notTold)
    say(
      'closed',
      'not told',
      `${look}: nobody has said whether it speaks against power`,
      'triage',
      'look',
      'Look again and say what it is',
    )
  if (!e.lookedOutside)
    say(
      e.ranHere ? 'limit' : 'closed',
      'outside',
      'Nobody has looked over the outside of the board',
      'triage',
      'look',
      'Look over both sides before the first power',
    )
  for (const part of e.damagedParts)
    say('limit', 'part damaged', `${part} is damaged`, 'parts', part, 'Take it off or replace it')
  if (e.paste.length > 0)
    say(
      'limit',
      'paste',
      `Heat paste on ${some(e.paste)}`,
      'socket',
      e.paste[0]!,
      'Clean it: some pastes conduct',
    )
}

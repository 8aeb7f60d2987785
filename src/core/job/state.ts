import { afterStroke, isDamage } from '../socket/mark'
import type { Mark, Marks } from '../socket/mark'
import type { Pass } from '../socket/pass'
import type { School } from '../socket/plan'
import { blank } from './blank-state'
import { itemId, OpenLedger } from './ledger'
import type { LedgerItem } from './ledger'
import type { Draft } from './blank-state'
import { seenByTest } from './hazard'
import { hearPower } from './power-history'
import type { PowerHistory } from './power-history'
import { stations, struckBy } from './entry'
import type { Baseline, Bodies, Entry, Rail, Station, Ticket } from './entry'

export interface Noted {
  readonly seq: number
  readonly at: string
  readonly by: string
}

export interface Claim extends Noted {
  readonly text: string
  readonly checked: Bodies['claim checked'] | null
  readonly weighed: Bodies['claim weighed'] | null
}
export interface Offer extends Noted {
  readonly text: string
  readonly limitMinor: number | null
  readonly minutes: number | null
  readonly approved: boolean | null
}
/** A reading to ground; asked about when it contradicts what is known to be fitted. */
export type RailReading = Noted & Bodies['rail'] & { readonly asked?: true }
export type StrokeDone = Noted & Bodies['stroke']

/** Everything the tape says now. Derived, never edited: `jobState` of the same tape is always the same. */
export interface JobState {
  readonly seq: number
  readonly ticket: Ticket
  readonly claims: readonly Claim[]
  readonly consent: (Noted & Bodies['consent']) | null
  readonly offers: readonly Offer[]
  readonly photos: readonly (Noted & Bodies['photo'])[]
  readonly notes: readonly (Noted & { readonly text: string })[]
  readonly railLog: readonly RailReading[]
  readonly rails: Readonly<Partial<Record<Rail, RailReading>>>
  readonly volts: Readonly<Partial<Record<Rail, Noted & Bodies['volts']>>>
  readonly cellLog: readonly (Noted & Bodies['cell'])[]
  readonly cell: (Noted & Bodies['cell']) | null
  readonly codes: readonly string[]
  readonly codeLog: readonly (Noted & Bodies['codes'])[]
  readonly currents: readonly (Noted & Bodies['current'])[]
  readonly swaps: readonly (Noted & Bodies['swap'])[]
  readonly runs: (Noted & Bodies['runs']) | null
  readonly baselines: readonly (Noted & Baseline)[]
  readonly looks: readonly (Noted & Bodies['look'])[]
  readonly fitted: {
    readonly cpu: string | null
    readonly heatsink: boolean
    readonly modules: readonly string[]
    readonly card: string | null
  }
  readonly supplyLimitA: number | null
  readonly passes: readonly Pass[]
  /** Each contact as it was found damaged, before anybody here worked on it. */
  readonly asFound: Marks
  /** Contacts that were worked on here, or came out with another: what is seen of them now is not how they were found. */
  readonly worked: Readonly<Record<string, true>>
  readonly strokes: readonly StrokeDone[]
  readonly left: Readonly<Record<string, string>>
  readonly replaced: readonly (Noted & Bodies['replaced'])[]
  readonly school: School
  readonly trials: readonly (Noted & Bodies['trial'])[]
  readonly mended: readonly (Noted & Bodies['mended'])[]
  readonly seats: readonly (Noted & Bodies['seat'])[]
  readonly ledger: readonly LedgerItem[]
  readonly firmware: readonly (Noted & Bodies['firmware'])[]
  readonly parts: readonly (Noted & Bodies['part'])[]
  readonly proof: Readonly<Record<string, Noted & Bodies['proof']>>
  readonly advice: readonly string[]
  readonly handBack: (Noted & Bodies['hand-back']) | null
  readonly lateOutcomes: readonly (Noted & Bodies['late outcome'])[]
  readonly marks: Readonly<
    Record<Station, { readonly mark: 'untouched' | 'open' | 'settled' | 'passed over'; readonly why: string }>
  >
  readonly clock: {
    readonly running: { readonly station: Station; readonly since: string } | null
    readonly seconds: Readonly<Record<Station, number>>
  }
  /** Place on the tape of the last change to socket or parts, of other changes, and of the last power-up. */
  readonly lastTouched: number
  readonly changed: Readonly<Record<'firmware' | 'cpu' | 'cell', number>>
  /** Line at which the map last changed. */
  readonly lastMapped: number
  readonly lastPowered: number
  /** What bears on the power gate. */
  readonly power: PowerHistory
}

/** Marks and looks of the pass in hand while it is being written; frozen into the pass when the fold ends. */
interface OpenPass {
  name: string
  at: string
  marks: Record<string, Mark>
  found: Record<string, Mark>
  looked: Record<string, true>
}

/**
 * Folds a tape into what it says now. Struck entries do not count; unsaved ones (seq 0) count last.
 * @param entries in order of seq
 * @param contactNames of the job's socket, for “all looked at”
 */
export function jobState(entries: readonly Entry[], contactNames: readonly string[] = []): JobState {
  const struck = struckBy(entries)
  const s = blank()
  const passes: OpenPass[] = []
  const ledger = new OpenLedger()
  for (const entry of entries) {
    s.seq = Math.max(s.seq, entry.seq)
    if (entry.seq > 0 && struck.has(entry.seq)) continue
    put(s, { passes, ledger }, entry.seq > 0 ? entry : { ...entry, seq: s.seq + 1 }, contactNames)
  }
  s.passes = passes
  s.ledger = ledger.list()
  return s
}

/** The pass in hand; a first mark without one opens “before”. */
function openPass(passes: OpenPass[], at: string): OpenPass {
  if (passes.length === 0) passes.push({ name: 'before', at, marks: {}, found: {}, looked: {} })
  return passes.at(-1)!
}

const stationOfKind: Partial<Record<Entry['kind'], Station>> = {
  ticket: 'intake',
  claim: 'intake',
  consent: 'intake',
  rail: 'triage',
  volts: 'triage',
  cell: 'triage',
  codes: 'triage',
  current: 'triage',
  swap: 'triage',
  runs: 'triage',
  trial: 'triage',
  baseline: 'triage',
  look: 'triage',
  mark: 'socket',
  looked: 'socket',
  pass: 'socket',
  stroke: 'socket',
  seat: 'socket',
  left: 'socket',
  replaced: 'socket',
  firmware: 'firmware',
  part: 'parts',
  proof: 'proof',
  'hand-back': 'hand-back',
  advice: 'hand-back',
}

/** What is written to while a tape is folded, beside the state. */
interface Open {
  readonly passes: OpenPass[]
  readonly ledger: OpenLedger
}

function put(s: Draft, { passes, ledger }: Open, entry: Entry, contactNames: readonly string[]): void {
  const noted = { seq: entry.seq, at: entry.at, by: entry.by }
  const station = stationOfKind[entry.kind]
  if (station && s.marks[station].mark === 'untouched')
    s.marks = { ...s.marks, [station]: { mark: 'open', why: '' } }
  const { seq } = entry
  const touched = () => {
    s.lastTouched = seq
  }
  let items = 0
  const loose = (what: string, from: string, more: Partial<LedgerItem> = {}) =>
    ledger.add({ ...noted, id: `${seq}/${items++}`, what, from, where: null, ...more })
  /** A contact that is found not to be all there: what broke off is asked for, once. */
  const foundBroken = (contact: string, what: string) => {
    if (!ledger.hasOf(contact)) loose(what, 'socket', { contact, found: true })
  }
  /** What was seen of the field in this pass says nothing of it as it is now. */
  const lookAgain = () => {
    const pass = passes.at(-1)
    if (pass) pass.looked = {}
  }
  const chipBefore = s.power.chip
  hearPower(s.power, entry, { fitted: s.fitted, supplyLimitA: s.supplyLimitA })
  switch (entry.kind) {
    case 'ticket':
      // What was looked at on the map of one socket says nothing of another.
      if (s.ticket.socketId && (entry.body.set.socketId ?? s.ticket.socketId) !== s.ticket.socketId)
        lookAgain()
      s.ticket = { ...s.ticket, ...entry.body.set }
      break
    case 'claim':
      s.claims.push({ ...noted, text: entry.body.text, checked: null, weighed: null })
      break
    case 'claim weighed':
      answer(s.claims, entry.body.claim, { weighed: entry.body })
      break
    case 'claim checked':
      answer(s.claims, entry.body.claim, { checked: entry.body })
      break
    case 'consent':
      s.consent = { ...noted, ...entry.body }
      if (entry.body.limitMinor !== null) s.ticket = { ...s.ticket, limitMinor: entry.body.limitMinor }
      break
    case 'offer':
      s.offers.push({ ...noted, ...entry.body, approved: null })
      break
    case 'offer answered': {
      const { offer, approved } = entry.body
      const answered = answer(s.offers, offer, { approved })
      if (approved && answered)
        s.ticket = {
          ...s.ticket,
          limitMinor: answered.limitMinor ?? s.ticket.limitMinor,
          minutesPromised: answered.minutes ?? s.ticket.minutesPromised,
        }
      break
    }
    case 'photo':
      s.photos.push({ ...noted, ...entry.body })
      break
    case 'note':
      s.notes.push({ ...noted, text: entry.body.text })
      break
    case 'decision':
    case 'strike':
      break
    case 'rail': {
      // A reading that contradicts what is fitted is a question.
      const asked = s.power.cpu !== entry.body.cpu
      const reading = { ...noted, ...entry.body, ...(asked ? { asked: true as const } : {}) }
      s.railLog.push(reading)
      s.rails = { ...s.rails, [reading.rail]: reading }
      break
    }
    case 'volts':
      s.volts = { ...s.volts, [entry.body.rail]: { ...noted, ...entry.body } }
      break
    case 'cell':
      s.cell = { ...noted, ...entry.body }
      if (entry.body.isNew) s.changed.cell = seq
      s.cellLog.push(s.cell)
      break
    case 'codes':
      s.codes = [...entry.body.codes]
      s.codeLog.push({ ...noted, ...entry.body })
      break
    case 'current':
      s.currents.push({ ...noted, ...entry.body })
      break
    case 'swap':
      s.swaps.push({ ...noted, ...entry.body })
      break
    case 'runs':
      s.runs = { ...noted, ...entry.body }
      break
    case 'baseline':
      s.baselines.push({ ...noted, ...entry.body })
      s.lastPowered = seq
      if (entry.body.codes.length > 0) s.codes = [...entry.body.codes]
      break
    case 'look':
      s.looks.push({ ...noted, ...entry.body })
      if (entry.body.hazard === 'part gone') loose(`the part that is gone (${entry.body.what})`, 'board')
      break
    case 'fitted': {
      const { cpu } = entry.body
      if (cpu !== undefined && cpu !== s.fitted.cpu) s.changed.cpu = seq
      // Another CPU had the heatsink off; unless it is noted again it counts as none.
      const off = cpu !== undefined && (cpu === null || cpu !== s.fitted.cpu)
      s.fitted = { ...s.fitted, ...(off ? { heatsink: false } : {}), ...entry.body } as JobState['fitted']
      break
    }
    case 'supply':
      s.supplyLimitA = entry.body.limitA
      break
    case 'pass': {
      const before = passes.at(-1)
      passes.push({
        name: entry.body.name,
        at: entry.at,
        marks: { ...before?.marks },
        found: { ...before?.marks },
        looked: {},
      })
      break
    }
    case 'trial':
      s.trials.push({ ...noted, ...entry.body })
      if (seenByTest(entry.body.test, entry.body.outcome) === 'part gone')
        loose(`the part that is gone (${entry.body.outcome})`, 'board')
      if (entry.body.outcome === 'cooler loose') s.fitted = { ...s.fitted, heatsink: false }
      if (entry.body.test === 'new cell' || entry.body.test === 'new cell under load') s.changed.cell = seq
      break
    case 'mended':
      s.mended.push({ ...noted, ...entry.body })
      touched()
      break
    case 'looked': {
      s.lastMapped = seq
      const pass = openPass(passes, entry.at)
      for (const name of entry.body.contacts === 'all' ? contactNames : entry.body.contacts)
        pass.looked[name] = true
      break
    }
    case 'mark': {
      s.lastMapped = seq
      const pass = openPass(passes, entry.at)
      const { contacts, mark } = entry.body
      for (const name of contacts) {
        pass.looked[name] = true
        if (mayBe(mark, 'snapped')) foundBroken(name, `fragment of ${name}`)
        else if (mayBe(mark, 'tip gone')) foundBroken(name, `tip of ${name}`)
        else ledger.withdraw(name)
        if (!s.worked[name]) {
          if (isDamage(mark)) s.asFound[name] = mark
          else delete s.asFound[name]
        }
        if (isDamage(mark)) pass.marks[name] = pass.found[name] = mark
        else {
          delete pass.marks[name]
          delete pass.found[name]
        }
      }
      break
    }
    case 'stroke': {
      const pass = openPass(passes, entry.at)
      const { contact, result } = entry.body
      s.strokes.push({ ...noted, ...entry.body })
      pass.looked[contact] = true
      s.worked[contact] = true
      const now = afterStroke(pass.marks[contact], entry.body)
      if (now) pass.marks[contact] = now
      else delete pass.marks[contact]
      if (result === 'snapped') loose(`fragment of ${contact}`, 'socket', { contact })
      touched()
      break
    }
    case 'left':
      s.left[entry.body.contact] = entry.body.why
      break
    case 'replaced': {
      const pass = openPass(passes, entry.at)
      const { contact, how, holds, pulledOut } = entry.body
      s.replaced.push({ ...noted, ...entry.body })
      ledger.renew(how === 'whole socket' ? undefined : contact)
      if (holds && how === 'whole socket') {
        pass.marks = {}
        pass.looked = {} // nobody has looked at the new one
      } else if (holds) delete pass.marks[contact]
      // What came out is gone from the field; it lies on the bench and stays to be accounted for.
      s.worked[contact] = true
      for (const name of pulledOut) {
        s.worked[name] = true
        pass.marks[name] = pass.found[name] = { kind: 'snapped' }
        loose(`contact ${name}, pulled out`, 'socket', { contact: name })
      }
      touched()
      break
    }
    case 'school':
      s.school = entry.body.school
      break
    case 'seat':
      s.seats.push({ ...noted, ...entry.body })
      s.fitted = { ...s.fitted, cpu: entry.body.cpu, heatsink: entry.body.heatsink === true }
      touched()
      // A CPU that did not fall flat may have bent what it pressed on: the field is to be looked at again.
      if (s.power.seat && s.power.seat.drop !== 'light push') lookAgain()
      break
    case 'missing':
      loose(entry.body.what, entry.body.from)
      break
    case 'accounted': {
      const { item, where } = entry.body
      ledger.account(itemId(item), where)
      break
    }
    case 'firmware': {
      const { did, chip } = entry.body
      if (did !== undefined || (chip !== undefined && chipBefore !== null && chip !== chipBefore))
        s.changed.firmware = seq
      s.firmware.push({ ...noted, ...entry.body })
      break
    }
    case 'part': {
      s.parts.push({ ...noted, ...entry.body })
      const { did, ref } = entry.body
      if (did === 'taken off') loose(`part ${ref}`, 'board')
      if (did === 'found missing') loose(`${ref} (found missing)`, 'board')
      if (did === 'fitted') ledger.refit(ref)
      if (did === 'taken off' || did === 'fitted') touched()
      break
    }
    case 'proof':
      s.proof[entry.body.test] = { ...noted, ...entry.body }
      break
    case 'advice':
      s.advice.push(entry.body.text)
      break
    case 'hand-back':
      s.handBack = { ...noted, ...entry.body }
      stopClock(s, entry.at)
      break
    case 'late outcome':
      s.lateOutcomes.push({ ...noted, ...entry.body })
      break
    case 'clock':
      stopClock(s, entry.at)
      if (entry.body.run) s.clock = { ...s.clock, running: { station: entry.body.run, since: entry.at } }
      break
    case 'station':
      s.marks = { ...s.marks, [entry.body.station]: { mark: entry.body.mark, why: entry.body.why } }
      break
  }
}

/** Writes an answer into what stands on a line; lists stand in the order of the tape. */
function answer<T extends Noted>(list: T[], seq: number, change: Partial<T>): T | null {
  let [low, high] = [0, list.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if (list[middle]!.seq < seq) low = middle + 1
    else high = middle
  }
  const found = list[low]
  if (found?.seq !== seq) return null
  return (list[low] = { ...found, ...change })
}

const mayBe = (mark: Mark, kind: Mark['kind']) => mark.kind === kind || mark.maybe === kind

function stopClock(s: Draft, at: string): void {
  const { running, seconds } = s.clock
  if (!running) return
  const ran = Math.max(0, (Date.parse(at) - Date.parse(running.since)) / 1000)
  s.clock = { running: null, seconds: { ...seconds, [running.station]: seconds[running.station] + ran } }
}

/** Seconds on the bench clock at a moment, by station and together. */
export function benchSeconds(
  state: JobState,
  nowIso: string,
): { readonly all: number; readonly station: (station: Station) => number } {
  const { running, seconds } = state.clock
  const extra = running ? Math.max(0, (Date.parse(nowIso) - Date.parse(running.since)) / 1000) : 0
  const at = (station: Station) => seconds[station] + (running?.station === station ? extra : 0)
  return { all: stations.reduce((sum, station) => sum + at(station), 0), station: at }
}

/** The pass in hand, or null before the socket was looked at. */
export const currentPass = (state: JobState): Pass | null => state.passes.at(-1) ?? null

/** Changed offers the owner has not answered yet. */
export const openOffers = (state: JobState): readonly Offer[] =>
  state.offers.filter((o) => o.approved === null)

/** Fragments and parts nobody has accounted for. */
export const unaccounted = (state: JobState): readonly LedgerItem[] =>
  state.ledger.filter((i) => i.where === null)

export const uncheckedClaims = (state: JobState): readonly Claim[] =>
  state.claims.filter((c) => c.checked === null)

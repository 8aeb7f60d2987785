import { afterStroke, isDamage } from '../socket/mark'
import type { Mark } from '../socket/mark'
import type { Pass } from '../socket/pass'
import type { School } from '../socket/plan'
import { blank } from './blank-state'
import type { Draft } from './blank-state'
import { stations, struckBy } from './entry'
import type { Baseline, Bodies, Entry, Rail, Station, Ticket } from './entry'

interface Noted {
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
export interface LedgerItem extends Noted {
  readonly what: string
  readonly from: string
  readonly where: string | null
}
export type RailReading = Noted & Bodies['rail']
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
  /** Place on the tape of the last change to socket or parts, and of the last power-up. */
  readonly lastTouched: number
  /** Line at which the map last changed. */
  readonly lastMapped: number
  readonly lastPowered: number
  /** Whether the last power-up after the last change was current-limited. */
  readonly limitedSinceTouch: boolean
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
  for (const entry of entries) {
    s.seq = Math.max(s.seq, entry.seq)
    if (entry.seq > 0 && struck.has(entry.seq)) continue
    put(s, passes, entry, contactNames)
  }
  s.passes = passes
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

function put(s: Draft, passes: OpenPass[], entry: Entry, contactNames: readonly string[]): void {
  const noted = { seq: entry.seq, at: entry.at, by: entry.by }
  const station = stationOfKind[entry.kind]
  if (station && s.marks[station].mark === 'untouched')
    s.marks = { ...s.marks, [station]: { mark: 'open', why: '' } }
  const touched = () => {
    s.lastTouched = entry.seq || s.seq + 1
    s.limitedSinceTouch = false
  }
  switch (entry.kind) {
    case 'ticket':
      s.ticket = { ...s.ticket, ...entry.body.set }
      break
    case 'claim':
      s.claims = [...s.claims, { ...noted, text: entry.body.text, checked: null, weighed: null }]
      break
    case 'claim weighed': {
      const weighed = entry.body
      s.claims = s.claims.map((c) => (c.seq === weighed.claim ? { ...c, weighed } : c))
      break
    }
    case 'claim checked': {
      const checked = entry.body
      s.claims = s.claims.map((c) => (c.seq === checked.claim ? { ...c, checked } : c))
      break
    }
    case 'consent':
      s.consent = { ...noted, ...entry.body }
      if (entry.body.limitMinor !== null) s.ticket = { ...s.ticket, limitMinor: entry.body.limitMinor }
      break
    case 'offer':
      s.offers = [...s.offers, { ...noted, ...entry.body, approved: null }]
      break
    case 'offer answered': {
      const { offer, approved } = entry.body
      const answered = s.offers.find((o) => o.seq === offer)
      s.offers = s.offers.map((o) => (o.seq === offer ? { ...o, approved } : o))
      if (approved && answered)
        s.ticket = {
          ...s.ticket,
          limitMinor: answered.limitMinor ?? s.ticket.limitMinor,
          minutesPromised: answered.minutes ?? s.ticket.minutesPromised,
        }
      break
    }
    case 'photo':
      s.photos = [...s.photos, { ...noted, ...entry.body }]
      break
    case 'note':
      s.notes = [...s.notes, { ...noted, text: entry.body.text }]
      break
    case 'decision':
    case 'strike':
      break
    case 'rail': {
      const reading = { ...noted, ...entry.body }
      s.railLog = [...s.railLog, reading]
      s.rails = { ...s.rails, [reading.rail]: reading }
      break
    }
    case 'volts':
      s.volts = { ...s.volts, [entry.body.rail]: { ...noted, ...entry.body } }
      break
    case 'cell':
      s.cell = { ...noted, ...entry.body }
      s.cellLog = [...s.cellLog, s.cell]
      break
    case 'codes':
      s.codes = entry.body.codes
      s.codeLog = [...s.codeLog, { ...noted, ...entry.body }]
      break
    case 'current':
      s.currents = [...s.currents, { ...noted, ...entry.body }]
      break
    case 'swap':
      s.swaps = [...s.swaps, { ...noted, ...entry.body }]
      break
    case 'runs':
      s.runs = { ...noted, ...entry.body }
      break
    case 'baseline':
      s.baselines = [...s.baselines, { ...noted, ...entry.body }]
      s.lastPowered = entry.seq || s.seq + 1
      s.limitedSinceTouch = s.limitedSinceTouch || (s.supplyLimitA !== null && entry.body.current !== 'trips')
      if (entry.body.codes.length > 0) s.codes = entry.body.codes
      break
    case 'look':
      s.looks = [...s.looks, { ...noted, ...entry.body }]
      break
    case 'fitted':
      s.fitted = { ...s.fitted, ...entry.body } as JobState['fitted']
      break
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
      s.trials = [...s.trials, { ...noted, ...entry.body }]
      break
    case 'mended':
      s.mended = [...s.mended, { ...noted, ...entry.body }]
      touched()
      break
    case 'looked': {
      s.lastMapped = entry.seq || s.seq + 1
      const pass = openPass(passes, entry.at)
      for (const name of entry.body.contacts === 'all' ? contactNames : entry.body.contacts)
        pass.looked[name] = true
      break
    }
    case 'mark': {
      s.lastMapped = entry.seq || s.seq + 1
      const pass = openPass(passes, entry.at)
      const { contacts, mark } = entry.body
      for (const name of contacts) {
        pass.looked[name] = true
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
      s.strokes = [...s.strokes, { ...noted, ...entry.body }]
      pass.looked[contact] = true
      const now = afterStroke(pass.marks[contact], entry.body)
      if (now) pass.marks[contact] = now
      else delete pass.marks[contact]
      if (result === 'snapped') {
        s.ledger = [...s.ledger, { ...noted, what: `fragment of ${contact}`, from: 'socket', where: null }]
      }
      touched()
      break
    }
    case 'left':
      s.left = { ...s.left, [entry.body.contact]: entry.body.why }
      break
    case 'replaced': {
      const pass = openPass(passes, entry.at)
      const { contact, how, holds, pulledOut } = entry.body
      s.replaced = [...s.replaced, { ...noted, ...entry.body }]
      if (holds && how === 'whole socket') pass.marks = {}
      else if (holds) delete pass.marks[contact]
      // What came out is gone from the field; it lies on the bench and stays to be accounted for.
      for (const name of pulledOut) {
        pass.marks[name] = pass.found[name] = { kind: 'snapped' }
        s.ledger = [
          ...s.ledger,
          { ...noted, what: `contact ${name}, pulled out`, from: 'socket', where: null },
        ]
      }
      touched()
      break
    }
    case 'school':
      s.school = entry.body.school
      break
    case 'seat':
      s.seats = [...s.seats, { ...noted, ...entry.body }]
      s.fitted = { ...s.fitted, cpu: entry.body.cpu, heatsink: entry.body.heatsink }
      touched()
      break
    case 'missing':
      s.ledger = [...s.ledger, { ...noted, what: entry.body.what, from: entry.body.from, where: null }]
      break
    case 'accounted': {
      const { item, where } = entry.body
      s.ledger = s.ledger.map((i) => (i.seq === item ? { ...i, where } : i))
      break
    }
    case 'firmware':
      s.firmware = [...s.firmware, { ...noted, ...entry.body }]
      break
    case 'part': {
      s.parts = [...s.parts, { ...noted, ...entry.body }]
      const { did, ref } = entry.body
      if (did === 'taken off')
        s.ledger = [...s.ledger, { ...noted, what: `part ${ref}`, from: 'board', where: null }]
      if (did === 'fitted')
        s.ledger = s.ledger.map((i) =>
          i.what === `part ${ref}` && i.where === null ? { ...i, where: 'fitted again' } : i,
        )
      if (did === 'taken off' || did === 'fitted') touched()
      break
    }
    case 'proof':
      s.proof = { ...s.proof, [entry.body.test]: { ...noted, ...entry.body } }
      break
    case 'advice':
      s.advice = [...s.advice, entry.body.text]
      break
    case 'hand-back':
      s.handBack = { ...noted, ...entry.body }
      stopClock(s, entry.at)
      break
    case 'late outcome':
      s.lateOutcomes = [...s.lateOutcomes, { ...noted, ...entry.body }]
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

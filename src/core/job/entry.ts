import type { School } from '../socket/plan'
import type { Corner, Drop } from '../socket/seat-reading'
import type { DamageKind, Mark } from '../socket/mark'
import type { LookHazard } from './hazard'

/** Parts that are tried in one place and another. */
export const swapParts = ['module', 'CPU', 'card', 'supply', 'drive'] as const
export type SwapPart = (typeof swapParts)[number]

/** The seven stations in the order of work. */
export const stations = ['intake', 'triage', 'socket', 'firmware', 'parts', 'proof', 'hand-back'] as const
export type Station = (typeof stations)[number]

export const rails = ['12v', '5v', '3v3', 'standby', 'vcore', 'vmem', 'vsys'] as const
export type Rail = (typeof rails)[number]

export const railWords: Readonly<Record<Rail, string>> = {
  '12v': '12 V rail',
  '5v': '5 V rail',
  '3v3': '3.3 V rail',
  standby: 'standby rail',
  vcore: 'core rail',
  vmem: 'memory rail',
  vsys: 'system-agent rail',
}

export const historyItems = [
  'cooler swap',
  'CPU swap',
  'firmware update',
  'power cut during update',
  'cleaning',
  'shipped without socket cover',
  'long unplugged',
  'dropped something in',
  'liquid',
  'lightning or surge',
  'worked on by others',
  'none known',
] as const
export type HistoryItem = (typeof historyItems)[number]

/** What the ticket says; every field may be unknown. Money in minor units, minutes of bench time. */
export interface Ticket {
  readonly boardModelId: string | null
  readonly board: string
  readonly revision: string
  readonly serial: string
  readonly socketId: string | null
  readonly use: string
  readonly complaint: string
  readonly cpu: string
  readonly memory: string
  readonly history: readonly HistoryItem[]
  readonly valueMinor: number | null
  readonly limitMinor: number | null
  readonly minutesPromised: number | null
  readonly promisedAt: string | null
  readonly warranty: 'unknown' | 'none' | 'in warranty' | 'paid repair offered'
  readonly warrantyDecision: string
  readonly diskLock: 'unknown' | 'no' | 'yes, owner told'
}

export const outcomes = [
  'fixed',
  'exchanged',
  'parked',
  'sent out',
  'returned unrepaired',
  'returned untested',
  /** Begun by mistake: it leaves the bench and is in no record. */
  'withdrawn',
] as const
export type Outcome = (typeof outcomes)[number]

/** The typed body of every kind of entry. `v` of the entry is 1 for all of these. */
/** What became of a contact by a stroke; “still off” is what older lines say for short or past. */
export const strokeResults = ['there', 'still short', 'past', 'touching', 'snapped', 'still off'] as const
export type StrokeResult = (typeof strokeResults)[number]

export interface Bodies {
  ticket: { readonly set: Partial<Ticket> }
  claim: { readonly text: string }
  /** What a claim says in the words of a test, and how far it is believed. */
  'claim weighed': {
    readonly claim: number
    readonly test: string
    readonly outcome: string
    readonly reliability: number
  }
  'claim checked': {
    readonly claim: number
    readonly verdict: 'holds' | 'wrong' | 'cannot tell'
    readonly how: string
  }
  consent: {
    readonly risks: readonly string[]
    readonly limitMinor: number | null
    readonly signature: string | null
    /** How they agreed: signed here, on paper, by telephone. */
    readonly how: string
  }
  offer: { readonly text: string; readonly limitMinor: number | null; readonly minutes: number | null }
  'offer answered': { readonly offer: number; readonly approved: boolean; readonly how: string }
  photo: {
    readonly file: string
    readonly name: string
    readonly type: string
    readonly bytes: number
    readonly caption: string
  }
  note: { readonly text: string }
  decision: { readonly text: string }
  rail: { readonly rail: Rail; readonly ohms: number; readonly cpu: 'in' | 'out' }
  volts: { readonly rail: Rail; readonly volts: number }
  cell: {
    readonly volts: number
    /** By itself unless told otherwise. */
    readonly where?: 'by itself' | 'at the board'
    /** A new cell was put in. */
    readonly isNew?: boolean
  }
  codes: {
    readonly codes: readonly string[]
    /** When each came up, s after power-on. */
    readonly atS?: readonly number[]
    /** How long it was watched, s after power-on. */
    readonly watchedS?: number
  }
  /** A recorded supply current: what it was read as, and its curve thinned so that no peak is lost. */
  current: {
    readonly name: string
    readonly samples: number
    readonly pattern: 'none' | 'standby' | 'steady' | 'cycling' | 'trips'
    readonly standbyA: number | null
    readonly plateauA: number | null
    readonly peakA: number
    readonly periodS: number | null
    readonly segments: readonly {
      readonly kind: 'off' | 'standby' | 'inrush' | 'steady' | 'cycling'
      readonly fromS: number
      readonly toS: number
      /** Mean, A. */
      readonly amps: number
      /** Length of one cycle, s; null when it does not cycle. */
      readonly periodS: number | null
    }[]
    readonly curve: { readonly s: readonly number[]; readonly a: readonly number[] }
  }
  /** One part tried in one place. */
  swap: {
    readonly what: SwapPart
    readonly part: string
    readonly place: string
    readonly knownGood: boolean
    readonly outcome: string
    /** Whether the board runs this CPU by its maker's list. */
    readonly listed?: 'yes' | 'no' | 'not known'
  }
  /** How it runs once it runs. */
  runs: {
    readonly ratedMTs: number | null
    readonly seenMTs: number | null
    readonly startS: number | null
    readonly settingsKept: boolean | null
  }
  baseline: Baseline
  fitted: {
    readonly cpu?: string | null
    readonly heatsink?: boolean
    readonly modules?: readonly string[]
    readonly card?: string | null
  }
  supply: { readonly limitA: number | null }
  look: {
    readonly what: string
    readonly seen: string
    readonly clear: boolean
    /** What of it speaks against power; where it is not given and the place is not clear, nobody has said. */
    readonly hazard?: LookHazard
  }
  pass: { readonly name: string }
  looked: {
    readonly contacts: readonly string[] | 'all'
    /** The photo they were looked at in; by eye where it is not given. */
    readonly photo?: string
  }
  mark: { readonly contacts: readonly string[]; readonly mark: Mark }
  stroke: {
    readonly contact: string
    readonly technique: string
    readonly tool: string
    readonly from: string | null
    readonly strokes: number
    readonly result: StrokeResult
    readonly predictedSnaps: number | null
    /** What the shop's record had made of the model's odds by then; 1 where it is not given. */
    readonly snapFactor?: number
    /** What it was before, and the neighbour it touches now. */
    readonly damage?: DamageKind
    readonly touches?: string
    readonly light?: string
    readonly magnification?: string
  }
  left: { readonly contact: string; readonly why: string }
  /** A contact given back by a raised stub or a transplant, or the whole socket changed. */
  replaced: {
    readonly contact: string
    readonly how: 'stub raise' | 'transplant' | 'whole socket'
    /** The donor socket it was taken from. */
    readonly donor?: string
    readonly holds: boolean
    /** Good neighbours that came out with it. */
    readonly pulledOut: readonly string[]
  }
  school: { readonly school: School }
  seat: {
    readonly cpu: string
    readonly drop: Drop
    /** Counts as none where it is not noted. */
    readonly heatsink?: boolean
    /** The corner that stays proud, and whether the marks of CPU and socket missed each other. */
    readonly corner?: Corner
    readonly turned?: boolean
  }
  missing: { readonly what: string; readonly from: string }
  /** The item's id, “12/0”; older lines name the line alone. */
  accounted: { readonly item: number | string; readonly where: string }
  firmware: {
    readonly version?: string
    readonly chip?: string
    readonly chipVolts?: number
    readonly programmerVolts?: number
    readonly clipOn?: boolean
    readonly did?: string
  }
  part: {
    readonly ref: string
    readonly did: 'found missing' | 'found damaged' | 'taken off' | 'fitted' | 'measured'
    readonly value?: string
    readonly side?: 'top' | 'bottom'
    readonly text?: string
  }
  /** A test of the reasoner's list, carried out. */
  trial: { readonly test: string; readonly outcome: string }
  /** A fault of the reasoner's list, put right. */
  mended: { readonly fault: string }
  proof: {
    readonly test: string
    readonly result: 'pass' | 'fail' | 'cannot run here'
    readonly reading: string
    /** What spoke against it and was asked about first. */
    readonly despite?: readonly string[]
  }
  advice: { readonly text: string }
  'hand-back': {
    readonly outcome: Outcome
    readonly priceMinor: number | null
    readonly text: string
    readonly despite?: readonly string[]
  }
  'late outcome': { readonly text: string; readonly holds: boolean }
  clock: { readonly run: Station | null }
  station: {
    readonly station: Station
    readonly mark: 'settled' | 'passed over' | 'open'
    readonly why: string
  }
  strike: { readonly why: string }
}

export interface Baseline {
  readonly fans: 'off' | 'twitch' | 'on' | 'not noted'
  readonly current: 'none' | 'standby' | 'steady' | 'cycling' | 'trips' | 'not noted'
  readonly amps: number | null
  readonly lamp: 'none' | 'cpu' | 'memory' | 'graphics' | 'boot' | 'not noted'
  readonly beeps: string
  readonly cpuHeat: 'cold' | 'warm' | 'hot' | 'not noted'
  readonly codes: readonly string[]
  readonly picture: 'none' | 'maker screen' | 'system loads' | 'not noted'
}

/** A power-up of which nothing is noted yet. */
export const nothingNoted: Baseline = {
  fans: 'not noted',
  current: 'not noted',
  amps: null,
  lamp: 'not noted',
  beeps: '',
  cpuHeat: 'not noted',
  codes: [],
  picture: 'not noted',
}

export type Kind = keyof Bodies

type EntryOf<K extends Kind> = {
  /** Made by the client, so that a retry never doubles it. */
  readonly id: string
  /** Place on the job's tape, from 1; 0 while it is not saved yet. */
  readonly seq: number
  readonly at: string
  readonly by: string
  readonly kind: K
  readonly v: 1
  readonly body: Bodies[K]
  /** The entry this one corrects or undoes. */
  readonly strikes: number | null
}

/** One line of the job's paper tape. */
export type Entry = { [K in Kind]: EntryOf<K> }[Kind]

export const kinds = [
  'ticket',
  'claim',
  'claim weighed',
  'claim checked',
  'consent',
  'offer',
  'offer answered',
  'photo',
  'note',
  'decision',
  'rail',
  'volts',
  'cell',
  'codes',
  'current',
  'swap',
  'runs',
  'baseline',
  'fitted',
  'supply',
  'look',
  'pass',
  'looked',
  'mark',
  'stroke',
  'left',
  'replaced',
  'school',
  'seat',
  'missing',
  'accounted',
  'firmware',
  'part',
  'trial',
  'mended',
  'proof',
  'advice',
  'hand-back',
  'late outcome',
  'clock',
  'station',
  'strike',
] as const satisfies readonly Kind[]

/** Sequence numbers that no longer count (in SQL: the view tape_standing): struck, unless the strike itself is struck (that is how redo works). */
export function struckBy(entries: readonly Entry[]): ReadonlyMap<number, number> {
  const struck = new Map<number, number>()
  for (let i = entries.length - 1; i >= 0; i--) {
    const entry = entries[i]!
    if (entry.strikes !== null && !struck.has(entry.seq)) struck.set(entry.strikes, entry.seq)
  }
  return struck
}

/** The contacts an entry names. */
export function contactsOf(entry: Pick<Entry, 'kind' | 'body'>): readonly string[] {
  const e = entry as Entry
  switch (e.kind) {
    case 'mark':
      return e.body.mark.touches ? [...e.body.contacts, e.body.mark.touches] : e.body.contacts
    case 'looked':
      return e.body.contacts === 'all' ? [] : e.body.contacts
    case 'replaced':
      return [e.body.contact, ...e.body.pulledOut]
    case 'stroke':
    case 'left':
      return [e.body.contact]
    default:
      return []
  }
}

/** What an entry is about, so that two people writing about the same thing at once can be told. */
export function subjects(entry: Pick<Entry, 'kind' | 'body' | 'strikes'>): readonly string[] {
  const e = entry as Entry
  const own = e.strikes === null ? [] : [`entry ${e.strikes}`]
  switch (e.kind) {
    case 'ticket':
      return [...own, ...Object.keys(e.body.set).map((field) => `ticket ${field}`)]
    case 'mark':
      return [...own, ...e.body.contacts.map((c) => `contact ${c}`)]
    case 'replaced':
      return [...own, ...[e.body.contact, ...e.body.pulledOut].map((c) => `contact ${c}`)]
    case 'stroke':
    case 'left':
      return [...own, `contact ${e.body.contact}`]
    case 'claim weighed':
    case 'claim checked':
      return [...own, `claim ${e.body.claim}`]
    case 'offer answered':
      return [...own, `offer ${e.body.offer}`]
    case 'accounted':
      return [...own, `missing ${e.body.item}`]
    case 'hand-back':
      return [...own, 'hand-back']
    case 'pass':
      return [...own, 'pass']
    default:
      return own
  }
}

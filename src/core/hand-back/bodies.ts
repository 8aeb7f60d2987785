import type { ReassemblyCheck } from './reassembly'
import type { SheetWords } from './sheet-words'

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

/** What becomes of a board that its owner does not take home. */
export const fates = [
  'verified stock',
  'donor',
  'parked for its chip to be read',
  'sent out',
  'waste',
] as const
export type Fate = (typeof fates)[number]

export interface HandBackBodies {
  advice: { readonly text: string }
  'hand-back': {
    readonly outcome: Outcome
    readonly priceMinor: number | null
    readonly text: string
    /** Chance that something is wrong that was not found, as the sheet has it then; left out where it is not known. */
    readonly left?: number
    /** Months on what was repaired; none was given where it is left out. */
    readonly warrantyMonths?: number
    /** Of the board that came in, where it stays here. */
    readonly fate?: Fate
    /** Tag of the board of verified stock that the owner has instead. */
    readonly exchangedFor?: string
    /** What spoke against it and was asked about first. */
    readonly despite?: readonly string[]
  }
  /** The owner has the sheet as it stands at this line, and has signed it. */
  'sheet signed': {
    readonly signature: string | null
    /** Signed here, on paper. */
    readonly how: string
    /** What was signed: a later release may find other words for the same tape. */
    readonly words?: SheetWords
  }
  /** Whether a machine came with the board, into which it goes back. */
  machine: { readonly came: boolean }
  reassembled: { readonly check: ReassemblyCheck; readonly ok: boolean; readonly note: string }
  'late outcome': { readonly text: string; readonly holds: boolean }
}

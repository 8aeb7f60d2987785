import type { OwnRail } from '../board/rail'
import type { HistoryItem } from '../board/history-item'
import type { KnownBy } from './known-by'

/** What the ticket says; every field may be unknown. Money in minor units, minutes of bench time. */
export interface Ticket {
  readonly boardModelId: string | null
  readonly board: string
  readonly revision: string
  readonly serial: string
  readonly socketId: string | null
  /** Rails of its own, as its model has them in the library. */
  readonly rails: readonly OwnRail[]
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

/** Most photos that go with one question for a second opinion. */
export const MOST_PHOTOS = 12

export interface IntakeBodies {
  ticket: {
    readonly set: Partial<Ticket>
    /** Chance that what is promised here is kept, as it was reckoned then; left out where nothing was. */
    readonly kept?: number
  }
  claim: {
    readonly text: string
    /** Given as a second opinion: the line that asked, and who says it. The owner’s where it is left out. */
    readonly opinion?: { readonly asked: number; readonly by: string }
  }
  /** Somebody else is asked to look at photos of this board. */
  'opinion asked': {
    readonly text: string
    /** Who is asked; empty for whoever has the link. */
    readonly of: string
    /** Hashes of the photos they are shown. */
    readonly photos: readonly string[]
  }
  /** What a claim says in the words of a test, and how far it is believed. */
  'claim weighed': {
    readonly claim: number
    readonly test: string
    readonly outcome: string
    readonly reliability: number
    /** How the owner knows; left out on older lines. */
    readonly knows?: KnownBy
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
}

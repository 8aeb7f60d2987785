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

export interface HandBackBodies {
  advice: { readonly text: string }
  'hand-back': {
    readonly outcome: Outcome
    readonly priceMinor: number | null
    readonly text: string
    /** What spoke against it and was asked about first. */
    readonly despite?: readonly string[]
  }
  'late outcome': { readonly text: string; readonly holds: boolean }
}

/** Parts that are tried in one place and another. */
export const swapParts = ['module', 'CPU', 'card', 'supply', 'drive'] as const

export type SwapPart = (typeof swapParts)[number]

/** Where a part was tried, as far as it tells the reasoner something. */
export const swapPlaces = ['slot A', 'slot B', 'both slots', 'this board', 'another board'] as const
export type SwapPlace = (typeof swapPlaces)[number]

export interface TriageBodies {
  codes: {
    readonly codes: readonly string[]
    /** When each came up, s after power-on. */
    readonly atS?: readonly number[]
    /** How long it was watched, s after power-on. */
    readonly watchedS?: number
  }
  /** One part tried in one place. */
  swap: {
    readonly what: SwapPart
    readonly part: string
    /** What the place is called at the bench: a slot, a lead, the board. */
    readonly place: string
    /** Where that is; left out on older lines. */
    readonly where?: SwapPlace
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
  /** A test of the reasoner's list, carried out. */
  trial: { readonly test: string; readonly outcome: string }
  /** Odds of a picture at the next power-up, said before it, and what was reckoned then; null where nothing was. */
  'odds said': { readonly odds: number; readonly reckoned: number | null }
  /** A fault of the reasoner's list, put right; and how often such a repair takes by the shop’s record as it then was. */
  mended: { readonly fault: string; readonly takes?: number }
}

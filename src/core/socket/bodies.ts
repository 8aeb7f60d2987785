import type { DamageKind, Mark } from './damage/mark'
import type { School } from './straighten/plan'
import type { Corner, Drop } from './seat/seat-reading'

/** What became of a contact by a stroke; “still off” is what older lines say for short or past. */
export const strokeResults = ['there', 'still short', 'past', 'touching', 'snapped', 'still off'] as const

export type StrokeResult = (typeof strokeResults)[number]

/** How a result is said, on its button and on the tape. */
export const strokeWords: Readonly<Record<StrokeResult, string>> = {
  there: 'Straight',
  'still short': 'Short',
  past: 'Overbent',
  touching: 'Touching',
  snapped: 'Snapped',
  'still off': 'Not straight yet',
}

export interface SocketBodies {
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
}

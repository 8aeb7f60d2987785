import type { Baseline } from './baseline'
import type { LookHazard } from './hazard'
import type { Rail } from './rail'

/** A rail to ground, in a word. */
export const railTold = ['short', 'low', 'good'] as const

export type RailWord = (typeof railTold)[number]

/** Lines of what several stations share: rails, cell, what is fitted, power-ups, looks, loose things. */
export interface BoardBodies {
  /** Resistance to ground; told in a word where it has no figure, as it is when a test is answered from the list. */
  rail: {
    readonly rail: Rail
    readonly ohms: number | null
    readonly is?: RailWord
    /** Null where nobody said: then it is as it is fitted. */
    readonly cpu: 'in' | 'out' | null
  }
  volts: { readonly rail: Rail; readonly volts: number | null; readonly is?: 'missing' | 'there' }
  cell: {
    readonly volts: number | null
    readonly is?: 'low' | 'good'
    /** By itself unless told otherwise. */
    readonly where?: 'by itself' | 'at the board'
    /** A new cell was put in. */
    readonly isNew?: boolean
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
  baseline: Baseline
  fitted: {
    readonly cpu?: string | null
    readonly heatsink?: boolean
    readonly modules?: readonly string[]
    readonly card?: string | null
    /** What it is to start the system from. */
    readonly drive?: string | null
  }
  supply: { readonly limitA: number | null }
  look: {
    readonly what: string
    readonly seen: string
    readonly clear: boolean
    /** What of it speaks against power; where it is not given and the place is not clear, nobody has said. */
    readonly hazard?: LookHazard
    /** The test of the list that it answers; what was seen is one of its outcomes. */
    readonly test?: string
  }
  missing: { readonly what: string; readonly from: string }
  /** The item's id, “12/0”; older lines name the line alone. */
  accounted: { readonly item: number | string; readonly where: string }
}

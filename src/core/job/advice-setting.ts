import type { ShelfItem } from '../board/shelf-items'
import { usualFigures } from '../socket/straighten/bench-figures'
import type { BenchFigures } from '../socket/straighten/bench-figures'
import type { SnapTally } from '../socket/straighten/snap-record'
import type { FaultOdds } from '../triage/model/fault-table'
import type { RepairTally } from '../triage/model/repair-record'
import type { References } from './references'

/** What stands round a job and bears on the advice. */
export interface AdviceSetting {
  readonly references: Partial<References>
  /** Jobs of the same board before this one. */
  readonly earlier: readonly { readonly mended: readonly string[] }[]
  /** What the shop has at hand; everything when left out. */
  readonly shelf?: readonly ShelfItem[]
  readonly own: FaultOdds
  readonly record: readonly SnapTally[]
  /** What came of repairs, over all jobs. */
  readonly repairs: readonly RepairTally[]
  readonly figures: BenchFigures
}

/** A job with nothing known beside its tape. */
export const nothingRound: AdviceSetting = {
  references: {},
  earlier: [],
  own: {},
  record: [],
  repairs: [],
  figures: usualFigures,
}

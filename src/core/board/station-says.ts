import type { FunctionGroup } from './function-group'
import type { Blocker } from './step'

/** What was touched, from which the proof follows. */
export interface Touched {
  readonly groups: readonly FunctionGroup[]
  readonly contacts: number
  readonly firmware: boolean
  readonly parts: boolean
  readonly cell: boolean
  /** The cell was changed, and nothing else was done to the board. */
  readonly cellAlone: boolean
  readonly intermittent: boolean
  readonly ownGraphics: boolean
}

/** Nothing was touched yet. */
export const untouched: Touched = {
  groups: [],
  contacts: 0,
  firmware: false,
  parts: false,
  cell: false,
  cellAlone: false,
  intermittent: false,
  ownGraphics: true,
}

/** What a station says of a job as a whole, beside its lines and its next step; `V` is what it reads of the job. */
export interface StationSays<V> {
  /** A few words beside its name. */
  readonly note: (view: V) => string
  /** What of its keeps the board from being handed back. */
  readonly blocksHandBack?: (view: V) => readonly Blocker[]
  /** What of the board it touched, or knows that has to be proved. */
  readonly touches?: (view: V) => Partial<Touched>
}

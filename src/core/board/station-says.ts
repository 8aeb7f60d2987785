import type { FunctionGroup } from './function-group'
import type { Proved } from './proved'
import type { Rail } from './rail'
import type { Blocker } from './step'

/** Whole things that can have been exchanged on a board. */
export const exchangeable = ['CPU', 'module', 'drive', 'card'] as const

/** What was touched, from which the proof follows. */
export interface Touched {
  readonly groups: readonly FunctionGroup[]
  readonly contacts: number
  /** Chance that a function is lost or strained as the field stands, where the field is known. */
  readonly lost: Readonly<Partial<Record<FunctionGroup, number>>>
  readonly firmware: boolean
  readonly parts: boolean
  /** Rails that were read short or low at any time, or whose supply was repaired. */
  readonly rails: readonly Rail[]
  readonly exchanged: readonly (typeof exchangeable)[number][]
  /** What was repaired, and the chance that the repair did not take. */
  readonly repaired: readonly { readonly of: Proved; readonly fails: number }[]
  /** What is still suspected and was never repaired: what would show it, its chance as the board stands, and in words. */
  readonly suspected: readonly { readonly of: Proved; readonly odds: number; readonly say: string }[]
  /** A start came to a picture since the board was last touched. */
  readonly cameUp: boolean
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
  lost: {},
  firmware: false,
  parts: false,
  rails: [],
  exchanged: [],
  repaired: [],
  suspected: [],
  cameUp: false,
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

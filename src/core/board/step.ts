import type { Station } from './station'

/** One thing to do next: what, why, and where it is done. */
export interface Step {
  readonly station: Station
  /** The part of the station’s page where it is done. */
  readonly part?: string
  readonly say: string
  readonly why: string
  /** What it takes: minutes, and what is needed from the shelf. */
  readonly takes?: string
  /** What it risks. */
  readonly risks?: string
  /** The fault it says to repair. */
  readonly repairs?: string
  /** The bench test it amounts to. */
  readonly test?: string
  /** The test of the proof that it asks for. */
  readonly proves?: string
  /** What it follows from is still being computed. */
  readonly pending?: true
}

/** What keeps the board from being handed back, and where that is cleared. */
export interface Blocker {
  readonly text: string
  readonly at: { readonly station: Station; readonly part: string }
}

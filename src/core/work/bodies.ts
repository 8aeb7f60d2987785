import type { Station } from '../board/station'

export interface GoingOn {
  readonly minutes: number
  readonly spentMinutes: number
  /** Chance that it is repaired by that, as it was reckoned then; left out on older lines. */
  readonly runs?: number
}

/** Lines of the work as such: the clock, where each station stands, pictures, notes, decisions. */
export interface WorkBodies {
  photo: {
    readonly file: string
    readonly name: string
    readonly type: string
    readonly bytes: number
    readonly caption: string
  }
  note: { readonly text: string }
  decision: {
    readonly text: string
    /** To go on: minutes that would take in the middle, and those used by then. */
    readonly goingOn?: GoingOn
  }
  clock: { readonly run: Station | null }
  station: {
    readonly station: Station
    readonly mark: 'settled' | 'passed over' | 'open'
    readonly why: string
  }
  strike: { readonly why: string }
}

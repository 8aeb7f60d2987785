import type { Station } from '../../board/station'
import type { UsualRail } from '../../board/rail'
import type { HistoryItem } from '../../board/history-item'
import type { SetupMatch } from './setup'
import type { Stage } from './stage'

/** What an inspection can come upon, apart from rails and the cell, which have figures of their own. */
export type Sign =
  | 'outside'
  | 'socket'
  | 'round the chip'
  | 'round the socket'
  | 'marking'
  | 'strip'
  | 'CPU proud'
  | 'slots'
  | 'chip answers wrongly'
  | 'contents differ'
  | 'chip line open'
  | 'front wiring'
  | 'standby current high'
  | 'settings lost'
  | 'cell low'
  | 'cell low under load'
  | 'CPU fails elsewhere'
  | 'module fails elsewhere'
  | 'version too old'
  | 'controller silent'
  | 'controller line open'
  | 'new cell low under load'
  | 'starts by itself'

/**
 * One thing that can be wrong. It blocks the start at its stage with the chance that it shows, unless the setup keeps
 * it quiet; it leaves signs that can be found without a start.
 */
export interface Fault {
  readonly say: string
  /** The station that mends it. */
  readonly at: Station
  readonly stage: Stage
  /** Chance that it blocks a start that gets as far as its stage. */
  readonly shows: number
  /** Odds that a board on this bench has it, before anything is known (bench default). */
  readonly odds: number
  readonly likelier: Readonly<Partial<Record<HistoryItem, number>>>
  /** Setups in which it does not act. */
  readonly quiet: readonly SetupMatch[]
  /** What it does to a rail: at ground, low to ground, or without volts. */
  readonly rail?: { readonly rail: UsualRail | 'other'; readonly is: 'short' | 'low' | 'dead' }
  /** Chance that an inspection comes upon it. */
  readonly signs: Readonly<Partial<Record<Sign, number>>>
}

import type { ShelfItem } from '../../board/shelf-items'
import { secondOf, shelfItems } from '../../board/shelf-items'
import { freeOf } from './stock-item'
import type { AtHandItem } from './stock-item'

/** One thing that tests need, and whether a job may reckon with it. */
export interface AtHand {
  readonly item: ShelfItem
  readonly there: boolean
  /** Somebody said that it is away. */
  readonly saidAway: boolean
  /** What was counted that serves for it; nothing, where nobody counts it. */
  readonly counted: readonly AtHandItem[]
}

/**
 * What of the tests' needs is at hand. What is counted is there while a piece is free, held for this job or for none; what
 * nobody counts is there unless somebody said that it is away.
 * @param tag the job that asks; without one, what is free for any
 */
export const atHandFor = (
  away: readonly ShelfItem[],
  stock: readonly AtHandItem[],
  tag?: string,
): readonly AtHand[] =>
  shelfItems.map((item) => {
    const first = secondOf[item]
    const counted = stock.filter(({ serves }) => serves === (first ?? item))
    const free = counted.reduce((sum, of) => sum + freeOf(of, tag), 0)
    const saidAway = away.includes(item)
    const there = !saidAway && (counted.length === 0 || free >= (first ? 2 : 1))
    return { item, there, saidAway, counted }
  })

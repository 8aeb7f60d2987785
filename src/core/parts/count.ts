import { partPlaces, placeOfPart } from './found'
import type { PartPlace } from './found'
import type { PartsBodies } from './bodies'
import type { PartsState } from './slice'

type Counted = PartsBodies['parts counted']

/** How many parts fewer than there should be; none where that was not known. */
export const shortOf = ({ count, of }: Pick<Counted, 'count' | 'of'>): number =>
  Math.max(0, (of ?? 0) - count)

/** What is loose where a count fell short: nobody knows yet which part it is. */
export const uncounted = (place: PartPlace): string => `missing from the count, ${place}`

export const sayCount = ({ place, count, of }: Counted): string =>
  `${count} small ${count === 1 ? 'part' : 'parts'} counted, ${place}${of === undefined ? '' : of > count ? `, of ${of}: ${of - count} missing` : `, of ${of}`}`

/** The last count of each place. */
export const lastCounts = ({ counts }: Pick<PartsState, 'counts'>): PartsState['counts'] =>
  partPlaces.flatMap((place) => counts.findLast((c) => c.place === place) ?? [])

/**
 * Places whose last count fell short, where no part was found missing and none fitted there since: what is named is
 * evidence by its name.
 */
export const countedShort = (parts: Pick<PartsState, 'counts' | 'noted'>): PartsState['counts'] =>
  lastCounts(parts).filter(
    (c) =>
      shortOf(c) > 0 &&
      !parts.noted.some(
        (p) => p.seq > c.seq && p.place === c.place && (p.did === 'found missing' || p.did === 'fitted'),
      ),
  )

/**
 * How many small parts there should be at a place: those counted last, with what was fitted there since and without what was
 * taken off. Null where nobody has counted.
 */
export function expectedAt(parts: Pick<PartsState, 'counts' | 'noted'>, place: PartPlace): number | null {
  const last = parts.counts.findLast((c) => c.place === place)
  if (!last) return null
  const isThere = (ref: string) => parts.noted.some((p) => p.ref === ref && placeOfPart(p) === place)
  return parts.noted
    .filter((p) => p.seq > last.seq && isThere(p.ref))
    .reduce((n, { did }) => n + (did === 'fitted' ? 1 : did === 'taken off' ? -1 : 0), last.count)
}

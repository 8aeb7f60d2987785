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

/** Whether a part belongs to a place, by any line that says so. */
const belongs = ({ noted }: Pick<PartsState, 'noted'>, ref: string, place: PartPlace): boolean =>
  noted.some((p) => p.ref === ref && placeOfPart(p) === place)

/**
 * Places whose last count beside a number to be there fell short, and where no part was found missing since: what is named is
 * evidence by its name. A count beside none does not make them whole.
 */
export const countedShort = (parts: Pick<PartsState, 'counts' | 'noted'>): PartsState['counts'] =>
  lastCounts({ counts: parts.counts.filter((c) => c.of !== undefined) }).filter(
    (c) =>
      shortOf(c) > 0 &&
      !parts.noted.some((p) => p.seq > c.seq && p.did === 'found missing' && belongs(parts, p.ref, c.place)),
  )

/** Whether a part is on the board after a line of the tape; one nobody has lifted or missed is. */
const isOn = ({ noted }: Pick<PartsState, 'noted'>, ref: string, seq: number): boolean => {
  const last = noted.findLast(
    (p) => p.ref === ref && p.seq <= seq && ['found missing', 'taken off', 'fitted'].includes(p.did),
  )
  return last === undefined || last.did === 'fitted'
}

/**
 * How many small parts there should be at a place: those counted last, or those that should have been there then where it fell
 * short; with what came onto the board there since, and without what went. Null where nobody has counted.
 */
export function expectedAt(parts: Pick<PartsState, 'counts' | 'noted'>, place: PartPlace): number | null {
  const counts = parts.counts.filter((c) => c.place === place)
  const last = counts.findLast((c) => c.of !== undefined) ?? counts.at(-1)
  if (!last) return null
  const refs = [...new Set(parts.noted.filter((p) => p.seq > last.seq).map((p) => p.ref))]
  return refs
    .filter((ref) => belongs(parts, ref, place))
    .reduce(
      (n, ref) => n + Number(isOn(parts, ref, Infinity)) - Number(isOn(parts, ref, last.seq)),
      Math.max(last.count, last.of ?? 0),
    )
}

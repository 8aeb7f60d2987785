import { placeOf } from '../model/generate'

/** How a table lies against its own names: turned by quarter turns anticlockwise, and mirrored left to right before that. */
export interface Orientation {
  readonly quarterTurns: 0 | 1 | 2 | 3
  readonly mirrored: boolean
}

interface Placed {
  readonly name: string
  readonly xMm: number
  readonly yMm: number
}

const correlation = (a: readonly number[], b: readonly number[]): number => {
  const n = a.length
  const [ma, mb] = [a.reduce((s, v) => s + v, 0) / n, b.reduce((s, v) => s + v, 0) / n]
  let [ab, aa, bb] = [0, 0, 0]
  a.forEach((v, i) => {
    ab += (v - ma) * (b[i]! - mb)
    aa += (v - ma) ** 2
    bb += (b[i]! - mb) ** 2
  })
  return aa * bb === 0 ? 0 : ab / Math.sqrt(aa * bb)
}

/** A place turned and mirrored so that it lies as its name says. */
export function putRight<T extends { readonly xMm: number; readonly yMm: number; readonly beamDeg?: number }>(
  point: T,
  { quarterTurns, mirrored }: Orientation,
): T {
  let [x, y] = [mirrored ? -point.xMm : point.xMm, point.yMm]
  for (let i = 0; i < quarterTurns; i++) [x, y] = [-y, x]
  const beam =
    point.beamDeg === undefined
      ? undefined
      : ((((mirrored ? 180 - point.beamDeg : point.beamDeg) + 90 * quarterTurns) % 360) + 360) % 360
  return { ...point, xMm: x + 0, yMm: y + 0, ...(beam === undefined ? {} : { beamDeg: beam }) }
}

/**
 * What it takes to make rows run from the far side and columns from the left, as names say: of the eight ways to turn
 * and mirror, the one under which row letters and column figures follow the places best. Null where names do not tell
 * (too few, one row, or no way is plainly better).
 */
export function orientationOf(contacts: readonly Placed[]): Orientation | null {
  const named = contacts.flatMap((c) => {
    const place = placeOf(c.name)
    return place ? [{ ...place, xMm: c.xMm, yMm: c.yMm }] : []
  })
  if (named.length < 4 || named.length < 0.9 * contacts.length) return null
  const rows = named.map((c) => c.row)
  const columns = named.map((c) => c.column)
  let best: Orientation | null = null
  let most = 1.6
  for (const mirrored of [false, true])
    for (const quarterTurns of [0, 1, 2, 3] as const) {
      const placed = named.map((c) => putRight(c, { quarterTurns, mirrored }))
      const fits =
        correlation(
          columns,
          placed.map((p) => p.xMm),
        ) +
        correlation(
          rows,
          placed.map((p) => -p.yMm),
        )
      if (fits > most + 1e-9) {
        most = fits
        best = { quarterTurns, mirrored }
      }
    }
  return best
}

/** In words what is odd about a table that lies like that; null when nothing is. */
export function sayOrientation(o: Orientation | null): string | null {
  if (!o || (o.quarterTurns === 0 && !o.mirrored)) return null
  const turned = o.quarterTurns === 0 ? '' : `turned by ${o.quarterTurns * 90}°`
  if (!o.mirrored) return turned
  return `mirrored, as seen on the underside of the CPU${turned ? `, and ${turned}` : ''}`
}

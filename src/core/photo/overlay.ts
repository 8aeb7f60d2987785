import { sample, shrink } from './grey-image'
import type { GreyImage, Plane } from './grey-image'
import { alikeIn, keypointsOf } from './keypoints'
import { fromPairs, project, refine } from './projection'
import type { Pair, Point, Projection } from './projection'
import { Matrix, solve } from 'ml-matrix'

/** How one photo lies over another of the same plane: a homography, a lens term, and what is left of it, bent smoothly. */
export interface Overlay {
  readonly projection: Projection
  /** Ten terms of the third order each, for what is left to the right and down, px. */
  readonly bend: readonly [Float64Array, Float64Array]
  /** Half the size of the photo, px: what the bend’s terms are in units of. */
  readonly half: Point
}

/** A picture in working size: a pixel of it is `factor` pixels of the photo each way. */
export interface Worked {
  readonly plane: Plane
  readonly factor: number
}
export const worked = (image: GreyImage, factor: number): Worked => ({
  plane: shrink(image, factor),
  factor,
})
/** A place of a photo, in the picture of working size. */
export const onWorked = ({ factor }: { readonly factor: number }, [x, y]: Point): Point => [
  (x + 0.5) / factor - 0.5,
  (y + 0.5) / factor - 0.5,
]

const terms = (x: number, y: number) =>
  [1, x, y, x * x, x * y, y * y, x * x * x, x * x * y, x * y * y, y * y * y] as const

/** Where a place of the photo lies on the other one, px. */
export function lay({ projection, bend, half }: Overlay, x: number, y: number): Point {
  const at = project(projection, x - half[0], y - half[1])
  const [u, v] = [(x - half[0]) / half[0], (y - half[1]) / half[0]]
  let [dx, dy] = [0, 0]
  const by = terms(u, v)
  for (let k = 0; k < 10; k++) {
    dx += bend[0][k]! * by[k]!
    dy += bend[1][k]! * by[k]!
  }
  return [at[0] + dx, at[1] + dy]
}

/**
 * Longest side of the pictures in which they are looked for in one another, px, and by how many keypoints: quickly first, which
 * is enough where they show much of the same; photos that share a fifth only are found in the finer ones.
 */
const COARSE = [
  { longestPx: 560, keypoints: 600 },
  { longestPx: 950, keypoints: 950 },
] as const
/** Least keypoints that have to agree on how one photo lies over the other. */
const LEAST_AGREEING = 18

/**
 * Lays a photo over another by what is seen in both, whatever their scale and turn: each pair of keypoints that look alike
 * says where, how large and how turned it lies; the one that most others agree with is refined over them.
 * @returns null where they do not agree on any
 */
export function findOverlay(photo: GreyImage, other: GreyImage): Overlay | null {
  for (const coarse of COARSE) {
    const found = overlayIn(photo, other, coarse)
    if (found) return found
  }
  return null
}

function overlayIn(
  photo: GreyImage,
  other: GreyImage,
  { longestPx, keypoints }: (typeof COARSE)[number],
): Overlay | null {
  const coarse = (image: GreyImage) =>
    worked(image, Math.max(1, Math.round(Math.max(image.widthPx, image.heightPx) / longestPx)))
  const [from, to] = [coarse(photo), coarse(other)]
  const [a, b] = [keypointsOf(from.plane, keypoints), keypointsOf(to.plane, keypoints)]
  const half: Point = [photo.widthPx / 2, photo.heightPx / 2]
  const alike = alikeIn(a, b).map(([i, j]) => ({
    from: [(a.x[i]! + 0.5) * from.factor - 0.5, (a.y[i]! + 0.5) * from.factor - 0.5] as Point,
    to: [(b.x[j]! + 0.5) * to.factor - 0.5, (b.y[j]! + 0.5) * to.factor - 0.5] as Point,
    grows: (b.sizePx[j]! * to.factor) / (a.sizePx[i]! * from.factor),
    turn: b.angle[j]! - a.angle[i]!,
  }))
  const size = Math.max(other.widthPx, other.heightPx)
  let agreeing: typeof alike = []
  for (const { from: p, to: q, grows, turn } of alike) {
    const [c, s] = [grows * Math.cos(turn), grows * Math.sin(turn)]
    // What one pair says of the turn is rough, and tells the more wrongly the farther off.
    const agree = alike.filter(({ from: r, to: t }) => {
      const [dx, dy] = [r[0] - p[0], r[1] - p[1]]
      const off = Math.hypot(q[0] + c * dx - s * dy - t[0], q[1] + s * dx + c * dy - t[1])
      return off < 0.006 * size + 0.12 * grows * Math.hypot(dx, dy)
    })
    if (agree.length > agreeing.length) agreeing = agree
  }
  if (agreeing.length < LEAST_AGREEING) return null
  const pairsOf = (some: typeof alike): Pair[] =>
    some.map(({ from: [x, y], to: px }) => ({ mm: [x - half[0], y - half[1]], px }))
  let projection = refine(
    fromPairs(pairsOf(agreeing), other.widthPx, other.heightPx),
    pairsOf(agreeing),
    false,
  )
  for (const within of [0.02, 0.01, 0.006]) {
    const fit = alike.filter(({ from: [x, y], to }) => {
      const at = project(projection, x - half[0], y - half[1])
      return Math.hypot(at[0] - to[0], at[1] - to[1]) < within * size
    })
    if (fit.length < LEAST_AGREEING) return null
    projection = refine(projection, pairsOf(fit), false)
  }
  return { projection, bend: [new Float64Array(10), new Float64Array(10)], half }
}

/** Side of a tile that is looked for in the other photo, working px. */
const TILE_PX = 33
/** Least contrast of a tile (levels) and likeness of what is found. */
const LEAST_CONTRAST = 5
const LEAST_LIKE = 0.6

/**
 * Refines an overlay on tiles that are looked for nearby; what stands up from the plane does not fit and is weighed down.
 * @param reach how far they are looked for, and from one to the next, working px
 * @returns the overlay and how well the plane fits, px of the photo: the middle of what tiles are off
 */
export function refineOverlay(
  start: Overlay,
  photo: Worked,
  other: Worked,
  { reach, step }: { readonly reach: number; readonly step: number },
): { readonly overlay: Overlay; readonly spreadPx: number; readonly tiles: number } {
  const pairs: { at: Point; px: Point }[] = []
  const { widthPx: w, heightPx: h } = photo.plane
  const r = TILE_PX >> 1
  for (let cy = r + 2; cy < h - r - 2; cy += step)
    for (let cx = r + 2; cx < w - r - 2; cx += step) {
      const found = tileIn(start, photo, other, cx, cy, reach)
      if (found) pairs.push(found)
    }
  if (pairs.length < 12) return { overlay: start, spreadPx: Infinity, tiles: pairs.length }
  const { half } = start
  const projection = refine(
    start.projection,
    pairs.map(({ at: [x, y], px }) => ({ mm: [x - half[0], y - half[1]], px })),
  )
  const flat: Overlay = { projection, half, bend: [new Float64Array(10), new Float64Array(10)] }
  const bend = bent(flat, pairs)
  const overlay = { ...flat, bend }
  const off = pairs
    .map(({ at, px }) => {
      const to = lay(overlay, at[0], at[1])
      return Math.hypot(to[0] - px[0], to[1] - px[1])
    })
    .sort((a, b) => a - b)
  return { overlay, spreadPx: off[off.length >> 1]!, tiles: pairs.length }
}

/** Where a tile of the photo is seen in the other one; null where it has nothing on it, or is not found. */
function tileIn(
  overlay: Overlay,
  photo: Worked,
  other: Worked,
  cx: number,
  cy: number,
  reach: number,
): { readonly at: Point; readonly px: Point } | null {
  const r = TILE_PX >> 1
  const { widthPx: w, values } = photo.plane
  const n = TILE_PX * TILE_PX
  const tile = new Float64Array(n)
  for (let y = -r, k = 0; y <= r; y++)
    for (let x = -r; x <= r; x++) tile[k++] = values[(cy + y) * w + cx + x]!
  if (standardise(tile) < LEAST_CONTRAST) return null
  const full = (x: number, y: number): Point => [
    (x + 0.5) * photo.factor - 0.5,
    (y + 0.5) * photo.factor - 0.5,
  ]
  const place = (x: number, y: number): Point => onWorked(other, lay(overlay, ...full(x, y)))
  const [mid, right, down] = [place(cx, cy), place(cx + r, cy), place(cx, cy + r)]
  const ex: Point = [(right[0] - mid[0]) / r, (right[1] - mid[1]) / r]
  const ey: Point = [(down[0] - mid[0]) / r, (down[1] - mid[1]) / r]
  const wide = TILE_PX + 2 * reach
  const field = new Float64Array(wide * wide)
  for (let y = 0; y < wide; y++)
    for (let x = 0; x < wide; x++) {
      const [u, v] = [x - r - reach, y - r - reach]
      field[y * wide + x] = sample(
        other.plane,
        mid[0] + u * ex[0] + v * ey[0],
        mid[1] + u * ex[1] + v * ey[1],
      )
    }
  const side = 2 * reach + 1
  const like = new Float64Array(side * side)
  let best = 0
  for (let sy = 0; sy < side; sy++)
    for (let sx = 0; sx < side; sx++) {
      let [sum, square, both] = [0, 0, 0]
      for (let y = 0, k = 0; y < TILE_PX; y++) {
        const row = (y + sy) * wide + sx
        for (let x = 0; x < TILE_PX; x++) {
          const v = field[row + x]!
          sum += v
          square += v * v
          both += v * tile[k++]!
        }
      }
      const at = sy * side + sx
      like[at] = both / Math.sqrt(Math.max(1e-9, square - (sum * sum) / n)) / Math.sqrt(n)
      if (like[at]! > like[best]!) best = at
    }
  const [bx, by] = [best % side, Math.floor(best / side)]
  if (like[best]! < LEAST_LIKE || bx === 0 || by === 0 || bx === side - 1 || by === side - 1) return null
  const between = (before: number, after: number) =>
    (before - after) / (2 * (before - 2 * like[best]! + after) || 1)
  const u = bx - reach + between(like[best - 1]!, like[best + 1]!)
  const v = by - reach + between(like[best - side]!, like[best + side]!)
  const [px, py] = [mid[0] + u * ex[0] + v * ey[0], mid[1] + u * ex[1] + v * ey[1]]
  return {
    at: full(cx, cy),
    px: [(px + 0.5) * other.factor - 0.5, (py + 0.5) * other.factor - 0.5],
  }
}

/** Takes the mean off and makes the spread 1; the spread it had. */
function standardise(values: Float64Array): number {
  const mean = values.reduce((a, b) => a + b, 0) / values.length
  const spread = Math.sqrt(values.reduce((sum, v) => sum + (v - mean) ** 2, 0) / values.length)
  for (let i = 0; i < values.length; i++) values[i] = (values[i]! - mean) / (spread || 1)
  return spread
}

/** What is left between a plane and where tiles are seen, as smooth terms; tiles that stand up are weighed down. */
function bent(flat: Overlay, pairs: readonly { at: Point; px: Point }[]): Overlay['bend'] {
  const { half } = flat
  const rows = pairs.map(({ at: [x, y] }) => terms((x - half[0]) / half[0], (y - half[1]) / half[0]))
  const left = pairs.map(({ at, px }) => {
    const to = lay(flat, at[0], at[1])
    return [px[0] - to[0], px[1] - to[1]] as const
  })
  const size = pairs.length >= 60 ? 10 : pairs.length >= 30 ? 6 : 3
  let bend: [Float64Array, Float64Array] = [new Float64Array(10), new Float64Array(10)]
  for (let round = 0; round < 6; round++) {
    const off = left.map(([dx, dy], i) => {
      const say = (axis: 0 | 1) => rows[i]!.reduce((sum, t, k) => sum + t * bend[axis][k]!, 0)
      return Math.hypot(dx - say(0), dy - say(1))
    })
    const spread = Math.max(0.15, [...off].sort((a, b) => a - b)[off.length >> 1]!)
    const weights = off.map((d) => 1 / (1 + (d / (1.5 * spread)) ** 2) ** 2)
    const normal = Matrix.zeros(size, size)
    const right = Matrix.zeros(size, 2)
    rows.forEach((row, i) => {
      for (let j = 0; j < size; j++) {
        for (let k = 0; k < size; k++) normal.set(j, k, normal.get(j, k) + weights[i]! * row[j]! * row[k]!)
        for (const axis of [0, 1] as const)
          right.set(j, axis, right.get(j, axis) + weights[i]! * row[j]! * left[i]![axis])
      }
    })
    for (let j = 0; j < size; j++) normal.set(j, j, normal.get(j, j) + 1e-3)
    const found = solve(normal, right)
    const column = (axis: number) =>
      Float64Array.from({ length: 10 }, (_, k) => (k < size ? found.get(k, axis) : 0))
    bend = [column(0), column(1)]
  }
  return bend
}

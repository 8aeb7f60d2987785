import { blur, sample } from './grey-image'
import type { Plane } from './grey-image'

/** Places of a picture that can be found again in another, each with what is seen round it. */
export interface Keypoints {
  /** px of the picture they were found in. */
  readonly x: Float32Array
  readonly y: Float32Array
  readonly sizePx: Float32Array
  readonly angle: Float32Array
  /** 128 numbers each, of length 1. */
  readonly looks: Float32Array
}

const LOOKS = 128
const PER_OCTAVE = 3
const SIGMA = 1.6
/** Least contrast of a spot, of 255. */
const LEAST_CONTRAST = 2.4
/** Spots along an edge are not kept: largest ratio of the two bends. */
const EDGE = 10

function minus(a: Plane, b: Plane): Plane {
  const values = new Float32Array(a.values.length)
  for (let i = 0; i < values.length; i++) values[i] = a.values[i]! - b.values[i]!
  return { ...a, values }
}

function halved({ widthPx: w, heightPx: h, values }: Plane): Plane {
  const widthPx = w >> 1
  const heightPx = h >> 1
  const to = new Float32Array(widthPx * heightPx)
  for (let y = 0; y < heightPx; y++)
    for (let x = 0; x < widthPx; x++) to[y * widthPx + x] = values[2 * y * w + 2 * x]!
  return { widthPx, heightPx, values: to }
}

interface Spot {
  readonly x: number
  readonly y: number
  readonly strength: number
  readonly octave: number
  readonly level: number
}

/** Whether a place stands out from its 26 neighbours in place and size. */
function standsOut(levels: readonly Plane[], s: number, at: number, w: number): boolean {
  const v = levels[s]!.values[at]!
  for (let ds = -1; ds <= 1; ds++) {
    const { values } = levels[s + ds]!
    for (let dy = -w; dy <= w; dy += w)
      for (let dx = -1; dx <= 1; dx++) {
        if (ds === 0 && dy === 0 && dx === 0) continue
        const other = values[at + dy + dx]!
        if (v > 0 ? other >= v : other <= v) return false
      }
  }
  return true
}

/** Bends of a spot both ways: none along an edge. */
function isSpot(d: Float32Array, at: number, w: number): boolean {
  const xx = d[at + 1]! + d[at - 1]! - 2 * d[at]!
  const yy = d[at + w]! + d[at - w]! - 2 * d[at]!
  const xy = (d[at + w + 1]! - d[at + w - 1]! - d[at - w + 1]! + d[at - w - 1]!) / 4
  const det = xx * yy - xy * xy
  return det > 0 && (xx + yy) ** 2 / det < (EDGE + 1) ** 2 / EDGE
}

/**
 * Scale-invariant keypoints: extremes of differences of Gaussians over place and size, turned the way the grey rises round
 * them, each with a histogram of the ways it rises in 4 × 4 fields.
 * Source: Lowe (2004), Distinctive image features from scale-invariant keypoints; without sub-pixel refinement, which the
 * fit over all of them does not need.
 * @param most how many are kept, spread over the picture
 */
export function keypointsOf(picture: Plane, most: number): Keypoints {
  const spots: Spot[] = []
  const octaves: Plane[][] = []
  let base = blur(picture, Math.sqrt(SIGMA * SIGMA - 0.25))
  for (let octave = 0; octave < 4 && Math.min(base.widthPx, base.heightPx) >= 40; octave++) {
    const blurred = [base]
    for (let k = 1; k < PER_OCTAVE + 3; k++) {
      const [before, now] = [SIGMA * 2 ** ((k - 1) / PER_OCTAVE), SIGMA * 2 ** (k / PER_OCTAVE)]
      blurred.push(blur(blurred[k - 1]!, Math.sqrt(now * now - before * before)))
    }
    const levels = blurred.slice(1).map((b, k) => minus(b, blurred[k]!))
    const { widthPx: w, heightPx: h } = base
    for (let s = 1; s <= PER_OCTAVE; s++) {
      const d = levels[s]!.values
      for (let y = 8; y < h - 8; y++)
        for (let x = 8; x < w - 8; x++) {
          const at = y * w + x
          if (Math.abs(d[at]!) < LEAST_CONTRAST || !standsOut(levels, s, at, w) || !isSpot(d, at, w)) continue
          spots.push({ x, y, strength: Math.abs(d[at]!), octave, level: s })
        }
    }
    octaves.push(blurred)
    base = halved(blurred[PER_OCTAVE]!)
  }
  const kept = spreadOver(spots, picture, most)
  const turned = kept.flatMap((spot) => {
    const plane = octaves[spot.octave]![spot.level]!
    const sigma = SIGMA * 2 ** (spot.level / PER_OCTAVE)
    return waysUp(plane, spot, sigma).map((angle) => ({ spot, plane, sigma, angle }))
  })
  const looks = new Float32Array(turned.length * LOOKS)
  turned.forEach(({ spot, plane, sigma, angle }, i) =>
    look(plane, spot, sigma, angle, looks.subarray(i * LOOKS, (i + 1) * LOOKS)),
  )
  const of = (value: (t: (typeof turned)[number]) => number) => Float32Array.from(turned, value)
  return {
    x: of(({ spot }) => spot.x * 2 ** spot.octave),
    y: of(({ spot }) => spot.y * 2 ** spot.octave),
    sizePx: of(({ spot, sigma }) => sigma * 2 ** spot.octave),
    angle: of((t) => t.angle),
    looks,
  }
}

/** The strongest of each of some hundred fields, round and round, until there are enough. */
function spreadOver(spots: readonly Spot[], { widthPx, heightPx }: Plane, most: number): readonly Spot[] {
  const FIELDS = 12
  const fields = new Map<number, Spot[]>()
  for (const spot of [...spots].sort((a, b) => b.strength - a.strength)) {
    const column = Math.floor((spot.x * 2 ** spot.octave * FIELDS) / widthPx)
    const row = Math.floor((spot.y * 2 ** spot.octave * FIELDS) / heightPx)
    const field = fields.get(row * FIELDS + column) ?? []
    field.push(spot)
    fields.set(row * FIELDS + column, field)
  }
  const kept: Spot[] = []
  for (let round = 0; kept.length < most; round++) {
    const left = [...fields.values()].flatMap((f) => f.slice(round, round + 1))
    if (left.length === 0) break
    kept.push(...left)
  }
  return kept.slice(0, most)
}

const BINS = 36
/** The ways the grey rises most round a spot, radians; a second one where it is nearly as strong. */
function waysUp(plane: Plane, { x, y }: Spot, sigma: number): readonly number[] {
  const { widthPx: w, heightPx: h, values } = plane
  const by = new Float64Array(BINS)
  const wide = 1.5 * sigma
  const reach = Math.round(3 * wide)
  for (let dy = -reach; dy <= reach; dy++)
    for (let dx = -reach; dx <= reach; dx++) {
      const [cx, cy] = [x + dx, y + dy]
      if (cx < 1 || cy < 1 || cx >= w - 1 || cy >= h - 1) continue
      const at = cy * w + cx
      const [gx, gy] = [values[at + 1]! - values[at - 1]!, values[at + w]! - values[at - w]!]
      const weight = Math.exp(-(dx * dx + dy * dy) / (2 * wide * wide)) * Math.hypot(gx, gy)
      const bin = Math.floor((Math.atan2(gy, gx) / (2 * Math.PI) + 1) * BINS) % BINS
      by[bin]! += weight
    }
  const smooth = by.map((v, i) => (by[(i + BINS - 1) % BINS]! + 2 * v + by[(i + 1) % BINS]!) / 4)
  const top = Math.max(...smooth)
  const ways: number[] = []
  for (let i = 0; i < BINS; i++) {
    const [a, b, c] = [smooth[(i + BINS - 1) % BINS]!, smooth[i]!, smooth[(i + 1) % BINS]!]
    if (b < 0.8 * top || b <= a || b < c) continue
    const off = (a - c) / (2 * (a - 2 * b + c))
    ways.push(((i + 0.5 + off) * 2 * Math.PI) / BINS)
  }
  return ways.slice(0, 2)
}

/** What is seen round a spot, turned its own way: into 128 numbers of length 1. */
function look(plane: Plane, { x, y }: Spot, sigma: number, angle: number, to: Float32Array): void {
  const [c, s] = [Math.cos(angle), Math.sin(angle)]
  const field = 3 * sigma
  const SAMPLES = 16
  const step = (4 * field) / SAMPLES
  for (let j = 0; j < SAMPLES; j++)
    for (let i = 0; i < SAMPLES; i++) {
      const [u, v] = [(i - SAMPLES / 2 + 0.5) * step, (j - SAMPLES / 2 + 0.5) * step]
      const [px, py] = [x + c * u - s * v, y + s * u + c * v]
      const e = step / 2
      const along = sample(plane, px + c * e, py + s * e) - sample(plane, px - c * e, py - s * e)
      const across = sample(plane, px - s * e, py + c * e) - sample(plane, px + s * e, py - c * e)
      const weight = Math.exp(-(u * u + v * v) / (2 * (2 * field) ** 2)) * Math.hypot(along, across)
      const way = ((Math.atan2(across, along) / (2 * Math.PI) + 1) * 8) % 8
      const [fi, fj] = [(i + 0.5) / 4 - 0.5, (j + 0.5) / 4 - 0.5]
      const [i0, j0, k0] = [Math.floor(fi), Math.floor(fj), Math.floor(way)]
      for (let b = 0; b < 8; b++) {
        const [di, dj, dk] = [b & 1, (b >> 1) & 1, b >> 2]
        const [ci, cj] = [i0 + di, j0 + dj]
        if (ci < 0 || cj < 0 || ci > 3 || cj > 3) continue
        const share =
          (di ? fi - i0 : 1 - fi + i0) * (dj ? fj - j0 : 1 - fj + j0) * (dk ? way - k0 : 1 - way + k0)
        to[(cj * 4 + ci) * 8 + ((k0 + dk) % 8)]! += weight * share
      }
    }
  // Nothing counts for more than a fifth, so that one glint does not make the look.
  for (const cap of [0.2, 1]) {
    const length = Math.sqrt(to.reduce((sum, v) => sum + v * v, 0)) || 1
    for (let k = 0; k < LOOKS; k++) to[k] = Math.min(cap, to[k]! / length)
  }
}

/** Keypoints of two pictures that look alike, the best of the second for each of the first, and the other way round. */
export function alikeIn(a: Keypoints, b: Keypoints): readonly (readonly [inA: number, inB: number])[] {
  const [n, m] = [a.x.length, b.x.length]
  const best = new Int32Array(n).fill(-1)
  const back = new Int32Array(m).fill(-1)
  const bestOf = new Float32Array(m).fill(-1)
  for (let i = 0; i < n; i++) {
    let [first, second] = [-1, -1]
    let at = -1
    for (let j = 0; j < m; j++) {
      // Four sums at once: one alone would wait for itself.
      let [like0, like1, like2, like3] = [0, 0, 0, 0]
      for (let p = i * LOOKS, q = j * LOOKS, end = p + LOOKS; p < end; p += 4, q += 4) {
        like0 += a.looks[p]! * b.looks[q]!
        like1 += a.looks[p + 1]! * b.looks[q + 1]!
        like2 += a.looks[p + 2]! * b.looks[q + 2]!
        like3 += a.looks[p + 3]! * b.looks[q + 3]!
      }
      const like = like0 + like1 + like2 + like3
      if (like > bestOf[j]!) {
        bestOf[j] = like
        back[j] = i
      }
      if (like > first) [second, first, at] = [first, like, j]
      else if (like > second) second = like
    }
    // Distances of looks of length 1: what is as like another place of the picture tells nothing.
    if (at >= 0 && 1 - first < 0.7 * (1 - second)) best[i] = at
  }
  return [...best.entries()].filter(([i, j]) => j >= 0 && back[j] === i)
}

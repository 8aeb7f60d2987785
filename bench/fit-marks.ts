// Fits what the comparison of two photos takes for a part: pairs drawn by their own seeds and settings, none of the bench’s.
import { Matrix, solve } from 'ml-matrix'
import { differingPlaces, laidAlike } from '@/core/parts/compare/compare'
import { signsOf } from '@/core/parts/compare/odds'
import { runToEnd } from '@/core/run-to-end'
import { drawnPair, isBlack, sceneOf } from './drawn-pair'
import type { PairSettings } from './drawn-pair'

const settings: PairSettings = {
  sizeMm: [90, 68],
  sizePx: [2000, 1500],
  gone: 14,
  beside: 4,
  farMm: [0.5, 1.2],
  askewDeg: [-60, 60],
  placedMm: [0.03, 0.06],
  turnDeg: [-25, 25],
  pxPerMm: [20, 25],
  offMm: [-5, 5],
  tiltDeg: [0, 8.5],
  lens: [-0.014, 0.014],
  blurPx: [0.7, 1.6],
  noise: [0.01, 0.042],
  gradient: [0, 0.27],
  glare: [0, 4],
  glareStrength: [0.1, 0.5],
}
const FACTOR = 2

interface Seen {
  readonly signs: readonly number[]
  readonly isPart: number
}

/** Clusters of one pair, and which of them are parts. */
function clustersOfPair(seed: number): readonly Seen[] {
  const { gone, beside, photo, good, pxPerMm } = drawnPair(
    seed * 7919 + 13,
    sceneOf(seed, settings),
    2 * seed + 50_000,
    settings,
  )
  const laid = runToEnd(laidAlike(photo.image, good.image, FACTOR))
  if ('wrong' in laid) return []
  const parts = photo.places
    .filter(({ ref }) => gone.has(ref) || beside.has(ref))
    .map(({ px }) => px.map((v) => (v + 0.5) / FACTOR - 0.5))
  return runToEnd(differingPlaces(laid.photo, laid.other, pxPerMm / FACTOR)).map((t) => {
    const { x0, x1, y0, y1 } = t.cluster
    const isPart = parts.some(
      ([x, y]) =>
        Math.abs((x0 + x1) / 2 - x!) < (x1 - x0 + 19) / 2 &&
        Math.abs((y0 + y1) / 2 - y!) < (y1 - y0 + 19) / 2,
    )
    return { signs: Object.values(signsOf(t)), isPart: isPart ? 1 : 0 }
  })
}

/** Logistic regression by Newton’s method, with a little weight on none. */
function fit(seen: readonly Seen[], ridge = 0.3): readonly number[] {
  const k = seen[0]!.signs.length
  let weights = Array<number>(k).fill(0)
  for (let round = 0; round < 30; round++) {
    const bend = Matrix.eye(k, k, ridge)
    const slope = Matrix.columnVector(weights.map((w) => -ridge * w))
    for (const { signs, isPart } of seen) {
      const p = 1 / (1 + Math.exp(-signs.reduce((sum, s, j) => sum + s * weights[j]!, 0)))
      signs.forEach((s, j) => {
        slope.set(j, 0, slope.get(j, 0) + (isPart - p) * s)
        for (let l = 0; l < k; l++) bend.set(j, l, bend.get(j, l) + p * (1 - p) * s * signs[l]!)
      })
    }
    const step = solve(bend, slope).to1DArray()
    weights = weights.map((w, j) => w + step[j]!)
    if (Math.max(...step.map(Math.abs)) < 1e-6) break
  }
  return weights
}

// Of black boards, on which least is seen, some more.
const seeds = Array.from({ length: 150 }, (_, i) => 700 + i).filter(
  (seed) => seed < 760 || isBlack(sceneOf(seed, settings)),
)
const seen = seeds.flatMap(clustersOfPair)
const weights = fit(seen)
process.stdout.write(
  `${seen.length} clusters, ${seen.reduce((n, s) => n + s.isPart, 0) / seeds.length} of each pair are parts\n` +
    Object.keys(signsOf({ cluster: { beyond: 1 } } as never))
      .map((sign, j) => `${sign}: ${weights[j]!.toFixed(3)}\n`)
      .join(''),
)

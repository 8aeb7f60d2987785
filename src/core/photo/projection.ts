import { median } from '../maths/median'
import { Matrix, SVD, solve } from 'ml-matrix'

export type Point = readonly [x: number, y: number]

/** A place on the field, mm, and where it is in the photo, px. */
export interface Pair {
  readonly mm: Point
  readonly px: Point
}

/**
 * How the field lies in a photo: a homography and one radial lens term about the middle of the picture.
 * q = H·(x, y, 1) in units of half the picture's diagonal from its middle, then q·(1 + k1·|q|²).
 */
export interface Projection {
  /** Row by row, the last entry 1; from mm to half diagonals. */
  readonly h: Float64Array
  readonly k1: number
  readonly middle: Point
  readonly halfDiagonalPx: number
}

const halfDiagonal = (widthPx: number, heightPx: number) => Math.hypot(widthPx, heightPx) / 2

/** Where a place of the field is in the photo, px. */
export function project(p: Projection, xMm: number, yMm: number): Point {
  const { h } = p
  const w = h[6]! * xMm + h[7]! * yMm + 1
  const u = (h[0]! * xMm + h[1]! * yMm + h[2]!) / w
  const v = (h[3]! * xMm + h[4]! * yMm + h[5]!) / w
  const lens = 1 + p.k1 * (u * u + v * v)
  return [p.middle[0] + u * lens * p.halfDiagonalPx, p.middle[1] + v * lens * p.halfDiagonalPx]
}

/** A place in half diagonals from the middle, as it would be seen without the lens term; by fixed-point iteration. */
export function withoutLens(k1: number, u0: number, v0: number): Point {
  let [u, v] = [u0, v0]
  for (let i = 0; i < 12; i++) {
    const lens = 1 + k1 * (u * u + v * v)
    ;[u, v] = [u0 / lens, v0 / lens]
  }
  return [u, v]
}

/** The place of the field seen at a pixel, mm: the lens undone, then the inverse homography. */
export function unproject(p: Projection, xPx: number, yPx: number): Point {
  const u0 = (xPx - p.middle[0]) / p.halfDiagonalPx
  const v0 = (yPx - p.middle[1]) / p.halfDiagonalPx
  const [u, v] = withoutLens(p.k1, u0, v0)
  const { h } = p
  // (u·w = h0 x + h1 y + h2, v·w = h3 x + h4 y + h5, w = h6 x + h7 y + 1) is two linear equations in x and y.
  const a = h[0]! - u * h[6]!
  const b = h[1]! - u * h[7]!
  const c = h[3]! - v * h[6]!
  const d = h[4]! - v * h[7]!
  const e = u - h[2]!
  const f = v - h[5]!
  const det = a * d - b * c
  return [(e * d - b * f) / det, (a * f - e * c) / det]
}

/** Pixels per mm at a place of the field, geometric mean over directions. */
export function scaleAt(p: Projection, xMm: number, yMm: number): number {
  const at = project(p, xMm, yMm)
  const right = project(p, xMm + 0.1, yMm)
  const away = project(p, xMm, yMm + 0.1)
  const det = (right[0] - at[0]) * (away[1] - at[1]) - (right[1] - at[1]) * (away[0] - at[0])
  return Math.sqrt(Math.abs(det)) / 0.1
}

/** Shift and scale that bring points to mean 0 and mean distance √2. */
function normaliser(points: readonly Point[]): {
  readonly x: number
  readonly y: number
  readonly s: number
} {
  const x = points.reduce((a, q) => a + q[0], 0) / points.length
  const y = points.reduce((a, q) => a + q[1], 0) / points.length
  const far = points.reduce((a, q) => a + Math.hypot(q[0] - x, q[1] - y), 0) / points.length
  return { x, y, s: Math.SQRT2 / Math.max(far, 1e-12) }
}

/**
 * Homography through four or more pairs by the normalised direct linear transform, without a lens term.
 * Source: Hartley (1997); Hartley & Zisserman, Multiple View Geometry (2004), algorithm 4.2.
 * @throws RangeError for fewer than four pairs
 */
export function fromPairs(pairs: readonly Pair[], widthPx: number, heightPx: number): Projection {
  if (pairs.length < 4) throw new RangeError(`four pairs at least, got ${pairs.length}`)
  const middle: Point = [widthPx / 2, heightPx / 2]
  const halfDiagonalPx = halfDiagonal(widthPx, heightPx)
  const seen = pairs.map(({ px }): Point => [
    (px[0] - middle[0]) / halfDiagonalPx,
    (px[1] - middle[1]) / halfDiagonalPx,
  ])
  const a = normaliser(pairs.map((p) => p.mm))
  const b = normaliser(seen)
  const rows: number[][] = []
  pairs.forEach(({ mm }, i) => {
    const x = (mm[0] - a.x) * a.s
    const y = (mm[1] - a.y) * a.s
    const u = (seen[i]![0] - b.x) * b.s
    const v = (seen[i]![1] - b.y) * b.s
    rows.push([-x, -y, -1, 0, 0, 0, u * x, u * y, u], [0, 0, 0, -x, -y, -1, v * x, v * y, v])
  })
  while (rows.length < 9) rows.push(Array<number>(9).fill(0))
  const vectors = new SVD(new Matrix(rows)).rightSingularVectors
  const unit = new Matrix([0, 3, 6].map((r) => [0, 1, 2].map((c) => vectors.get(r + c, 8))))
  const into = new Matrix([
    [a.s, 0, -a.s * a.x],
    [0, a.s, -a.s * a.y],
    [0, 0, 1],
  ])
  const back = new Matrix([
    [1 / b.s, 0, b.x],
    [0, 1 / b.s, b.y],
    [0, 0, 1],
  ])
  const whole = back.mmul(unit).mmul(into)
  const h = Float64Array.from(whole.to1DArray(), (value) => value / whole.get(2, 2))
  return { h, k1: 0, middle, halfDiagonalPx }
}

/** Tukey's biweight: 1 in the middle, 0 from 4.7 spreads on. */
export const biweight = (distance: number, spread: number): number => {
  const u = distance / (4.685 * spread)
  return u >= 1 ? 0 : (1 - u * u) ** 2
}

/**
 * Refines homography and lens term on many pairs by Levenberg and Marquardt's method, pairs that do not fit being
 * weighed down (biweight on the spread of the residuals), so that displaced tips do not pull the field with them.
 * Source: Levenberg (1944), Marquardt (1963); weights after Beaton & Tukey (1974).
 * @param fitLens false keeps k1 as it is (few or badly spread pairs)
 */
export function refine(start: Projection, pairs: readonly Pair[], fitLens = true, rounds = 12): Projection {
  const parameters = fitLens ? 9 : 8
  const { middle, halfDiagonalPx } = start
  const of = (q: Float64Array): Projection => ({
    h: Float64Array.from([...q.subarray(0, 8), 1]),
    k1: q[8]!,
    middle,
    halfDiagonalPx,
  })
  // Millimetres are taken in units of the field's size, so that all nine parameters are of one order.
  const sizeMm = Math.max(1e-6, ...pairs.map(({ mm }) => Math.max(Math.abs(mm[0]), Math.abs(mm[1]))))
  const unit = [1, 1, sizeMm, 1, 1, sizeMm, 1, 1].map((u) => u / sizeMm)
  let q = Float64Array.from([...start.h.subarray(0, 8), start.k1])
  const n = pairs.length
  const off = new Float64Array(n)
  const residuals = (of: Float64Array, into: Float64Array) => {
    for (let i = 0; i < n; i++) {
      const { mm, px } = pairs[i]!
      const w = of[6]! * mm[0] + of[7]! * mm[1] + 1
      const u = (of[0]! * mm[0] + of[1]! * mm[1] + of[2]!) / w
      const v = (of[3]! * mm[0] + of[4]! * mm[1] + of[5]!) / w
      const lens = 1 + of[8]! * (u * u + v * v)
      into[2 * i] = u * lens - (px[0] - middle[0]) / halfDiagonalPx
      into[2 * i + 1] = v * lens - (px[1] - middle[1]) / halfDiagonalPx
    }
  }
  const e = new Float64Array(2 * n)
  const tried = new Float64Array(2 * n)
  const weights = new Float64Array(n)
  const cost = (of: Float64Array) => {
    let sum = 0
    for (let i = 0; i < n; i++) sum += weights[i]! * (of[2 * i]! ** 2 + of[2 * i + 1]! ** 2)
    return sum
  }
  let damping = 1e-4
  for (let round = 0; round < rounds; round++) {
    residuals(q, e)
    for (let i = 0; i < n; i++) off[i] = Math.hypot(e[2 * i]!, e[2 * i + 1]!)
    const spread = Math.max(0.05 / halfDiagonalPx, median(off) / 1.177)
    for (let i = 0; i < n; i++) weights[i] = biweight(off[i]!, spread)
    const normal = Matrix.zeros(parameters, parameters)
    const right = Matrix.zeros(parameters, 1)
    const du = new Float64Array(9)
    const dv = new Float64Array(9)
    for (let i = 0; i < n; i++) {
      const weight = weights[i]!
      if (weight === 0) continue
      const [x, y] = pairs[i]!.mm
      const w = q[6]! * x + q[7]! * y + 1
      const u = (q[0]! * x + q[1]! * y + q[2]!) / w
      const v = (q[3]! * x + q[4]! * y + q[5]!) / w
      const r2 = u * u + v * v
      const k = q[8]!
      const lens = 1 + k * r2
      // d(u·lens) = (lens + 2k u²) du + 2k u v dv, and likewise for v.
      const uu = lens + 2 * k * u * u
      const vv = lens + 2 * k * v * v
      const uv = 2 * k * u * v
      const place = [x / w, y / w, 1 / w]
      for (let j = 0; j < 3; j++) {
        du[j] = uu * place[j]!
        dv[j] = uv * place[j]!
        du[3 + j] = uv * place[j]!
        dv[3 + j] = vv * place[j]!
      }
      for (let j = 0; j < 2; j++) {
        const by = -place[j]!
        du[6 + j] = by * (uu * u + uv * v)
        dv[6 + j] = by * (uv * u + vv * v)
      }
      du[8] = u * r2
      dv[8] = v * r2
      for (let j = 0; j < 8; j++) {
        du[j]! *= unit[j]!
        dv[j]! *= unit[j]!
      }
      for (let j = 0; j < parameters; j++) {
        right.set(j, 0, right.get(j, 0) - weight * (du[j]! * e[2 * i]! + dv[j]! * e[2 * i + 1]!))
        for (let l = 0; l <= j; l++)
          normal.set(j, l, normal.get(j, l) + weight * (du[j]! * du[l]! + dv[j]! * dv[l]!))
      }
    }
    for (let j = 0; j < parameters; j++) for (let l = 0; l < j; l++) normal.set(l, j, normal.get(j, l))
    const before = cost(e)
    let better = false
    for (let attempt = 0; attempt < 6 && !better; attempt++) {
      const damped = normal.clone()
      for (let j = 0; j < parameters; j++) damped.set(j, j, damped.get(j, j) * (1 + damping) + 1e-15)
      const step = solve(damped, right, true).to1DArray()
      const next = Float64Array.from(q, (value, j) =>
        j < parameters ? value + step[j]! * (j < 8 ? unit[j]! : 1) : value,
      )
      residuals(next, tried)
      if (cost(tried) < before) {
        better = true
        q = next
        damping = Math.max(1e-9, damping / 8)
      } else damping *= 8
    }
    if (!better) break
  }
  return of(q)
}

import { seeded } from '../../maths/seeded'
import { median } from '../../maths/median'

/** A pin and the hole it has to find, mm; both seen from the same side. */
export interface PinAndHole {
  readonly name: string
  readonly pin: readonly [number, number]
  readonly hole: readonly [number, number]
}

/** A pin that holds the best fit where it is, and the way it would have to go to stand as the straight ones do, mm. */
export interface Binding {
  readonly name: string
  readonly offMm: number
  readonly goMm: readonly [number, number]
}

export interface Fit {
  readonly fits: boolean
  /** Worst distance of a pin from its hole in the best position, mm. */
  readonly worstMm: number
  readonly clearanceMm: number
  readonly turnDeg: number
  readonly shiftMm: readonly [number, number]
  /** The active constraints that are out of line themselves, worst first; straight pins that only bind against them are left out. */
  readonly binding: readonly Binding[]
}

interface Circle {
  readonly x: number
  readonly y: number
  readonly r: number
}

const holds = (c: Circle, x: number, y: number) => Math.hypot(x - c.x, y - c.y) <= c.r * (1 + 1e-12) + 1e-14

/**
 * Smallest circle round some points: incremental, in a shuffled order, expected linear time.
 * Source: Welzl (1991).
 */
export function smallestCircle(xs: Float64Array, ys: Float64Array, order: Int32Array): Circle {
  let c: Circle = { x: xs[order[0]!]!, y: ys[order[0]!]!, r: 0 }
  const through = (i: number, j: number): Circle => {
    const [x, y] = [(xs[i]! + xs[j]!) / 2, (ys[i]! + ys[j]!) / 2]
    return { x, y, r: Math.hypot(xs[i]! - x, ys[i]! - y) }
  }
  const round = (i: number, j: number, k: number): Circle => {
    const [bx, by, cx, cy] = [xs[j]! - xs[i]!, ys[j]! - ys[i]!, xs[k]! - xs[i]!, ys[k]! - ys[i]!]
    const d = 2 * (bx * cy - by * cx)
    if (Math.abs(d) < 1e-18)
      return [through(i, j), through(i, k), through(j, k)].reduce((a, b) => (b.r > a.r ? b : a))
    const ux = (cy * (bx * bx + by * by) - by * (cx * cx + cy * cy)) / d
    const uy = (bx * (cx * cx + cy * cy) - cx * (bx * bx + by * by)) / d
    return { x: xs[i]! + ux, y: ys[i]! + uy, r: Math.hypot(ux, uy) }
  }
  for (let a = 1; a < order.length; a++) {
    const i = order[a]!
    if (holds(c, xs[i]!, ys[i]!)) continue
    c = { x: xs[i]!, y: ys[i]!, r: 0 }
    for (let b = 0; b < a; b++) {
      const j = order[b]!
      if (holds(c, xs[j]!, ys[j]!)) continue
      c = through(i, j)
      for (let e = 0; e < b; e++) {
        const k = order[e]!
        if (!holds(c, xs[k]!, ys[k]!)) c = round(i, j, k)
      }
    }
  }
  return c
}

/** Turn that is looked at first, radians, to either side; more where the best lies at its end. */
const USUAL_TURN = 0.05
/** A pin counts as binding within this of the worst, mm. */
const AS_WORST_MM = 1e-6

/**
 * Best-fit insertion: the turn and shift of the CPU that make the worst pin's distance from its hole smallest.
 *
 * For a fixed turn θ the best shift centres the smallest circle round the vectors hole − R(θ)·pin (exact, Welzl); its
 * radius is convex in θ to first order, so the turn is found by golden section to 1e-9 rad, from the best of 41 turns,
 * over a wider range where that lies at the end. Exact to 1e-6 mm: `insertion.test.ts` checks it against a fine search, and the bench against a
 * linear programme over 720 directions solved by HiGHS.
 * @param clearanceMm largest distance at which a pin still drops into its hole
 * @throws RangeError without pins
 */
export function bestFit(pins: readonly PinAndHole[], clearanceMm: number): Fit {
  const n = pins.length
  if (n === 0) throw new RangeError('there is no pin to fit')
  const draw = seeded(n)
  const order = Int32Array.from({ length: n }, (_, i) => i)
  for (let i = n - 1; i > 0; i--) {
    const j = Math.floor(draw() * (i + 1))
    ;[order[i], order[j]] = [order[j]!, order[i]!]
  }
  const xs = new Float64Array(n)
  const ys = new Float64Array(n)
  const at = (turn: number): Circle => {
    const [c, s] = [Math.cos(turn), Math.sin(turn)]
    for (let i = 0; i < n; i++) {
      const { pin, hole } = pins[i]!
      xs[i] = hole[0] - (c * pin[0] - s * pin[1])
      ys[i] = hole[1] - (s * pin[0] + c * pin[1])
    }
    const circle = smallestCircle(xs, ys, order)
    return circle
  }
  let best = 0
  let least = Infinity
  let wide = USUAL_TURN
  for (;;) {
    for (let k = -20; k <= 20; k++) {
      const turn = (k / 20) * wide
      const { r } = at(turn)
      if (r < least) [least, best] = [r, turn]
    }
    // A few pins close together may ask for more of a turn than a whole CPU ever does.
    if (Math.abs(best) < 0.9 * wide || wide > 1) break
    wide *= 4
  }
  const golden = (Math.sqrt(5) - 1) / 2
  let [low, high] = [best - wide / 20, best + wide / 20]
  let [a, b] = [high - golden * (high - low), low + golden * (high - low)]
  let [fa, fb] = [at(a).r, at(b).r]
  while (high - low > 1e-10) {
    if (fa <= fb) {
      ;[high, b, fb] = [b, a, fa]
      a = high - golden * (high - low)
      fa = at(a).r
    } else {
      ;[low, a, fa] = [a, b, fb]
      b = low + golden * (high - low)
      fb = at(b).r
    }
  }
  const turn = (low + high) / 2
  const circle = at(turn)
  // Where the CPU would lie if only the straight pins counted: most pins are straight, so the median.
  const [mx, my] = [median(xs), median(ys)]
  const [c, s] = [Math.cos(-turn), Math.sin(-turn)]
  const binding = pins
    .flatMap(({ name }, i): Binding[] => {
      const offMm = Math.hypot(xs[i]! - circle.x, ys[i]! - circle.y)
      if (offMm < circle.r - AS_WORST_MM || circle.r < 1e-9) return []
      const [dx, dy] = [xs[i]! - mx, ys[i]! - my]
      // Turned back into the frame of the CPU, since that is what is bent.
      return [{ name, offMm, goMm: [c * dx - s * dy, s * dx + c * dy] }]
    })
    .sort((a, b) => Math.hypot(...b.goMm) - Math.hypot(...a.goMm))
    .filter((b, i) => i === 0 || Math.hypot(...b.goMm) > circle.r / 2)
    .slice(0, 8)
  return {
    fits: circle.r <= clearanceMm,
    worstMm: circle.r,
    clearanceMm,
    turnDeg: (turn * 180) / Math.PI,
    shiftMm: [circle.x, circle.y],
    binding,
  }
}

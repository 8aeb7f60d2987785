import { median } from '../maths/median'
import { normalCdf } from '../maths/normal'
import { firstFindings, missingColumns, notANumber, numberIn } from '../tables/finding'
import type { Finding, Row } from '../tables/finding'

/** A temperature as it was read: seconds since the load began, °C. */
export interface TemperatureLog {
  readonly s: Float64Array
  readonly c: Float64Array
}

export const temperatureColumns = ['s', 'c'] as const
const MOST_ROWS = 200_000
const FEWEST_ROWS = 12
const LEAST_SECONDS = 60

/** Reads a log from a table with the columns s and c; what is wrong is said with its line, what was left out too. */
export function readTemperature(
  rows: readonly Row[],
  columns: readonly string[],
): { readonly log: TemperatureLog | null; readonly findings: readonly Finding[] } {
  const missing = missingColumns(columns, temperatureColumns)
  if (missing) return { log: null, findings: [missing] }
  const findings: Finding[] = []
  const say = (level: Finding['level'], line: number, field: string, text: string) =>
    findings.push({ level, line, field, text })
  if (rows.length > MOST_ROWS)
    say('error', MOST_ROWS + 2, 'rows', `${rows.length} readings; the most taken is ${MOST_ROWS}`)
  if (rows.length < FEWEST_ROWS)
    say('error', rows.length + 2, 'rows', `${rows.length} readings are too few; at least ${FEWEST_ROWS}`)
  if (findings.length > 0) return { log: null, findings }
  const [s, c] = [new Float64Array(rows.length), new Float64Array(rows.length)]
  rows.forEach((row, i) => {
    for (const [field, to] of [
      ['s', s],
      ['c', c],
    ] as const) {
      const text = (row[field] ?? '').trim()
      const value = numberIn(text)
      if (value === null) say('error', i + 2, field, text === '' ? 'nothing stands here' : notANumber(text))
      to[i] = value ?? NaN
    }
    if (i > 0 && s[i]! <= s[i - 1]!)
      say('error', i + 2, 's', `time stands or runs backwards: ${s[i]} s after ${s[i - 1]} s`)
  })
  if (findings.length === 0 && s.at(-1)! - s[0]! < LEAST_SECONDS)
    say(
      'error',
      0,
      's',
      `it spans ${Math.round(s.at(-1)! - s[0]!)} s; at least ${LEAST_SECONDS}: are these seconds?`,
    )
  if (findings.length > 0) return { log: null, findings: firstFindings(findings) }
  const usual = median(Float64Array.from({ length: s.length - 1 }, (_, i) => s[i + 1]! - s[i]!))
  for (let i = 1; i < s.length; i++)
    if (s[i]! - s[i - 1]! > Math.max(10, 10 * usual))
      say('warning', i + 2, 's', `nothing was read from ${s[i - 1]} to ${s[i]} s`)
  const keep = [...s.keys()].filter((i) => c[i]! > -40 && c[i]! < 150 && !isSpike(c, i))
  if (keep.length < s.length)
    say('warning', 0, 'c', `${s.length - keep.length} readings that jump and come back were left out`)
  if (keep.length < FEWEST_ROWS) {
    say('error', 0, 'c', 'hardly a reading is left without those that jump: are these °C?')
    return { log: null, findings: firstFindings(findings) }
  }
  return {
    log: { s: Float64Array.from(keep, (i) => s[i]!), c: Float64Array.from(keep, (i) => c[i]!) },
    findings: firstFindings(findings),
  }
}

/** How far a reading may lie from those round it, K: farther it is a slip of the sensor, unless it lies on a way up or down. */
const JUMP_K = 8
function isSpike(c: Float64Array, i: number): boolean {
  const round = c.subarray(Math.max(0, i - 3), i + 4)
  if (Math.abs(c[i]! - median(round)) <= JUMP_K) return false
  // The first has nothing before it: a way that begins there goes on.
  const before = i === 0 ? 2 * c[0]! - c[1]! : c[i - 1]!
  const way = (c[i]! - before) * (c[i + 1]! - c[i]!) > 0
  return !way || (i === 0 && !goesOn(c))
}
/** Whether a log warms or cools on from its first step, rather than that its first reading is a slip. */
const goesOn = (c: Float64Array): boolean =>
  (c[1]! - c[0]!) * (c[3]! - c[1]!) > 0 && Math.abs(c[3]! - c[1]!) > Math.abs(c[1]! - c[0]!) / 8

export interface TemperatureFit {
  /** Where it goes, °C: likeliest, and with 90 % certainty between; null where it may still go anywhere. */
  readonly levelC: number
  readonly leastC: number
  readonly mostC: number | null
  /** The slow time constant, s. */
  readonly slowS: number
  /** How far readings lie from the curve, K. */
  readonly offK: number
  /** The fitted curve, to draw. */
  readonly curve: { readonly s: readonly number[]; readonly c: readonly number[] }
}

/** What a CPU bears, and how far below it a machine must level off, °C and K (bench defaults). */
export const BEARS_C = 95
export const BELOW_K = 10
/** Slow time constants of boards on a bench: the middle, s, and spread of the logarithm (bench default). */
const SLOW_S = 170
const SLOW_SPREAD = 0.75
/** Half the deviance of 90 % for one figure; least noise of a sensor, K; points a log is thinned to. */
const NINETY = 2.706
const LEAST_NOISE_K = 0.2
const POINTS = 240

/** What a slower part, not seen yet, may add: K, and of what is still to come (fitted to simulated machines). */
const UNSEEN = { least: 0.6, share: 0.4, most: 1.8, more: 0.8 } as const

/** Means of equal stretches; empty ones are left out. */
function thinned({ s, c }: TemperatureLog): { t: Float64Array; y: Float64Array; w: Float64Array } {
  const [from, to] = [s[0]!, s.at(-1)!]
  const bins = Math.min(POINTS, s.length)
  const sums = Array.from({ length: bins }, () => [0, 0, 0] as [number, number, number])
  for (let i = 0; i < s.length; i++) {
    const bin = sums[Math.min(bins - 1, Math.floor(((s[i]! - from) / (to - from)) * bins))]!
    bin[0]++
    bin[1] += s[i]! - from
    bin[2] += c[i]!
  }
  const full = sums.filter(([n]) => n > 0)
  return {
    t: Float64Array.from(full, ([n, t]) => t / n),
    y: Float64Array.from(full, ([n, , y]) => y / n),
    w: Float64Array.from(full, ([n]) => n),
  }
}

interface Solved {
  readonly sum: number
  readonly level: number
  /** Variance of the level for a noise of one. */
  readonly variance: number
  readonly by: readonly number[]
}

/** Weighted least squares of y over a few columns, the first of them ones: normal equations, Gauss with pivots. */
function solve(columns: readonly Float64Array[], y: Float64Array, w: Float64Array): Solved | null {
  const m = columns.length
  const a = columns.map((p, i) => [
    ...columns.map((q) => p.reduce((sum, v, k) => sum + w[k]! * v * q[k]!, 0)),
    p.reduce((sum, v, k) => sum + w[k]! * v * y[k]!, 0),
    i === 0 ? 1 : 0,
  ])
  for (let i = 0; i < m; i++) {
    let pivot = i
    for (let r = i + 1; r < m; r++) if (Math.abs(a[r]![i]!) > Math.abs(a[pivot]![i]!)) pivot = r
    ;[a[i], a[pivot]] = [a[pivot]!, a[i]!]
    const top = a[i]!
    if (Math.abs(top[i]!) < 1e-9) return null
    for (let r = 0; r < m; r++) {
      if (r === i) continue
      const by = a[r]![i]! / top[i]!
      for (let k = i; k < m + 2; k++) a[r]![k]! -= by * top[k]!
    }
  }
  const by = a.map((row, i) => row[m]! / row[i]!)
  const sum = y.reduce((all, v, k) => {
    const off = v - columns.reduce((at, p, i) => at + by[i]! * p[k]!, 0)
    return all + w[k]! * off * off
  }, 0)
  return { sum, level: by[0]!, variance: a[0]![m + 1]! / a[0]![0]!, by }
}

const spaced = (from: number, to: number, n: number) =>
  Array.from({ length: n }, (_, i) => from * (to / from) ** (i / (n - 1)))

/**
 * Where a temperature under steady load levels off: T∞ + A₁·e^(−t/τ₁) + A₂·e^(−t/τ₂), a fast part (die and heatsink) and a slow
 * one (board, case, air), or one of them alone; least squares over grids of both time constants, with a prior for the slow one.
 * The interval of T∞ is that of all curves whose deviance is within 2.71 of the best (90 %), noise widened by how far
 * neighbouring readings hang together. Limits: a load that is steady, and fans that keep their speed.
 */
export function fitTemperature(log: TemperatureLog): TemperatureFit {
  const { t, y, w } = thinned(log)
  const long = t.at(-1)!
  const ones = new Float64Array(t.length).fill(1)
  const decay = (tau: number) => t.map((v) => Math.exp(-v / tau))
  const slow = spaced(Math.max(20, long / 25), Math.max(1500, 3 * long), 36)
  const fast = spaced(4, Math.max(40, long / 4), 12)
  const slowDecay = slow.map(decay)
  const fastDecay = fast.map(decay)
  const all: (Solved & { fast: number | null; slow: number; prior: number })[] = []
  slow.forEach((tau, i) => {
    const prior = (Math.log(tau / SLOW_S) / SLOW_SPREAD) ** 2
    const one = solve([ones, slowDecay[i]!], y, w)
    if (one) all.push({ ...one, fast: null, slow: tau, prior })
    fast.forEach((quick, k) => {
      if (quick * 1.8 > tau) return
      const two = solve([ones, slowDecay[i]!, fastDecay[k]!], y, w)
      // A part that warms and one that cools are two loads; that is believed only where it fits far better.
      if (two)
        all.push({ ...two, fast: quick, slow: tau, prior: prior + (two.by[1]! * two.by[2]! < 0 ? 9 : 0) })
    })
  })
  const count = w.reduce((a, b) => a + b, 0)
  const plain = all.reduce((best, f) => (f.sum < best.sum ? f : best))
  const offs = residuals(plain, t, y)
  const noise = Math.max(LEAST_NOISE_K ** 2, (plain.sum / Math.max(1, t.length - 5)) * inflation(offs))
  const scale = noise
  const deviance = (f: (typeof all)[number]) => f.sum / scale + f.prior
  const best = all.reduce((b, f) => (deviance(f) < deviance(b) ? f : b))
  const least = deviance(best)
  let [low, high] = [best.level, best.level]
  let open = false
  for (const f of all) {
    const room = NINETY - (deviance(f) - least)
    if (room < 0) continue
    const half = Math.sqrt(room * scale * f.variance)
    low = Math.min(low, f.level - half)
    high = Math.max(high, f.level + half)
    if (f.slow === slow.at(-1)) open = true
  }
  const lastC = y.at(-1)!
  // A part slower than any that shows yet adds to it, and never takes away.
  const still = Math.abs(best.level - lastC)
  low -= UNSEEN.least + UNSEEN.share * still
  high += UNSEEN.most + UNSEEN.more * still
  const at = (v: number) =>
    best.level +
    best.by[1]! * Math.exp(-v / best.slow) +
    (best.fast === null ? 0 : best.by[2]! * Math.exp(-v / best.fast))
  const to = Math.max(long * 1.6, Math.min(4 * best.slow, 4 * long))
  const s = Array.from({ length: 80 }, (_, i) => (i * to) / 79)
  return {
    levelC: best.level,
    leastC: low,
    mostC: open || high > 200 ? null : high,
    slowS: best.slow,
    offK: Math.sqrt(plain.sum / count),
    curve: { s: s.map((v) => v + log.s[0]!), c: s.map(at) },
  }
}

function residuals(
  f: Solved & { fast: number | null; slow: number },
  t: Float64Array,
  y: Float64Array,
): Float64Array {
  return y.map((v, i) => {
    const quick = f.fast === null ? 0 : f.by[2]! * Math.exp(-t[i]! / f.fast)
    return v - (f.level + f.by[1]! * Math.exp(-t[i]! / f.slow) + quick)
  })
}

/** How much neighbouring readings hang together: (1 + ρ)/(1 − ρ) of their first autocorrelation, at least one. */
function inflation(offs: Float64Array): number {
  let [both, own] = [0, 0]
  for (let i = 0; i < offs.length; i++) {
    own += offs[i]! ** 2
    if (i > 0) both += offs[i]! * offs[i - 1]!
  }
  const rho = own > 0 ? Math.min(0.9, Math.max(0, both / own)) : 0
  return (1 + rho) / (1 - rho)
}

/** What is kept of a log; what it comes to follows from it. */
export interface KeptTemperature extends Omit<TemperatureFit, 'offK'> {
  readonly name: string
  readonly readings: number
  readonly bearsC: number
  /** As it was read, thinned. */
  readonly read: { readonly s: readonly number[]; readonly c: readonly number[] }
}

const KEPT_POINTS = 160
const rounded = (v: number, places: number) => Number(v.toFixed(places))

export function keptTemperature(name: string, log: TemperatureLog, bearsC = BEARS_C): KeptTemperature {
  const fit = fitTemperature(log)
  const every = Math.max(1, Math.ceil(log.s.length / KEPT_POINTS))
  const at = [...log.s.keys()].filter((i) => i % every === 0 || i === log.s.length - 1)
  return {
    name: name.slice(0, 120),
    readings: log.s.length,
    bearsC,
    levelC: rounded(fit.levelC, 1),
    leastC: rounded(fit.leastC, 1),
    mostC: fit.mostC === null ? null : rounded(fit.mostC, 1),
    slowS: Math.round(fit.slowS),
    read: { s: at.map((i) => rounded(log.s[i]!, 1)), c: at.map((i) => rounded(log.c[i]!, 1)) },
    curve: { s: fit.curve.s.map((v) => rounded(v, 1)), c: fit.curve.c.map((v) => rounded(v, 1)) },
  }
}

type Came = Pick<KeptTemperature, 'levelC' | 'leastC' | 'mostC' | 'slowS' | 'bearsC' | 'read'>
/** How far it may cool again under a load that is held, as fans speed up: K, and of what it had warmed (bench default). */
const FANS = { k: 6, share: 0.2 } as const

/** What a log that begins with its load warms by at the least, K, and until when it begins with it, s (bench default). */
const WARMS = { k: 3, begunS: 60 } as const
/** So many readings that are alike at the end, and of all of them, before it is asked whether the sensor stands still. */
const ALIKE = { least: 8, share: 0.25 } as const

/** Steps of usual sensors, K; what is kept is rounded to the least. */
const STEPS = [1, 0.5, 0.1] as const
const stepOf = (c: readonly number[]): number =>
  STEPS.find((q) => c.every((v) => Math.abs(v / q - Math.round(v / q)) < 1e-6)) ?? 0.1

/** What the later half of the readings may be of the whole way to where it stands: an exponential that is there has done most of it before. */
const GENTLY = 0.15

/** Odds that a sensor that works reads the same for so long, below which it is taken to stand still. */
const BY_CHANCE = 1e-3

/**
 * Since when every reading is the same although it could not be: what was read before, fitted by itself, goes on beyond it by
 * more than half a step of the sensor; or it scattered before, by σ, so that n readings would all fall into one step q with
 * (2Φ(q/2σ) − 1)ⁿ at the most. σ² is the mean square of second differences in the later half over six, less q²/12 of the steps
 * themselves; where those next to one another go against each other, as scatter does, and not with each other, as a curve that bends.
 * Few readings before it tell neither: then it came there gently, with little of the way in their later half, or it stopped.
 */
function standsStillFromS({ s, c }: Came['read']): number | null {
  const last = c.at(-1)!
  let from = c.length - 1
  while (from > 0 && c[from - 1] === last) from--
  const alike = c.length - from
  if (alike < Math.max(ALIKE.least, ALIKE.share * c.length)) return null
  if (from === 0) return s[0]!
  const before = c.slice(0, from)
  const step = stepOf(c)
  if (from < FEWEST_ROWS) {
    const way = Math.abs(last - before[0]!)
    const lately = Math.abs(last - before[from >> 1]!)
    return lately <= step + GENTLY * way ? null : s[from]!
  }
  const near = before.slice(-Math.max(FEWEST_ROWS, from >> 1))
  const bends = near.slice(2).map((v, i) => v - 2 * near[i + 1]! + near[i]!)
  const mean = (of: readonly number[]) => of.reduce((a, b) => a + b, 0) / of.length
  const scatters = mean(bends.slice(1).map((v, i) => v * bends[i]!)) < 0
  const noise2 = mean(bends.map((v) => v * v)) / 6 - step ** 2 / 12
  const alone = scatters && noise2 > LEAST_NOISE_K ** 2 ? 2 * normalCdf(step / 2 / Math.sqrt(noise2)) - 1 : 1
  if (alone ** alike < BY_CHANCE) return s[from]!
  const fit = fitTemperature({ s: Float64Array.from(s.slice(0, from)), c: Float64Array.from(before) })
  return fit.leastC > last + step / 2 ? s[from]! : null
}

/** The hottest of what was read, by threes, so that one reading does not say it; and why the whole of it tells nothing, if so. */
function hottest({ read }: Pick<Came, 'read'>): { readonly c: number; readonly tellsNothing: string | null } {
  const { s, c } = read
  const smooth = c.map((_, i) => median(c.slice(Math.max(0, i - 1), i + 2)))
  const at = smooth.reduce((best, v, i) => (v > smooth[best]! ? i : best), 0)
  const fell = smooth[at]! - median(smooth.slice(-3))
  const warmed = smooth[at]! - smooth[0]!
  const told = (text: string) => ({ c: smooth[at]!, tellsNothing: text })
  if (fell > Math.max(FANS.k, FANS.share * warmed))
    return told(`it cools from ${Math.round(s[at]!)} s on. Was the load held to the end?`)
  const still = standsStillFromS(read)
  if (still !== null)
    return told(
      still === s[0]
        ? `every reading is ${deg(c[0]!)}. Does the sensor stand still? Log it from when the load begins`
        : `it reads the same from ${Math.round(still)} s on. Does the sensor stand still?`,
    )
  if (warmed < WARMS.k && s[0]! < WARMS.begunS)
    return told(`nothing warms from ${Math.round(s[0]!)} s on. Was the load on, and the sensor in its place?`)
  return { c: smooth[at]!, tellsNothing: null }
}

const deg = (c: number) => `${Math.round(c)} °C`

/** Ten kelvin below what the CPU bears, all along and with certainty; hotter, with certainty or already; or not to be told. */
export function verdictOf(came: Came): 'levels off' | 'too hot' | 'not yet' {
  const well = came.bearsC - BELOW_K
  const { c, tellsNothing } = hottest(came)
  if (c > well || came.leastC > well) return 'too hot'
  return tellsNothing === null && came.mostC !== null && came.mostC <= well ? 'levels off' : 'not yet'
}

export function sayTemperature(came: Came): string {
  const { levelC, leastC, mostC, slowS, bearsC, read } = came
  const well = deg(bearsC - BELOW_K)
  const { c, tellsNothing } = hottest(came)
  const range = mostC === null ? `${deg(leastC)} or more` : `${deg(leastC)} to ${deg(mostC)}`
  const verdict = verdictOf(came)
  if (verdict === 'levels off') return `levels off at ${deg(levelC)} (${range}), ${well} is the most`
  if (verdict === 'too hot')
    return `gets too hot: it ${c > bearsC - BELOW_K ? `was at ${deg(c)}` : `goes to ${range}`}, ${well} is the most. Stop, and look at mounting and paste`
  if (tellsNothing !== null) return `not to be told: ${tellsNothing}`
  const long = read.s.at(-1)! - read.s[0]!
  const more = Math.max(1, Math.ceil((Math.min(3 * slowS, 1800) - long) / 60))
  return `not yet: it may go to ${range}, ${well} is the most. About ${more} min more would tell`
}

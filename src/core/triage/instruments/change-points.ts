import { median } from '../../maths/median'

/** Smallest spread that is believed, A: a bench meter's last figure. */
const LEAST_SPREAD = 0.002
/** Autocorrelation from which on it cycles. */
const CYCLES = 0.5
const MOST_BINS = 2000

/**
 * Change points of level and spread by PELT over a grid of at most 2,000 bins whose costs are exact (sums and sums of
 * squares), each then moved to the best sample within its two bins.
 * Cost of a stretch: n·log σ̂² (Gaussian, own mean and spread); penalty 4·log n for each change (two levels, spread, place), n taken as 200 at least.
 * Source: Killick, Fearnhead & Eckley (2012); BIC after Yao (1988).
 * @returns indices where a new stretch begins, 0 left out
 */
export function changePoints(amps: Float64Array): number[] {
  const n = amps.length
  const sum = new Float64Array(n + 1)
  const square = new Float64Array(n + 1)
  for (let i = 0; i < n; i++) {
    sum[i + 1] = sum[i]! + amps[i]!
    square[i + 1] = square[i]! + amps[i]! * amps[i]!
  }
  // White noise of spread σ has a median step of 0.954 σ; no stretch is believed to be quieter than half of that.
  const noise =
    median(
      Float64Array.from({ length: Math.max(1, n - 1) }, (_, i) => Math.abs((amps[i + 1] ?? 0) - amps[i]!)),
    ) / 0.954
  const floor = Math.max(LEAST_SPREAD, 0.5 * noise) ** 2
  const cost = (from: number, to: number) => {
    const k = to - from
    const mean = (sum[to]! - sum[from]!) / k
    const variance = (square[to]! - square[from]!) / k - mean * mean
    return k * Math.log(Math.max(variance, floor))
  }
  const bins = Math.min(MOST_BINS, Math.max(1, Math.floor(n / 4)))
  const edge = Int32Array.from({ length: bins + 1 }, (_, b) => Math.round((b * n) / bins))
  const penalty = 4 * Math.log(Math.max(n, 200))
  const best = new Float64Array(bins + 1)
  best[0] = -penalty
  const from = new Int32Array(bins + 1)
  let open = [0]
  for (let to = 1; to <= bins; to++) {
    const here = open.map((b) => best[b]! + cost(edge[b]!, edge[to]!))
    let least = 0
    for (let k = 1; k < here.length; k++) if (here[k]! < here[least]!) least = k
    best[to] = here[least]! + penalty
    from[to] = open[least]!
    open = open.filter((_, k) => here[k]! <= best[to]!)
    open.push(to)
  }
  const cuts: number[] = []
  for (let b = from[bins]!; b > 0; b = from[b]!) cuts.unshift(edge[b]!)
  const width = Math.ceil(n / bins)
  /** The best place of one cut between two others, and what both stretches then cost. */
  const bestCut = (before: number, after: number, low: number, high: number) => {
    let [least, at] = [Infinity, low]
    for (let c = Math.max(before + 2, low); c <= Math.min(after - 2, high); c++) {
      const both = cost(before, c) + cost(c, after)
      if (both < least) [least, at] = [both, c]
    }
    return { least, at }
  }
  cuts.forEach((cut, i) => {
    cuts[i] = bestCut(cuts[i - 1] ?? 0, cuts[i + 1] ?? n, cut - width, cut + width).at
  })
  // A bin that straddles a change may have been taken for a stretch of its own: then one cut does for two.
  for (let i = 0; i + 1 < cuts.length; i++) {
    const [before, a, b, after] = [cuts[i - 1] ?? 0, cuts[i]!, cuts[i + 1]!, cuts[i + 2] ?? n]
    if (b - a > 2 * width) continue
    const one = bestCut(before, after, a - width, b + width)
    if (one.least < cost(before, a) + cost(a, b) + cost(b, after) + penalty) cuts.splice(i--, 2, one.at)
  }
  return cuts
}

/**
 * Period of a stretch by its autocorrelation: the first high peak above `CYCLES` after it has fallen below zero.
 * @param values evenly spaced
 * @returns lag in samples, refined by a parabola through the peak; null when it does not cycle at least three times
 */
export function cycleOf(values: Float64Array): number | null {
  const n = values.length
  const mean = values.reduce((a, b) => a + b, 0) / n
  const x = values.map((v) => v - mean)
  const power = x.reduce((a, v) => a + v * v, 0) / n
  if (!(power > LEAST_SPREAD * LEAST_SPREAD)) return null
  const most = Math.floor(n / 3)
  const r = new Float64Array(most + 2)
  for (let lag = 0; lag < r.length; lag++) {
    let dot = 0
    for (let i = lag; i < n; i++) dot += x[i]! * x[i - lag]!
    r[lag] = dot / ((n - lag) * power)
  }
  let lag = 1
  while (lag <= most && r[lag]! > 0) lag++
  const peak = (l: number) => r[l]! > CYCLES && r[l]! >= r[l - 1]! && r[l]! >= r[l + 1]!
  let highest = 0
  for (let l = lag; l <= most; l++) if (peak(l)) highest = Math.max(highest, r[l]!)
  let top = lag
  while (top <= most && !(peak(top) && r[top]! >= 0.75 * highest)) top++
  if (highest === 0) return null
  const [a, b, c] = [r[top - 1]!, r[top]!, r[top + 1]!]
  const bend = a - 2 * b + c
  return bend < 0 ? top + (0.5 * (a - c)) / bend : top
}

import type { BoardBodies } from '../../board/bodies'
import type { Baseline } from '../../board/baseline'
import { firstFindings, missingColumns, notANumber, numberIn } from '../../tables/finding'
import type { Finding, Row } from '../../tables/finding'
import { median } from '../../maths/median'
import { changePoints, cycleOf } from './change-points'

/** Supply current against time: seconds rising, amperes. */
export interface Trace {
  readonly seconds: Float64Array
  readonly amps: Float64Array
}

export const traceColumns = ['s', 'a'] as const
const MOST_SAMPLES = 500_000
const FEWEST_SAMPLES = 20

/**
 * Reads a trace from a table with columns `s` and `a`. Findings for bad data, never an exception: time that runs
 * backwards or stands, values that are no numbers, stretches without samples (ten times the usual step), currents no
 * bench supply gives.
 * @param rows one record per line, the first stands on line 2
 */
export function readTrace(
  rows: readonly Row[],
  columns: readonly string[],
): { readonly trace: Trace | null; readonly findings: readonly Finding[] } {
  const missing = missingColumns(columns, traceColumns)
  if (missing) return { trace: null, findings: [missing] }
  const findings: Finding[] = []
  const say = (level: Finding['level'], line: number, field: string, text: string) =>
    findings.push({ level, line, field, text })
  if (rows.length > MOST_SAMPLES)
    say(
      'error',
      MOST_SAMPLES + 2,
      'rows',
      `${rows.length} samples; the most taken is ${MOST_SAMPLES}: record slower`,
    )
  if (rows.length < FEWEST_SAMPLES)
    say(
      'error',
      rows.length + 2,
      'rows',
      `${rows.length} samples are too few to say anything; at least ${FEWEST_SAMPLES}`,
    )
  if (findings.length) return { trace: null, findings }
  const seconds = new Float64Array(rows.length)
  const amps = new Float64Array(rows.length)
  rows.forEach((row, i) => {
    for (const [field, to] of [
      ['s', seconds],
      ['a', amps],
    ] as const) {
      const text = (row[field] ?? '').trim()
      const value = numberIn(text)
      if (value === null) say('error', i + 2, field, text === '' ? 'nothing stands here' : notANumber(text))
      to[i] = value ?? NaN
    }
    if (i > 0 && seconds[i]! <= seconds[i - 1]!)
      say(
        'error',
        i + 2,
        's',
        `time runs backwards: ${seconds[i]} s after ${seconds[i - 1]} s; sort the rows or drop the line`,
      )
    if (Math.abs(amps[i]!) > 100)
      say('error', i + 2, 'a', `${amps[i]} A is more than a bench supply gives; are these amperes?`)
  })
  if (findings.some((f) => f.level === 'error')) return { trace: null, findings: firstFindings(findings) }
  const steps = Float64Array.from({ length: rows.length - 1 }, (_, i) => seconds[i + 1]! - seconds[i]!)
  const usual = median(steps)
  steps.forEach((step, i) => {
    if (step > 10 * usual)
      say(
        'warning',
        i + 3,
        's',
        `no samples from ${seconds[i]} to ${seconds[i + 1]} s; nothing is said about that stretch`,
      )
  })
  if (amps.some((a) => a < -0.05))
    say('warning', 0, 'a', 'some currents are negative; is the shunt the right way round?')
  return { trace: { seconds, amps }, findings: firstFindings(findings) }
}

/** The trace as rows, in the order of `traceColumns`. */
export const traceRows = ({ seconds, amps }: Trace): string[][] =>
  Array.from(seconds, (s, i) => [String(s), String(amps[i])])

type Kept = BoardBodies['current']['segments'][number]

/** A stretch of one kind, as the tape keeps it, with its standard deviation, A. */
export interface Segment extends Kept {
  readonly spread: number
}

export interface TraceReading {
  readonly segments: readonly Segment[]
  /** What it is in the words of a power-up. */
  readonly pattern: Exclude<Baseline['current'], 'not noted'>
  readonly standbyA: number | null
  /** Last steady level above standby. */
  readonly plateauA: number | null
  readonly peakA: number
  readonly periodS: number | null
  readonly say: string
}

/** Below this the board draws nothing, A (bench default). */
const OFF_A = 0.01
/** Least current of a board that is on, A (bench default). */
const ON_A = 0.25
/** Most that standby draws, also where something leaks on it, A (bench default). */
const STANDBY_MOST_A = 0.35

/** Evenly spaced values of a stretch, each the mean of the samples about it; at most `most` of them. */
function even(
  { seconds, amps }: Trace,
  from: number,
  to: number,
  most: number,
): { values: Float64Array; stepS: number } {
  const count = Math.min(most, to - from)
  const start = seconds[from]!
  const stepS = (seconds[to - 1]! - start) / (count - 1)
  const values = new Float64Array(count)
  const held = new Int32Array(count)
  for (let i = from; i < to; i++) {
    const k = Math.min(count - 1, Math.round((seconds[i]! - start) / stepS))
    values[k] = values[k]! + amps[i]!
    held[k]! += 1
  }
  for (let k = 0; k < count; k++) values[k] = held[k] ? values[k]! / held[k]! : (values[k - 1] ?? 0)
  return { values, stepS }
}

interface Piece {
  readonly from: number
  readonly to: number
  readonly amps: number
  readonly spread: number
}

function piece({ amps }: Trace, from: number, to: number): Piece {
  let sum = 0
  let square = 0
  for (let i = from; i < to; i++) {
    sum += amps[i]!
    square += amps[i]! * amps[i]!
  }
  const mean = sum / (to - from)
  return { from, to, amps: mean, spread: Math.sqrt(Math.max(0, square / (to - from) - mean * mean)) }
}

/**
 * Whether a stretch falls back towards standby: its low tenth at most half-way up from there to its high tenth. A steady
 * current with a ripple on it rises and falls as evenly, and cycles all the same not.
 */
function fallsBack(values: Float64Array, standby: number): boolean {
  const sorted = values.toSorted()
  const at = (share: number) => sorted[Math.floor(share * (sorted.length - 1))]!
  return at(0.1) - standby <= (at(0.9) - standby) / 2
}

/** Runs of at least four rises at even distances: stretches that may cycle, as places of pieces [from, to). */
function evenRises(pieces: readonly Piece[], seconds: Float64Array): (readonly [number, number])[] {
  const rises = [...pieces.keys()].filter((i) => i > 0 && pieces[i]!.amps > pieces[i - 1]!.amps + 0.05)
  const runs: [number, number][] = []
  const at = (k: number) => seconds[pieces[rises[k]!]!.from]!
  for (let k = 0; k + 3 < rises.length; k++) {
    let end = k + 1
    const gap = at(end) - at(k)
    while (end + 1 < rises.length && Math.abs(at(end + 1) - at(end) - gap) <= 0.25 * gap) end++
    if (end - k >= 3) {
      runs.push([rises[k]!, Math.min(pieces.length, rises[end]! + 1)])
      k = end - 1
    }
  }
  return runs
}

/**
 * Reads a current trace: stretches with their names, whether it cycles and how fast, and what that is in the words of
 * a power-up. A tenth of the supply's limit and all names are bench defaults; a stretch without samples says nothing.
 */
export function readCurrent(trace: Trace): TraceReading {
  const { seconds, amps } = trace
  const cuts = [0, ...changePoints(amps), amps.length]
  const pieces = cuts.slice(1).map((to, i) => piece(trace, cuts[i]!, to))
  const merged: (Piece & { readonly periodS: number | null })[] = []
  const levels = pieces.map((p) => p.amps).filter((a) => a > OFF_A && a < STANDBY_MOST_A)
  const floor = levels.length > 0 ? Math.min(...levels) : 0
  const runs = evenRises(pieces, seconds)
  for (let i = 0; i < pieces.length;) {
    const run = runs.find(([from]) => from === i)
    const whole = run ? piece(trace, pieces[run[0]]!.from, pieces[run[1] - 1]!.to) : pieces[i]!
    const { values, stepS } = even(trace, whole.from, whole.to, 2048)
    const lag =
      whole.to - whole.from >= 24 && whole.spread > 0.03 && fallsBack(values, floor) ? cycleOf(values) : null
    if (run && lag !== null) {
      merged.push({ ...whole, periodS: lag * stepS })
      i = run[1]
    } else {
      merged.push({ ...pieces[i]!, periodS: run ? null : lag === null ? null : lag * stepS })
      i++
    }
  }
  const lowest = Math.min(...merged.map((p) => (p.amps > OFF_A ? p.amps : Infinity)))
  const onA = Math.max(ON_A, lowest < STANDBY_MOST_A ? 1.6 * lowest : 0)
  const last = amps.length - 1
  const segments = merged.map((p, i): Segment => {
    const fromS = seconds[p.from]!
    const toS = seconds[Math.min(last, p.to)]!
    const next = merged[i + 1]
    const kind: Kept['kind'] =
      p.periodS !== null
        ? 'cycling'
        : p.amps <= OFF_A
          ? 'off'
          : p.amps < onA
            ? 'standby'
            : next && toS - fromS < 1 && p.amps > 1.25 * next.amps
              ? 'inrush'
              : 'steady'
    return { kind, fromS, toS, amps: p.amps, spread: p.spread, periodS: p.periodS }
  })
  const joined = join(segments)
  const cycling = joined.findLast((s) => s.kind === 'cycling')
  const steady = joined.findLast((s) => s.kind === 'steady')
  const end = joined.at(-1)!
  const wasOn = joined.some((s) => s.kind === 'steady' || s.kind === 'inrush')
  const pattern =
    cycling !== undefined
      ? 'cycling'
      : end.kind === 'steady'
        ? 'steady'
        : wasOn
          ? 'trips'
          : joined.some((s) => s.kind === 'standby')
            ? 'standby'
            : 'none'
  const standby = joined.find((s) => s.kind === 'standby')
  const reading = {
    segments: joined,
    pattern,
    standbyA: standby?.amps ?? null,
    plateauA: pattern === 'steady' ? (steady?.amps ?? null) : null,
    peakA: amps.reduce((a, b) => Math.max(a, b), 0),
    periodS: cycling?.periodS ?? null,
  } as const
  return { ...reading, say: sayTrace(reading) }
}

/** Neighbours of one kind and nearly one level are one stretch. */
function join(segments: readonly Segment[]): Segment[] {
  const joined: Segment[] = []
  for (const s of segments) {
    const before = joined.at(-1)
    const alike = before && Math.abs(before.amps - s.amps) <= Math.max(0.04, 0.08 * before.amps)
    if (
      before &&
      before.kind === s.kind &&
      s.kind !== 'cycling' &&
      (alike || s.kind === 'off' || s.kind === 'standby')
    ) {
      const [a, b] = [before.toS - before.fromS, s.toS - s.fromS]
      const mean = (a * before.amps + b * s.amps) / (a + b || 1)
      joined[joined.length - 1] = {
        ...before,
        toS: s.toS,
        amps: mean,
        spread: Math.max(before.spread, s.spread),
      }
    } else joined.push(s)
  }
  return joined
}

const amperes = (a: number) => `${a.toFixed(a < 0.1 ? 3 : 2)} A`

function sayTrace({
  pattern,
  standbyA,
  plateauA,
  peakA,
  periodS,
}: Omit<TraceReading, 'say' | 'segments'>): string {
  const before = standbyA === null ? '' : `${amperes(standbyA)} in standby, then `
  switch (pattern) {
    case 'cycling':
      return `${before}it cycles every ${periodS!.toFixed(periodS! < 3 ? 2 : 1)} s up to ${amperes(peakA)}: it tries, stops and tries again`
    case 'steady':
      return `${before}it settles at ${amperes(plateauA!)}`
    case 'trips':
      return `${before}it draws up to ${amperes(peakA)} and falls back: the supply or the board cuts off`
    case 'standby':
      return `${amperes(standbyA!)} in standby and no more: the start is not asked for, or not answered`
    case 'none':
      return 'it draws nothing: no standby'
  }
}

/** One figure beside that of a board known to be good. */
export interface TraceDifference {
  readonly what: string
  readonly here: string
  readonly there: string
  readonly differs: boolean
  readonly say: string
}

/** How far a current may be from a good board's before it is said to differ (bench default). */
const ALIKE = 0.2

type Levels = Pick<TraceReading, 'pattern' | 'standbyA' | 'plateauA' | 'peakA'>

/** A trace beside that of a known-good board of the same model. */
export function compareTraces(here: Levels, there: Levels): TraceDifference[] {
  const lines: TraceDifference[] = []
  const put = (what: string, a: string, b: string, differs: boolean, say: string) =>
    lines.push({ what, here: a, there: b, differs, say: differs ? say : 'alike' })
  put(
    'shape',
    here.pattern,
    there.pattern,
    here.pattern !== there.pattern,
    `a good board is ${there.pattern === 'trips' ? 'cut off' : there.pattern} here`,
  )
  const level = (what: string, a: number | null, b: number | null, more: string, less: string) => {
    if (a === null || b === null) return
    const off = Math.abs(a - b) > Math.max(ALIKE * b, 0.01)
    put(what, amperes(a), amperes(b), off, `${(a / b).toFixed(1)} × the good board: ${a > b ? more : less}`)
  }
  level('standby', here.standbyA, there.standbyA, 'something draws on standby', 'part of it is not awake')
  level('plateau', here.plateauA, there.plateauA, 'a rail may be loaded', 'part of it does not run')
  level('peak', here.peakA, there.peakA, 'look for what heats up', 'it does not get as far')
  return lines
}

/** A curve thin enough to keep and draw: the least and the greatest of each bin, in order, so that no peak is lost. */
export function thinCurve(
  { seconds, amps }: Trace,
  most = 1200,
): { readonly s: number[]; readonly a: number[] } {
  const n = amps.length
  const s: number[] = []
  const a: number[] = []
  const bins = n <= most ? n : most >> 1
  const put = (i: number) => {
    s.push(Number(seconds[i]!.toFixed(4)))
    a.push(Number(amps[i]!.toFixed(4)))
  }
  for (let b = 0; b < bins; b++) {
    const [from, to] = [Math.floor((b * n) / bins), Math.floor(((b + 1) * n) / bins)]
    let [low, high] = [from, from]
    for (let i = from + 1; i < to; i++) {
      if (amps[i]! < amps[low]!) low = i
      if (amps[i]! > amps[high]!) high = i
    }
    put(Math.min(low, high))
    if (low !== high) put(Math.max(low, high))
  }
  return { s, a }
}

/** A trace as it is kept: what it was read as, and its curve thinned. At most 100 segments; the rest run into the last. */
export function keptCurrent(name: string, trace: Trace, reading: TraceReading): BoardBodies['current'] {
  const { segments, pattern, standbyA, plateauA, peakA, periodS } = reading
  const kept = segments.slice(0, MOST_KEPT).map(({ spread: _, ...segment }) => segment)
  const last = kept.at(-1)!
  kept[kept.length - 1] = { ...last, toS: segments.at(-1)!.toS }
  const own = { name, samples: trace.amps.length, pattern, standbyA, plateauA, peakA, periodS }
  return { ...own, segments: kept, curve: thinCurve(trace) }
}
const MOST_KEPT = 100

/** The current of a board known to be good. */
export interface CurrentReference {
  readonly name: string
  readonly reading: TraceReading
  readonly curve: { readonly s: readonly number[]; readonly a: readonly number[] }
}

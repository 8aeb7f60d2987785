import { firstFindings, missingColumns, notANumber, numberIn } from '../../tables/finding'
import type { Finding, Row } from '../../tables/finding'
import { CODE, notACode } from './code'
import { stages } from '../model/stage'
import type { Stage } from '../model/stage'

/** What one code of a board means. */
export interface CodeMeaning {
  readonly code: string
  readonly stage: Stage
  readonly say: string
  /** Longest the board rests on it when all is well, s; training codes rest for minutes. */
  readonly restS: number
}
/** The codes of one board or platform. */
export interface CodeTable {
  readonly name: string
  readonly codes: readonly CodeMeaning[]
}

export const codeColumns = ['code', 'stage', 'say', 'rest_s'] as const
/** Rest of a code whose table says nothing, s (bench default). */
export const USUAL_REST_S = 10
/** Training when there is no table, s (bench default). */
const USUAL_TRAINING_S = 240

/**
 * Reads a code table: `code` (two or four hex figures), `stage` (one of the start model's), `say`, `rest_s` (may be
 * left empty). Findings for bad data, never an exception.
 * @param rows one record per line, the first stands on line 2
 */
export function readCodeTable(
  name: string,
  rows: readonly Row[],
  columns: readonly string[],
): { readonly table: CodeTable | null; readonly findings: readonly Finding[] } {
  const missing = missingColumns(columns, codeColumns.slice(0, 3))
  if (missing) return { table: null, findings: [missing] }
  const findings: Finding[] = []
  const say = (line: number, field: string, text: string) =>
    findings.push({ level: 'error', line, field, text })
  const lines = new Map<string, number>()
  const codes = rows.map((row, i): CodeMeaning => {
    const line = i + 2
    const code = (row.code ?? '').trim().toUpperCase()
    if (!CODE.test(code)) say(line, 'code', notACode(row.code ?? ''))
    if (lines.has(code)) say(line, 'code', `${code} stands already on line ${lines.get(code)}`)
    lines.set(code, line)
    const stage = (row.stage ?? '').trim() as Stage
    if (!stages.includes(stage))
      say(line, 'stage', `“${stage}” is no stage; use one of: ${stages.join(', ')}`)
    const text = (row.rest_s ?? '').trim()
    const restS = text === '' ? USUAL_REST_S : numberIn(text)
    if (restS === null) say(line, 'rest_s', notANumber(text))
    else if (restS < 0 || restS > 3600) say(line, 'rest_s', `${restS} s is not between 0 and 3,600`)
    return { code, stage, say: (row.say ?? '').trim(), restS: restS ?? USUAL_REST_S }
  })
  if (rows.length === 0) say(2, 'rows', 'the table has a header but no codes')
  if (rows.length > 4096) say(0, 'rows', `${rows.length} codes; the most a table may hold is 4,096`)
  return { table: findings.length ? null : { name, codes }, findings: firstFindings(findings) }
}

/** The table as rows, in the order of `codeColumns`. */
export const codeRows = ({ codes }: CodeTable): string[][] =>
  codes.map((c) => [c.code, c.stage, c.say, String(c.restS)])

/** Codes as they showed. */
export interface CodesSeen {
  readonly codes: readonly string[]
  /** When each came up, s after power-on; may be missing. */
  readonly atS?: readonly number[] | undefined
  /** How long it was watched, s after power-on; may be missing. */
  readonly watchedS?: number | undefined
}

/** A sequence that comes again and again. */
export interface Loop {
  readonly members: readonly string[]
  /** How often it was seen, the broken-off last one counted in part. */
  readonly times: number
  /** Seconds one round takes; null when no times were noted. */
  readonly everyS: number | null
  /** It falls back behind memory training: the board starts over each time. */
  readonly startsOver: boolean
}

export interface CodeReading {
  readonly shows: 'nothing' | 'goes on' | 'stuck' | 'loops' | 'wait' | 'came through'
  readonly last: CodeMeaning | null
  readonly furthest: CodeMeaning | null
  readonly loop: Loop | null
  /** Seconds to wait before any conclusion; null when the wait is over or none is due. */
  readonly waitS: number | null
  /** Codes that are in no table. */
  readonly unknown: readonly string[]
  /** What it is to the reasoner, as an outcome of “codes”; null while nothing may be concluded. */
  readonly outcome: 'none' | 'early' | 'memory' | 'late' | null
  readonly say: string
}

/** The same code twice running is one rest. Returns places of `codes`. */
function rests(codes: readonly string[]): number[] {
  return [...codes.keys()].filter((i) => i === 0 || codes[i] !== codes[i - 1])
}

/** Longest round that is looked for. */
const LONGEST_ROUND = 48

/**
 * The round a sequence ends in: the smallest period p ≥ 2 for which its tail repeats at least twice, the longest such
 * tail. Exact repetition; a code missed by the eye in one round hides the rounds before it.
 * @returns period and length of the tail in codes, or null
 */
export function roundOf(codes: readonly string[]): { readonly period: number; readonly tail: number } | null {
  const n = codes.length
  for (let p = 2; p <= Math.min(LONGEST_ROUND, n >> 1); p++) {
    let same = 0
    while (n - 1 - same - p >= 0 && codes[n - 1 - same] === codes[n - 1 - same - p]) same++
    if (same >= p) return { period: p, tail: same + p }
  }
  return null
}

const order = (stage: Stage) => stages.indexOf(stage)

/**
 * What a run of codes says: how far it came, whether it stands, goes round or only trains.
 *
 * A rest is over-long when it has lasted longer than the table allows for that code. Going round within memory training
 * is training until the longest rest of its codes is over; going round from before it is a board that starts over, and
 * is said at once. Two rounds may be chance in a run typed by hand: three are called a loop, two ask for a third.
 * @param table the board's, or null: then codes are only compared with one another
 */
export function readCodes({ codes, atS, watchedS }: CodesSeen, table: CodeTable | null): CodeReading {
  const meaning = new Map(table?.codes.map((c) => [c.code, c]))
  const places = rests(codes)
  const run = places.map((i) => codes[i]!)
  const unknown = table ? [...new Set(run.filter((c) => !meaning.has(c)))] : []
  const known = run.flatMap((c) => meaning.get(c) ?? [])
  const furthest = known.reduce<CodeMeaning | null>(
    (far, c) => (!far || order(c.stage) >= order(far.stage) ? c : far),
    null,
  )
  const lastCode = run.at(-1)
  const last = (lastCode !== undefined && meaning.get(lastCode)) || null
  const startS = atS && places.length > 0 ? atS[places.at(-1)!]! : null
  const base = { last, furthest, unknown, loop: null, waitS: null }
  const outcome = table && (!furthest ? (unknown.length ? null : 'none') : outcomeOf(furthest.stage))
  const far = furthest ? `; furthest ${furthest.code}, ${furthest.say || furthest.stage}` : ''
  if (lastCode === undefined) return { ...base, shows: 'nothing', outcome: 'none', say: 'no code showed' }

  const round = roundOf(run)
  if (round && round.tail >= 3 * round.period) {
    const { period, tail } = round
    const members = run.slice(-period)
    const stagesIn = members.flatMap((c) => meaning.get(c)?.stage ?? [])
    const everyS = atS
      ? (atS[places.at(-1)!]! - atS[places.at(-1 - period * (Math.ceil(tail / period) - 1))!]!) /
        (Math.ceil(tail / period) - 1)
      : null
    const startsOver = stagesIn.some((s) => order(s) < order('memory training'))
    const loop: Loop = { members: fromEarliest(members, meaning), times: tail / period, everyS, startsOver }
    const training = stagesIn.length > 0 && !startsOver && stagesIn.every((s) => s === 'memory training')
    const longest = Math.max(...members.map((c) => meaning.get(c)?.restS ?? 0))
    const began = atS ? atS[places[run.length - tail]!]! : 0
    const leftS = training ? longest - ((watchedS ?? atS?.at(-1) ?? 0) - began) : 0
    if (leftS > 0) return waiting({ ...base, loop }, leftS)
    const rounds = `${loop.members.join(' ')} comes round ${Math.floor(loop.times)} times`
    const each = everyS === null ? '' : `, every ${Math.round(everyS)} s`
    return {
      ...base,
      loop,
      shows: 'loops',
      outcome,
      say: `${rounds}${each}: ${startsOver ? 'it starts over' : training ? 'longer than training takes' : 'a fault, not a wait'}${far}`,
    }
  }
  if (last && order(last.stage) >= order('running'))
    return {
      ...base,
      shows: 'came through',
      outcome,
      say: `came through: ${last.code}, ${last.say || 'running'}`,
    }

  const allowed = last?.restS ?? (table ? USUAL_REST_S : USUAL_TRAINING_S)
  const restedS = watchedS === undefined ? null : watchedS - (startS ?? 0)
  const trains = last?.stage === 'memory training' || !last
  if (restedS === null ? trains : restedS < allowed)
    return waiting(base, restedS === null ? allowed : allowed - restedS)
  if (restedS === null && round)
    return {
      ...base,
      shows: 'goes on',
      outcome: null,
      say: `${run.slice(-round.period).join(' ')} came twice: watch whether it comes a third time${far}`,
    }
  const what = last ? `${last.code}, ${last.say || last.stage}` : lastCode
  const long = restedS === null ? '' : ` for ${Math.round(restedS)} s, ${Math.round(allowed)} s is usual`
  const strange = !last && table ? '; this code is in no table of the board' : ''
  return {
    ...base,
    shows: 'stuck',
    outcome,
    say: `stands at ${what}${long}${strange}${far && last !== furthest ? far : ''}`,
  }
}

const outcomeOf = (stage: Stage): 'none' | 'early' | 'memory' | 'late' =>
  order(stage) > order('memory training')
    ? 'late'
    : stage === 'memory training'
      ? 'memory'
      : order(stage) >= order('first fetch')
        ? 'early'
        : 'none'

function waiting(base: Omit<CodeReading, 'shows' | 'outcome' | 'say'>, leftS: number): CodeReading {
  const whole = Math.ceil(leftS)
  const long = whole >= 90 ? `${Math.ceil(whole / 60)} min` : `${whole} s`
  const at = base.last ? `${base.last.code}, ${base.last.say || base.last.stage}` : 'this code'
  return {
    ...base,
    waitS: whole,
    shows: 'wait',
    outcome: null,
    say: `wait ${long} more: ${at} may still be at work`,
  }
}

/** A round told from its earliest stage on, so that the same round always reads the same. */
function fromEarliest(members: readonly string[], meaning: ReadonlyMap<string, CodeMeaning>): string[] {
  const rank = (code: string) => {
    const known = meaning.get(code)
    return known ? order(known.stage) : stages.length
  }
  let first = 0
  members.forEach((code, i) => {
    const best = members[first]!
    if (rank(code) < rank(best) || (rank(code) === rank(best) && code < best)) first = i
  })
  return [...members.slice(first), ...members.slice(0, first)]
}

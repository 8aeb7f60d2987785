import { isUsual, MOST_OWN_RAILS, OWN_RAIL, rails, railsOf, sayRail } from '../../board/rail'
import type { OwnRail, Rail, UsualRail } from '../../board/rail'
import { firstFindings, missingColumns, notANumber, numberIn } from '../../tables/finding'
import type { Finding, Row } from '../../tables/finding'
import { LEADS_OHM, lowBeside, railState } from '../../board/rail-limits'

/** Volts a rail should have (bench default). */
export const usualVolts: Readonly<Record<UsualRail, number>> = {
  '12v': 12,
  '5v': 5,
  '3v3': 3.3,
  standby: 5,
  vcore: 1.1,
  vmem: 1.2,
  vsys: 1,
}

/** Figures of a board known to be good; null where it was not measured. */
export interface RailReference {
  readonly name: string
  readonly rails: Readonly<
    Partial<
      Record<
        Rail,
        { readonly ohmsOut: number | null; readonly ohmsIn: number | null; readonly volts: number | null }
      >
    >
  >
}

export const railColumns = ['rail', 'ohms_cpu_out', 'ohms_cpu_in', 'volts'] as const

/** Reads the rails of a good board from a table. Findings for bad data, never an exception. */
export function readRailTable(
  name: string,
  rows: readonly Row[],
  columns: readonly string[],
): { readonly reference: RailReference | null; readonly findings: readonly Finding[] } {
  const missing = missingColumns(columns, railColumns)
  if (missing) return { reference: null, findings: [missing] }
  const findings: Finding[] = []
  const of: Partial<Record<Rail, NonNullable<RailReference['rails'][Rail]>>> = {}
  rows.forEach((row, i) => {
    const line = i + 2
    const say = (field: string, text: string) => findings.push({ level: 'error', line, field, text })
    const word = (row.rail ?? '').trim().toLowerCase()
    const rail = word
    if (!isUsual(rail) && !OWN_RAIL.test(rail))
      return say(
        'rail',
        `“${row.rail ?? ''}” is no rail; rails are ${rails.join(', ')}, or one of the board’s own: a word of letters and figures, like chipset`,
      )
    if (of[rail]) return say('rail', `${rail} stands twice`)
    const figure = (field: string, least: number, most: number) => {
      const text = (row[field] ?? '').trim()
      if (text === '') return null
      const value = numberIn(text)
      if (value === null) say(field, notANumber(text))
      else if (value < least || value > most) say(field, `${value} is not between ${least} and ${most}`)
      return value
    }
    of[rail] = {
      ohmsOut: figure('ohms_cpu_out', 0, 1e9),
      ohmsIn: figure('ohms_cpu_in', 0, 1e9),
      volts: figure('volts', -60, 60),
    }
    if (!isUsual(rail) && of[rail].ohmsOut === null)
      say('ohms_cpu_out', `${rail} is a rail of its own: what does a good board read, CPU out?`)
  })
  const own = Object.keys(of).filter((rail) => !isUsual(rail)).length
  if (own > MOST_OWN_RAILS)
    findings.push({
      level: 'error',
      line: 0,
      field: 'rows',
      text: `${own} rails of its own; the most a board may have is ${MOST_OWN_RAILS}`,
    })
  if (rows.length === 0)
    findings.push({ level: 'error', line: 2, field: 'rows', text: 'the table has a header but no rails' })
  return { reference: findings.length ? null : { name, rails: of }, findings: firstFindings(findings) }
}

/** Rails that a model has beyond the usual ones, by name. */
export const ownRailsOf = (reference: RailReference | null): readonly OwnRail[] =>
  Object.entries(reference?.rails ?? {})
    .sort(([a], [b]) => (a < b ? -1 : 1))
    .flatMap(([rail, good]) =>
      isUsual(rail) || good?.ohmsOut == null
        ? []
        : [{ rail, ohmsOut: good.ohmsOut, ohmsIn: good.ohmsIn, volts: good.volts }],
    )

/** The reference as rows, in the order of `railColumns`. */
export const railRows = (reference: RailReference): string[][] =>
  railsOf(ownRailsOf(reference)).flatMap((rail) => {
    const line = reference.rails[rail]
    return line
      ? [[rail, ...[line.ohmsOut, line.ohmsIn, line.volts].map((v) => (v === null ? '' : String(v)))]]
      : []
  })

export interface RailJudged {
  readonly rail: Rail
  readonly ohms: {
    readonly state: 'short' | 'low' | 'good' | 'high'
    /** Ohms of the good board; null when only the usual limits were there to judge by. */
    readonly expected: number | null
  } | null
  /** Null also where nobody knows what it should be. */
  readonly volts: { readonly state: 'missing' | 'low' | 'good' | 'high'; readonly expected: number } | null
  readonly say: string
}

/** Times a good board's ohms above which a part of a rail is not connected (bench default). */
const HIGH_SHARE = 2.5
/** Share of its volts below which a rail counts as missing, and how far it may be off (bench default). */
export const MISSING_SHARE = 0.3
const VOLTS_OFF = 0.05

/**
 * Each rail against a board known to be good, or, where that has no figure, against the usual limits. A short by the
 * usual limits stays a short whatever the reference says: a wrong reference never opens the gate.
 */
export function judgeRails(
  read: {
    readonly ohms: Readonly<Partial<Record<Rail, { readonly ohms: number; readonly cpu: 'in' | 'out' }>>>
    readonly volts: Readonly<Partial<Record<Rail, number>>>
  },
  reference: RailReference | null,
  own: readonly OwnRail[] = ownRailsOf(reference),
): RailJudged[] {
  const others = [...Object.keys(read.ohms), ...Object.keys(read.volts)].filter((rail) => !isUsual(rail))
  return [...new Set([...railsOf(own), ...others])].flatMap((rail) => {
    const reading = read.ohms[rail]
    const measured = read.volts[rail]
    if (!reading && measured === undefined) return []
    const good = reference?.rails[rail] ?? own.find((r) => r.rail === rail)
    const expected = (reading && (reading.cpu === 'in' ? good?.ohmsIn : good?.ohmsOut)) ?? null
    const ohms = reading ? { state: ohmsState({ rail, ...reading }, expected, own), expected } : null
    const should = good?.volts ?? (isUsual(rail) ? usualVolts[rail] : null)
    const volts =
      measured === undefined || should === null
        ? null
        : { state: voltsState(measured, should), expected: should }
    const parts = [ohms && sayOhms[ohms.state], volts && sayVolts[volts.state]].filter(Boolean)
    const ratio = reading && expected ? ` (${(reading.ohms / expected).toFixed(2)} × the good board)` : ''
    return [
      {
        rail,
        ohms,
        volts,
        say: `${sayRail(rail)}: ${parts.join('; ') || 'nobody knows what it should be'}${ratio}`,
      },
    ]
  })
}

function ohmsState(
  reading: { readonly rail: Rail; readonly ohms: number; readonly cpu: 'in' | 'out' },
  expected: number | null,
  own: readonly OwnRail[],
): 'short' | 'low' | 'good' | 'high' {
  const usual = railState(reading, own)
  if (usual === 'short' || expected === null) return usual
  if (usual === 'low' && !isUsual(reading.rail)) return 'low'
  if (reading.ohms < lowBeside(expected)) return 'low'
  if (reading.ohms > HIGH_SHARE * expected + LEADS_OHM) return 'high'
  return 'good'
}

export function voltsState(volts: number, should: number): 'missing' | 'low' | 'good' | 'high' {
  const share = volts / should
  if (share < MISSING_SHARE) return 'missing'
  return share < 1 - VOLTS_OFF ? 'low' : share > 1 + VOLTS_OFF ? 'high' : 'good'
}

const sayOhms = {
  short: 'shorted to ground',
  low: 'low to ground: something on it leaks',
  good: 'ohms as they should be',
  high: 'high to ground: part of it may not be connected',
} as const
const sayVolts = {
  missing: 'no volts',
  low: 'volts low: loaded, or its controller fails',
  good: 'volts as they should be',
  high: 'volts too high: take the CPU out before anything else',
} as const

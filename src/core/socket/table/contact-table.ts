import { micrometre } from '../../maths/units'
import { firstFindings, missingColumns, notANumber, numberIn } from '../../tables/finding'
import type { Finding, Row } from '../../tables/finding'
import { MAX_CONTACTS, trusts } from '../model/socket'
import { functionGroups } from '../../board/function-group'
import { orientationOf, putRight, sayOrientation } from './orientation'
import type { Orientation } from './orientation'
import type { Contact, Trust } from '../model/socket'
import type { FunctionGroup } from '../../board/function-group'
import { knownTable, tableUnits } from './table-columns'
import type { TableUnit } from './table-columns'

export const contactColumns = ['name', 'x_mm', 'y_mm', 'group', 'net', 'beam_deg', 'trust'] as const

export interface ContactTable {
  readonly contacts: readonly Contact[]
  readonly pitchMm: number | null
  readonly findings: readonly Finding[]
  /** The unit its places were taken to be in. */
  readonly unit: TableUnit
  /** How it lies against its own names, if they tell. */
  readonly orientation: Orientation | null
}

/** What a person says of a table where it does not say so itself. */
export interface TableChoice {
  readonly unit?: TableUnit
  /** Turn and mirror it so that it lies as its names say. */
  readonly putRight?: boolean
}

/** Spacing beyond which places without a unit are taken to be in mil; no field has its contacts 8 mm apart. */
const MOST_MM_APART = 8

/**
 * Reads a contact table: findings for bad data, never an exception.
 *
 * Columns may come in any order and under common names (`table-columns.ts`), places in mm, mil, µm or inches.
 *
 * @param given one record per line, first record stands on line 2
 * @param header as found
 * @param choice what a person says where the table does not
 * @returns contacts that are good, the smallest spacing as pitch, and findings (at most 60; the rest is counted)
 */
export function readContactTable(
  given: readonly Row[],
  header: readonly string[],
  choice: TableChoice = {},
): ContactTable {
  const { rows, columns, unit: named } = knownTable(given, header)
  const findings: Finding[] = []
  const say = (level: Finding['level'], line: number, field: string, text: string) =>
    findings.push({ level, line, field, text })
  const missing = missingColumns(columns, contactColumns.slice(0, 3))
  const none = { contacts: [], pitchMm: null, unit: named ?? 'mm', orientation: null }
  if (missing) return { ...none, findings: [missing] }
  if (rows.length > MAX_CONTACTS) {
    say(
      'error',
      MAX_CONTACTS + 2,
      'rows',
      `${rows.length.toLocaleString('en')} contacts; the largest field taken is ${MAX_CONTACTS.toLocaleString('en')}: split it or leave out rows that are not contacts`,
    )
    return { ...none, findings }
  }
  const unit = choice.unit ?? named ?? guessUnit(rows)
  const inMm = tableUnits[unit]
  if (unit !== 'mm' && !named && !choice.unit)
    say(
      'warning',
      0,
      'unit',
      `the places carry no unit and are taken as ${unit}, by their spacing; say if they are not`,
    )
  if (rows.length === 0) say('error', 2, 'rows', 'the table has a header but no contacts')
  const names = new Map<string, number>()
  const places = new Map<string, number>()
  const contacts: Contact[] = []
  rows.forEach((row, i) => {
    const line = i + 2
    const name = (row.name ?? '').trim()
    const number = (field: string, fallback?: number) => {
      const text = (row[field] ?? '').trim()
      if (text === '' && fallback !== undefined) return fallback
      const value = numberIn(text)
      if (value === null) say('error', line, field, notANumber(text))
      return value ?? NaN
    }
    if (!/^[A-Za-z]{1,3}\d{1,3}$/.test(name))
      say('error', line, 'name', `“${name}” is not a contact name: letters then a number, like M31`)
    const xMm = inMm === 1 ? number('x_mm') : micrometre(number('x_mm') * inMm)
    const yMm = inMm === 1 ? number('y_mm') : micrometre(number('y_mm') * inMm)
    const beamDeg = number('beam_deg', 0)
    const group = ((row.group ?? '').trim() || 'unknown') as FunctionGroup
    if (!functionGroups.includes(group))
      say(
        'error',
        line,
        'group',
        `“${group}” is not a function group; use one of: ${functionGroups.join(', ')}`,
      )
    const trust = ((row.trust ?? '').trim() || 'none') as Trust
    if (!trusts.includes(trust))
      say('error', line, 'trust', `“${trust}” is not a trust; use ${trusts.join(', ')}`)
    const key = name.toUpperCase()
    if (names.has(key)) say('error', line, 'name', `${name} stands already on line ${names.get(key)}`)
    names.set(key, line)
    if (Number.isFinite(xMm) && Number.isFinite(yMm)) {
      if (Math.abs(xMm) > 100 || Math.abs(yMm) > 100)
        say(
          'error',
          line,
          'x_mm, y_mm',
          `(${xMm}, ${yMm}) lies more than 100 mm from the centre; are these millimetres?`,
        )
      const place = `${xMm.toFixed(3)},${yMm.toFixed(3)}`
      if (places.has(place))
        say(
          'error',
          line,
          'x_mm, y_mm',
          `${name} stands where line ${places.get(place)} already has a contact`,
        )
      places.set(place, line)
    }
    contacts.push({ name: key, xMm, yMm, group, net: (row.net ?? '').trim() || key, beamDeg, trust })
  })
  const unknown = contacts.filter((c) => c.group === 'unknown').length
  if (unknown > 0)
    say('warning', 0, 'group', `${unknown} contacts have no function; the odds will be wider for it`)
  const failed = findings.some((f) => f.level === 'error')
  const pitchMm = failed ? null : smallestSpacing(contacts)
  if (pitchMm !== null && (pitchMm < 0.3 || pitchMm > 5))
    say(
      'warning',
      0,
      'x_mm, y_mm',
      `the nearest two contacts are ${pitchMm} mm apart, which is unusual; are these millimetres?`,
    )
  if (failed) return { ...none, unit, findings: firstFindings(findings) }
  const orientation = orientationOf(contacts)
  const odd = sayOrientation(orientation)
  const right = choice.putRight === true && orientation !== null
  if (odd)
    say(
      'warning',
      0,
      'x_mm, y_mm',
      right
        ? `the table was ${odd}; it is put right`
        : `by its names the table is ${odd}; is it so, or should it be put right?`,
    )
  const laid = centred(right ? contacts.map((c) => putRight(c, orientation)) : contacts)
  if (laid.moved)
    say('warning', 0, 'x_mm, y_mm', 'its origin lay in a corner; it is moved to the middle of the field')
  return { contacts: laid.contacts, pitchMm, unit, orientation, findings: firstFindings(findings) }
}

/** Millimetres, unless the places lie farther apart than any contacts do. */
function guessUnit(rows: readonly Row[]): TableUnit {
  const places = rows.flatMap((row) => {
    const [xMm, yMm] = [numberIn((row.x_mm ?? '').trim()), numberIn((row.y_mm ?? '').trim())]
    return xMm === null || yMm === null ? [] : [{ xMm, yMm }]
  })
  return (smallestSpacing(places) ?? 0) > MOST_MM_APART ? 'mil' : 'mm'
}

/** A field whose places all lie to one side of the origin, moved so that the origin is its middle. */
function centred(contacts: readonly Contact[]): {
  readonly contacts: readonly Contact[]
  readonly moved: boolean
} {
  const middle = (of: (c: Contact) => number) => {
    const all = contacts.map(of)
    const [low, high] = [Math.min(...all), Math.max(...all)]
    return low >= 0 || high <= 0 ? (low + high) / 2 : 0
  }
  const [x, y] = [middle((c) => c.xMm), middle((c) => c.yMm)]
  if (contacts.length < 4 || x === 0 || y === 0) return { contacts, moved: false }
  return {
    contacts: contacts.map((c) => ({ ...c, xMm: micrometre(c.xMm - x), yMm: micrometre(c.yMm - y) })),
    moved: true,
  }
}

/** Smallest distance between two contacts, mm; null for fewer than two. Sorted sweep. */
export function smallestSpacing(
  contacts: readonly { readonly xMm: number; readonly yMm: number }[],
): number | null {
  const sorted = [...contacts].sort((a, b) => a.xMm - b.xMm || a.yMm - b.yMm)
  let best = Infinity
  for (let i = 0; i < sorted.length; i++) {
    for (let j = i + 1; j < sorted.length && sorted[j]!.xMm - sorted[i]!.xMm < best; j++) {
      best = Math.min(best, Math.hypot(sorted[j]!.xMm - sorted[i]!.xMm, sorted[j]!.yMm - sorted[i]!.yMm))
    }
  }
  return Number.isFinite(best) ? Math.round(best * 1000) / 1000 : null
}

/** The table back as rows, in the order of `contactColumns`. */
export function contactRows(contacts: readonly Contact[]): string[][] {
  return contacts.map((c) => [
    c.name,
    String(c.xMm),
    String(c.yMm),
    c.group,
    c.net,
    String(c.beamDeg),
    c.trust,
  ])
}

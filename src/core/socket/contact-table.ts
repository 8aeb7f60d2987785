import { firstFindings, missingColumns, notANumber, numberIn } from '../finding'
import type { Finding, Row } from '../finding'
import { functionGroups, MAX_CONTACTS, trusts } from './socket'
import type { Contact, FunctionGroup, Trust } from './socket'

export const contactColumns = ['name', 'x_mm', 'y_mm', 'group', 'net', 'beam_deg', 'trust'] as const

export interface ContactTable {
  readonly contacts: readonly Contact[]
  readonly pitchMm: number | null
  readonly findings: readonly Finding[]
}

/**
 * Reads a contact table: findings for bad data, never an exception.
 *
 * @param rows one record per line, first record stands on line 2
 * @param columns the header as found
 * @returns contacts that are good, the smallest spacing as pitch, and findings (at most 60; the rest is counted)
 */
export function readContactTable(rows: readonly Row[], columns: readonly string[]): ContactTable {
  const findings: Finding[] = []
  const say = (level: Finding['level'], line: number, field: string, text: string) =>
    findings.push({ level, line, field, text })
  const missing = missingColumns(columns, contactColumns.slice(0, 3))
  if (missing) return { contacts: [], pitchMm: null, findings: [missing] }
  if (rows.length > MAX_CONTACTS) {
    say(
      'error',
      MAX_CONTACTS + 2,
      'rows',
      `${rows.length.toLocaleString('en')} contacts; the largest field taken is ${MAX_CONTACTS.toLocaleString('en')}: split it or leave out rows that are not contacts`,
    )
    return { contacts: [], pitchMm: null, findings }
  }
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
    const xMm = number('x_mm')
    const yMm = number('y_mm')
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
  return { contacts: failed ? [] : contacts, pitchMm, findings: firstFindings(findings) }
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

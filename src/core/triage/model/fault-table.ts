import { firstFindings, missingColumns, notANumber, numberIn } from '../../tables/finding'
import type { Finding, Row } from '../../tables/finding'
import { faultIds, faults } from './faults'
import type { FaultId } from './faults'
import type { Fault } from './fault'
import { stages } from './stage'

export const faultColumns = ['fault', 'odds', 'shows', 'stage', 'hides'] as const

/** A shop's own figures: how often each fault comes over its bench. */
export type FaultOdds = Readonly<Partial<Record<FaultId, number>>>

/**
 * Reads a fault table: `fault` and `odds` are needed; `shows`, `stage` and `hides` (faults it keeps from showing, parted
 * by spaces around a bar) may be left out and are checked against the start model, which decides them. Findings for bad
 * data, never an exception: unknown faults, chances outside 0 to 1, odds no bench can have, a stage that is another
 * than the model's, a fault that hides one of an earlier stage, and faults that hide one another in a circle.
 */
export function readFaultTable(
  rows: readonly Row[],
  columns: readonly string[],
): { readonly odds: FaultOdds | null; readonly findings: readonly Finding[] } {
  const missing = missingColumns(columns, faultColumns.slice(0, 2))
  if (missing) return { odds: null, findings: [missing] }
  const findings: Finding[] = []
  const odds: Partial<Record<FaultId, number>> = {}
  const hides = new Map<FaultId, { readonly line: number; readonly others: readonly FaultId[] }>()
  rows.forEach((row, i) => {
    const line = i + 2
    const say = (field: string, text: string) => findings.push({ level: 'error', line, field, text })
    const id = known(row.fault)
    if (!id)
      return say('fault', `“${row.fault ?? ''}” is no fault of the reasoner; needle triage.faults lists them`)
    if (odds[id] !== undefined) return say('fault', `${id} stands twice`)
    const chance = (field: 'odds' | 'shows', most: number) => {
      const text = (row[field] ?? '').trim()
      if (text === '' && field === 'shows') return null
      const value = numberIn(text)
      if (value === null) say(field, notANumber(text))
      else if (value <= 0 || value > most)
        say(field, `${value} is no chance a fault can have: above 0, at most ${most}`)
      return value
    }
    odds[id] = chance('odds', 0.5) ?? 0
    const shows = chance('shows', 1)
    const fault: Fault = faults[id]
    if (shows !== null && shows <= 1 && Math.abs(shows - fault.shows) > 1e-9)
      say('shows', `the model has ${fault.shows} for ${id}, not ${shows}; leave it out`)
    const stage = (row.stage ?? '').trim()
    if (stage !== '' && stage !== fault.stage) say('stage', `${id} acts at ${fault.stage}, not at “${stage}”`)
    const names = (row.hides ?? '')
      .split('|')
      .map((n) => n.trim())
      .filter(Boolean)
    const others = names.flatMap((name) => {
      const other = known(name)
      if (!other) say('hides', `“${name}” is no fault of the reasoner`)
      return other ?? []
    })
    hides.set(id, { line, others })
  })
  const circle = circleIn(hides)
  if (circle)
    findings.push({
      level: 'error',
      line: hides.get(circle[0]!)!.line,
      field: 'hides',
      text: `${[...circle, circle[0]].join(' hides ')}: they hide one another in a circle`,
    })
  else
    for (const [id, { line, others }] of hides)
      for (const other of others)
        if (stages.indexOf(faults[other].stage) < stages.indexOf(faults[id].stage))
          findings.push({
            level: 'error',
            line,
            field: 'hides',
            text: `${id} acts at ${faults[id].stage}, after ${other} at ${faults[other].stage}: it cannot hide it`,
          })
  if (rows.length === 0)
    findings.push({ level: 'error', line: 2, field: 'rows', text: 'the table has a header but no faults' })
  return { odds: findings.length ? null : odds, findings: firstFindings(findings) }
}

const known = (text: string | undefined): FaultId | undefined =>
  faultIds.find((id) => id === (text ?? '').trim())

/** Faults that hide one another in a circle, the first that is found; null when there is none. */
function circleIn(hides: ReadonlyMap<FaultId, { readonly others: readonly FaultId[] }>): FaultId[] | null {
  const done = new Set<FaultId>()
  const path: FaultId[] = []
  const walk = (id: FaultId): FaultId[] | null => {
    const at = path.indexOf(id)
    if (at >= 0) return path.slice(at)
    if (done.has(id)) return null
    path.push(id)
    for (const other of hides.get(id)?.others ?? []) {
      const circle = walk(other)
      if (circle) return circle
    }
    path.pop()
    done.add(id)
    return null
  }
  for (const id of hides.keys()) {
    const circle = walk(id)
    if (circle) return circle
  }
  return null
}

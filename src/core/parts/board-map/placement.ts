import { numberIn } from '../../tables/finding'
import type { Finding, Row } from '../../tables/finding'
import type { BoardSide, Placement } from './board-map'

/** Names that programs give the columns of a placement list; the first that is there counts. */
const called = {
  ref: /^(ref|refdes|reference|designator|part|name|component)\b/i,
  x: /^((mid|center|centre|ref|pos)[\s_-]*)?(x|pos[\s_-]*x)\b/i,
  y: /^((mid|center|centre|ref|pos)[\s_-]*)?(y|pos[\s_-]*y)\b/i,
  turn: /^(rot|rotation|angle|turn)\b/i,
  side: /^(side|layer|tb|mount)/i,
  value: /^(val|value|comment)\b/i,
  body: /^(package|footprint|body|case|size|pattern)\b/i,
} as const

/** A column’s own unit, in brackets or behind its name, as millimetres. */
const unitOf = (column: string): number | null =>
  /\bmils?\b|thou/i.test(column)
    ? 0.0254
    : /\binch|\bin\b|"/i.test(column)
      ? 25.4
      : /mm/i.test(column)
        ? 1
        : null

const sideOf = (text: string): BoardSide | null =>
  /^(b|bot|bottom|back|solder|unten|2)/i.test(text)
    ? 'bottom'
    : /^(t|top|front|f|comp|1)/i.test(text)
      ? 'top'
      : null

/** Reads a placement list (CSV with a header): where each part stands, and its value and body where it says. */
export function readPlacements(
  rows: readonly Row[],
  columns: readonly string[],
): { readonly placements: readonly Placement[]; readonly findings: readonly Finding[] } {
  const findings: Finding[] = []
  const fault = (line: number, field: string, text: string, level: Finding['level'] = 'error') =>
    findings.push({ level, line, field, text })
  const column = (what: keyof typeof called) => columns.find((c) => called[what].test(c.trim()))
  const [ref, x, y] = [column('ref'), column('x'), column('y')]
  if (ref === undefined || x === undefined || y === undefined) {
    const missing = [
      ...(ref === undefined ? ['the part'] : []),
      ...(x === undefined ? ['X'] : []),
      ...(y === undefined ? ['Y'] : []),
    ]
    fault(
      1,
      missing.join(', '),
      `no column for ${missing.join(', ')}; found ${columns.join(', ') || 'nothing'}`,
    )
    return { placements: [], findings }
  }
  const unit = unitOf(x)
  if (unit === null) fault(1, x, 'says no unit: taken as mm', 'warning')
  const mm = unit ?? 1
  const placements = new Map<string, Placement>()
  let sideless = 0
  rows.forEach((row, i) => {
    const cell = (of: string | undefined) => (of === undefined ? '' : (row[of] ?? '').trim())
    const name = cell(ref)
    if (name === '') return
    const number = (of: string) => {
      // Units may stand behind the figure: 12.5mm, 492mil.
      const written = /^([+-]?[\d.]+(?:e[+-]?\d+)?)\s*(mm|mils?|in)?$/i.exec(cell(of))
      const is = written ? numberIn(written[1]!) : null
      if (is === null) return null
      const own = written![2] ? unitOf(written![2]) : null
      return is * (own ?? mm)
    }
    const [px, py] = [number(x), number(y)]
    if (px === null || py === null) {
      fault(i + 2, px === null ? x : y, `“${cell(px === null ? x : y)}” is no place: ${name} is left out`)
      return
    }
    if (placements.has(name)) return fault(i + 2, ref, `${name} stands twice: the first counts`)
    const side = sideOf(cell(column('side')))
    if (side === null) sideless++
    placements.set(name, {
      ref: name,
      xMm: px,
      yMm: py,
      turnDeg: numberIn(cell(column('turn'))) ?? 0,
      side: side ?? 'top',
      value: cell(column('value')).slice(0, 80),
      body: cell(column('body')).slice(0, 80),
    })
  })
  if (sideless > 0 && placements.size > 0)
    fault(0, 'side', `${sideless} of ${placements.size} parts say no side: taken as top`, 'warning')
  return { placements: [...placements.values()], findings }
}

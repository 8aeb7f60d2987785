import type { Finding } from '../../tables/finding'
import type { BoardMap, BoardPoint, PointKind } from './board-map'

export const mapUnits = ['0.0001 inch', '0.001 mm'] as const
export type MapUnits = (typeof mapUnits)[number]
const mmOf: Readonly<Record<MapUnits, number>> = { '0.0001 inch': 0.00254, '0.001 mm': 0.001 }

/** Lines and letters that are read at most. */
const MOST_LINES = 2_000_000
/** A board wider than this, or whose pads all lie closer than this, is in other units than it says, mm. */
const WIDEST_MM = 900
const NARROWEST_MM = 12
/** Findings that are listed one by one, of a kind. */
const MOST_OF_A_KIND = 5
/** Names as long as their columns: what stood behind is gone. */
const NET_COLUMNS = 14

export interface ReadNetlist {
  /** Null where nothing in it could be placed. */
  readonly map: BoardMap | null
  /** What was wrong, or had to be assumed. */
  readonly findings: readonly Finding[]
}

const kindOf: Readonly<Record<string, PointKind>> = {
  '1': 'through',
  '2': 'pad',
  '0': 'via',
  '6': 'hole',
  '3': 'hole',
  '4': 'hole',
}

/** What stands in and behind column 32: hole, side, place, size, turn; other programs leave blanks between. */
const PLACE =
  /^\s*(M)?\s*(?:D\s*(\d{1,4})\s*([PU])?)?\s*(?:A\s*(\d{1,2}))?\s*X\s*([+-]?\d{1,7})\s*Y\s*([+-]?\d{1,7})(?:\s*X(\d{1,4}))?(?:\s*Y(\d{1,4}))?(?:\s*R(\d{1,3}))?/

/** Findings by kind, the first few of each listed and the rest counted. */
class Findings {
  private readonly by = new Map<string, { readonly first: Finding[]; count: number }>()
  put(kind: string, finding: Finding): void {
    const known = this.by.get(kind) ?? { first: [], count: 0 }
    known.count++
    if (known.first.length < MOST_OF_A_KIND) known.first.push(finding)
    this.by.set(kind, known)
  }
  all(): Finding[] {
    return [...this.by].flatMap(([kind, { first, count }]) => [
      ...first,
      ...(count > first.length
        ? [
            {
              level: first[0]!.level,
              line: 0,
              field: kind,
              text: `and ${count - first.length} more lines of the kind`,
            },
          ]
        : []),
    ])
  }
}

/**
 * Reads an IPC-D-356A netlist: test records 3x7 (through-holes, pads, vias, tooling holes), their continuations 0x7, the
 * parameters UNITS and NNAME; comments are passed over. Fixed columns for net, part and pin; what stands behind them is read
 * by its letters, because programs leave blanks there as they like. What the standard leaves open is assumed and said;
 * what cannot be placed is refused, line by line.
 * @param told units that are known to be right, whatever the file says
 */
export function readNetlist(text: string, told?: MapUnits): ReadNetlist {
  const findings = new Findings()
  const points: BoardPoint[] = []
  const names = new Map<string, string>()
  let stated: MapUnits | null = null
  let ended = false
  let alone = 0
  let last: BoardPoint | null = null
  let lines = 0
  const fault = (kind: string, field: string, say: string, level: Finding['level'] = 'error') =>
    findings.put(kind, { level, line: lines, field, text: say })

  let from = 0
  while (from < text.length) {
    let to = text.indexOf('\n', from)
    if (to < 0) to = text.length
    const raw = text.slice(from, text.charCodeAt(to - 1) === 13 ? to - 1 : to)
    from = to + 1
    if (++lines > MOST_LINES) {
      fault('length', 'lines', `more than ${MOST_LINES} lines: the rest is not read`)
      break
    }
    const line = raw.trimEnd()
    if (line === '' || line.startsWith('C')) continue
    if (line.startsWith('P')) {
      const units = /^P\s+UNITS\s+(.*)$/i.exec(line)?.[1]?.trim().toUpperCase()
      if (units !== undefined) {
        const is = unitsOf(units)
        if (is === null)
          fault('units', 'UNITS', `“${units}” are no units of the standard: CUST 0, CUST 1, CUST 2`)
        else if (stated !== null && stated !== is)
          fault('units', 'UNITS', `units are given twice, as ${stated} and as ${is}; the first are taken`)
        else stated = is
      }
      const name = /^P\s+(NNAME\d+)\s+(\S.*)$/i.exec(line)
      if (name) names.set(name[1]!.toUpperCase(), name[2]!.trim())
      continue
    }
    if (line.startsWith('999')) {
      ended = true
      continue
    }
    const code = line.slice(0, 3)
    if (!/^[03][0-9]7$/.test(code)) {
      // Outlines, traces, coatings and the like are no points of a net.
      if (/^\d{3}/.test(line))
        fault('passed over', 'record', `record ${code} is no point of a net: passed over`, 'warning')
      else fault('no record', 'record', `“${line.slice(0, 20)}” is no record: cut, or another file`)
      continue
    }
    const place = PLACE.exec(line.slice(31)) ?? PLACE.exec(line.slice(26).replace(/^[-\s]*\S+\s+/, ''))
    if (!place) {
      fault('no place', 'X, Y', `${code} has no X and Y behind its name: cut, or its columns are shifted`)
      continue
    }
    const goesOn = code.startsWith('0')
    if (goesOn && !last) {
      fault('goes on', 'record', `${code} goes on a record that is not there`)
      continue
    }
    const [, middle, drill, plated, access, x, y, w, h] = place
    const netRaw = line.slice(3, 17).trim()
    const ref = line.slice(20, 26).trim()
    const pin = line.slice(26, 31).replace(/^\s*-/, '').trim()
    const before: BoardPoint | null = goesOn ? last : null
    let kind = kindOf[code[1]!]
    if (kind === undefined) {
      fault('kind', 'record', `record ${code} is of no kind that is known: taken for a pad`, 'warning')
      kind = 'pad'
    }
    if (ref.toUpperCase() === 'VIA') kind = 'via'
    const netName = netRaw === '' ? (before?.net ?? '') : netRaw
    const unconnected = /^N\/?C$/i.test(netName) || netName === ''
    if (netName === '' && kind !== 'hole')
      fault('no net', 'net', 'has no net: taken as connected to nothing', 'warning')
    const side =
      access === undefined
        ? (before?.side ?? (kind === 'pad' ? null : 'both'))
        : Number(access) === 0
          ? 'both'
          : Number(access) === 1
            ? 'top'
            : 'bottom'
    if (side === null) fault('side', 'A', 'does not say its side: taken as top', 'warning')
    const point: BoardPoint = {
      net: unconnected ? '' : netName,
      ref: ref === '' ? (before?.ref ?? '') : kind === 'via' ? '' : ref,
      pin: pin === '' ? (before?.pin ?? '') : kind === 'via' ? '' : pin,
      kind,
      side: side ?? 'top',
      // In units of the file until the units are known.
      xMm: Number(x),
      yMm: Number(y),
      wMm: w === undefined ? (before?.wMm ?? 0) : Number(w),
      hMm: h === undefined ? (before?.hMm ?? 0) : Number(h),
      drillMm: drill === undefined ? (before?.drillMm ?? 0) : Number(drill),
      plated: plated === undefined ? (before?.plated ?? kind !== 'hole') : plated === 'P',
      middle: middle === 'M',
    }
    if (unconnected && kind !== 'hole') alone++
    points.push(point)
    last = point
  }

  const whole = (level: Finding['level'], field: string, say: string) =>
    findings.put(field, { level, line: 0, field, text: say })
  if (points.length === 0) {
    whole('error', 'file', 'holds no record with a net and a place: it is no IPC-D-356A netlist')
    return { map: null, findings: findings.all() }
  }
  if (!ended) whole('warning', 'end', 'does not end with 999: its end may be cut')
  const units = told ?? stated ?? guessUnits(points)
  if (told === undefined && stated === null)
    whole('warning', 'UNITS', `says no units: taken as ${units}, by how close its pins stand`)
  const mm = mmOf[units]
  let cut = 0
  const nets = new Set<string>()
  const placed = points.map((p): BoardPoint => {
    const alias = names.get(p.net.toUpperCase())
    const net = alias ?? p.net
    if (!nets.has(net)) {
      nets.add(net)
      if (alias === undefined && p.net.length >= NET_COLUMNS) cut++
    }
    return {
      ...p,
      net,
      xMm: p.xMm * mm,
      yMm: p.yMm * mm,
      wMm: p.wMm * mm,
      hMm: p.hMm * mm,
      drillMm: p.drillMm * mm,
    }
  })
  if (cut > 0)
    whole(
      'warning',
      'net',
      `${cut} ${cut === 1 ? 'net has a name' : 'nets have names'} that fill their ${NET_COLUMNS} columns: they may be cut, and two of them may be one here`,
    )
  const [wide, high] = extent(placed)
  const large = Math.max(wide, high)
  if (large > WIDEST_MM || large < NARROWEST_MM)
    whole(
      'error',
      'UNITS',
      `with ${units} the board is ${Math.round(wide)} by ${Math.round(high)} mm: other units?`,
    )
  return { map: { points: placed, units, unconnected: alone }, findings: findings.all() }
}

function unitsOf(said: string): MapUnits | null {
  const text = said.replace(/\s+/g, ' ')
  if (/^CUST 1\b|^SI\b|^MM\b|^METRIC\b/.test(text)) return '0.001 mm'
  return /^CUST$|^CUST [02]\b|^INCH|^MIL|^ENGLISH/.test(text) ? '0.0001 inch' : null
}

/** How close neighbouring pins of one part stand on most boards, mm. */
const PIN_GRID = [0.4, 0.5, 0.65, 0.8, 0.95, 1.0, 1.27, 2.0, 2.54]

/** Units in which neighbouring pins of a part stand on the usual grids; inches where both fit, as the standard has it. */
function guessUnits(points: readonly BoardPoint[]): MapUnits {
  const steps: number[] = []
  for (let i = 1; i < points.length && steps.length < 5000; i++) {
    const [a, b] = [points[i - 1]!, points[i]!]
    if (a.ref !== '' && a.ref === b.ref && a.pin !== b.pin)
      steps.push(Math.hypot(a.xMm - b.xMm, a.yMm - b.yMm))
  }
  const fits = (mm: number) =>
    steps.filter((s) => PIN_GRID.some((grid) => Math.abs((s * mm) / grid - 1) < 0.012)).length
  return fits(mmOf['0.001 mm']) > fits(mmOf['0.0001 inch']) ? '0.001 mm' : '0.0001 inch'
}

function extent(points: readonly BoardPoint[]): readonly [number, number] {
  let [left, right, low, high] = [Infinity, -Infinity, Infinity, -Infinity]
  for (const { xMm, yMm } of points) {
    if (xMm < left) left = xMm
    if (xMm > right) right = xMm
    if (yMm < low) low = yMm
    if (yMm > high) high = yMm
  }
  return [right - left, high - low]
}

import { micrometre } from '../../maths/units'
import { MAX_CONTACTS } from './socket'
import { functionGroups } from '../../board/function-group'
import type { Contact, Socket, SocketKind, Trust } from './socket'
import type { FunctionGroup } from '../../board/function-group'
import { isRail } from '../contact/function-law'

/** A rectangle in rows and columns, counted from 0, both ends inclusive. */
export interface Box {
  readonly rows: readonly [number, number]
  readonly columns: readonly [number, number]
}

/** A painted rectangle: what the contacts inside it do. */
export interface Region extends Box {
  readonly group: FunctionGroup
  /** Stem of the net names, such as `MA_DQ`. */
  readonly net: string
  readonly trust: Trust
  /** Every n-th contact of the region is a ground instead. */
  readonly groundEvery?: number
}

export interface FieldParameters {
  readonly id: string
  readonly name: string
  readonly kind: SocketKind
  readonly pitchMm: number
  readonly rows: number
  readonly columns: number
  /** Rectangles without contacts: the middle, the key notches. */
  readonly holes: readonly Box[]
  /** Beam direction of the left and of the right half, degrees; a one-direction field gives both alike. */
  readonly beamDeg: readonly [number, number]
  /** The first region a contact lies in decides; outside all of them its function is unknown. */
  readonly regions: readonly Region[]
  /** Contacts that are alone in what they do, by name. */
  readonly singles?: Readonly<Record<string, { readonly group: FunctionGroup; readonly net: string }>>
}

const letters = 'ABCDEFGHJKLMNPRTUVWY'

/** Row letters as on sockets: A…Y without the letters that look like figures, then AA, AB… */
export function rowName(row: number): string {
  const n = letters.length
  return row < n ? letters[row]! : letters[Math.floor(row / n) - 1]! + letters[row % n]!
}

/** Row and column of a contact name, counted from 0; null when it is none. */
export function placeOf(name: string): { readonly row: number; readonly column: number } | null {
  const match = /^([A-Z]{1,2})(\d{1,3})$/.exec(name.toUpperCase())
  const figures = [...(match?.[1] ?? '')].map((letter) => letters.indexOf(letter))
  const column = Number(match?.[2] ?? 0) - 1
  if (!match || column < 0 || figures.includes(-1)) return null
  const row = figures.length === 1 ? figures[0]! : (figures[0]! + 1) * letters.length + figures[1]!
  return { row, column }
}

const inside = (row: number, column: number, box: Box) =>
  row >= box.rows[0] && row <= box.rows[1] && column >= box.columns[0] && column <= box.columns[1]

/**
 * A field of contacts from parameters: rows run away from the far edge (row A is the far row), columns from the left.
 * @throws RangeError if rows, columns or pitch are not positive, or there are more contacts than a field may have
 */
export function generateField(p: FieldParameters): Socket {
  if (!(p.rows > 0 && p.columns > 0 && p.pitchMm > 0))
    throw new RangeError('rows, columns and pitch must be > 0')
  if (p.rows * p.columns > MAX_CONTACTS * 2)
    throw new RangeError(`a field has at most ${MAX_CONTACTS} contacts`)
  const contacts: Contact[] = []
  const numbers = new Map<unknown, number>()
  const next = (of: unknown) => {
    const n = numbers.get(of) ?? 0
    numbers.set(of, n + 1)
    return n
  }
  for (let row = 0; row < p.rows; row++) {
    for (let column = 0; column < p.columns; column++) {
      if (p.holes.some((hole) => inside(row, column, hole))) continue
      const name = `${rowName(row)}${column + 1}`
      const single = p.singles?.[name]
      const region = p.regions.find((r) => inside(row, column, r))
      let group: FunctionGroup = single?.group ?? region?.group ?? 'unknown'
      let net = single?.net ?? name
      if (region && !single) {
        const every = region.groundEvery ?? 0
        if (every > 0 && next(region) % every === every - 1) group = 'ground'
        net = group === 'ground' ? 'GND' : isRail(group) ? region.net : `${region.net}${next(region.net)}`
      }
      contacts.push({
        name,
        xMm: micrometre((column - (p.columns - 1) / 2) * p.pitchMm),
        yMm: micrometre(((p.rows - 1) / 2 - row) * p.pitchMm),
        group,
        net,
        beamDeg: column < p.columns / 2 ? p.beamDeg[0] : p.beamDeg[1],
        trust: region?.trust ?? 'none',
      })
    }
  }
  if (contacts.length > MAX_CONTACTS) throw new RangeError(`a field has at most ${MAX_CONTACTS} contacts`)
  return { id: p.id, name: p.name, kind: p.kind, pitchMm: p.pitchMm, contacts }
}

/**
 * Reads painted regions as text, one a line: `A1 H12 memory A`. They are rough guesses, so their trust is `region`.
 * @returns regions and, for each line that makes no sense, what is wrong with it
 */
export function readRegions(text: string): {
  readonly regions: readonly Region[]
  readonly faults: readonly string[]
} {
  const regions: Region[] = []
  const faults: string[] = []
  text.split('\n').forEach((line, i) => {
    if (line.trim() === '') return
    const [from, to, ...rest] = line.trim().split(/[\s:–-]+/)
    const group = functionGroups.find((g) => g.toLowerCase() === rest.join(' ').toLowerCase())
    const a = placeOf(from ?? '')
    const b = placeOf(to ?? '')
    if (!a || !b) return faults.push(`line ${i + 1}: begin with two corners, like A1 H12`)
    if (!group)
      return faults.push(
        `line ${i + 1}: “${rest.join(' ')}” is not a function group; use ${functionGroups.join(', ')}`,
      )
    const span = (x: number, y: number) => [Math.min(x, y), Math.max(x, y)] as const
    const net = group === 'ground' ? 'GND' : `${group.replace(/\W/g, '_').toUpperCase()}_`
    return regions.push({
      rows: span(a.row, b.row),
      columns: span(a.column, b.column),
      group,
      net,
      trust: 'region',
    })
  })
  return { regions, faults }
}

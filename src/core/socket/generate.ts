import type { Contact, FunctionGroup, Socket, SocketKind, Trust } from './socket'

/** A painted rectangle in rows and columns (inclusive): what the contacts inside it do. */
export interface Region {
  readonly rows: readonly [number, number]
  readonly columns: readonly [number, number]
  readonly group: FunctionGroup
  /** Stem of the net names, such as `MA_DQ`. */
  readonly net: string
  readonly trust?: Trust
  /** Every n-th contact of the region is a ground instead; 0 for none. */
  readonly groundEvery?: number
}

export interface FieldParameters {
  readonly id: string
  readonly name: string
  readonly kind: SocketKind
  readonly pitchMm: number
  readonly rows: number
  readonly columns: number
  /** Rectangles of rows and columns (inclusive) without contacts: the middle, the key notches. */
  readonly holes: readonly { readonly rows: readonly [number, number]; readonly columns: readonly [number, number] }[]
  /** Stop after this many contacts; the last ones in row order are left out. */
  readonly count?: number
  /** Beam direction of the left and of the right half, degrees; a one-direction field gives both alike. */
  readonly beamDeg: readonly [number, number]
  readonly regions: readonly Region[]
  readonly trust: Trust
}

const letters = 'ABCDEFGHJKLMNPRTUVWY'

/** Row letters as on sockets: A…Y without the letters that look like figures, then AA, AB… */
export function rowName(row: number): string {
  const n = letters.length
  return row < n ? letters[row]! : letters[Math.floor(row / n) - 1]! + letters[row % n]!
}

const inside = (row: number, column: number, box: { rows: readonly [number, number]; columns: readonly [number, number] }) =>
  row >= box.rows[0] && row <= box.rows[1] && column >= box.columns[0] && column <= box.columns[1]

/** Singles that every field has, laid at fixed places of the first region free of memory and lanes. */
const strays: readonly { readonly group: FunctionGroup; readonly net: string }[] = [
  { group: 'clock', net: 'REF_CLK_P' },
  { group: 'clock', net: 'REF_CLK_N' },
  { group: 'reset', net: 'CPU_RST' },
  { group: 'control', net: 'PWR_OK_IN' },
  { group: 'sense', net: 'VCORE_SENSE' },
  { group: 'sense', net: 'VSS_SENSE' },
  { group: 'control', net: 'STRAP_0' },
  { group: 'control', net: 'STRAP_1' },
]

/**
 * A field of contacts from parameters: rows run away from the far edge (row A is the far row), columns from the left.
 * @throws RangeError if rows, columns or pitch are not positive
 */
export function generateField(p: FieldParameters): Socket {
  if (!(p.rows > 0 && p.columns > 0 && p.pitchMm > 0)) throw new RangeError('rows, columns and pitch must be > 0')
  const contacts: Contact[] = []
  const numbers = new Map<string, number>()
  const next = (net: string) => {
    const n = numbers.get(net) ?? 0
    numbers.set(net, n + 1)
    return n
  }
  let plain = 0
  for (let row = 0; row < p.rows; row++) {
    for (let column = 0; column < p.columns; column++) {
      if (p.holes.some((hole) => inside(row, column, hole))) continue
      if (p.count !== undefined && contacts.length >= p.count) continue
      const region = p.regions.find((r) => inside(row, column, r))
      let group: FunctionGroup = 'reserved'
      let net = 'RSV'
      if (region) {
        const ordinal = next(`#${p.regions.indexOf(region)}`)
        const ground = region.groundEvery && ordinal % region.groundEvery === region.groundEvery - 1
        group = ground ? 'ground' : region.group
        const rail = group === 'ground' || group.endsWith('power')
        net = ground ? 'GND' : rail ? region.net : `${region.net}${next(region.net)}`
      } else {
        const stray = strays[plain >= 6 ? (plain - 6) / 5 : -1]
        group = stray?.group ?? (plain % 7 === 3 ? 'ground' : 'reserved')
        net = stray?.net ?? (group === 'ground' ? 'GND' : `RSV${next('RSV')}`)
        plain += 1
      }
      contacts.push({
        name: `${rowName(row)}${column + 1}`,
        xMm: round((column - (p.columns - 1) / 2) * p.pitchMm),
        yMm: round(((p.rows - 1) / 2 - row) * p.pitchMm),
        group,
        net,
        beamDeg: column < p.columns / 2 ? p.beamDeg[0] : p.beamDeg[1],
        trust: region?.trust ?? p.trust,
      })
    }
  }
  return { id: p.id, name: p.name, kind: p.kind, pitchMm: p.pitchMm, contacts }
}

const round = (mm: number) => Math.round(mm * 1000) / 1000

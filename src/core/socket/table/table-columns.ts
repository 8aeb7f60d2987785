import type { Row } from '../../tables/finding'

/** Units a table’s places may be in, and their length in mm. */
export const tableUnits = { mm: 1, mil: 0.0254, um: 0.001, inch: 25.4 } as const
export type TableUnit = keyof typeof tableUnits

/** What a column may be called; the first of a list is our own name for it. */
const called: Readonly<Record<string, readonly string[]>> = {
  name: [
    'name',
    'contact',
    'pin',
    'ball',
    'pad',
    'land',
    'position',
    'location',
    'designator',
    'pin name',
    'pin number',
    'number',
  ],
  x_mm: ['x_mm', 'x', 'pos x', 'x pos', 'x position', 'x coord', 'x coordinate', 'center x', 'centre x'],
  y_mm: ['y_mm', 'y', 'pos y', 'y pos', 'y position', 'y coord', 'y coordinate', 'center y', 'centre y'],
  group: ['group', 'function', 'type', 'class', 'bank'],
  net: ['net', 'net name', 'signal', 'signal name'],
  beam_deg: ['beam_deg', 'beam', 'beam direction', 'direction', 'angle'],
  trust: ['trust', 'source', 'reliability'],
}

const unitWords: Readonly<Record<string, TableUnit>> = {
  mm: 'mm',
  millimetre: 'mm',
  millimeter: 'mm',
  mil: 'mil',
  mils: 'mil',
  thou: 'mil',
  um: 'um',
  µm: 'um',
  micron: 'um',
  in: 'inch',
  inch: 'inch',
  inches: 'inch',
}

/** A header without its unit, in small letters with single spaces, and the unit it names. */
function plain(header: string): { readonly stem: string; readonly unit: TableUnit | null } {
  const words = header
    .trim()
    .toLowerCase()
    .replace(/[()[\]_\-./]+/g, ' ')
    .split(/\s+/)
    .filter(Boolean)
  const unit = unitWords[words.at(-1) ?? ''] ?? null
  return {
    stem: (unit && words.length > 1 ? words.slice(0, -1) : words).join(' '),
    unit: words.length > 1 ? unit : null,
  }
}

export interface KnownTable {
  readonly rows: readonly Row[]
  /** Columns by our own names, with those that are not known as they were. */
  readonly columns: readonly string[]
  /** The unit that the header names; null where it names none. */
  readonly unit: TableUnit | null
}

/**
 * A table under our own column names, whatever order and common names it has; a column that is known twice is taken
 * the first time.
 */
export function knownTable(rows: readonly Row[], columns: readonly string[]): KnownTable {
  const ours = new Map<string, string>()
  let unit: TableUnit | null = null
  const renamed = columns.map((column) => {
    const { stem, unit: named } = plain(column)
    const own = Object.keys(called).find((name) =>
      called[name]!.some((word) => word.replace('_', ' ') === stem || word.replace('_mm', '') === stem),
    )
    if (!own || [...ours.values()].includes(own)) return column
    ours.set(column, own)
    if (own === 'x_mm') unit = named
    return own
  })
  if (renamed.every((name, i) => name === columns[i]))
    return { rows, columns, unit: unit ?? (columns.includes('x_mm') ? 'mm' : null) }
  return {
    rows: rows.map((row) => Object.fromEntries(columns.map((column, i) => [renamed[i]!, row[column]]))),
    columns: renamed,
    unit,
  }
}

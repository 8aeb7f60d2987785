import { servable } from '../../board/shelf-items'
import type { ShelfItem } from '../../board/shelf-items'
import { missingColumns, notANumber, numberIn } from '../../tables/finding'
import type { Finding, Row } from '../../tables/finding'
import { dielectrics } from '../substitute/substitute'
import type { StockPart } from '../substitute/substitute'
import { partKinds, readValue, sayValue } from '../value/quantity'
import type { PartKind } from '../value/quantity'
import { sizeOf } from '../value/size-code'

/** What lies on the shelf: small parts, and what is counted by the piece. */
export const stockKinds = [...partKinds, 'chip', 'CPU', 'module', 'consumable', 'tool'] as const
export type StockKind = (typeof stockKinds)[number]

/** What is known of a small part stands as the substitutes are judged by. */
export interface StockItem extends Omit<StockPart, 'id' | 'kind' | 'value' | 'free'> {
  /** As it is called in the drawer; each once. */
  readonly item: string
  readonly kind: StockKind
  /** Ω or F of a small part; null for anything else. */
  readonly value: number | null
  readonly place: string
  /** Pieces when it was counted last. */
  readonly count: number
  /** From so many down it is to be bought. */
  readonly low: number
  /** What tests need, that a piece of it is. */
  readonly serves?: ShelfItem
}

/** An item as it stands: what was used since it was counted, and what open jobs hold. */
export interface AtHandItem extends StockItem {
  readonly left: number
  readonly held: readonly { readonly tag: string; readonly count: number }[]
  /** A CPU of the kit, which no table of the shelf counts. */
  readonly ofKit: boolean
}

/** Pieces that are there and promised to no job but perhaps this one. */
export const freeOf = ({ left, held }: AtHandItem, tag?: string): number =>
  Math.max(0, left - held.reduce((sum, h) => sum + (h.tag === tag ? 0 : h.count), 0))

export const isLow = (item: AtHandItem): boolean => freeOf(item) <= item.low

export const stockColumns = [
  'item',
  'kind',
  'value',
  'tolerance',
  'size',
  'watts',
  'volts',
  'amps',
  'dielectric',
  'place',
  'count',
  'low',
  'serves',
] as const

const isPart = (kind: StockKind): kind is PartKind => partKinds.some((k) => k === kind)

/** Reads a table of the shelf: `item`, `kind` and `count` are needed; a value is written as on the bag (33, 4k7, 100n). */
export function readStock(
  rows: readonly Row[],
  columns: readonly string[],
): { readonly items: readonly StockItem[] | null; readonly findings: readonly Finding[] } {
  const missing = missingColumns(columns, ['item', 'kind', 'count'])
  if (missing) return { items: null, findings: [missing] }
  const findings: Finding[] = []
  const seen = new Set<string>()
  const items = rows.map((row, i): StockItem => {
    const say = (field: string, text: string) => findings.push({ level: 'error', line: i + 2, field, text })
    const text = (field: string) => (row[field] ?? '').trim()
    const item = text('item')
    if (item === '') say('item', 'needs a name, as it is called in the drawer')
    else if (item.length > 80) say('item', 'has at most 80 letters')
    else if (seen.has(item)) say('item', `“${item}” stands twice`)
    seen.add(item)
    const kind = stockKinds.find((k) => k === text('kind'))
    if (!kind) say('kind', `“${text('kind')}” is no kind; there are ${stockKinds.join(', ')}`)
    const whole = (field: 'count' | 'low'): number => {
      const is = text(field) === '' && field === 'low' ? 0 : numberIn(text(field))
      if (is === null || !Number.isInteger(is) || is < 0 || is > 1_000_000) {
        say(field, `“${text(field)}” are no pieces: a whole number from 0`)
        return 0
      }
      return is
    }
    const figure = (field: 'tolerance' | 'watts' | 'volts' | 'amps', most: number): number | undefined => {
      const written = text(field).replace(/\s*%$/, '')
      if (written === '') return undefined
      const is = numberIn(written)
      if (is === null || is <= 0) {
        say(field, is === null ? notANumber(written) : 'must be above 0')
        return undefined
      }
      const share = text(field).endsWith('%') ? is / 100 : is
      if (share > most) say(field, `${share} is more than any has: at most ${most}`)
      return share
    }
    const value = kind && isPart(kind) ? readValue(kind, text('value')) : null
    if (kind && isPart(kind) && value === null)
      say('value', `“${text('value')}” is no value of a ${kind}: 33, 4k7, 100n`)
    const size = text('size')
    if (size !== '' && sizeOf(size) === undefined) say('size', `“${size}” is no size: 0402, 0603, 0805`)
    const made = dielectrics.find((d) => d === text('dielectric'))
    if (text('dielectric') !== '' && !made)
      say('dielectric', `“${text('dielectric')}” is none of ${dielectrics.join(', ')}`)
    const serves = servable.find((known) => known === text('serves'))
    if (text('serves') !== '' && !serves)
      say('serves', `“${text('serves')}” is nothing a test needs; there are ${servable.join(', ')}`)
    const figures = {
      tolerance: figure('tolerance', 1),
      watts: figure('watts', 1000),
      volts: figure('volts', 10_000),
      amps: figure('amps', 1000),
    }
    return {
      item,
      kind: kind ?? 'consumable',
      value,
      ...Object.fromEntries(Object.entries(figures).filter(([, v]) => v !== undefined)),
      ...(size ? { size } : {}),
      ...(made ? { dielectric: made } : {}),
      place: text('place').slice(0, 80),
      count: whole('count'),
      low: whole('low'),
      ...(serves ? { serves } : {}),
    }
  })
  return { items: findings.length > 0 ? null : items, findings }
}

/** An item as a row of the table, with what is left of it. */
export function stockRow(of: AtHandItem): readonly (string | number)[] {
  const { item, kind, value, tolerance, size, watts, volts, amps, dielectric, place, left, low, serves } = of
  const written = value === null || !isPart(kind) ? '' : sayValue(kind, value).replace(/[ ΩF]/g, '') || '0'
  return [
    item,
    kind,
    written,
    tolerance ?? '',
    size ?? '',
    watts ?? '',
    volts ?? '',
    amps ?? '',
    dielectric ?? '',
    place,
    left,
    low,
    serves ?? '',
  ]
}

/** Small parts of the shelf as the substitutes are judged by, with what is free for a job. */
export const partsOf = (stock: readonly AtHandItem[], tag: string): readonly StockPart[] =>
  stock.flatMap((of) => {
    const {
      item: id,
      kind,
      value,
      place: _,
      count: __,
      low: ___,
      left: ____,
      held: _____,
      serves: ______,
      ofKit: _______,
      ...known
    } = of
    return isPart(kind) && value !== null ? [{ ...known, id, kind, value, free: freeOf(of, tag) }] : []
  })

import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { servable } from '../../board/shelf-items'
import { freeOf, isLow, partsOf, readStock, stockColumns, stockKinds, stockRow } from './stock-item'
import type { AtHandItem, StockItem } from './stock-item'

const row = (of: Partial<Record<(typeof stockColumns)[number], string>>) => of
const read = (...rows: Parameters<typeof row>[0][]) => readStock(rows, stockColumns)
const atHand = (of: Partial<AtHandItem> = {}): AtHandItem => ({
  item: '33 Ω 0402',
  kind: 'resistor',
  value: 33,
  place: 'drawer 4',
  count: 20,
  low: 5,
  left: 20,
  held: [],
  ofKit: false,
  ...of,
})

describe('a table of the shelf', () => {
  it('is read with values as they stand on the bag', () => {
    const { items, findings } = read(
      row({
        item: 'R 4k7',
        kind: 'resistor',
        value: '4k7',
        tolerance: '1%',
        size: '0402',
        count: '40',
        low: '10',
      }),
      row({ item: 'C 100n', kind: 'capacitor', value: '100n', volts: '16', dielectric: 'X7R', count: '3' }),
      row({ item: 'flux', kind: 'consumable', place: 'shelf', count: '2', low: '1' }),
      row({ item: 'cell', kind: 'consumable', count: '4', serves: 'new coin cell' }),
    )
    expect(findings).toEqual([])
    expect(items).toEqual([
      {
        item: 'R 4k7',
        kind: 'resistor',
        value: 4700,
        tolerance: 0.01,
        size: '0402',
        place: '',
        count: 40,
        low: 10,
      },
      {
        item: 'C 100n',
        kind: 'capacitor',
        value: 1e-7,
        volts: 16,
        dielectric: 'X7R',
        place: '',
        count: 3,
        low: 0,
      },
      { item: 'flux', kind: 'consumable', value: null, place: 'shelf', count: 2, low: 1 },
      { item: 'cell', kind: 'consumable', value: null, place: '', count: 4, low: 0, serves: 'new coin cell' },
    ])
  })
  it('names what is wrong by line and field, and is then not kept', () => {
    const { items, findings } = read(
      row({ item: '', kind: 'resistor', value: '4k7k', count: '1.5' }),
      row({ item: 'x', kind: 'valve', count: '-1', size: '9999', dielectric: 'glass', serves: 'tea' }),
      row({ item: 'x', kind: 'capacitor', value: '100', tolerance: '200%', volts: 'many', count: '1' }),
    )
    expect(items).toBeNull()
    expect(findings.map((f) => `${f.line} ${f.field}`)).toEqual([
      '2 item',
      '2 value',
      '2 count',
      '3 kind',
      '3 size',
      '3 dielectric',
      '3 serves',
      '3 count',
      '4 item',
      '4 value',
      '4 tolerance',
      '4 volts',
    ])
    expect(readStock([], ['item']).findings[0]!.text).toContain('kind')
  })
  it('goes out as it is read in, with what is left', () => {
    const number = fc.integer({ min: 1, max: 999 })
    fc.assert(
      fc.property(
        fc.constantFrom(...stockKinds),
        number,
        fc.constantFrom(1, 1000),
        fc.option(fc.constantFrom('0402', '0805'), { nil: undefined }),
        number,
        fc.option(fc.constantFrom(...servable), { nil: undefined }),
        (kind, figure, power, size, left, serves) => {
          const small = kind === 'resistor' || kind === 'capacitor' || kind === 'bead'
          const value = !small ? null : kind === 'capacitor' ? figure * power * 1e-12 : figure * power
          const item: StockItem = {
            item: 'a',
            kind,
            value: value === null ? null : Number(value.toPrecision(12)),
            ...(size ? { size } : {}),
            place: 'p',
            count: left,
            low: 2,
            ...(serves ? { serves } : {}),
          }
          const out = stockRow({ ...item, left, held: [], ofKit: false })
          const again = read(Object.fromEntries(stockColumns.map((c, i) => [c, String(out[i])])))
          expect(again.findings).toEqual([])
          expect(again.items![0]).toEqual(item)
        },
      ),
    )
  })
})

describe('what is free', () => {
  it('is what is left less what other jobs hold; a job’s own is free for it', () => {
    const item = atHand({
      left: 6,
      held: [
        { tag: 'Q-0001', count: 2 },
        { tag: 'Q-0002', count: 3 },
      ],
    })
    expect([freeOf(item), freeOf(item, 'Q-0001'), freeOf(item, 'Q-0009')]).toEqual([1, 3, 1])
    expect(freeOf(atHand({ left: 1, held: [{ tag: 'x', count: 4 }] }))).toBe(0)
    expect([isLow(item), isLow(atHand({ left: 6 })), isLow(atHand({ left: 5 }))]).toEqual([true, false, true])
  })
  it('stands with the small parts that may stand in for another', () => {
    expect(
      partsOf([atHand({ size: '0402' }), atHand({ kind: 'consumable', value: null })], 'Q-0001'),
    ).toEqual([{ id: '33 Ω 0402', kind: 'resistor', value: 33, size: '0402', free: 20 }])
  })
})

import { rails } from '../../board/rail'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { railState } from '../../board/rail-limits'
import { judgeRails, ownRailsOf, railColumns, railRows, readRailTable } from './rail-table'
import type { RailReference } from './rail-table'

const reference: RailReference = {
  name: 'a good one',
  rails: {
    vcore: { ohmsOut: 6, ohmsIn: 1.2, volts: 1.05 },
    vmem: { ohmsOut: 220, ohmsIn: 180, volts: 1.2 },
    '12v': { ohmsOut: 480, ohmsIn: null, volts: 12 },
  },
}
const one = (ohms: number, cpu: 'in' | 'out' = 'out', rail: 'vcore' | 'vmem' | '12v' | '5v' = 'vmem') =>
  judgeRails({ ohms: { [rail]: { ohms, cpu } }, volts: {} }, reference)[0]!.ohms

describe('rails of a model’s own', () => {
  const read = (...rows: readonly (readonly string[])[]) =>
    readRailTable(
      'x',
      rows.map((row) => Object.fromEntries(railColumns.map((c, i) => [c, row[i] ?? '']))),
      railColumns,
    )
  it('are read beside the usual ones, and written as they were read', () => {
    const rows = [
      ['vcore', '6', '1.2', ''],
      ['chipset', '92', '', '1.05'],
    ]
    const { reference: good } = read(...rows)
    expect(railRows(good!)).toEqual(rows)
    expect(ownRailsOf(good)).toEqual([{ rail: 'chipset', ohmsOut: 92, ohmsIn: null, volts: 1.05 }])
    expect(ownRailsOf(null)).toEqual([])
  })
  it.each<[string, readonly string[], RegExp]>([
    ['without what a good board reads', ['chipset', '', '', '1'], /what does a good board read/],
    ['with a name that is none', ['9 volts!', '5', '', ''], /or one of the board’s own: a word/],
  ])('%s are a finding', (_, row, says) => expect(read(row).findings[0]!.text).toMatch(says))
  it('are low in the table where they are low for the gate', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 2000, noNaN: true }),
        fc.double({ min: 0, max: 2000, noNaN: true }),
        (ohmsOut, ohms) => {
          const own = [{ rail: 'chipset', ohmsOut, ohmsIn: null, volts: null }]
          const reading = { rail: 'chipset', ohms, cpu: 'out' } as const
          const [judged] = judgeRails({ ohms: { chipset: reading }, volts: {} }, null, own).filter(
            (r) => r.ohms,
          )
          const { state } = judged!.ohms!
          expect(state === 'high' ? 'good' : state).toBe(railState(reading, own))
        },
      ),
    )
  })
  it('are judged by it, ohms and volts; of one that is not known is said so', () => {
    const own = ownRailsOf(read(['chipset', '92', '', '1.05']).reference)
    const judged = (ohms: number, volts: number) =>
      judgeRails({ ohms: { chipset: { ohms, cpu: 'out' } }, volts: { chipset: volts } }, null, own).find(
        (r) => r.rail === 'chipset',
      )!
    expect(judged(8, 1.05)).toMatchObject({ ohms: { state: 'short' }, volts: { state: 'good' } })
    expect(judged(40, 1.3)).toMatchObject({ ohms: { state: 'low', expected: 92 }, volts: { state: 'high' } })
    expect(judged(90, 0.1)).toMatchObject({ ohms: { state: 'good' }, volts: { state: 'missing' } })
    const [unknown] = judgeRails({ ohms: {}, volts: { vref: 0.6 } }, null)
    expect(unknown).toMatchObject({ volts: null, say: 'vref rail: nobody knows what it should be' })
  })
})

describe('a rail against a good board', () => {
  it('is low, good or high by the share of its ohms', () => {
    expect([one(60), one(200), one(900)].map((o) => o!.state)).toEqual(['low', 'good', 'high'])
  })
  it('is judged by the usual limits where the good board has no figure', () => {
    expect(one(30, 'in', '12v')).toEqual({ state: 'low', expected: null })
    expect(one(300, 'out', '5v')).toEqual({ state: 'good', expected: null })
  })
  it('is never called better than the usual limits call a short, whatever the reference', () => {
    const figure = fc.option(fc.double({ min: 0, max: 1e4, noNaN: true }))
    fc.assert(
      fc.property(
        fc.constantFrom(...rails),
        fc.double({ min: 0, max: 50, noNaN: true }),
        fc.constantFrom('in', 'out'),
        figure,
        figure,
        (rail, ohms, cpu, ohmsOut, ohmsIn) => {
          const judged = judgeRails(
            { ohms: { [rail]: { ohms, cpu } }, volts: {} },
            { name: '', rails: { [rail]: { ohmsOut, ohmsIn, volts: null } } },
          )
          if (railState({ rail, ohms, cpu }, []) === 'short') expect(judged[0]!.ohms!.state).toBe('short')
        },
      ),
    )
  })
  it('tells volts that are missing, low, right and too high', () => {
    const state = (volts: number) =>
      judgeRails({ ohms: {}, volts: { vcore: volts } }, reference)[0]!.volts!.state
    expect([0.1, 0.9, 1.07, 1.4].map(state)).toEqual(['missing', 'low', 'good', 'high'])
    expect(judgeRails({ ohms: {}, volts: { vcore: 1.4 } }, reference)[0]!.say).toContain('take the CPU out')
  })
})

describe('a table of rails', () => {
  it('reads back as it was written', () => {
    const rows = railRows(reference).map((r) => Object.fromEntries(railColumns.map((c, i) => [c, r[i]])))
    expect(readRailTable('a good one', rows, railColumns)).toEqual({ reference, findings: [] })
  })
  it.each([
    [{ rail: 'v gpu' }, 'rail', '“v gpu” is no rail'],
    [{ rail: 'vmem', volts: '1,2' }, 'volts', 'write a decimal point'],
    [{ rail: 'vmem', ohms_cpu_out: '-4' }, 'ohms_cpu_out', 'not between'],
  ])('refuses %j', (row, field, text) => {
    const { reference: none, findings } = readRailTable('x', [row], railColumns)
    expect(none).toBeNull()
    expect(findings[0]).toMatchObject({ line: 2, field })
    expect(findings[0]!.text).toContain(text)
  })
  it('refuses a rail that stands twice and a table without rails', () => {
    expect(readRailTable('x', [{ rail: 'vmem' }, { rail: 'VMEM' }], railColumns).findings[0]!.text).toContain(
      'stands twice',
    )
    expect(readRailTable('x', [], railColumns).reference).toBeNull()
  })
})

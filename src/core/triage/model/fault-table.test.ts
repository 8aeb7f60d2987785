import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { faultIds } from './faults'
import { faultColumns, readFaultTable } from './fault-table'

const read = (...rows: Readonly<Record<string, string>>[]) => readFaultTable(rows, faultColumns)
const first = (...rows: Readonly<Record<string, string>>[]) => read(...rows).findings[0]

describe('a fault table', () => {
  it('gives the shop’s odds', () => {
    expect(read({ fault: 'module', odds: '0.08', shows: '', stage: 'memory training', hides: '' })).toEqual({
      odds: { module: 0.08 },
      findings: [],
    })
  })
  it.each([
    [{ fault: 'gremlins', odds: '0.1' }, 'fault', 'is no fault of the reasoner'],
    [{ fault: 'module', odds: '1.4' }, 'odds', '1.4 is no chance a fault can have'],
    [{ fault: 'module', odds: '-0.1' }, 'odds', 'no chance'],
    [{ fault: 'module', odds: '0' }, 'odds', 'no chance'],
    [{ fault: 'module', odds: 'often' }, 'odds', 'not a number'],
    [{ fault: 'module', odds: '0.1', shows: '1.01' }, 'shows', 'no chance'],
    [{ fault: 'module', odds: '0.1', stage: 'standby' }, 'stage', 'acts at memory training'],
    [{ fault: 'module', odds: '0.1', hides: 'gremlins' }, 'hides', 'is no fault'],
    [{ fault: 'module', odds: '0.1', hides: '12 V short' }, 'hides', 'it cannot hide it'],
  ])('refuses %j', (row, field, text) => {
    expect(read(row).odds).toBeNull()
    expect(first(row)).toMatchObject({ line: 2, field })
    expect(first(row)!.text).toContain(text)
  })
  it('finds a circle, and says it in full', () => {
    const rows = [
      { fault: 'slot A', odds: '0.1', hides: 'slot B' },
      { fault: 'slot B', odds: '0.1', hides: 'module | memory A contact open' },
      { fault: 'module', odds: '0.1', hides: 'slot A' },
    ]
    expect(first(...rows)!.text).toBe(
      'slot A hides slot B hides module hides slot A: they hide one another in a circle',
    )
  })
  it('finds a circle exactly when walking on for as many steps as there are faults comes back', () => {
    const few = faultIds.slice(0, 6)
    const edges = fc.array(fc.tuple(fc.nat({ max: 5 }), fc.nat({ max: 5 })), { maxLength: 9 })
    fc.assert(
      fc.property(edges, (pairs) => {
        const reach = few.map((_, i) => new Set(pairs.filter(([a]) => a === i).map(([, b]) => b)))
        for (let k = 0; k < 6; k++)
          for (const set of reach) for (const j of [...set]) for (const m of reach[j]!) set.add(m)
        const circles = reach.some((set, i) => set.has(i))
        const rows = few.map((fault, i) => ({
          fault,
          odds: '0.1',
          hides: pairs
            .filter(([a]) => a === i)
            .map(([, b]) => few[b]!)
            .join('|'),
        }))
        expect(read(...rows).findings.some((f) => f.text.includes('in a circle'))).toBe(circles)
      }),
    )
  })
})

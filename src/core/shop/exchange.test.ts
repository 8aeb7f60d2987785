import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Support } from '../firmware/route/support-table'
import { release, starts } from '../firmware/route/support-table.testing'
import { unknownBuild } from './build'
import { cpuOn, matches, toBuy } from './exchange'
import type { Kept, Model, Wanted } from './exchange'

const support = new Support({
  releases: [
    release('1.00'),
    release('1.20'),
    release('1.40', { unstable: true }),
    release('1.52'),
    release('2.04'),
  ],
  support: [
    starts('Orrin 44', '1.00'),
    starts('Orrin 53', '1.20', '1.52'),
    starts('Orrin 61', '1.40', '1.40'),
  ],
})
const model = (id: string, socketId: string | null, of: Support | null = support): Model => ({
  id,
  name: id.replace('-b', ''),
  board: id,
  socketId,
  support: of,
  build: unknownBuild,
})
const kept = (tag: string, of: Model, more: Partial<Kept> = {}): Kept => ({
  tag,
  model: of,
  revision: 'B',
  release: '1.52',
  unproved: [],
  ...more,
})
const wanted: Wanted = {
  boardModelId: 'k61',
  name: 'k61',
  revision: 'b',
  socketId: 'lg',
  cpu: 'Orrin 53, no cooler',
  memory: '2 × 8 GB',
  diskLock: 'no',
  build: unknownBuild,
}
const k61 = model('k61', 'lg')

describe('the owner’s CPU on another board', () => {
  it('starts by its list, is written for first, or is not known; never taken to start', () => {
    expect(cpuOn(support, '1.52', 'Orrin 53').is).toBe('starts')
    expect(cpuOn(support, '1.00', 'Orrin 53')).toEqual({
      is: 'after a write',
      say: 'it holds 1.00: write 1.52 before Orrin 53 goes in',
    })
    expect(cpuOn(support, '1.40', 'Orrin 53').is).toBe('after a write')
    // A later release that has dropped it is no release that starts it.
    expect(cpuOn(support, '2.04', 'Orrin 53').say).toBe('it holds 2.04: write 1.52 before Orrin 53 goes in')
    expect(cpuOn(support, null, 'Orrin 53')).toEqual({
      is: 'by its release',
      say: 'read which release it holds: Orrin 53 starts on 1.20, 1.52',
    })
    expect(cpuOn(support, '9.99', 'Orrin 53').is).toBe('by its release')
    expect(cpuOn(support, '1.52', 'Orrin 61').is).toBe('never')
    for (const [of, cpu] of [
      [support, 'Orrin 99'],
      [support, ''],
      [null, 'Orrin 53'],
    ] as const)
      expect(cpuOn(of, '1.52', cpu).is).toBe('not known')
  })
})

describe('a board out of verified stock', () => {
  it('is of the same model and revision before another, and has what is to be looked at said', () => {
    const found = matches(wanted, [
      kept('Q-0003', model('k74', 'lg')),
      kept('Q-0002', model('k61-b', 'lg')),
      kept('Q-0001', k61),
      kept('Q-0004', model('other', 'pg')),
      kept('Q-0005', model('nobody', null)),
    ])
    expect(found.map((m) => [m.tag, m.fitsAs])).toEqual([
      ['Q-0001', 'same model and revision'],
      ['Q-0002', 'same model, another revision'],
      ['Q-0003', 'another model'],
    ])
    expect(found[0]!.check).toEqual([])
    expect(found[1]!.check).toHaveLength(1)
    expect(found[2]!.check).toHaveLength(4)
    expect(matches({ ...wanted, diskLock: 'unknown' }, [kept('Q-0001', k61)])[0]!.check).toEqual([
      expect.stringContaining('recovery key'),
    ])
  })
  it('is not offered while it is not proved, nor where no stable release starts the CPU, whatever else fits', () => {
    const found = matches(wanted, [
      kept('Q-0001', k61, { unproved: ['not proved: memory'] }),
      kept('Q-0003', model('k74', 'lg')),
    ])
    expect(found.map((m) => [m.tag, m.not])).toEqual([
      ['Q-0003', []],
      ['Q-0001', ['not proved: memory']],
    ])
    expect(matches({ ...wanted, cpu: 'Orrin 61' }, [kept('Q-0001', k61)])[0]!.not).toHaveLength(1)
  })
  it('is not offered where the owner’s memory does not go onto it, nor bought; what goes over is not asked about again', () => {
    const built = {
      memoryKind: 'long',
      memorySlots: 2,
      sizeMm: [244, 244],
      cardSlots: [16],
      supplyPins: [24, 8],
    } as const
    const k74 = (more: object) => ({ ...model('k74', 'lg'), build: { ...built, ...more } })
    const want = { ...wanted, build: built }
    const [alike] = matches(want, [kept('Q-0001', k74({}))])
    expect(alike).toMatchObject({ not: [], check: [expect.stringMatching(/^the case: rear openings/)] })
    for (const more of [{ memoryKind: 'short' }, { memorySlots: 1 }]) {
      expect(matches(want, [kept('Q-0001', k74(more))])[0]!.not).toHaveLength(1)
      expect(toBuy(want, [k74(more)])).toEqual([])
    }
    const other = { ...kept('Q-0002', { ...model('k61-b', 'lg'), build: { ...built, memorySlots: 1 } }) }
    expect(matches(want, [other])[0]!.not).toEqual(['it has 1 memory slot, the owner 2 modules'])
    expect(toBuy(want, [k74({ cardSlots: [] })])[0]!.check).toContain(
      'card slots: none; the one that came had 16: which cards go in',
    )
  })
  it('is never of another socket, nor of one that nobody knows; nothing unproved is offered, and the order of the shelf changes nothing', () => {
    const any = fc.uniqueArray(
      fc.record({
        tag: fc.integer({ min: 1, max: 99 }).map((n) => `Q-${n}`),
        model: fc.constantFrom(k61, model('k74', 'lg'), model('pg', 'pg'), model('none', null)),
        revision: fc.constantFrom('', 'B'),
        release: fc.constantFrom(null, '1.00', '1.52'),
        unproved: fc.constantFrom([], ['not proved: x']),
      }),
      { selector: (k) => k.tag, maxLength: 8 },
    )
    const want = fc.record({
      boardModelId: fc.constantFrom(null, 'k61'),
      socketId: fc.constantFrom(null, 'lg'),
    })
    fc.assert(
      fc.property(any, want, (shelf, some) => {
        const all = matches({ ...wanted, ...some }, shelf)
        expect(matches({ ...wanted, ...some }, shelf.toReversed())).toEqual(all)
        for (const m of all) {
          const k = shelf.find((s) => s.tag === m.tag)!
          expect(
            k.model.id === some.boardModelId ||
              (some.socketId !== null && k.model.socketId === some.socketId),
          ).toBe(true)
          if (k.unproved.length > 0) expect(m.not).not.toEqual([])
        }
      }),
    )
  })
  it('or what to buy: the model itself, and those of its socket whose list names the CPU', () => {
    expect(
      toBuy(wanted, [model('k99', 'lg', null), model('k74', 'lg'), model('pg', 'pg'), k61]).map(
        (b) => b.board,
      ),
    ).toEqual(['k61', 'k74'])
    expect(toBuy({ ...wanted, cpu: 'Orrin 61' }, [model('k74', 'lg'), k61])).toEqual([])
  })
})

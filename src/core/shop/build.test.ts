import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { buildWords, fitsFor, modulesIn, readBuild, unknownBuild } from './build'
import type { Build } from './build'

const came: Build = {
  memoryKind: 'long, 288 contacts',
  memorySlots: 4,
  sizeMm: [244, 305],
  cardSlots: [16, 4, 1],
  supplyPins: [24, 8],
}

describe('how many modules an owner has', () => {
  it.each([
    ['2 × 8 GB', 2],
    ['4x16', 4],
    ['2×8 GB + 2 × 16 GB', 4],
    ['8 GB, 8 GB', 2],
    ['one 16 GB', 1],
    ['3 modules', 3],
    ['two sticks', null],
    ['16x2', null],
    ['32 GB, one of them bad', null],
    ['', null],
    ['0 × 8 GB', null],
    ['99999 × 8 GB', null],
  ])('in “%s”', (words, modules) => expect(modulesIn(words)).toBe(modules))
})

describe('a build that is typed', () => {
  const typed = {
    memoryKind: ' long ',
    memorySlots: '4',
    sizeMm: '244x305 mm',
    cardSlots: '16 4,1',
    supplyPins: '24+8',
  }
  it('is read, written again and read the same; empty is not known', () => {
    const { build, faults } = readBuild(typed)
    expect(faults).toEqual({})
    expect(build).toEqual({ ...came, memoryKind: 'long' })
    expect(readBuild(buildWords(build)).build).toEqual(build)
    expect(readBuild(buildWords(unknownBuild))).toEqual({ build: unknownBuild, faults: {} })
    const none = { ...unknownBuild, cardSlots: [] }
    expect(readBuild(buildWords(none)).build).toEqual(none)
  })
  it('that cannot be read names its field, and how it is written', () => {
    const wrong = {
      memoryKind: 'm'.repeat(61),
      memorySlots: 'two',
      sizeMm: '244',
      cardSlots: '16, x',
      supplyPins: '0',
    }
    const { faults } = readBuild(wrong)
    expect(Object.keys(faults)).toEqual(Object.keys(wrong))
    expect(faults.sizeMm).toContain('244 × 305')
  })
})

describe('what goes over to another board', () => {
  it('goes onto one that is built alike; what no build says is still to be looked at', () => {
    const { never, look } = fitsFor(came, '2 × 8 GB', came)
    expect(never).toEqual([])
    expect(look.join()).not.toMatch(/memory:|card slots:|supply plugs:/)
    expect(look.join()).toMatch(/rear openings.*front headers/)
  })
  it('is not known of a board that nobody noted: each thing is to be looked at', () => {
    for (const [a, b] of [
      [came, unknownBuild],
      [unknownBuild, came],
    ] as const)
      expect(fitsFor(a, '', b)).toMatchObject({
        never: [],
        look: [
          expect.stringMatching(/^the case: holes/),
          expect.stringMatching(/^memory: its kind/),
          expect.stringMatching(/^card slots/),
          expect.stringMatching(/^supply plugs/),
        ],
      })
  })
  it('never where its memory is of another kind, or there are more modules than slots', () => {
    expect(fitsFor(came, '', { ...came, memoryKind: 'short, 260 contacts' }).never).toEqual([
      'it takes memory “short, 260 contacts”, the one that came “long, 288 contacts”',
    ])
    expect(fitsFor(came, '', { ...came, memoryKind: ' Long, 288  contacts ' }).never).toEqual([])
    expect(fitsFor(came, '4 × 8 GB', { ...came, memorySlots: 2 }).never).toEqual([
      'it has 2 memory slots, the owner 4 modules',
    ])
    expect(fitsFor(came, '2 × 8 GB', { ...came, memorySlots: 2 })).toMatchObject({
      never: [],
      look: [expect.not.stringMatching(/memory:/)],
    })
  })
  it('says fewer slots where nobody knows how many modules there are', () => {
    expect(fitsFor(came, '32 GB in all', { ...came, memorySlots: 2 }).look).toContain(
      'memory: 2 slots where there were 4, so count the owner’s modules',
    )
  })
  it('says a board that is larger, card slots that are fewer or shorter, plugs that were not there', () => {
    const { never, look } = fitsFor(came, '1 × 8 GB', {
      ...came,
      sizeMm: [244, 310],
      cardSlots: [4, 16],
      supplyPins: [24, 8, 4],
    })
    expect(never).toEqual([])
    expect(look).toEqual([
      'the case: it is 244 × 310 mm, the one that came 244 × 305: whether it goes in; rear openings, room round the cooler, front headers',
      'card slots: 16, 4; the one that came had 16, 4, 1: which cards go in',
      'supply plugs: 24, 8, 4 pins; the one that came had 24, 8: whether the supply has them',
    ])
    expect(fitsFor(came, '1 × 8 GB', { ...came, sizeMm: [170, 170], supplyPins: [24] }).look).toEqual([
      'the case: it is smaller, 170 × 170 mm: holes; rear openings, room round the cooler, front headers',
    ])
  })
  it('never says fine of what one of them does not tell', () => {
    const maybe = <T>(of: fc.Arbitrary<T>) => fc.option(of, { nil: null })
    const any: fc.Arbitrary<Build> = fc.record({
      memoryKind: maybe(fc.constantFrom('long', 'short')),
      memorySlots: maybe(fc.integer({ min: 1, max: 8 })),
      sizeMm: maybe(fc.tuple(fc.integer({ min: 100, max: 400 }), fc.integer({ min: 100, max: 400 }))),
      cardSlots: maybe(fc.array(fc.constantFrom(1, 4, 8, 16), { maxLength: 5 })),
      supplyPins: maybe(fc.array(fc.constantFrom(4, 8, 24), { maxLength: 4 })),
    })
    fc.assert(
      fc.property(any, any, fc.constantFrom('', '2 × 8 GB', '4 × 8 GB'), (a, b, memory) => {
        const { never, look } = fitsFor(a, memory, b)
        const says = (what: string) => [...never, ...look].some((line) => line.includes(what))
        if (a.memoryKind === null || b.memoryKind === null) expect(says('memory: its kind')).toBe(true)
        if (b.memorySlots === null) expect(says('as many slots as there are modules')).toBe(true)
        if (a.cardSlots === null || b.cardSlots === null) expect(says('card slots')).toBe(true)
        if (a.supplyPins === null || b.supplyPins === null) expect(says('supply plugs')).toBe(true)
        expect(says('the case')).toBe(true)
      }),
    )
  })
})

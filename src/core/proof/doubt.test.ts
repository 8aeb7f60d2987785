import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { functionGroups } from '../board/function-group'
import { harmMinutes } from '../board/proved'
import type { Proved } from '../board/proved'
import { untouched } from '../board/station-says'
import type { Touched } from '../board/station-says'
import { afterPass, anyBad, doubtsOf, findsSomething, inOrder } from './doubt'
import type { Doubts, Placed, Shows } from './doubt'

const things: readonly Proved[] = ['starts', 'cooling', 'memory A', 'card lanes', 'sense']
const chance = fc.double({ min: 0, max: 0.95, noNaN: true })
const anyDoubts: fc.Arbitrary<Doubts> = fc
  .array(chance, { minLength: things.length, maxLength: things.length })
  .map((odds) => new Map(things.map((what, i) => [what, odds[i]!])))
const anyShows: fc.Arbitrary<Shows> = fc.dictionary(fc.constantFrom(...things), chance)

/** Every way the things can be, with its chance: written from the words, without the model. */
function* everyWay(doubts: Doubts): Generator<{ readonly bad: ReadonlySet<Proved>; readonly p: number }> {
  for (let way = 0; way < 2 ** things.length; way++) {
    const bad = new Set(things.filter((_, i) => (way >> i) & 1))
    yield {
      bad,
      p: things.reduce((p, what) => p * (bad.has(what) ? doubts.get(what)! : 1 - doubts.get(what)!), 1),
    }
  }
}
const passes = (bad: ReadonlySet<Proved>, shows: Shows) =>
  [...bad].reduce((p, what) => p * (1 - (shows[what] ?? 0)), 1)

describe('doubts', () => {
  it('after tests have passed are those of counting every way the board can be', () => {
    fc.assert(
      fc.property(anyDoubts, fc.array(anyShows, { maxLength: 3 }), (doubts, tests) => {
        let [pass, any] = [0, 0]
        const each = new Map(things.map((what) => [what, 0]))
        for (const { bad, p } of everyWay(doubts)) {
          const q = p * tests.reduce((all, shows) => all * passes(bad, shows), 1)
          pass += q
          if (bad.size > 0) any += q
          for (const what of bad) each.set(what, each.get(what)! + q)
        }
        const now = tests.reduce(afterPass, doubts)
        for (const what of things) expect(now.get(what)).toBeCloseTo(each.get(what)! / pass, 9)
        expect(anyBad(now)).toBeCloseTo(any / pass, 9)
        const found = tests.reduce(
          (all, shows, i) => all * (1 - findsSomething(tests.slice(0, i).reduce(afterPass, doubts), shows)),
          1,
        )
        expect(found).toBeCloseTo(pass, 9)
      }),
    )
  })
  it('count what is suspected on top of the rest, a picture being in its odds already', () => {
    const odds = (t: Partial<Touched>) => doubtsOf({ ...untouched, cell: true, ...t }).get('settings kept')!
    const [weak, gone] = [
      { of: 'settings kept', odds: 0.2, say: 'coin cell weak' },
      { of: 'settings kept', odds: 0.5, say: 'cell holder' },
    ] as const
    expect(odds({ suspected: [weak] })).toBeCloseTo(1 - (1 - odds({})) * 0.8, 12)
    expect(odds({ suspected: [weak, gone] })).toBeCloseTo(1 - (1 - odds({})) * 0.8 * 0.5, 12)
    const clock = (t: Partial<Touched>) => doubtsOf({ ...untouched, cameUp: true, ...t }).get('clock') ?? 0
    expect(clock({ suspected: [{ of: 'clock', odds: 0.1, say: 'x' }] })).toBeCloseTo(0.1, 12)
  })
  it('never rise by a pass, and stay where a test shows nothing of them', () => {
    fc.assert(
      fc.property(anyDoubts, anyShows, (doubts, shows) => {
        const now = afterPass(doubts, shows)
        for (const [what, p] of doubts) {
          expect(now.get(what)!).toBeLessThanOrEqual(p + 1e-12)
          if (!shows[what]) expect(now.get(what)).toBeCloseTo(p, 12)
        }
      }),
    )
  })
  it('are never fewer when more was touched, and a start that came up takes away none that it does not show', () => {
    const groups = fc.uniqueArray(fc.constantFrom(...functionGroups))
    const anyTouched = fc.record({
      groups,
      firmware: fc.boolean(),
      parts: fc.boolean(),
      intermittent: fc.boolean(),
    })
    fc.assert(
      fc.property(anyTouched, fc.constantFrom(...functionGroups), (t, more) => {
        const before = doubtsOf({ ...untouched, ...t })
        const after = doubtsOf({ ...untouched, ...t, groups: [...t.groups, more] })
        for (const [what, p] of before) expect(after.get(what)).toBeGreaterThanOrEqual(p - 1e-12)
        const up = doubtsOf({ ...untouched, ...t, cameUp: true })
        expect(anyBad(up)).toBeLessThanOrEqual(anyBad(before))
        expect(up.get('cooling')).toBe(before.get('cooling'))
        expect(up.get('memory A')).toBe(before.get('memory A'))
      }),
    )
  })
  it('take a field’s own odds before the usual ones: what is known of it stands, good or bad', () => {
    const odds = (lost: Readonly<Record<string, number>>) =>
      doubtsOf({ ...untouched, groups: ['display', 'sense'], lost }).get('sense')!
    expect(odds({})).toBeCloseTo(0.05, 12)
    expect(odds({ sense: 0.4 })).toBeCloseTo(0.4, 12)
    expect(odds({ sense: 0 })).toBe(0)
  })
})

describe('the order of tests', () => {
  /** What comes to the owner, or is found late: minutes of harm, each for the time until a test shows it. */
  function cost(order: readonly Placed[], doubts: Doubts): number {
    let [sum, minutes] = [0, 0]
    let left = new Map([...doubts].map(([what, p]) => [what, p]))
    for (const test of order) {
      minutes += test.minutes
      const then = new Map<Proved, number>()
      for (const [what, p] of left) {
        const q = test.shows[what] ?? 0
        sum += p * q * harmMinutes(what) * minutes
        then.set(what, p * (1 - q))
      }
      left = then
    }
    for (const [what, p] of left) sum += p * harmMinutes(what) * minutes
    return sum
  }
  const permutations = <T>(all: readonly T[]): T[][] =>
    all.length === 0
      ? [[]]
      : all.flatMap((one, i) =>
          permutations([...all.slice(0, i), ...all.slice(i + 1)]).map((rest) => [one, ...rest]),
        )
  const small = fc.double({ min: 0.001, max: 0.1, noNaN: true })
  const minutes = fc.integer({ min: 1, max: 30 })
  it('is the best there is where each thing has one test', () => {
    fc.assert(
      fc.property(fc.tuple(...things.map(() => fc.tuple(small, chance, minutes))), (each) => {
        const doubts = new Map(things.map((what, i) => [what, each[i]![0]]))
        const tests = things.map((what, i) => ({
          id: what,
          minutes: each[i]![2],
          shows: { [what]: each[i]![1] },
        }))
        const best = Math.min(...permutations(tests).map((order) => cost(order, doubts)))
        expect(cost(inOrder(tests, doubts), doubts)).toBeLessThanOrEqual(best * (1 + 1e-9))
      }),
      { numRuns: 30 },
    )
  })
  it('is within a twelfth of the best there is where tests overlap', () => {
    fc.assert(
      fc.property(
        fc.tuple(...things.map(() => small)),
        fc.array(fc.tuple(anyShows, minutes), { minLength: 4, maxLength: 5 }),
        (odds, drawn) => {
          const doubts = new Map(things.map((what, i) => [what, odds[i]!]))
          const tests = drawn.map(([shows, m], i) => ({ id: String(i), minutes: m, shows }))
          const best = Math.min(...permutations(tests).map((order) => cost(order, doubts)))
          expect(cost(inOrder(tests, doubts), doubts)).toBeLessThanOrEqual(best * 1.084)
        },
      ),
      { numRuns: 60 },
    )
  })
  it('keeps what has to come before, and what needs no power first; loses none', () => {
    const test = (id: string, more: Partial<Placed> = {}): Placed => ({
      id,
      minutes: 5,
      shows: { starts: 0.5 },
      ...more,
    })
    const doubts = doubtsOf(untouched)
    const ids = (...tests: Placed[]) => inOrder(tests, doubts).map((t) => t.id)
    expect(
      ids(test('b', { after: 'a', shows: { cooling: 0.99 } }), test('a', { shows: {} }), test('c')),
    ).toEqual(['a', 'b', 'c'])
    expect(ids(test('b', { after: 'not owed' }))).toEqual(['b'])
    expect(ids(test('a'), test('cold', { unpowered: true, shows: {} }))).toEqual(['cold', 'a'])
  })
  it('says what each finds once those before it have passed: a second test of one thing finds less', () => {
    const doubts: Doubts = new Map([['starts', 0.2]])
    const [one, two] = inOrder(
      [1, 2].map((i) => ({ id: String(i), minutes: 5, shows: { starts: 0.5 } })),
      doubts,
    )
    expect(one!.finds).toBeCloseTo(0.1, 12)
    expect(two!.finds).toBeCloseTo((0.1 / 0.9) * 0.5, 12)
  })
})

import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { benchTests } from '../model/bench-tests'
import { faultIds } from '../model/faults'
import type { FaultId } from '../model/faults'
import { changedBy, repairOf } from '../model/repair'
import type { Change } from '../model/repair'
import {
  nextTests,
  repairMove,
  riskOf,
  SETTLED,
  toConfirm,
  verdict,
  NEAR,
  WORTH_BITS,
  worthTrying,
} from './next-test'
import type { BenchTest } from '../model/bench-test'
import { hypotheses, leading, UNKNOWN, WIDTH } from './hypotheses'
import { asItCounts, doneNow, likelihood } from './likelihood'
import { faultOdds, posterior, priorOdds, standing } from './odds'
import type { Evidence } from './likelihood'

const prior = priorOdds([])
const none = new Set<string>()
const anyEvidence: fc.Arbitrary<Evidence> = fc
  .constantFrom(...benchTests.slice(0, 30))
  .chain((test) => fc.constantFrom(...test.outcomes).map((outcome) => ({ test: test.id, outcome })))
/** Odds of one in each of the given sets. */
const even = (...sets: (readonly FaultId[])[]) => {
  const odds = new Float64Array(WIDTH)
  for (const ids of sets) {
    const h = hypotheses.findIndex((of) => of.length === ids.length && ids.every((id) => of.includes(id)))
    odds[h] = 1 / sets.length
  }
  return odds
}

describe('which test next', () => {
  it('is one that tells the suspects apart, with what each outcome would point to', () => {
    const [first] = nextTests(even(['module'], ['slot A']), { done: none })
    const rows = likelihood(first!.test)
    const h = (id: FaultId) => 1 + faultIds.indexOf(id)
    const apart = rows.reduce((all, row) => all + Math.abs(row[h('module')]! - row[h('slot A')]!), 0)
    expect(apart).toBeGreaterThan(1)
    expect(new Set(first!.outcomes.map((o) => o.points))).toEqual(new Set(['module', 'slot A']))
  })
  it('never tells less than nothing nor more than the doubt there is, and is ranked', () => {
    fc.assert(
      fc.property(fc.array(anyEvidence, { maxLength: 4 }), (evidence) => {
        const odds = standing(posterior(prior, evidence), [])
        const done = new Set(evidence.map((e) => e.test))
        const suggested = nextTests(odds, { done })
        for (const s of suggested) {
          expect(done.has(s.test.id)).toBe(false)
          expect(s.tells).toBeGreaterThan(0)
          expect(s.tells).toBeLessThan(Math.log2(faultIds.length + 2))
          expect(s.outcomes.reduce((sum, o) => sum + o.odds, 0)).toBeCloseTo(1, 6)
        }
        const deep = suggested.slice(0, 5)
        const tells = (s: { tells: number }) => Number(s.tells >= WORTH_BITS)
        const ranked = [...deep].sort((a, b) => tells(b) - tells(a) || b.worth - a.worth)
        const isNear = (s: { tells: number; worth: number }) =>
          tells(s) === tells(ranked[0]!) && s.worth >= NEAR * ranked[0]!.worth
        const near = ranked.filter(isNear)
        // Those that are as good as the best come by what they tell themselves; the rest by worth.
        expect(new Set(deep.slice(0, near.length))).toEqual(new Set(near))
        for (const s of near) expect(s.tells).toBeLessThanOrEqual(deep[0]!.tells + 1e-12)
        expect(deep.slice(near.length)).toEqual(ranked.filter((s) => !isNear(s)))
      }),
      { numRuns: 12 },
    )
  })
  it('is the one a plain count of the doubt finds best per minute, looking one step ahead', () => {
    const odds = even(['module'], ['slot A'], ['settings'], ['memory A contact open'])
    const entropy = (p: readonly number[]) => p.reduce((all, q) => (q > 0 ? all - q * Math.log2(q) : all), 0)
    const suspects = [...odds.keys()].filter((h) => odds[h]! > 0)
    const byHand = benchTests
      .map((test) => {
        const left = likelihood(test).reduce((all, row) => {
          const joint = suspects.map((h) => odds[h]! * row[h]!)
          const sum = joint.reduce((a, b) => a + b, 0)
          const after = joint.map((w) => w / sum)
          return all + sum * (Math.max(...after) >= SETTLED ? 0 : entropy(after))
        }, 0)
        return { id: test.id, tells: 2 - left, lends: test.lends, worth: (2 - left) / test.minutes }
      })
      .filter((t) => t.tells > 1e-6 && t.lends === null)
      .sort((a, b) => b.worth - a.worth)
    const suggested = nextTests(odds, { done: none, deep: 0 }).filter((s) => s.test.lends === null)
    expect(suggested.slice(0, 5).map((s) => s.test.id)).toEqual(byHand.slice(0, 5).map((t) => t.id))
    suggested.slice(0, 5).forEach((s, i) => expect(s.tells).toBeCloseTo(byHand[i]!.tells, 2))
  })
  it('is a reading once more, where it may have been a slip, and never a third time while they agree', () => {
    const seen = (...outcomes: string[]) =>
      asItCounts(outcomes.map((outcome) => ({ test: 'ohms vmem', outcome })))
    const asked = (of: readonly Evidence[]) =>
      nextTests(standing(posterior(prior, of), []), { done: doneNow(of, []), seen: of }).find(
        (s) => s.test.id === 'ohms vmem',
      )
    const dark: Evidence = { test: 'as it came', outcome: 'memory lamp' }
    expect(asked([dark, ...seen('low')])).toMatchObject({ again: true })
    expect(asked([dark, ...seen('low', 'low')])).toBeUndefined()
    expect(asked([dark, ...seen('low', 'good')])).toMatchObject({ again: true })
    expect(asked([dark, ...seen('good')])).toBeUndefined()
    expect(asked([dark])).toMatchObject({ again: false })
  })
  it('comes before a repair that rests on a single reading', () => {
    const seen = (n: number) => [
      { test: 'as it came', outcome: 'nothing' },
      { test: 'volts standby', outcome: 'missing' },
      { test: 'strip', outcome: 'on' },
      { test: 'standby current', outcome: 'none' },
      ...asItCounts(Array.from({ length: n }, () => ({ test: 'ohms standby', outcome: 'short' }))),
    ]
    const found = (n: number) => standing(posterior(prior, seen(n)), [])
    expect(verdict(found(1))).toMatchObject({ is: 'found', fault: 'standby rail short' })
    expect(toConfirm(found(1), 'standby rail short', { seen: seen(1) })).toBe('ohms standby')
    expect(toConfirm(found(1), 'standby rail short', { seen: seen(1), shelf: new Set() })).toBeNull()
    expect(toConfirm(found(2), 'standby rail short', { seen: seen(2) })).toBeNull()
    // What does not rest on it asks for nothing more.
    const open = [{ test: 'socket', outcome: 'sense contact off' }, ...seen(1).slice(0, 1)]
    expect(toConfirm(standing(posterior(prior, open), []), 'sense contact open', { seen: open })).toBeNull()
  })
  it('starts it as it came once more when modules were moved since', () => {
    const done = (...tests: string[]) => {
      const changes: Change[] = []
      const evidence = tests.map((test): Evidence => {
        const after = changes.length
        changes.push(...changedBy(test))
        return { test, outcome: 'system loads', after }
      })
      return [...doneNow(evidence, changes)]
    }
    expect(done('as it came', 'own graphics')).toEqual(['as it came', 'own graphics'])
    expect(done('as it came', 'own in B')).toEqual(['own in B'])
    expect(done('as it came', 'own in B', 'as it came')).toEqual(['own in B', 'as it came'])
  })
  it('stays with what the shelf holds and the gate lets be done', () => {
    const bare = nextTests(prior, { done: none, shelf: new Set() })
    expect(bare.length).toBeGreaterThan(5)
    for (const s of bare) expect(s.test.needs).toEqual([])
    const stocked = nextTests(prior, { done: none, shelf: new Set(benchTests.flatMap((t) => t.needs)) })
    expect(stocked.some((s) => s.test.needs.length > 0)).toBe(true)
    expect(stocked.length).toBeGreaterThan(bare.length)
    for (const s of nextTests(prior, { done: none, mayPower: false })) expect(s.test.powers).toBe(false)
  })
  it('counts the price of a good CPU in a board that may kill it', () => {
    const worth = (odds: Float64Array) => nextTests(odds, { done: none }).find((s) => s.test.lends === 'CPU')
    const safe = worth(even(['CPU'], ['CPU unsupported'], ['firmware corrupt']))!
    const risky = worth(even(['CPU'], ['sense contact open'], ['firmware corrupt']))!
    expect(safe.riskMinutes).toBe(0)
    expect(risky.riskMinutes).toBeGreaterThan(40)
    expect(risky.worth).toBeLessThan(safe.worth)
  })
  it('is none when all is settled or everything is done', () => {
    expect(nextTests(even(['module']), { done: none })).toEqual([])
    expect(nextTests(prior, { done: new Set(benchTests.map((t) => t.id)) })).toEqual([])
  })
})

describe('which test next, all of it worked out by hand', () => {
  const sets: readonly (readonly FaultId[])[] = [
    [],
    ['module'],
    ['slot A'],
    ['CPU'],
    ['settings'],
    ['sense contact open'],
    ['firmware corrupt'],
    ['module', 'CPU'],
    ['core rail short', 'memory A contact open'],
  ]
  const at = sets.map((ids) =>
    hypotheses.findIndex((of) => of.length === ids.length && ids.every((id) => of.includes(id))),
  )
  /** The fault a start meets first; “none” and each unknown stage stand by themselves. */
  const first = (h: number) => (h >= UNKNOWN ? `unknown ${h}` : h === 0 ? 'none' : faultIds[leading[h]!]!)
  const marginal = (weights: readonly (readonly [number, number])[], id: FaultId) =>
    weights.reduce((sum, [h, w]) => (hypotheses[h]?.includes(id) ? sum + w : sum), 0)
  /** Entropy of the fault to mend first, nats; none once one is settled or nothing is left. */
  const doubt = (weights: readonly (readonly [number, number])[]) => {
    const total = weights.reduce((sum, [, w]) => sum + w, 0)
    if (Math.max(...faultIds.map((id) => marginal(weights, id))) >= 0.95 * total) return 0
    const by = new Map<string, number>()
    for (const [h, w] of weights) by.set(first(h), (by.get(first(h)) ?? 0) + w)
    if ((by.get('none') ?? 0) >= 0.985 * total) return 0
    return [...by.values()].reduce((sum, w) => (w > 0 ? sum - (w / total) * Math.log(w / total) : sum), 0)
  }
  const harms: Readonly<Partial<Record<FaultId, number>>> = {
    'sense contact open': 0.4,
    'core rail short': 0.15,
  }
  const lent = { CPU: 400, module: 80, card: 150 }
  /** Whether it tells a hundredth of a bit: what tells less is no first step. */
  const enough = (s: { gain: number }) => Number(s.gain / Math.LN2 >= 0.01)

  function byHand(odds: Float64Array, tests: readonly BenchTest[], deep: number) {
    const start = [...odds.entries()].filter(([, p]) => p > 0)
    const after = (weights: typeof start, test: BenchTest) =>
      likelihood(test).map((row) => weights.map(([h, w]) => [h, w * row[h]!] as [number, number]))
    const sum = (weights: typeof start) => weights.reduce((all, [, w]) => all + w, 0)
    const left = (weights: typeof start, test: BenchTest) =>
      after(weights, test).reduce((all, then) => all + (sum(then) / sum(weights)) * doubt(then), 0)
    const risk = start.reduce((all, [h, p]) => {
      const safe = (hypotheses[h] ?? []).reduce((none, id) => none * (1 - (harms[id] ?? 0)), 1)
      return all + p * (1 - safe)
    }, 0)
    const one = tests
      .map((test) => {
        const riskMinutes = test.lends ? risk * lent[test.lends] : 0
        const minutes = test.minutes + riskMinutes
        const gain = doubt(start) - left(start, test)
        return { test, riskMinutes, minutes, gain, worth: gain / minutes }
      })
      .filter((s) => s.gain > 1e-6)
      .sort((a, b) => enough(b) - enough(a) || b.worth - a.worth || (a.test.id < b.test.id ? -1 : 1))
    const two = one.slice(0, deep).map((s) => {
      let [gain, minutes] = [s.gain, s.minutes]
      for (const then of after(start, s.test)) {
        const here = doubt(then)
        if (sum(then) < 0.005 || here === 0) continue
        const next = one
          .slice(0, 12)
          .filter((n) => n.test !== s.test)
          .map((n) => ({ gain: here - left(then, n.test), minutes: n.minutes }))
          .sort((a, b) => b.gain / b.minutes - a.gain / a.minutes)[0]
        if (!next || next.gain <= 0) continue
        gain += sum(then) * next.gain
        minutes += sum(then) * next.minutes
      }
      return { ...s, worth: gain / minutes }
    })
    return [...two.sort((a, b) => enough(b) - enough(a) || b.worth - a.worth), ...one.slice(deep)]
  }

  function agrees(weights: readonly number[], others: readonly BenchTest[], deep: number) {
    const odds = new Float64Array(WIDTH)
    const total = weights.reduce((sum, w) => sum + w, 0)
    ;[...at, UNKNOWN + 3].forEach((h, i) => (odds[h] = weights[i]! / total))
    const tests = [benchTests.find((t) => t.id === 'known-good CPU')!, ...others]
    const hand = byHand(odds, tests, deep)
    const got = nextTests(odds, { done: none, tests, deep })
    expect(got.map((s) => s.worth)).toEqual(hand.map((s) => expect.closeTo(s.worth, 7) as number))
    const known = new Map(hand.map((s) => [s.test.id, s]))
    for (const s of got) {
      const is = known.get(s.test.id)!
      expect(s.tells).toBeCloseTo(is.gain / Math.LN2, 7)
      expect(s.riskMinutes).toBeCloseTo(is.riskMinutes, 9)
      expect(s.again).toBe(false)
      for (const { outcome, odds: share, points } of s.outcomes) {
        const row = likelihood(s.test)[s.test.outcomes.indexOf(outcome)]!
        const then = [...odds.entries()].map(([h, p]) => [h, p * row[h]!] as const)
        expect(share).toBeCloseTo(
          then.reduce((sum, [, w]) => sum + w, 0),
          9,
        )
        const top = Math.max(...faultIds.map((id) => marginal(then, id)))
        expect(marginal(then, points!)).toBeCloseTo(top, 9)
      }
    }
    return got
  }
  const named = (...ids: string[]) => ids.map((id) => benchTests.find((t) => t.id === id)!)

  it('is that order, with that worth, one step deep and two', () => {
    const many = benchTests.filter((t) => t.id !== 'known-good CPU').slice(0, 24)
    for (const deep of [0, 3, 5]) agrees([0.02, 0.3, 0.2, 0.1, 0.08, 0.06, 0.1, 0.03, 0.05, 0.06], many, deep)
    // A few that are hardly possible: what is left over after one outcome is next to nothing.
    agrees([0.001, 0.9, 0.03, 0.02, 0.01, 0.01, 0.01, 0.005, 0.005, 0.004], many, 5)
    const few = named('memory reseated', 'own in B', 'settings cleared')
    const got = agrees([0.02, 0.3, 0.2, 0.1, 0.08, 0.06, 0.1, 0.03, 0.05, 0.06], few, 2)
    expect(new Set(got.map((s) => s.test.id)).size).toBe(got.length)
  })
  it('is that order whatever the suspects and the tests', () => {
    const weights = fc.array(fc.double({ min: 0.02, max: 1, noNaN: true }), { minLength: 10, maxLength: 10 })
    const some = fc.uniqueArray(fc.constantFrom(...benchTests.filter((t) => t.id !== 'known-good CPU')), {
      minLength: 3,
      maxLength: 9,
      selector: (t) => t.id,
    })
    fc.assert(
      fc.property(weights, some, fc.constantFrom(0, 2, 5), (all, others, deep) => {
        agrees(all, others, deep)
      }),
      { numRuns: 12 },
    )
  })
  it('puts what tells next to nothing last, however short it is and whatever comes after it', () => {
    const some = named('swept', 'slots probed', 'chip contents', 'CPU elsewhere')
    const got = agrees([0.001, 0.001, 0.001, 0.001, 0.001, 0.93, 0.06, 0.001, 0.001, 0.001], some, 5)
    expect(got.map((s) => s.test.id)).toEqual([
      'chip contents',
      'swept',
      'known-good CPU',
      'slots probed',
      'CPU elsewhere',
    ])
    expect(got[3]!.worth).toBeGreaterThan(got[2]!.worth)
  })
  it('leaves out what is less likely than one in a hundred thousand, and is not moved by it', () => {
    const odds = even(['module'], ['slot A'])
    const plain = nextTests(odds, { done: none })
    odds[1 + faultIds.indexOf('CPU')] = 7e-6
    expect(nextTests(odds, { done: none }).map((s) => [s.test.id, s.worth])).toEqual(
      plain.map((s) => [s.test.id, s.worth]),
    )
  })
  it('is settled from its limits on, and not before', () => {
    const of = (fault: number, left: number) => {
      const odds = new Float64Array(WIDTH)
      odds[0] = left
      odds[1 + faultIds.indexOf('module')] = fault
      odds[1 + faultIds.indexOf('slot A')] = 1 - fault - left
      return odds
    }
    expect(nextTests(of(0.9501, 0.01), { done: none })).toEqual([])
    expect(nextTests(of(0.9499, 0.01), { done: none })).not.toEqual([])
    expect(nextTests(of(0.01, 0.9851), { done: none })).toEqual([])
    expect(nextTests(of(0.01, 0.9849), { done: none })).not.toEqual([])
    expect(verdict(of(0.95, 0.01))).toMatchObject({ is: 'found', fault: 'module', odds: 0.95 })
    expect(verdict(of(0.9499, 0.01))).toBeNull()
    expect(verdict(of(0.01, 0.985))).toMatchObject({ is: 'nothing left', odds: 0.985 })
    expect(verdict(of(0.01, 0.9849))).toBeNull()
    const unknown = of(0.5, 0)
    unknown[1 + faultIds.indexOf('slot A')] = 0
    unknown[UNKNOWN + 2] = 0.5
    expect(verdict(unknown)).toEqual({ is: 'nothing known', odds: 0.5 })
  })
})

describe('the verdict', () => {
  it('names the fault, that nothing is left, or that it is nothing known; and waits while it is none of them', () => {
    expect(verdict(even(['module']))).toMatchObject({ is: 'found', fault: 'module', odds: 1 })
    expect(verdict(even(['module', 'CPU'], ['module', 'card']))).toMatchObject({ fault: 'module' })
    expect(verdict(even([]))).toMatchObject({ is: 'nothing left' })
    expect(verdict(even(['module'], ['CPU']))).toBeNull()
    const odd = even(['module'])
    odd[UNKNOWN] = 2
    expect(verdict(odd.map((p) => p / 3))).toMatchObject({ is: 'nothing known' })
  })
})

it('the risk to a lent part is the chance that one of the faults harms it', () => {
  expect(riskOf(even(['module']))).toBe(0)
  expect(riskOf(even(['sense contact open'], ['module']))).toBeCloseTo(0.2, 12)
  expect(riskOf(even(['sense contact open', 'core rail short']))).toBeCloseTo(1 - 0.6 * 0.85, 12)
  // Each fault that can harm what is lent, by itself (bench defaults).
  for (const [fault, harm] of [
    ['sense contact open', 0.4],
    ['core controller', 0.1],
    ['core rail short', 0.15],
    ['power contacts shorted', 0.3],
    ['memory controller', 0.05],
    ['signal contacts touch', 0.04],
  ] as const)
    expect(riskOf(even([fault]))).toBeCloseTo(harm, 12)
})

describe('a repair to see', () => {
  it('is worth it from 60 % on, where at most a tenth is something in no list', () => {
    expect(worthTrying(0.6, 0.1)).toBe(true)
    expect(worthTrying(0.5999, 0.1)).toBe(false)
    expect(worthTrying(0.6, 0.1001)).toBe(false)
  })
})

describe('the repair that comes first', () => {
  const stands = (...evidence: Evidence[]) => standing(posterior(priorOdds([]), evidence), [])
  it('comes first only where to have made it for nothing costs less than the best test', () => {
    const any = fc
      .constantFrom(...benchTests)
      .chain((test) => fc.constantFrom(...test.outcomes).map((outcome) => ({ test: test.id, outcome })))
    fc.assert(
      fc.property(fc.array(any, { minLength: 2, maxLength: 6 }), (evidence) => {
        const odds = stands(...evidence)
        const tests = nextTests(odds, { done: new Set(evidence.map((e) => e.test)) })
        const first = repairMove(odds, tests)
        if (!first) return
        expect(first.odds).toBeGreaterThanOrEqual(0.85)
        expect(first.odds).toBeCloseTo(Math.max(...faultOdds(odds)), 12)
        const { test, riskMinutes } = tests[0]!
        expect((1 - first.odds) * 2 * (first.minutes - 2)).toBeLessThan(test.minutes + riskMinutes)
      }),
      { numRuns: 25 },
    )
  })
  it('is a chip whose contents were seen to differ, and no chip that is merely likely', () => {
    const history = priorOdds(['firmware update'])
    const dark: Evidence[] = [
      { test: 'as it came', outcome: 'CPU lamp', earlier: ['CPU lamp'] },
      { test: 'chip selected', outcome: 'read and read again' },
      { test: 'round the chip', outcome: 'clear' },
    ]
    const asked = (...evidence: Evidence[]) => {
      const odds = standing(posterior(history, evidence), [])
      return repairMove(odds, nextTests(odds, { done: new Set(evidence.map((e) => e.test)), seen: evidence }))
    }
    expect(asked(dark[0]!)).toBeNull()
    expect(asked(...dark, { test: 'chip contents', outcome: 'differ' })?.fault).toBe('firmware corrupt')
  })
  it('is weighed by its minutes, what it risks and how sure it is', () => {
    const of = (p: number) => {
      const odds = new Float64Array(WIDTH)
      odds[1 + faultIds.indexOf('module')] = p
      odds[1 + faultIds.indexOf('slot A')] = 1 - p
      return odds
    }
    const { minutes } = repairOf('module')
    const start = benchTests.find((t) => t.id === 'as it came')!
    const test = (takes: number, riskMinutes = 0) => [
      {
        test: { ...start, minutes: takes },
        again: false,
        outcomes: [],
        tells: 1,
        settles: 0,
        riskMinutes,
        worth: 1,
      },
    ]
    const cost = (p: number) => (1 - p) * 2 * minutes
    const move = (p: number, takes: number, risk = 0) => repairMove(of(p), test(takes, risk))
    expect(move(0.9, cost(0.9) * 1.01)).toEqual({
      fault: 'module',
      odds: 0.9,
      minutes: minutes + start.minutes,
    })
    expect(move(0.9, cost(0.9) * 0.99)).toBeNull()
    expect(move(0.9, cost(0.9) * 0.6, cost(0.9) * 0.41)).not.toBeNull()
    expect(move(0.9, cost(0.9) * 0.6, cost(0.9) * 0.39)).toBeNull()
    expect(move(0.85, 1000)).not.toBeNull()
    expect(move(0.8499, 1000)).toBeNull()
    expect(repairMove(of(0.9), [])).toBeNull()
    // What may be in no list is not repaired to see.
    const beside = (unknown: number) => {
      const odds = of(0.9)
      odds[1 + faultIds.indexOf('slot A')] = 0.1 - unknown
      odds[UNKNOWN + 3] = unknown
      return repairMove(odds, test(1000))
    }
    expect(beside(0.0199)).toMatchObject({ fault: 'module' })
    expect(beside(0.0201)).toBeNull()
  })
  it('is none where nothing is left to be tested', () => {
    expect(repairMove(stands({ test: 'ohms vmem', outcome: 'short' }), [])).toBeNull()
  })
})

describe('work that leaves a fault behind', () => {
  it('is suspected once the board is darker than before, and not where no module was moved', () => {
    const seen: Evidence[] = [
      { test: 'as it came', outcome: 'graphics lamp' },
      { test: 'good in A', outcome: 'graphics lamp' },
    ]
    const seat = (changes: readonly Change[]) => {
      const evidence = [...seen, { test: 'as it came', outcome: 'memory lamp', after: changes.length }]
      return faultOdds(standing(posterior(priorOdds([]), evidence, changes), changes))[
        faultIds.indexOf('module seat')
      ]!
    }
    expect(seat(changedBy('good in A'))).toBeGreaterThan(3 * seat([]))
    expect(changedBy('good in A')).toEqual([
      { is: 'cured', fault: 'module seat' },
      { is: 'left', fault: 'module seat' },
    ])
    expect(changedBy('ohms vmem')).toEqual([])
  })
})

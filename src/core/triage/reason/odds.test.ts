import { historyItems } from '../../board/history-item'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { benchTests } from '../model/bench-tests'
import { faultIds } from '../model/faults'
import type { FaultId } from '../model/faults'
import { faultOdds, posterior, priorOdds, standing, unknownOdds, withoutEach } from './odds'
import { tried } from './odds-judge.testing'
import { hypotheses, leading, testOf, UNKNOWN, unknownStages } from './hypotheses'
import { asItCounts, chanceOf, likelihood, likelihoodAfter } from './likelihood'
import type { Change } from '../model/repair'
import type { Evidence } from './likelihood'
import { startOutcomes, stopsIn } from '../model/start-model'
import { pick } from '../../maths/pick'
import { seeded } from '../../maths/seeded'
import { asItCame } from '../model/setup'

const prior = priorOdds([])
const of = (odds: Float64Array, id: FaultId) => faultOdds(odds)[faultIds.indexOf(id)]!
const anyEvidence: fc.Arbitrary<Evidence> = fc
  .constantFrom(...benchTests)
  .chain((test) => fc.constantFrom(...test.outcomes).map((outcome) => ({ test: test.id, outcome })))
/** How the board stands after what was seen. */
const stand = (evidence: readonly Evidence[]) => standing(posterior(prior, evidence), [])
const sum = (odds: Float64Array) => odds.reduce((a, b) => a + b, 0)

describe('the tests', () => {
  it('are at least forty, each with a name of its own', () => {
    expect(benchTests.length).toBeGreaterThanOrEqual(40)
    expect(new Set(benchTests.map((t) => t.id)).size).toBe(benchTests.length)
  })
  it('say which of them are done without power: looking, the meter on an unplugged board, the chip, another board', () => {
    const unplugged = benchTests.filter((t) => !t.powers).map((t) => t.id)
    const looks =
      'outside|socket|swept|seat gauged|round the chip|CPU proud|round the socket|strip|slots|marking|version'
    const meter =
      'slots probed|controller lines|front wiring|cell|cell under load|new cell under load|chip lines'
    const others = 'chip id|chip contents|CPU elsewhere|module elsewhere'
    const known = `${looks}|${meter}|${others}`.split('|')
    expect(unplugged.filter((id) => !id.startsWith('ohms ')).sort()).toEqual(known.sort())
  })
  it('have outcomes that are certain to be one of them, under every hypothesis', () => {
    for (const test of benchTests) {
      for (const ids of hypotheses.slice(0, 200)) expect(sum(test.odds(ids))).toBeCloseTo(1, 9)
      const rows = likelihood(test)
      for (const h of [0, 1, 77, UNKNOWN])
        expect(rows.reduce((all, row) => all + row[h]!, 0)).toBeCloseTo(1, 9)
    }
  })
  it('are never reckoned surer than their figures are known', () => {
    const test = testOf('ohms vmem')
    const h = hypotheses.findIndex((ids) => ids.length === 1 && ids[0] === 'memory rail short')
    expect(likelihood(test)[0]![h]).toBeLessThan(test.odds(['memory rail short'])[0]!)
    expect(likelihood(test)[0]![h]).toBeGreaterThan(0.7)
  })
})

describe('the odds', () => {
  it('before any test are those of one or two faults, each as likely as history makes it', () => {
    expect(sum(prior)).toBeCloseTo(1, 12)
    expect(prior[0]).toBe(0)
    const swapped = priorOdds(['CPU swap'])
    expect(of(swapped, 'CPU unsupported')).toBeGreaterThan(2 * of(prior, 'CPU unsupported'))
    const worked = (history: Parameters<typeof priorOdds>[0]) =>
      priorOdds(history).reduce((all, p, h) => (hypotheses[h]?.length === 2 ? all + p : all), 0)
    expect(worked(['worked on by others'])).toBeGreaterThan(worked([]) * 1.5)
  })
  it('are Bayes: prior times what each hypothesis makes of the evidence, over the sum', () => {
    fc.assert(
      fc.property(fc.array(anyEvidence, { maxLength: 4 }), (evidence) => {
        const byHand = tried(
          prior,
          evidence.map((e) => ({ ...e, after: 0 })),
          [],
        )
        stand(evidence).forEach((p, h) => expect(p).toBeCloseTo(byHand[h]!, 9))
      }),
      { numRuns: 8 },
    )
  })
  it('do not mind the order of the evidence', () => {
    fc.assert(
      fc.property(fc.array(anyEvidence, { minLength: 2, maxLength: 6 }), (evidence) => {
        const there = stand(evidence)
        const back = stand([...evidence].reverse())
        there.forEach((p, h) => expect(back[h]).toBeCloseTo(p, 9))
      }),
      { numRuns: 30 },
    )
  })
  it('move by less for a claim than for what was seen here, and not at all for one that is worth nothing', () => {
    const seen: Evidence = { test: 'cell', outcome: 'low' }
    const odds = (reliability: number) => of(stand([{ ...seen, reliability }]), 'cell weak')
    expect(odds(0)).toBeCloseTo(of(prior, 'cell weak'), 9)
    expect(odds(0.5)).toBeGreaterThan(odds(0))
    expect(of(stand([seen]), 'cell weak')).toBeGreaterThan(odds(0.5))
  })
  it('find what a bench would find', () => {
    const odds = stand([
      { test: 'as it came', outcome: 'memory lamp' },
      { test: 'good in B', outcome: 'system loads' },
      { test: 'good in A', outcome: 'memory lamp' },
      { test: 'slots', outcome: 'clear' },
      { test: 'socket', outcome: 'memory A contact off' },
    ])
    expect(of(odds, 'memory A contact open')).toBeGreaterThan(0.8)
  })
  it('find two faults, one behind the other', () => {
    const evidence: Evidence[] = [
      { test: 'as it came', outcome: 'nothing' },
      { test: 'front wiring', outcome: 'wrong' },
      { test: 'bridged', outcome: 'memory lamp' },
    ]
    const odds = stand(evidence)
    expect(of(odds, 'front wiring')).toBeGreaterThan(0.75)
    expect(sum(odds.filter((_, h) => hypotheses[h]?.length === 2))).toBeGreaterThan(0.5)
  })
  it('settle nothing when everything speaks against everything', () => {
    const odds = stand([
      { test: 'ohms standby', outcome: 'short' },
      { test: 'standby heat', outcome: 'usual' },
      { test: 'volts standby', outcome: 'there' },
      { test: 'as it came', outcome: 'system loads' },
      { test: 'ohms 12v', outcome: 'short' },
      { test: 'volts 12v', outcome: 'there' },
      { test: 'cold start', outcome: 'nothing' },
      { test: 'current', outcome: 'steady' },
      { test: 'ohms 5v', outcome: 'short' },
      { test: 'volts 5v', outcome: 'there' },
    ])
    expect(Math.max(...faultOdds(odds))).toBeLessThan(0.4)
    expect(odds[0]).toBeLessThan(0.1)
  })
  it('name the stage at which something in no list stops it, where all that is in it was looked for', () => {
    const clear = [
      'socket',
      'swept',
      'slots',
      'slots probed',
      'seat gauged',
      'round the socket',
      'chip contents',
    ].map((test) => ({
      test,
      outcome: testOf(test).outcomes.at(-1)!,
    }))
    const dark = [
      'as it came',
      'good in both',
      'settings cleared',
      'trained',
      'reseated',
      'eased',
      'known-good CPU',
    ].map((test) => ({ test, outcome: 'memory lamp' }))
    const odds = stand([...clear, ...dark, { test: 'volts vmem', outcome: 'there' }])
    const each = [...odds.subarray(UNKNOWN)]
    expect(unknownStages[each.indexOf(Math.max(...each))]).toBe('memory training')
    expect(unknownOdds(odds)).toBeGreaterThan(2 * Math.max(...faultOdds(odds)))
  })
  it('are Bayes for what was read of a start that was not as it came', () => {
    const read = fc
      .constantFrom(...benchTests.filter((t) => t.byStage && t.outcomes !== startOutcomes))
      .chain((test) =>
        fc.record({
          test: fc.constant(test.id),
          outcome: fc.constantFrom(...test.outcomes),
          of: fc.constantFrom('known-good CPU', 'no CPU', 'no memory'),
        }),
      )
    fc.assert(
      fc.property(read, read, fc.constantFrom(...startOutcomes), (one, other, outcome) => {
        fc.pre(one.test !== other.test)
        const seen: Evidence[] = [one, other, { test: 'known-good CPU', outcome }]
        const byHand = tried(
          prior,
          seen.map((e) => ({ ...e, after: 0 })),
          [],
        )
        stand(seen).forEach((p, h) => expect(p).toBeCloseTo(byHand[h]!, 9))
      }),
      { numRuns: 6 },
    )
  })
  it('hear nothing of a CPU that stays cold where none is fitted', () => {
    const cold = (of?: string) => stand([{ test: 'warmth', outcome: 'cold', ...(of ? { of } : {}) }])
    expect(of(cold(), 'module')).toBeLessThan(0.6 * of(prior, 'module'))
    for (const id of ['firmware corrupt', 'chip resistor', 'module', 'CPU'] as const)
      expect(Math.abs(of(cold('no CPU'), id) / of(prior, id) - 1)).toBeLessThan(0.35)
  })
  it('are Bayes over whether the starts of a board are drawn anew or once', () => {
    const started = fc
      .array(fc.constantFrom(...startOutcomes), { minLength: 2, maxLength: 4 })
      .map((o): Evidence => ({ test: 'as it came', outcome: o[0]!, earlier: o.slice(1) }))
    fc.assert(
      fc.property(started, anyEvidence, (starts, more) => {
        const byHand = tried(
          prior,
          [starts, more].map((e) => ({ ...e, after: 0 })),
          [],
        )
        stand([starts, more]).forEach((p, h) => expect(p).toBeCloseTo(byHand[h]!, 9))
      }),
      { numRuns: 8 },
    )
  })
  it('tell what a start would tell beside what was read of its set-up, as the two together less the one', () => {
    const all = fc.constantFrom(...benchTests.filter((t) => t.byStage))
    fc.assert(
      fc.property(all, all, fc.nat(), (first, then, n) => {
        const seen = { test: first.id, outcome: first.outcomes[n % first.outcomes.length]! }
        const rows = likelihoodAfter(then, [seen])
        const [alone] = chanceOf([seen])
        for (const h of [0, 5, 300, UNKNOWN + 2]) {
          expect(rows.reduce((sum, row) => sum + row[h]!, 0)).toBeCloseTo(1, 9)
          if (JSON.stringify(first.setup) !== JSON.stringify(then.setup)) continue
          // As it would be noted: rightly, or now and then as another.
          const n = then.outcomes.length
          const noted = then.outcomes.map(
            (_, o) => 0.95 * rows[o]![h]! + (0.05 * (1 - rows[o]![h]!)) / (n - 1),
          )
          then.outcomes.forEach((outcome, o) => {
            if (then.id === first.id) return
            const [both] = chanceOf([seen, { test: then.id, outcome }])
            expect(both[h]! / alone[h]!).toBeCloseTo(noted[o]!, 9)
          })
        }
      }),
      { numRuns: 40 },
    )
  })
  it('hear little of a tenth dark start, and much of one that came up among them', () => {
    const dark = (n: number, last = 'fans, no lamp') =>
      stand([{ test: 'as it came', outcome: last, earlier: Array<string>(n - 1).fill('fans, no lamp') }])
    const moved = (a: Float64Array, b: Float64Array) =>
      faultOdds(a).reduce((all, p, i) => all + Math.abs(p - faultOdds(b)[i]!), 0)
    expect(moved(dark(10), dark(2))).toBeLessThan(moved(dark(1), prior) / 3)
    expect(of(dark(12), 'firmware corrupt')).toBeGreaterThan(of(dark(2), 'firmware corrupt') / 2)
    // What comes and goes is no fault that stops every start.
    const lit = (...earlier: string[]) => stand([{ test: 'as it came', outcome: 'CPU lamp', earlier }])
    const beside = (odds: Float64Array) => of(odds, 'cell weak') / of(odds, 'CPU')
    expect(beside(lit('system loads', 'system loads'))).toBeGreaterThan(
      4 * beside(lit('CPU lamp', 'CPU lamp')),
    )
  })
  it('are Bayes over two readings of one meter: each a reading anew, or one thing read twice', () => {
    const [m, of] = [0.075, ['short', 'low', 'good']]
    const rows = likelihood(testOf('ohms 12v'))
    fc.assert(
      fc.property(fc.array(fc.constantFrom(0, 1, 2), { minLength: 2, maxLength: 4 }), (read) => {
        const [one] = asItCounts(read.map((o) => ({ test: 'ohms 12v', outcome: of[o]! })))
        const [chance] = chanceOf([one!])
        for (const h of [0, 3, 20, 99, UNKNOWN]) {
          const anew = read.reduce<number>((all, o) => all * ((1 - m) * rows[o]![h]! + m / 3), 1)
          const once = rows.reduce(
            (all, row, is) =>
              all + row[h]! * read.reduce<number>((p, o) => p * ((o === is ? 1 - m : 0) + m / 3), 1),
            0,
          )
          expect(chance[h]).toBeCloseTo((anew + once) / 2, 12)
        }
      }),
      { numRuns: 30 },
    )
  })
  it('hear more of a reading that was taken twice, and doubt one of two that differ', () => {
    const short = (...outcomes: string[]) =>
      of(stand(asItCounts(outcomes.map((outcome) => ({ test: 'ohms 12v', outcome })))), '12 V short')
    expect(1 - short('short', 'short')).toBeLessThan((1 - short('short')) / 3)
    expect(short('short', 'good')).toBeLessThan(0.6)
    expect(short('short', 'good')).toBeGreaterThan(short('good'))
    expect(short('good', 'short')).toBeCloseTo(short('short', 'good'), 9)
    // A second look is a better look.
    expect(
      asItCounts([
        { test: 'socket', outcome: 'clear' },
        { test: 'socket', outcome: 'sense contact off' },
      ]),
    ).toEqual([{ test: 'socket', outcome: 'sense contact off' }])
  })
  it('tell what a reading would tell once more', () => {
    const before = { test: 'ohms vmem', outcome: 'short' }
    const rows = likelihoodAfter(testOf('ohms vmem'), [before])
    for (const h of [0, 5, 44, UNKNOWN]) {
      expect(rows.reduce((all, row) => all + row[h]!, 0)).toBeCloseTo(1, 9)
      rows.forEach((row, o) => {
        const both = { ...before, outcome: testOf('ohms vmem').outcomes[o]!, earlier: ['short'] }
        expect(row[h]! * chanceOf([before])[0][h]!).toBeCloseTo(chanceOf([both])[0][h]!, 12)
      })
    }
  })
  it('come true as said, whether the starts of a board are drawn anew or are copies', () => {
    const draw = seeded(41)
    const one = (likeness: number) => {
      const ids = hypotheses[pick(prior.subarray(0, UNKNOWN), draw)]!
      const row = testOf('as it came').odds(ids)
      const seen = [pick(row, draw)]
      while (seen.length < 5) seen.push(draw() < likeness ? seen.at(-1)! : pick(row, draw))
      const [last, ...before] = seen.map((o) => startOutcomes[o]!)
      const each = faultOdds(stand([{ test: 'as it came', outcome: last!, earlier: before }]))
      const top = each.indexOf(Math.max(...each))
      return { said: each[top]!, true: ids.includes(faultIds[top]!) ? 1 : 0 }
    }
    for (const likeness of [0, 1]) {
      const all = Array.from({ length: 400 }, () => one(likeness))
      const mean = (of: 'said' | 'true') => all.reduce((sum, a) => sum + a[of], 0) / all.length
      expect(Math.abs(mean('said') - mean('true'))).toBeLessThan(0.07)
    }
  })
  it('believe one lamp of a board more than the same lamp a fifth time', () => {
    const starts = ['as it came', 'cold start', 'needed only', 'settings cleared', 'trained']
    const at = (n: number) =>
      of(
        stand(starts.slice(0, n).map((test) => ({ test, outcome: 'graphics lamp' }))),
        'display contact open',
      )
    const gain = (n: number) => Math.log(at(n) / (1 - at(n))) - Math.log(at(n - 1) / (1 - at(n - 1)))
    expect(gain(1)).toBeGreaterThan(0)
    expect(gain(5)).toBeLessThan(gain(1) / 3)
  })
  it('are odds: six things in its history do not make a fault more than likely', () => {
    const all = priorOdds(historyItems)
    expect(sum(all)).toBeCloseTo(1, 9)
    expect(Math.max(...all)).toBeLessThan(0.6)
  })
  it('refuse a test or an outcome that is in no list', () => {
    expect(() => posterior(prior, [{ test: 'x', outcome: 'y' }])).toThrow(/there is no test “x”/)
    expect(() => posterior(prior, [{ test: 'cell', outcome: 'y' }])).toThrow(/“y” is no outcome of “cell”/)
  })
})

describe('after something was mended', () => {
  it('evidence counts for what is left, and what is left stands', () => {
    const evidence: Evidence[] = [
      { test: 'ohms 12v', outcome: 'short' },
      { test: 'ohms 12v', outcome: 'good', after: 1 },
      { test: 'as it came', outcome: 'system loads', after: 1 },
    ]
    const changes: Change[] = [{ is: 'mended', fault: '12 V short' }]
    const now = standing(posterior(prior, evidence, changes), changes)
    expect(of(now, '12 V short')).toBeLessThan(0.02)
    expect(now[0]).toBeGreaterThan(0.55)
    expect(sum(now)).toBeCloseTo(1, 9)
  })
  it('is what trying every fault and every way it went comes to', () => {
    const changesOf = fc.array(
      fc.record({
        is: fc.constantFrom<Change['is']>('mended', 'made', 'cured'),
        fault: fc.constantFrom<FaultId>('12 V short', 'chip joint', 'firmware corrupt'),
      }),
      { minLength: 1, maxLength: 4 },
    )
    fc.assert(
      fc.property(
        changesOf,
        fc.array(fc.tuple(anyEvidence, fc.nat(4)), { maxLength: 5 }),
        (changes, seen) => {
          const evidence = seen.map(([e, after]) => ({ ...e, after: Math.min(after, changes.length) }))
          const now = standing(posterior(prior, evidence, changes), changes)
          const byTrying = tried(prior, evidence, changes)
          const off = now.reduce((most, p, h) => Math.max(most, Math.abs(p - byTrying[h]!)), 0)
          expect(off).toBeLessThan(1e-9)
        },
      ),
      { numRuns: 12 },
    )
  })
  it('takes one thing seen back, as though it had not been', () => {
    const changes: Change[] = [{ is: 'mended', fault: '12 V short' }]
    const evidence: Evidence[] = [
      { test: 'ohms 12v', outcome: 'short' },
      { test: 'as it came', outcome: 'memory lamp', after: 1 },
    ]
    const without = withoutEach(posterior(prior, evidence, changes), evidence, changes)
    evidence.forEach((_, i) => {
      const rest = evidence.filter((__, k) => k !== i)
      standing(posterior(prior, rest, changes), changes).forEach((p, h) =>
        expect(without[i]![h]).toBeCloseTo(p, 9),
      )
    })
  })
})

it('the leading fault is the one a start meets first', () => {
  hypotheses.forEach((ids, h) => {
    if (ids.length === 0) return expect(leading[h]).toBe(-1)
    const stops = (id: FaultId) => stopsIn([id], asItCame).findIndex((p) => p > 0)
    const lead = faultIds[leading[h]!]!
    for (const id of ids) expect(stops(lead)).toBeLessThanOrEqual(stops(id))
  })
})

import { describe, expect, it } from 'vitest'
import { benchTests } from '../model/bench-tests'
import { faultIds, faults } from '../model/faults'
import type { FaultId } from '../model/faults'
import type { Change } from '../model/repair'
import { asItCame } from '../model/setup'
import { stages } from '../model/stage'
import { startOutcomes, stopsIn } from '../model/start-model'
import { hypotheses, testOf, UNKNOWN, unknownStages, WIDTH } from './hypotheses'
import {
  asItCounts,
  chanceOf,
  doneNow,
  hangsTogether,
  likelihood,
  likelihoodAfter,
  misread,
  readAgain,
  seenNow,
  stopsOf,
} from './likelihood'
import type { Evidence } from './likelihood'
import {
  expected,
  faultOdds,
  posterior,
  priorOdds,
  standing,
  unknownOdds,
  withMends,
  withoutEach,
} from './odds'
import { tried } from './odds-judge.testing'

const prior = priorOdds([])
const at = (...ids: FaultId[]) => {
  const h = hypotheses.findIndex((of) => of.length === ids.length && ids.every((id) => of.includes(id)))
  expect(h).toBeGreaterThanOrEqual(0)
  return h
}
const near = (is: Float64Array, be: Float64Array) => {
  expect(is.length).toBe(be.length)
  expect(is.reduce((most, p, h) => Math.max(most, Math.abs(p - be[h]!)), 0)).toBeLessThan(1e-10)
}

/** A figure as far as it is known, by hand: its log-odds off by up to 0.24 of itself either way, five points. */
const known = (odds: readonly number[]) => {
  const means = odds.map((p) => {
    const safe = p < 1e-9 ? 1e-9 : p > 1 - 1e-9 ? 1 - 1e-9 : p
    const ratio = safe / (1 - safe)
    return [0.76, 0.88, 1, 1.12, 1.24].reduce((all, by) => all + ratio ** by / (1 + ratio ** by), 0) / 5
  })
  const sum = means.reduce((a, b) => a + b, 0)
  return means.map((m) => m / sum)
}

describe('figures as far as they are known', () => {
  const some = [0, at('CPU'), at('12 V short'), at('module', 'cell weak'), UNKNOWN, UNKNOWN + 4, WIDTH - 1]
  it('of a test that is no start: every outcome under a hypothesis, also where one is sure', () => {
    for (const id of ['ohms 12v', 'cell', 'socket', 'chip contents', 'strip']) {
      const test = testOf(id)
      const rows = likelihood(test)
      expect(rows.map((r) => r.length)).toEqual(test.outcomes.map(() => WIDTH))
      for (const h of some)
        known([...test.odds(hypotheses[h] ?? [], unknownStages[h - UNKNOWN])]).forEach((p, o) =>
          expect(rows[o]![h]).toBeCloseTo(p, 10),
        )
    }
    expect(likelihood(testOf('cell'))).toBe(likelihood(testOf('cell')))
  })
  it('of a start: where it stops, for what is in no list too, and what each stage shows', () => {
    const stops = stopsOf(asItCame)
    expect(stops.length).toBe(WIDTH * stages.length)
    const start = testOf('as it came')
    const rows = likelihood(start)
    for (const h of some) {
      const byStage = known([...stopsIn(hypotheses[h] ?? [], asItCame, unknownStages[h - UNKNOWN])])
      byStage.forEach((p, s) => expect(stops[h * stages.length + s]).toBeCloseTo(p, 10))
      start.outcomes.forEach((_, o) =>
        expect(rows[o]![h]).toBeCloseTo(
          byStage.reduce((all, p, s) => all + p * start.byStage![o]![s]!, 0),
          10,
        ),
      )
    }
    expect(stopsOf(asItCame)).toBe(stops)
  })
})

describe('what was seen, as it counts', () => {
  const e = (test: string, outcome: string, more: Partial<Evidence> = {}): Evidence => ({
    test,
    outcome,
    ...more,
  })
  it('starts of one set-up with nothing in between are one, the last of them first, fifteen before it at most', () => {
    expect(asItCounts([e('as it came', 'nothing'), e('as it came', 'CPU lamp')])).toEqual([
      e('as it came', 'CPU lamp', { earlier: ['nothing'] }),
    ])
    const many = Array.from({ length: 20 }, (_, i) => e('as it came', startOutcomes[i % 3]!))
    const [one] = asItCounts(many)
    expect(one!.earlier).toEqual(many.slice(4, 19).map((m) => m.outcome))
    // What was one piece of evidence already stays so.
    expect(
      asItCounts([
        e('as it came', 'nothing', { earlier: ['CPU lamp'] }),
        e('as it came', 'memory lamp', { earlier: ['boot lamp'] }),
      ]),
    ).toEqual([e('as it came', 'memory lamp', { earlier: ['CPU lamp', 'nothing', 'boot lamp'] })])
  })
  it('apart stay other tests, other set-ups, and what lies before and after something was done', () => {
    const apart = [
      e('as it came', 'nothing'),
      e('as it came', 'nothing', { after: 1 }),
      e('cold start', 'nothing'),
      e('warmth', 'cold'),
      e('warmth', 'cold', { of: 'no CPU' }),
      e('warmth', 'cold', { of: 'no memory' }),
    ]
    expect(asItCounts(apart)).toEqual(apart)
    // Nothing done, said or not, is the same.
    expect(asItCounts([e('ohms 12v', 'good'), e('ohms 12v', 'short', { after: 0 })])).toHaveLength(1)
  })
  it('readings of one meter each count; of anything else the last stands', () => {
    const twice = (test: string, a: string, b: string) => asItCounts([e(test, a), e(test, b)])
    expect(twice('ohms 12v', 'short', 'good')).toEqual([e('ohms 12v', 'good', { earlier: ['short'] })])
    expect(twice('volts 12v', 'there', 'there')).toEqual([e('volts 12v', 'there', { earlier: ['there'] })])
    for (const test of benchTests) {
      const counted = twice(test.id, test.outcomes[0]!, test.outcomes[0]!)
      const each =
        test.outcomes === startOutcomes || (/^(ohms|volts) /.test(test.id) && !/ other/.test(test.id))
      expect([test.id, counted.length, counted[0]!.earlier?.length ?? 0]).toEqual([test.id, 1, each ? 1 : 0])
    }
  })
  it('looks round a place find several things at once; that it is clear replaces them, and they that', () => {
    const [burn, salt, clear] = testOf('outside').outcomes.filter((o, i, all) => i < 2 || o === all.at(-1))
    expect(clear).toBe('clear')
    const look = (...outcomes: (string | undefined)[]) =>
      asItCounts(outcomes.map((o) => e('outside', o!))).map((x) => x.outcome)
    expect(look(burn, salt)).toEqual([burn, salt])
    expect(look(burn, salt, burn)).toEqual([salt, burn])
    expect(look(burn, salt, clear)).toEqual([clear])
    expect(look(clear, burn)).toEqual([burn])
    expect(look(clear, clear)).toEqual([clear])
    // Another place, and the same place after something was done, are other looks.
    const found = e('outside', burn!)
    const chip = e('round the chip', testOf('round the chip').outcomes[0]!)
    expect(asItCounts([found, chip, e('outside', clear!, { after: 1 })])).toEqual([
      found,
      chip,
      e('outside', clear!, { after: 1 }),
    ])
    expect(asItCounts([found, e('round the chip', 'clear')])).toEqual([found, e('round the chip', 'clear')])
    // A look that is not round a place stands alone.
    const socket = testOf('socket').outcomes
    expect(asItCounts([e('socket', socket[0]!), e('socket', socket[1]!)])).toEqual([e('socket', socket[1]!)])
  })
  it('now, is what was seen after the last thing that was done', () => {
    const seen = [e('cell', 'low'), e('strip', 'on', { after: 1 }), e('slots', 'clear', { after: 2 })]
    expect(seenNow(seen, [])).toEqual([seen[0]])
    expect(seenNow(seen, ['x'])).toEqual([seen[1]])
    expect(seenNow(seen, ['x', 'y'])).toEqual([seen[2]])
  })
  it('done, is what was done since the last repair or work; a start as it came since anything was changed', () => {
    const seen = [
      e('cell', 'low'),
      e('as it came', 'nothing'),
      e('strip', 'on', { after: 1 }),
      e('as it came', 'nothing', { after: 1 }),
      e('slots', 'clear', { after: 2 }),
    ]
    const is = (...kinds: Change['is'][]) =>
      [
        ...doneNow(
          seen,
          kinds.map((kind): Change => ({ is: kind, fault: 'cell weak' })),
        ),
      ].sort()
    expect(is()).toEqual(['as it came', 'cell', 'slots', 'strip'])
    expect(is('cured')).toEqual(['as it came', 'cell', 'slots', 'strip'])
    expect(is('mended')).toEqual(['as it came', 'slots', 'strip'])
    expect(is('made')).toEqual(['as it came', 'slots', 'strip'])
    expect(is('left', 'cured')).toEqual(['cell', 'slots', 'strip'])
    expect(is('mended', 'cured')).toEqual(['slots', 'strip'])
    expect(is('cured', 'mended')).toEqual(['slots'])
    expect(is('mended', 'made', 'cured')).toEqual(['slots'])
  })
  it('hangs together where it was read of starts of one set-up, with nothing done in between, by somebody here', () => {
    const [a, b] = [e('as it came', 'nothing'), e('warmth', 'cold')]
    const apart = [
      e('warmth', 'cold', { after: 1 }),
      e('warmth', 'cold', { reliability: 0.5 }),
      e('as it came', 'nothing', { reliability: 0.5 }),
      e('warmth', 'cold', { of: 'no CPU' }),
      e('ohms 12v', 'good'),
      e('cell', 'low'),
    ]
    expect(hangsTogether([a, ...apart, b])).toEqual([[a, b], ...apart.map((x) => [x])])
    expect(hangsTogether([a, e('warmth', 'cold', { after: 0 })])).toHaveLength(1)
  })
  it('may be read again: a meter’s reading taken once, or two that differ; no claim, nothing else', () => {
    const once = e('ohms 12v', 'good')
    const differ = e('volts 5v', 'there', { earlier: ['gone'] })
    const agree = e('ohms 5v', 'good', { earlier: ['good'] })
    const third = e('ohms 3v3', 'good', { earlier: ['short', 'good'] })
    const all = [once, differ, agree, third, e('ohms vmem', 'good', { reliability: 0.6 }), e('cell', 'low')]
    expect(readAgain(all)).toEqual([once, differ])
  })
})

describe('chances of what was seen, by hand', () => {
  const hs = [0, at('CPU'), at('module', 'cell weak'), UNKNOWN + 2]
  /** One in twenty is noted as another, whichever of the others. */
  const well = (test: string) =>
    1 - (0.05 * testOf(test).outcomes.length) / (testOf(test).outcomes.length - 1)
  const noted = (test: string, outcome: string, r = well(test)) => {
    const t = testOf(test)
    const rows = likelihood(t)
    return (h: number) => r * rows[t.outcomes.indexOf(outcome)]![h]! + (1 - r) / t.outcomes.length
  }
  it('of nothing are one; of one reading r·P + (1 − r)/n; of a claim with its own r', () => {
    const [nothing] = chanceOf([])
    const [one] = chanceOf([{ test: 'cell', outcome: 'low' }])
    const [claimed] = chanceOf([{ test: 'cell', outcome: 'low', reliability: 0.5 }])
    for (const h of hs) {
      expect(nothing[h]).toBe(1)
      expect(one[h]).toBeCloseTo(noted('cell', 'low')(h), 12)
      expect(claimed[h]).toBeCloseTo(noted('cell', 'low', 0.5 * well('cell'))(h), 12)
    }
  })
  it('where the lamps lie, are the mean of the lamps, for starts alone', () => {
    const start = testOf('as it came')
    const rows = likelihood(start)
    const lit = ['CPU lamp', 'memory lamp', 'graphics lamp', 'boot lamp'].map((l) =>
      start.outcomes.indexOf(l),
    )
    const [truly, lying] = chanceOf([{ test: 'as it came', outcome: 'memory lamp' }])
    for (const h of hs) {
      const mean = lit.reduce((all, o) => all + rows[o]![h]!, 0) / 4
      expect(lying[h]).toBeCloseTo(
        well('as it came') * mean + (1 - well('as it came')) / start.outcomes.length,
        12,
      )
      expect(truly[h]).toBeCloseTo(noted('as it came', 'memory lamp')(h), 12)
    }
    // No lamp was seen: nothing can have lied. One of several is enough.
    const dark = chanceOf([{ test: 'as it came', outcome: 'nothing' }])
    expect(dark[1]).toBe(dark[0])
    for (const some of [
      chanceOf([{ test: 'as it came', outcome: 'nothing', earlier: ['memory lamp'] }]),
      chanceOf([
        { test: 'warmth', outcome: 'cold' },
        { test: 'as it came', outcome: 'memory lamp' },
      ]),
    ])
      expect(some[1].some((p, h) => Math.abs(p - some[0][h]!) > 1e-6)).toBe(true)
    const rail = chanceOf([{ test: 'ohms 12v', outcome: 'short', earlier: ['good'] }])
    expect(rail[1]).toBe(rail[0])
  })
  it('of a start told what was read of the same set-up before; of another set-up or a claim nothing is told', () => {
    const test = testOf('warmth')
    const rows = likelihood(test)
    const seen: Evidence = { test: 'as it came', outcome: 'CPU lamp' }
    const told = likelihoodAfter(test, [seen])
    const stops = stopsOf(asItCame)
    const start = testOf('as it came')
    const c = start.outcomes.indexOf('CPU lamp')
    for (const h of hs) {
      const before = noted('as it came', 'CPU lamp')(h)
      test.outcomes.forEach((_, o) => {
        const once = stages.reduce((all, __, s) => {
          const r = well('as it came')
          const shows = r * start.byStage![c]![s]! + (1 - r) / start.outcomes.length
          return all + stops[h * stages.length + s]! * shows * test.byStage![o]![s]!
        }, 0)
        expect(told[o]![h]).toBeCloseTo((before * rows[o]![h]! + once) / 2 / before, 10)
      })
    }
    for (const other of [
      [],
      [{ ...seen, reliability: 0.5 }],
      [{ test: 'known-good CPU', outcome: 'CPU lamp' }],
      [{ test: 'cell', outcome: 'low' }],
    ])
      likelihoodAfter(test, other).forEach((row, o) => expect(row).toBe(rows[o]))
    // A meter’s reading is told by its own earlier reading, not by another rail’s, nor by a claim.
    const ohms = testOf('ohms 12v')
    for (const other of [
      { test: 'ohms 5v', outcome: 'short' },
      { test: 'ohms 12v', outcome: 'short', reliability: 0.5 },
    ])
      likelihoodAfter(ohms, [other]).forEach((row, o) => expect(row).toBe(likelihood(ohms)[o]))
    const again = likelihoodAfter(ohms, [
      { test: 'ohms 5v', outcome: 'short' },
      { test: 'ohms 12v', outcome: 'short' },
    ])
    expect(again[0]![at('12 V short')]).toBeGreaterThan(likelihood(ohms)[0]![at('12 V short')]! - 0.1)
    expect(again[0]![0]).toBeGreaterThan(5 * likelihood(ohms)[0]![0]!)
  })
  it('of a reading noted as another than it was, by Bayes', () => {
    const rows = likelihood(testOf('ohms 12v'))
    const short = misread({ test: 'ohms 12v', outcome: 'short' })
    for (const h of [...hs, at('12 V short')]) {
      const blur = 0.05 / 2
      expect(short[h]).toBeCloseTo(blur / ((1 - 0.075) * rows[0]![h]! + blur), 12)
    }
  })
})

describe('the prior, by hand', () => {
  const odds = (p: number) => p / (1 - p)
  const single = (of: Float64Array, id: FaultId) => of[at(id)]!
  it('is a fault’s odds times its history, twice what was mended before, the shop’s own in their place; capped', () => {
    const prior = priorOdds([])
    const base = single(prior, 'CPU')
    const ratio = (of: Float64Array, id: FaultId) => single(of, id) / single(of, 'CPU')
    expect(single(prior, 'module') / base).toBeCloseTo(odds(faults.module.odds) / odds(faults.CPU.odds), 10)
    const again = priorOdds([], ['module'])
    expect(ratio(again, 'module')).toBeCloseTo((4 * odds(faults.module.odds)) / odds(faults.CPU.odds), 10)
    const own = priorOdds([], [], { module: 0.3 })
    expect(ratio(own, 'module')).toBeCloseTo(odds(0.3) / odds(faults.CPU.odds), 10)
    const sure = priorOdds([], [], { module: 0.99 })
    expect(ratio(sure, 'module')).toBeCloseTo(9 / odds(faults.CPU.odds), 9)
    const capped = priorOdds([], ['module'], { module: 0.8 })
    expect(ratio(capped, 'module')).toBeCloseTo(9 / odds(faults.CPU.odds), 9)
    const swapped = priorOdds(['CPU swap'])
    const by = (id: FaultId) => (faults[id] as { likelier: Record<string, number> }).likelier['CPU swap'] ?? 1
    expect(ratio(swapped, 'CPU unsupported')).toBeCloseTo(
      (odds(faults['CPU unsupported'].odds) * by('CPU unsupported')) / (odds(faults.CPU.odds) * by('CPU')),
      10,
    )
  })
  it('of two is both, none where they are one thing gone wrong two ways, likelier where others worked on it', () => {
    const prior = priorOdds([])
    const pair = (of: Float64Array, a: FaultId, b: FaultId) => of[at(a, b)]! / (of[at(a)]! * of[at(b)]!)
    const all = (of: Float64Array) => pair(of, 'module', 'cell weak')
    for (const [a, b] of [
      ['CPU', '12 V short'],
      ['chip joint', 'module'],
      ['firmware corrupt', 'CPU'],
    ] as const)
      expect(pair(prior, a, b)).toBeCloseTo(all(prior), 8)
    for (const [a, b] of [
      ['firmware corrupt', 'firmware partly corrupt'],
      ['firmware chip', 'chip dead'],
      ['CPU', 'CPU unsupported'],
      ['CPU memory side', 'CPU unsupported'],
      ['core controller', 'core regulator part'],
    ] as const)
      expect(prior[at(a, b)]).toBe(0)
    const others = priorOdds(['worked on by others'])
    const scale = (of: Float64Array) => {
      // What one unit of odds is worth after all is brought to one: from a fault whose odds are known.
      const { likelier } = faults.CPU as { likelier?: Record<string, number> }
      return (
        of[at('CPU')]! /
        (odds(faults.CPU.odds) * (of === others ? (likelier?.['worked on by others'] ?? 1) : 1))
      )
    }
    expect(all(prior) * scale(prior)).toBeCloseTo(1, 8)
    expect(all(others) * scale(others)).toBeCloseTo(2.5, 8)
  })
  it('of what is in no list is fifteen thousandths of all that is, at each stage', () => {
    const prior = priorOdds([])
    const named = prior.subarray(0, UNKNOWN).reduce((a, b) => a + b, 0)
    for (let h = UNKNOWN; h < WIDTH; h++) expect(prior[h]! / named).toBeCloseTo(0.015, 12)
    expect(unknownOdds(prior)).toBeCloseTo((0.015 * (WIDTH - UNKNOWN)) / (1 + 0.015 * (WIDTH - UNKNOWN)), 12)
    expect(faultOdds(prior)).toHaveLength(faultIds.length)
  })
})

describe('after what was done, by trying every way', () => {
  const seen: readonly Evidence[] = [
    { test: 'as it came', outcome: 'memory lamp', earlier: ['nothing'] },
    { test: 'warmth', outcome: 'cold' },
    { test: 'ohms 12v', outcome: 'short' },
    { test: 'ohms 12v', outcome: 'good', after: 1 },
    { test: 'as it came', outcome: 'CPU lamp', after: 1 },
    { test: 'round the chip', outcome: 'clear', after: 2 },
    { test: 'as it came', outcome: 'system loads', after: 2 },
  ]
  const ways: readonly (readonly Change[])[] = [
    [],
    [{ is: 'mended', fault: '12 V short' }],
    [
      { is: 'mended', fault: '12 V short' },
      { is: 'made', fault: 'module seat' },
    ],
    [
      { is: 'made', fault: 'chip joint' },
      { is: 'mended', fault: 'chip joint' },
    ],
    [
      { is: 'left', fault: 'module seat' },
      { is: 'mended', fault: 'firmware corrupt', takes: 0.4 },
    ],
    [
      { is: 'mended', fault: 'firmware corrupt' },
      { is: 'left', fault: 'module seat' },
    ],
    [
      { is: 'cured', fault: 'cell weak' },
      { is: 'made', fault: 'chip resistor' },
    ],
    [
      { is: 'made', fault: 'chip resistor' },
      { is: 'cured', fault: 'chip resistor' },
    ],
  ]
  it.each(
    ways.map((changes) => [changes.map((c) => `${c.is} ${c.fault}`).join(', then ') || 'nothing', changes]),
  )('%s', (_, changes) => {
    const evidence = seen.filter((e) => (e.after ?? 0) <= changes.length)
    near(standing(posterior(prior, evidence, changes), changes), tried(prior, evidence, changes))
  })
  it('what a test may have left counts once for each fault, the last of them', () => {
    const left: Change = { is: 'left', fault: 'module seat' }
    const other: Change = { is: 'mended', fault: '12 V short' }
    const evidence = seen.filter((e) => (e.after ?? 0) === 0)
    const now = (...changes: Change[]) => standing(posterior(prior, evidence, changes), changes)
    near(now(left, other, left), tried(prior, evidence, [other, left]))
    near(now(left, left, other), tried(prior, evidence, [left, other]))
    // Another fault’s is no less.
    const others: Change = { is: 'left', fault: 'signal contacts touch' }
    near(now(left, others), tried(prior, evidence, [left, others]))
  })
  it('of more than four open changes the older did what they were meant to; what tests left gives way first', () => {
    const mended = (fault: FaultId): Change => ({ is: 'mended', fault })
    const five = (['12 V short', 'cell weak', 'module', 'CPU', 'firmware corrupt'] as const).map(mended)
    const sure: Change = { ...five[0]!, takes: 1 }
    near(standing(posterior(prior, [], five), five), tried(prior, [], [sure, ...five.slice(1)]))
    const left: Change = { is: 'left', fault: 'module seat' }
    const four = five.slice(1)
    near(standing(posterior(prior, [], [...four, left]), [...four, left]), tried(prior, [], four))
  })
  it('takes back one of several that hang together, as though it had not been', () => {
    const changes: Change[] = [{ is: 'mended', fault: '12 V short' }]
    const evidence: Evidence[] = [
      { test: 'as it came', outcome: 'memory lamp' },
      { test: 'warmth', outcome: 'cold' },
      { test: 'current', outcome: 'steady' },
      { test: 'cell', outcome: 'low', after: 1 },
    ]
    const without = withoutEach(posterior(prior, evidence, changes), evidence, changes)
    evidence.forEach((e, i) => {
      const rest = evidence.filter((other) => other !== e)
      near(without[i]!, standing(posterior(prior, rest, changes), changes))
    })
  })
  it('what was seen was to be expected by so much of what is in the list, each start by itself', () => {
    const changes: Change[] = [{ is: 'mended', fault: '12 V short' }]
    const evidence: Evidence[] = [
      { test: 'as it came', outcome: 'memory lamp', earlier: ['nothing', 'nothing'] },
      { test: 'ohms 12v', outcome: 'short' },
      { test: 'ohms 12v', outcome: 'good', after: 1 },
    ]
    const first = posterior(prior, evidence.slice(1, 2))
    const chances = expected(first, evidence.slice(0, 2))
    // Before any change the cases are the lamps alone: true in 0.92.
    evidence.slice(0, 2).forEach(({ earlier: _, ...e }, i) => {
      const [truly, lying] = chanceOf([e])
      let sum = 0
      let listed = 0
      for (let h = 0; h < UNKNOWN; h++) {
        sum += first[h]! * truly[h]! + first[WIDTH + h]! * lying[h]!
        listed += first[h]! + first[WIDTH + h]!
      }
      expect(chances[i]).toBeCloseTo(sum / listed, 12)
    })
    const odds = posterior(prior, evidence.slice(1), changes)
    const now = standing(odds, changes)
    const [, , good] = expected(odds, evidence, changes)
    const [truly] = chanceOf([evidence[2]!])
    const listed = now.subarray(0, UNKNOWN)
    expect(good).toBeCloseTo(
      listed.reduce((all, p, h) => all + p * truly[h]!, 0) / listed.reduce((all, p) => all + p, 0),
      10,
    )
  })
  it('what somebody mended here was there nine times of ten; what work had made before tells nothing', () => {
    const odds = priorOdds([])
    const told = (...changes: Change[]) => withMends(odds, changes)
    const i = at('cell weak')
    const cell = told({ is: 'mended', fault: 'cell weak' })
    expect(cell[i]! / cell[at('CPU')]!).toBeCloseTo((9 * odds[i]!) / odds[at('CPU')]!, 8)
    expect(cell[at('cell weak', 'CPU')]! / cell[at('CPU')]!).toBeCloseTo(
      (9 * odds[at('cell weak', 'CPU')]!) / odds[at('CPU')]!,
      8,
    )
    expect(cell[UNKNOWN]! / cell[at('CPU')]!).toBeCloseTo(odds[UNKNOWN]! / odds[at('CPU')]!, 10)
    expect(cell.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 12)
    // Twice mended is mended; what was cured by a test, or made here first, is not told.
    near(told({ is: 'mended', fault: 'cell weak' }, { is: 'mended', fault: 'cell weak' }), cell)
    near(told({ is: 'cured', fault: 'cell weak' }), odds)
    near(told({ is: 'made', fault: 'chip joint' }, { is: 'mended', fault: 'chip joint' }), odds)
    near(told({ is: 'left', fault: 'module seat' }), odds)
    near(told({ is: 'made', fault: 'chip joint' }, { is: 'mended', fault: 'cell weak' }), cell)
    near(told({ is: 'mended', fault: 'cell weak' }, { is: 'made', fault: 'cell weak' }), cell)
    near(told(), odds)
  })
  it('a start after the first change is no start before it, whatever number it has', () => {
    const changes: Change[] = [{ is: 'mended', fault: 'cell weak' }]
    const before: Evidence[] = [{ test: 'cell', outcome: 'low' }]
    const after: Evidence[] = [{ test: 'cell', outcome: 'low', after: 1 }]
    const weak = (evidence: Evidence[]) =>
      faultOdds(standing(posterior(prior, evidence, changes), changes))[faultIds.indexOf('cell weak')]!
    expect(weak(after)).toBeGreaterThan(1.5 * weak(before))
  })
})

import type { Baseline } from '../../board/baseline'
import { nothingNoted } from '../../board/baseline'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { baselineChanges, cellState, firstLook, startTables, stageReached, stages } from './stage'

const baseline: fc.Arbitrary<Baseline> = fc.record({
  fans: fc.constantFrom('off', 'twitch', 'on', 'not noted'),
  current: fc.constantFrom('none', 'standby', 'steady', 'cycling', 'trips', 'not noted'),
  amps: fc.constant(null),
  lamp: fc.constantFrom('none', 'cpu', 'memory', 'graphics', 'boot', 'not noted'),
  beeps: fc.constant(''),
  cpuHeat: fc.constantFrom('cold', 'warm', 'hot', 'not noted'),
  codes: fc.constantFrom([], ['4C']),
  picture: fc.constantFrom('none', 'maker screen', 'system loads', 'not noted'),
})
const sum = (values: readonly number[]) => values.reduce((a, b) => a + b, 0)

describe('the start model', () => {
  it('has outcomes that sum to one at every stage', () => {
    for (const [name, table] of Object.entries(startTables))
      stages.forEach((stage, i) =>
        expect(sum(Object.values(table).map((row) => row[i]!)), `${name} at ${stage}`).toBeCloseTo(1, 9),
      )
  })
  it('is Bayes: the product of the rows over the prior, normalised', () => {
    const prior = stageReached(nothingNoted).odds.map((o) => o.odds)
    fc.assert(
      fc.property(baseline, (b) => {
        const product = stages.map((_, i) => {
          let p = prior[i]!
          for (const sense of ['fans', 'current', 'lamp', 'cpuHeat', 'picture'] as const)
            p *= startTables[sense][b[sense]]?.[i] ?? 1
          return b.codes.length > 0 ? p * startTables.codes.some![i]! : p
        })
        stageReached(b).odds.forEach(({ odds }, i) => expect(odds).toBeCloseTo(product[i]! / sum(product), 9))
      }),
    )
  })
  it('learns nothing from what was not noted', () => {
    const { odds, told } = stageReached(nothingNoted)
    expect(sum(odds.map((o) => o.odds))).toBeCloseTo(1, 12)
    expect(told).toEqual([])
  })
  it.each([
    [
      { fans: 'off', current: 'none', lamp: 'none', cpuHeat: 'cold', picture: 'none' },
      'standby',
      'stops at standby',
    ],
    [
      { fans: 'on', current: 'steady', lamp: 'cpu', cpuHeat: 'cold', picture: 'none' },
      'first fetch',
      'stops at first fetch',
    ],
    [
      { fans: 'on', current: 'cycling', lamp: 'memory', cpuHeat: 'warm', codes: ['51'], picture: 'none' },
      'memory training',
      'stops at memory training',
    ],
    [
      { fans: 'on', current: 'steady', lamp: 'none', cpuHeat: 'warm', picture: 'system loads' },
      'running',
      'runs',
    ],
  ] as const)('reads a start %#', (seen, likeliest, say) => {
    expect(stageReached({ ...nothingNoted, ...seen })).toMatchObject({ likeliest, say })
  })
  it('says first what told most, in bits that are never negative', () => {
    fc.assert(
      fc.property(baseline, (b) => {
        const bits = stageReached(b).told.map((t) => t.bits)
        expect(bits).toEqual([...bits].sort((x, y) => y - x))
        for (const bit of bits) expect(bit).toBeGreaterThanOrEqual(-1e-9)
      }),
    )
  })
  it('has a first look for every stage that can be blocked', () => {
    expect(Object.keys(firstLook)).toEqual(stages.slice(0, -1))
  })
})

describe('baselineChanges', () => {
  it('shows progress even without a picture', () => {
    const before = { ...nothingNoted, fans: 'on', cpuHeat: 'cold', lamp: 'cpu' } as const
    const changes = baselineChanges(before, { ...before, cpuHeat: 'warm', lamp: 'memory', codes: ['51'] })
    expect(changes.map((c) => c.what)).toEqual(['debug LED', 'CPU', 'codes', 'stage'])
  })
  it('says nothing about what one of the two did not note, and nothing of equals', () => {
    fc.assert(
      fc.property(baseline, (b) => {
        expect(baselineChanges(b, b)).toEqual([])
      }),
    )
    expect(baselineChanges(nothingNoted, { ...nothingNoted, fans: 'on' }).map((c) => c.what)).not.toContain(
      'fans',
    )
  })
})

it('a cell is good, weak or dead', () => {
  expect([3.1, 2.8, 2.79, 2.5, 2.4].map((v) => cellState(v).state)).toEqual([
    'good',
    'good',
    'weak',
    'weak',
    'dead',
  ])
})

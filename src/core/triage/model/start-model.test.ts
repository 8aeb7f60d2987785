import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { seeded } from '../../maths/seeded'
import { faultIds, faults } from './faults'
import type { FaultId } from './faults'
import type { Fault } from './fault'
import { asItCame } from './setup'
import type { Setup } from './setup'
import { stages } from './stage'
import { blocks, outcomeByStage, startOutcomes, stopsIn } from './start-model'

const anyFaults = fc.uniqueArray(fc.constantFrom(...faultIds), { maxLength: 3 })
const anySetup: fc.Arbitrary<Setup> = fc.record({
  cpu: fc.constantFrom('own', 'known-good', 'none'),
  memory: fc.constantFrom(
    'own',
    'own, reseated',
    'own in slot B',
    'good in A',
    'good in B',
    'good in both',
    'none',
  ),
  graphics: fc.constantFrom('as it came', 'known-good card', 'own graphics'),
  settings: fc.constantFrom('as they were', 'cleared'),
  cell: fc.constantFrom('own', 'new'),
  supply: fc.constantFrom('own', 'bench supply'),
  chip: fc.constantFrom('first', 'second'),
  fitted: fc.constantFrom('all', 'needed', 'bridged'),
  seat: fc.constantFrom('as it came', 'reseated', 'eased'),
  wait: fc.constantFrom('a minute', 'out'),
  drive: fc.constantFrom('own', 'known-good'),
})
const at = (odds: Float64Array, stage: (typeof stages)[number]) => odds[stages.indexOf(stage)]!

describe('the faults', () => {
  it('are at least thirty, each with a stage and chances that are chances', () => {
    expect(faultIds.length).toBeGreaterThanOrEqual(30)
    for (const id of faultIds) {
      const { stage, shows, odds, signs, likelier }: Fault = faults[id]
      expect(stages).toContain(stage)
      for (const p of [shows, odds, ...Object.values(signs)]) expect(p > 0 && p < 1, id).toBe(true)
      for (const times of Object.values(likelier)) expect(times).toBeGreaterThan(1)
    }
  })
  it('are each quiet in no setup that leaves their part in place', () => {
    for (const id of faultIds) expect(blocks(id, asItCame)).toBe(faults[id].shows)
  })
})

describe('where a start stops', () => {
  it('is certain to be somewhere', () => {
    fc.assert(
      fc.property(anyFaults, anySetup, (ids, setup) => {
        const odds = stopsIn(ids, setup)
        expect(odds.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 12)
        expect(Math.min(...odds)).toBeGreaterThanOrEqual(0)
      }),
    )
  })
  it('is never later for one fault more', () => {
    fc.assert(
      fc.property(anyFaults, fc.constantFrom(...faultIds), anySetup, (ids, more, setup) => {
        const reach = (odds: Float64Array) => odds.map((_, i) => odds.slice(i).reduce((a, b) => a + b, 0))
        const before = reach(stopsIn(ids, setup))
        reach(stopsIn([...ids, more], setup)).forEach((p, i) =>
          expect(p).toBeLessThanOrEqual(before[i]! + 1e-12),
        )
      }),
    )
  })
  it('is where stepping through the stages with a die stops', () => {
    const draw = seeded(7)
    for (const ids of [['supply', 'module'], ['cell weak', 'CPU', 'drive'], ['card'], []] as FaultId[][]) {
      const counts = new Float64Array(stages.length)
      for (let n = 0; n < 20_000; n++) {
        let stop = stages.length - 1
        for (let i = stages.length - 2; i >= 0; i--)
          for (const id of ids) if (faults[id].stage === stages[i] && draw() < faults[id].shows) stop = i
        counts[stop]!++
      }
      stopsIn(ids, asItCame).forEach((p, i) => expect(counts[i]! / 20_000).toBeCloseTo(p, 1.7))
    }
  })
  it('is memory training without memory, first fetch without a CPU, and nowhere for a sound board', () => {
    expect(at(stopsIn([], { ...asItCame, memory: 'none' }), 'memory training')).toBe(1)
    expect(at(stopsIn([], { ...asItCame, cpu: 'none' }), 'first fetch')).toBe(1)
    expect(at(stopsIn([], asItCame), 'running')).toBe(1)
    expect(at(stopsIn(['supply'], { ...asItCame, memory: 'none' }), 'power-good')).toBeCloseTo(0.8, 12)
  })
  it.each<[FaultId, Partial<Setup>]>([
    ['module', { memory: 'good in A' }],
    ['module seat', { memory: 'own, reseated' }],
    ['memory A contact open', { memory: 'good in B' }],
    ['memory B contact open', { memory: 'good in A' }],
    ['CPU', { cpu: 'known-good' }],
    ['card', { graphics: 'own graphics' }],
    ['display contact open', { graphics: 'known-good card' }],
    ['settings', { settings: 'cleared' }],
    ['training', { wait: 'out' }],
    ['firmware corrupt', { chip: 'second' }],
    ['front wiring', { fitted: 'bridged' }],
    ['CPU seat', { seat: 'reseated' }],
  ])('%s does not show with %j', (id, change) => {
    expect(at(stopsIn([id], { ...asItCame, ...change }), 'running')).toBe(1)
    expect(at(stopsIn([id], asItCame), 'running')).toBeLessThan(0.8)
  })
})

it('what a start comes to is one of the outcomes, whatever the stage', () => {
  stages.forEach((_, i) =>
    expect(startOutcomes.reduce((sum, __, o) => sum + outcomeByStage[o]![i]!, 0)).toBeCloseTo(1, 9),
  )
})

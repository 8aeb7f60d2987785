import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { normalDraw, seeded } from '../../maths/seeded'
import { changePoints, cycleOf } from './change-points'
import { drawn } from './drawn-trace.testing'

describe('change points', () => {
  it('are found to the sample where the level is plain', () => {
    const trace = drawn([
      [4, 0.05],
      [6, 1.2],
      [5, 0.9],
    ])
    expect(changePoints(trace.amps)).toEqual([800, 2000])
  })
  it('are none in noise alone, whatever the seed', () => {
    for (let seed = 0; seed < 30; seed++)
      expect(changePoints(drawn([[20, 0.4]], 100, seed).amps), `seed ${seed}`).toEqual([])
  })
  const step = (cut: number, seed: number) => {
    const draw = seeded(seed)
    return Float64Array.from({ length: 100 }, (_, i) => (i < cut ? 0.2 : 1.4) + 0.02 * normalDraw(draw))
  }
  it('find a plain step wherever it is', () => {
    fc.assert(
      fc.property(fc.integer({ min: 12, max: 88 }), fc.integer({ min: 1, max: 1e6 }), (cut, seed) => {
        expect(changePoints(step(cut, seed))).toContain(cut)
      }),
      { numRuns: 60 },
    )
  })
  it('find nothing else in it, but for one trace in fifty', () => {
    const odd = Array.from(
      { length: 300 },
      (_, seed) => changePoints(step(12 + (seed % 77), seed)).length > 1,
    )
    expect(odd.filter(Boolean).length).toBeLessThanOrEqual(6)
  })
})

describe('the period of a stretch', () => {
  it.each([7.3, 18, 41.7])('of %d samples is found within a fiftieth', (period) => {
    const draw = seeded(4)
    const wave = Float64Array.from(
      { length: 600 },
      (_, i) => (i % period < period / 3 ? 1 : 0.1) + 0.02 * normalDraw(draw),
    )
    expect(Math.abs(cycleOf(wave)! / period - 1)).toBeLessThan(0.02)
  })
  it('is none for noise, a step or a ramp', () => {
    const draw = seeded(5)
    expect(cycleOf(Float64Array.from({ length: 500 }, () => normalDraw(draw)))).toBeNull()
    expect(cycleOf(Float64Array.from({ length: 500 }, (_, i) => (i < 250 ? 0 : 1)))).toBeNull()
    expect(cycleOf(Float64Array.from({ length: 500 }, (_, i) => i / 500))).toBeNull()
  })
})

import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { runHeat } from '@/core/parts/heat/heat-run'
import { noStep, readHeat, typedHeatOf, typedStep } from './typed-heat'
import type { TypedHeat } from './typed-heat'

const bench = typedHeatOf()
const of = (to: Partial<TypedHeat>) => readHeat({ ...bench, ...to })

describe('a heat recipe as it is typed', () => {
  it('is a bench’s usual one at first, without a fault', () => {
    const { setUp, steps, atHand, errors } = readHeat(bench)
    expect(errors).toEqual({})
    expect(setUp).toMatchObject({ target: 'firmware chip', nozzleMm: 14, spared: [{ atMm: 30 }] })
    expect(steps).toHaveLength(6)
    expect(steps![0]).toEqual({ seconds: 180, airC: null, flow: 0, preheatWm2: 3000 })
    expect(atHand).toEqual({
      nozzlesMm: [3, 5, 7, 10, 14],
      mostAirC: 480,
      flows: [40, 80],
      mostPreheatWm2: 3000,
    })
  })
  it('at first floats, and passes no limit', () => {
    const { setUp, steps } = readHeat(bench)
    const { verdict } = runHeat({ ...setUp!, air: 1, preheater: 1 }, steps!)
    expect(verdict.floatsAtS).not.toBeNull()
    expect(verdict.wrong).toEqual([])
  })
  it('names each field that is wrong with the mend, and keeps the others', () => {
    const { errors, setUp, steps } = of({
      nozzleMm: 'ten',
      wideMm: '5',
      layers: '4.5',
      spared: [{ what: '', atMm: '12', bearsC: '900' }],
      steps: [{ seconds: '0', airC: '700', flow: '', preheat: '9' }],
    })
    expect(errors).toEqual({
      nozzleMm: '1 to 40 mm',
      wideMm: '20 to 400 mm',
      layers: 'a whole number',
      'spared 0 what': 'what it is',
      'spared 0 bearsC': '30 to 400 °C',
      'step 0 seconds': '1 to 1800 s',
      'step 0 airC': '30 to 600 °C',
      'step 0 flow': '1 to 200 l/min',
      'step 0 preheat': '0 to 2 W/cm²',
    })
    expect([setUp, steps]).toEqual([null, null])
  })
  it('of what is at hand wants one at least, each within reason', () => {
    expect(of({ nozzles: '' }).errors.nozzles).toMatch(/one to 8/)
    expect(of({ nozzles: '3, 90' }).atHand).toBeNull()
    expect(of({ flows: '20 40 60 80 100' }).errors.flows).toMatch(/one to 4/)
    expect(of({ mostAirC: '90' }).errors.mostAirC).toMatch(/250 to 600/)
    expect(of({ mostPreheat: '' }).atHand!.mostPreheatWm2).toBe(0)
    expect(of({ nozzles: '3,5,7' }).atHand!.nozzlesMm).toEqual([3, 5, 7])
    expect(of({ nozzles: '3.5, 7; 10' }).atHand!.nozzlesMm).toEqual([3.5, 7, 10])
  })
  it('takes a comma for a point, leaves out empty rows, and wants a step', () => {
    expect(of({ distanceMm: '7,5' }).setUp!.distanceMm).toBe(7.5)
    expect(of({ steps: [...bench.steps, noStep] }).steps).toHaveLength(6)
    expect(of({ steps: [noStep] }).errors['step 0 seconds']).toBe('a recipe has a step at least')
    expect(of({ layers: '' }).setUp!.board).toEqual({ wideMm: 170, highMm: 170 })
  })
  it('that was kept comes back as it was', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            seconds: fc.integer({ min: 1, max: 1800 }),
            airC: fc.option(fc.integer({ min: 30, max: 600 }), { nil: null }),
            flow: fc.integer({ min: 1, max: 200 }),
            preheatWm2: fc.integer({ min: 0, max: 2000 }).map((n) => n * 10),
          }),
          { minLength: 1, maxLength: 6 },
        ),
        (drawn) => {
          const steps = drawn.map((s) => (s.airC === null ? { ...s, flow: 0 } : s))
          const again = readHeat({ ...bench, steps: steps.map(typedStep) }).steps!
          again.forEach((step, i) => {
            expect(step).toMatchObject({
              seconds: steps[i]!.seconds,
              airC: steps[i]!.airC,
              flow: steps[i]!.flow,
            })
            expect(step.preheatWm2).toBeCloseTo(steps[i]!.preheatWm2, -1)
          })
        },
      ),
    )
    const kept = { ...readHeat(bench).setUp!, ref: 'U7', steps: readHeat(bench).steps!, floatsAtS: 300 }
    expect(typedHeatOf({ ...kept, board: { ...kept.board, layers: 6 } })).toEqual({
      ...bench,
      ref: 'U7',
      layers: '6',
    })
  })
})

import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  drawHeatPractice,
  liftNow,
  practiceTargets,
  readsBeside,
  reckonedHeat,
  secondsOf,
  touch,
  trulyHeated,
} from './practice-heat'
import type { HeatHand } from './practice-heat'
import { liquidusC } from './set-up'

const step = (seconds: number, airC: number | null, flow = 30, preheatWm2 = 0) => ({
  seconds,
  airC,
  flow,
  preheatWm2,
})
const hand = (...steps: HeatHand['steps']): HeatHand => ({ nozzleMm: 14, distanceMm: 8, steps })
const warm = [step(150, null, 0, 3000), step(60, 250, 20, 3000)]

describe('hot air to practise', () => {
  it('is the same board for the same seed, and seldom the one that is told', () => {
    expect(drawHeatPractice(5, 'firmware chip')).toEqual(drawHeatPractice(5, 'firmware chip'))
    const all = Array.from({ length: 200 }, (_, i) => drawHeatPractice(i, 'firmware chip').truly)
    const log = all.map(({ air }) => Math.log(air))
    expect(Math.abs(log.reduce((a, b) => a + b, 0) / log.length)).toBeLessThan(0.06)
    expect(Math.max(...log)).toBeLessThanOrEqual(0.4)
    expect(log.filter((v) => Math.abs(v) > 0.1).length).toBeGreaterThan(80)
    expect(new Set(all.map((t) => t.layers))).toEqual(new Set([4, 6, 8]))
  })
  it('reads beside the joint what the board really is, to within its noise', () => {
    const board = drawHeatPractice(11, 'firmware chip')
    const run = trulyHeated(board, hand(...warm))!
    const reads = readsBeside(board, run)
    expect(reads[0]!.s).toBe(0)
    expect(reads.length).toBe(Math.floor(secondsOf(hand(...warm)) / 5) + 1)
    for (const { s, c } of reads) {
      const i = run.s.findIndex((t) => t >= s - 1e-9)
      expect(Math.abs(c - run.boardC[i]!)).toBeLessThan(7)
    }
    expect(readsBeside(board, null)).toEqual([])
    // What was read does not change when the work goes on.
    const longer = readsBeside(board, trulyHeated(board, hand(...warm, step(20, 350, 30, 3000))))
    expect(longer.slice(0, reads.length - 1)).toEqual(reads.slice(0, -1))
  })
  it('takes more or less heat than reckoned, as the board is', () => {
    const board = drawHeatPractice(3, 'firmware chip')
    const hot = { ...board, truly: { air: 1.4, preheater: 1.4, layers: 4 } }
    const end = (run: ReturnType<typeof trulyHeated>) => run!.jointC.at(-1)!
    expect(end(trulyHeated(hot, hand(...warm)))).toBeGreaterThan(end(reckonedHeat(hot, hand(...warm))) + 10)
    const as = { ...board, truly: { air: 1, preheater: 1, layers: 4 } }
    expect(end(trulyHeated(as, hand(...warm)))).toBeCloseTo(end(reckonedHeat(as, hand(...warm))), 9)
  })
  it('floats only after the joint was liquid for ten seconds, whatever is blown', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1e6 }),
        fc.constantFrom(...practiceTargets),
        fc.array(fc.tuple(fc.integer({ min: 5, max: 60 }), fc.integer({ min: 100, max: 480 })), {
          minLength: 1,
          maxLength: 4,
        }),
        (seed, target, blown) => {
          const board = drawHeatPractice(seed, target)
          const run = trulyHeated(
            board,
            hand(step(120, null, 0, 3500), ...blown.map(([s, c]) => step(s, c, 30, 3500))),
          )!
          const melts = liquidusC[board.told.solder]
          const from = run.s.at(-1)! - 10
          const last = [...run.jointC].filter((_, i) => run.s[i]! >= from)
          const felt = touch(board, run)
          if (felt === 'floats') expect(Math.min(...last)).toBeGreaterThanOrEqual(melts)
          if (felt === 'stands firm') expect(run.jointC.at(-1)!).toBeLessThan(melts)
          else expect(run.jointC.at(-1)!).toBeGreaterThanOrEqual(melts)
          const { score, lifted, wrong } = liftNow(board, run, 0)
          expect(lifted).toBe(felt)
          expect(score).toBeGreaterThanOrEqual(0)
          expect(score).toBeLessThanOrEqual(100)
          if (score === 100) expect(wrong).toEqual([])
          if (felt === 'stands firm') expect(score).toBe(0)
          expect(liftNow(board, run, 9).score).toBeLessThanOrEqual(score)
        },
      ),
      { numRuns: 25 },
    )
  })
  it('lifted when it floats and nothing is harmed is full marks; cold, too long or too hot is not', () => {
    const board = { ...drawHeatPractice(3, 'firmware chip'), truly: { air: 1, preheater: 1, layers: 4 } }
    expect(liftNow(board, null, 0)).toMatchObject({ lifted: 'stands firm', score: 0 })
    const after = (...steps: HeatHand['steps']) => liftNow(board, trulyHeated(board, hand(...steps)), 0)
    const gentle = [step(180, null, 0, 3000), ...[150, 230, 310, 400].map((c) => step(25, c, 40, 3000))]
    const on = (s: number) => step(s, 480, 40, 3000)
    let seconds = 5
    while (after(...gentle, on(seconds)).lifted !== 'floats' && seconds < 300) seconds += 5
    const good = after(...gentle, on(seconds))
    expect(good).toMatchObject({ lifted: 'floats', wrong: [], score: 100 })
    const long = after(...gentle, on(seconds + 60))
    expect(long.score).toBeLessThan(100)
    expect(long.wrong.join()).toContain('longer than it needed')
    const rushed = after(step(60, 480, 60))
    expect(rushed.wrong.join()).toMatch(/K a second/)
  })
})

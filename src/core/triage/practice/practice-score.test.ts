import { describe, expect, it } from 'vitest'
import { bestPolicy, practiceScore } from './practice-score'
import type { PracticeStep } from './practice-score'

const test = (id: string, outcome: string, along = false): PracticeStep => ({
  do: 'test',
  test: id,
  outcome,
  ...(along ? { along } : {}),
})
const mend = (fault: 'slot A' | 'memory rail short' | 'CPU' | 'module'): PracticeStep => ({
  do: 'mend',
  fault,
})
const score = (truth: readonly ('slot A' | 'memory rail short')[], ...steps: PracticeStep[]) =>
  practiceScore({ history: [], truth, seed: 5, steps, draws: 1 })

describe('the score of a practice board', () => {
  const straight = [
    test('as it came', 'memory lamp'),
    test('good in A', 'memory lamp'),
    test('good in B', 'system loads'),
    test('slots', 'slot A'),
    mend('slot A'),
    test('as it came', 'system loads'),
  ]
  it('is high for the straight way, and its minutes are those of its steps', () => {
    const { points, right, minutes, found, needless } = score(['slot A'], ...straight)
    expect({ right, minutes, found, needless }).toEqual({
      right: true,
      minutes: 2 + 4 + 4 + 3 + 45 + 2,
      found: ['slot A'],
      needless: [],
    })
    expect(points).toBeGreaterThanOrEqual(85)
  })
  it('is the same where the best policy was worked when the board was laid', () => {
    const board = { history: [], truth: ['slot A'], seed: 5, draws: 1 } as const
    const best = bestPolicy(board)
    const practice = { ...board, steps: straight }
    expect(practiceScore(practice, best)).toEqual(practiceScore(practice))
    expect(practiceScore(practice, { ...best, minutes: 6 }).points).toBe(55)
  })
  it('falls with every minute that told nothing', () => {
    const detour = score(
      ['slot A'],
      ...straight.slice(0, 4),
      test('chip contents', 'alike'),
      test('swept', 'clear'),
      ...straight.slice(4),
    )
    expect(detour.points).toBeLessThan(score(['slot A'], ...straight).points)
    expect(detour.review.find((r) => r.say.startsWith('Read the chip twice'))!.judgement).toBe('told nothing')
  })
  it('is below half when a fault is left; choices that were the best count all the same', () => {
    const half = score(['slot A', 'memory rail short'], ...straight)
    expect(half).toMatchObject({ right: false, missed: ['memory rail short'] })
    expect(half.points).toBeGreaterThan(15)
    expect(half.points).toBeLessThanOrEqual(35)
    const only = score(['slot A'], test('as it came', 'memory lamp'))
    expect(only.review.map((r) => r.judgement)).toEqual(['best'])
    expect(only.points).toBe(20)
  })
  it('says of what was left behind which test would have shown it', () => {
    expect(score(['slot A', 'memory rail short'], ...straight).lessons).toMatchObject([
      { fault: 'memory rail short', test: 'Measure memory rail to ground, unplugged', outcome: 'short' },
    ])
    expect(score(['slot A'], ...straight).lessons).toEqual([])
  })
  it('says when a mend was a guess and when it was needless', () => {
    const { needless, review, points } = score(
      ['slot A'],
      test('as it came', 'memory lamp'),
      mend('CPU'),
      ...straight.slice(1),
    )
    expect(needless).toEqual(['CPU'])
    expect(review[1]).toMatchObject({ judgement: 'a guess' })
    expect(review[1]!.why).toContain('it was not so')
    expect(points).toBeLessThan(score(['slot A'], ...straight).points)
  })
  it('calls a power-up with a short likely risky', () => {
    const { review } = score(['memory rail short'], test('ohms vmem', 'short'), test('as it came', 'nothing'))
    expect(review[1]).toMatchObject({
      judgement: 'risky',
      why: 'powered with a rail that was read at ground; clear it, or measure it again first',
    })
  })
  it('does not hold against a rail what the power gate asks for', () => {
    const step = (mayPower: boolean): PracticeStep => ({
      do: 'test',
      test: 'ohms vsys',
      outcome: 'good',
      mayPower,
    })
    const judged = (mayPower: boolean) =>
      score(['slot A'], test('as it came', 'memory lamp'), step(mayPower)).review[1]!.judgement
    expect([judged(false), judged(true)]).toEqual(['good', 'told nothing'])
  })
  it('what is seen along the way costs no minutes and is not judged', () => {
    const { minutes, review } = score(
      ['slot A'],
      test('as it came', 'memory lamp'),
      test('warmth', 'warm', true),
    )
    expect([minutes, review.length]).toEqual([2, 1])
  })
})

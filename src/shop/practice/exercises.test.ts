import { describe, expect, it } from 'vitest'
import { faultIds } from '@/core/triage/model/faults'
import { bestPolicy } from '@/core/triage/practice/practice-score'
import { checkEntry } from '@/entry-schemas/entry-schema'
import { drawExercise, exercises, minutesFor, practiceTicket } from './exercises'

describe('practice boards', () => {
  it('have tickets the tape takes, and faults the reasoner knows', () => {
    for (const exercise of [...exercises, drawExercise(['liquid'], 'any', 3)]) {
      const checked = checkEntry({
        id: '00000000-0000-4000-8000-000000000001',
        kind: 'ticket',
        strikes: null,
        at: '2026-11-24T09:00:00.000Z',
        body: { set: practiceTicket(exercise, exercise.limitMinutes) },
      })
      expect(checked).toMatchObject({ ok: true })
      for (const fault of exercise.faults) expect(faultIds).toContain(fault)
    }
    expect(new Set(exercises.map((e) => e.id)).size).toBe(exercises.length)
  })
  it('leave time enough for the best policy, however long it takes', () => {
    for (const exercise of exercises)
      for (const best of [0, 44.9, 62, 78.2, 122]) {
        const given = minutesFor(exercise, best)
        expect(given).toBeGreaterThanOrEqual(Math.max(best, exercise.limitMinutes))
        expect(given).toBeLessThan(Math.max(best + 5, exercise.limitMinutes + 1))
      }
  })
  it('usually take about as long as it is said', { timeout: 400_000 }, () => {
    for (const { id, history, faults, limitMinutes } of exercises) {
      const best = bestPolicy({ history, truth: faults, seed: 5, draws: 6 })
      expect([id, best.minutes <= limitMinutes]).toEqual([id, true])
    }
  })
  it('are drawn alike from the same seed, with as many faults as asked', () => {
    expect(drawExercise([], 'any', 9)).toEqual(drawExercise([], 'any', 9))
    for (let seed = 0; seed < 40; seed++) {
      expect(drawExercise([], 'one', seed).faults).toHaveLength(1)
      expect(drawExercise([], 'two', seed).faults).toHaveLength(2)
    }
    expect(
      new Set(Array.from({ length: 60 }, (_, s) => drawExercise([], 'one', s).faults[0])).size,
    ).toBeGreaterThan(12)
  })
  it('follow the history they are drawn with', () => {
    const corrupt = (history: Parameters<typeof drawExercise>[0]) =>
      Array.from({ length: 300 }, (_, s) => drawExercise(history, 'one', s)).filter((e) =>
        e.faults.includes('firmware corrupt'),
      ).length
    expect(corrupt(['power cut during update'])).toBeGreaterThan(3 * corrupt([]))
  })
})

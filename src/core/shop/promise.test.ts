import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readyDates, usualHours } from './promise'
import type { Hours, Promised } from './promise'

const job = (id: string, minutesLeft: number, more: Partial<Promised> = {}): Promised => ({
  id,
  minutesLeft,
  notBefore: null,
  promisedAt: null,
  ...more,
})
/** Monday the thirtieth, at nine. */
const MONDAY = '2026-11-30T09:00'
const middles = (queue: readonly Promised[], hours: Hours = usualHours, now = MONDAY) =>
  readyDates(queue, hours, now).map((r) => r.middle)
const near = (is: string, at: string, minutes: number) =>
  expect(
    Math.abs(Date.parse(`${is}Z`) - Date.parse(`${at}Z`)) / 60_000,
    `${is} beside ${at}`,
  ).toBeLessThanOrEqual(minutes)
const queues = fc.array(fc.integer({ min: 1, max: 400 }), { minLength: 1, maxLength: 6 })

describe('when a job is ready', () => {
  it('is one after another over bench hours, as they come', () => {
    const [first, second, third] = middles([job('a', 60), job('b', 300), job('c', 400)])
    near(first!, '2026-11-30T10:00', 8)
    near(second!, '2026-11-30T15:25', 40)
    // 420 minutes are a day: the third is for Tuesday.
    expect(third!.slice(0, 10)).toBe('2026-12-01')
  })
  it('is never on a closed day, at night or at the weekend', () => {
    fc.assert(
      fc.property(queues, fc.integer({ min: 0, max: 20_000 }), (minutes, later) => {
        const now = new Date(Date.parse(`${MONDAY}Z`) + later * 60_000).toISOString().slice(0, 16)
        const hours = { ...usualHours, closed: ['2026-12-02', '2026-12-08'] }
        for (const { middle, likely } of readyDates(
          minutes.map((m, i) => job(String(i), m)),
          hours,
          now,
        ))
          for (const moment of [middle, likely]) {
            const date = new Date(`${moment}Z`)
            expect(moment >= now).toBe(true)
            expect([1, 2, 3, 4, 5]).toContain(date.getUTCDay())
            expect(hours.closed).not.toContain(moment.slice(0, 10))
            const minute = 60 * date.getUTCHours() + date.getUTCMinutes()
            expect(minute).toBeGreaterThanOrEqual(540)
            expect(minute).toBeLessThanOrEqual(960)
          }
      }),
      { numRuns: 30 },
    )
  })
  it('is no later with more people, no earlier with more before it, and not moved by what comes after', () => {
    fc.assert(
      fc.property(queues, fc.integer({ min: 1, max: 400 }), (minutes, more) => {
        const queue = minutes.map((m, i) => job(String(i), m))
        const alone = middles(queue)
        expect(middles([...queue, job('last', more)]).slice(0, queue.length).length).toBe(queue.length)
        const two = middles(queue, { ...usualHours, people: 2 })
        alone.forEach((at, i) => expect(two[i]! <= at).toBe(true))
        const behind = middles([job('first', more), ...queue]).slice(1)
        // Draws differ by place: by no more than what a middle of 500 scatters.
        behind.forEach((at, i) =>
          expect(Date.parse(`${at}Z`)).toBeGreaterThanOrEqual(Date.parse(`${alone[i]!}Z`) - 200 * 60_000),
        )
      }),
      { numRuns: 20 },
    )
  })
  it('waits for what is awaited, and says why a promise is not likely kept', () => {
    const at = (queue: readonly Promised[]) => readyDates(queue, usualHours, MONDAY).at(-1)!
    const promised = { promisedAt: '2026-11-30T12:00' }
    expect(at([job('a', 30, promised)])).toMatchObject({ because: null })
    expect(at([job('a', 30, promised)]).kept).toBeGreaterThan(0.99)
    expect(at([job('a', 600, promised)])).toMatchObject({ because: 'its own work' })
    expect(at([job('a', 400), job('b', 30, promised)])).toMatchObject({ because: 'what comes before it' })
    const awaits = at([job('a', 30, { ...promised, notBefore: '2026-12-01T12:00' })])
    expect(awaits).toMatchObject({ because: 'what is awaited', kept: 0 })
    expect(awaits.middle >= '2026-12-01T12:00').toBe(true)
    expect(at([job('a', 30, { promisedAt: '2026-11-27T12:00' })])).toMatchObject({
      kept: 0,
      because: 'no bench hours before it',
    })
    expect(
      readyDates([job('a', 5, { promisedAt: '2026-11-29T12:00' })], usualHours, '2026-11-28T10:00')[0],
    ).toMatchObject({
      kept: 0,
      because: 'no bench hours before it',
    })
    expect(at([job('a', 30)]).kept).toBeNull()
  })
  it('is not later because a job before it waits for something, as long as one may be taken up', () => {
    const waits = job('a', 60, { notBefore: '2026-12-09T00:00' })
    const [held, on] = middles([waits, job('b', 60)])
    near(on!, '2026-11-30T10:00', 8)
    near(held!, '2026-12-09T10:00', 8)
    // Where all wait, the one that waits shortest comes first.
    const soon = job('b', 60, { notBefore: '2026-12-02T00:00' })
    near(middles([waits, soon])[1]!, '2026-12-02T10:00', 8)
    fc.assert(
      fc.property(queues, fc.integer({ min: 1, max: 3 }), (minutes, people) => {
        const rest = minutes.map((m, i) => job(String(i), m))
        const hours = { ...usualHours, people }
        const first = middles([{ ...waits, notBefore: '2027-06-01T00:00' }, ...rest], hours)
        expect(first[0]! >= '2027-06-01').toBe(true)
        for (const at of first.slice(1)) expect(at < '2027-01-01').toBe(true)
      }),
      { numRuns: 20 },
    )
  })
  it('is with 80 % no earlier than in the middle, and 200 jobs take no time', () => {
    const queue = Array.from({ length: 200 }, (_, i) => job(String(i), 30 + (i % 7) * 20))
    const ready = readyDates(queue, { ...usualHours, people: 3 }, MONDAY)
    for (const { middle, likely } of ready) expect(likely >= middle).toBe(true)
    expect(ready.at(-1)!.middle > ready[0]!.middle).toBe(true)
  })
  it('is never where no weekday has hours', () => {
    const shut = { ...usualHours, week: usualHours.week.map(() => null) }
    expect(() => readyDates([job('a', 5)], shut, MONDAY)).toThrow('no weekday has bench hours')
    const long = readyDates([job('a', 1e6)], usualHours, MONDAY)[0]!
    expect(long.likely).toBe('never')
  })
})

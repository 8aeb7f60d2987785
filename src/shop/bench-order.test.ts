import { expect, it } from 'vitest'
import { usualHours } from '@/core/shop/promise'
import { momentThere, usualReader } from '@/core/reader'
import type { Job } from '@/data/jobs'
import type { BenchPace } from '@/server/bench-pace'
import { benchOrder, ifPromised } from './bench-order'

const now = '2026-11-30T09:00:00.000Z'
const job = (id: string, waitsFor?: Job['bench']['waitsFor']) =>
  ({
    id,
    promisedAt: null,
    bench: {
      minutes: 0,
      minutesPromised: 60,
      waiting: false,
      ...(waitsFor === undefined ? {} : { waitsFor }),
    },
  }) as Job

const pace = { agreed: { factor: 1, n: 0 }, hours: usualHours, byHand: [] } as unknown as BenchPace

it('a job is not ready before what it waits for is there, and at no day that can be said while nobody knows when', () => {
  const jobs = [
    job('now'),
    job('later', { what: 'a socket', expectedOn: '2026-12-09' }),
    job('who knows', { what: 'a chip', expectedOn: null }),
    job('came', null),
  ]
  const { order, ready } = benchOrder(jobs, usualReader, now, pace)
  expect(order).toHaveLength(4)
  expect([...ready.keys()].sort()).toEqual(['came', 'later', 'now'])
  expect(ready.get('now')!.likely < '2026-12-02').toBe(true)
  expect(ready.get('later')!.likely >= '2026-12-09').toBe(true)
})

it('what is promised is told beforehand: the odds that it is kept, and whom it makes late', () => {
  const others = ['a', 'b', 'c'].map((id) => ({
    ...job(id),
    tag: id,
    promisedAt: '2026-11-30T15:00:00.000Z',
  }))
  const own = { ...job('own'), tag: 'own' }
  const asked = (promisedAt: string | null, minutesPromised = 60) =>
    ifPromised([...others, own], own, { promisedAt, minutesPromised }, usualReader, now, pace)
  // Without a promise it comes last, and takes nobody’s time.
  const last = asked(null)
  expect(last).toMatchObject({ kept: null, makesLate: [] })
  expect(last.likely! > '2026-11-30T13:00').toBe(true)
  // Promised before the others it is kept, and one of them is not in time any more.
  const first = asked('2026-11-30T12:00:00.000Z')
  expect(first.kept).toBeGreaterThan(0.9)
  expect(first.makesLate).toEqual([])
  const long = asked('2026-11-30T13:00:00.000Z', 200)
  expect(long.makesLate).toContain('c')
  expect(long.kept!).toBeLessThan(0.8)
  // When it likely is ready may be promised.
  const at = momentThere(usualReader, last.likely!)
  expect(asked(at).kept).toBeGreaterThanOrEqual(0.79)
  // One that still waits for its owner’s word is told as if they had agreed.
  const waits = { ...own, bench: { ...own.bench, waiting: true } }
  expect(
    ifPromised([...others, waits], waits, { promisedAt: null, minutesPromised: 60 }, usualReader, now, pace),
  ).toEqual({ ...last, onceAgreed: true })
  // What it waits for, and nobody knows a day of, leaves it open.
  const stuck = job('stuck', { what: 'a chip', expectedOn: null })
  expect(
    ifPromised(others, stuck, { promisedAt: null, minutesPromised: 60 }, usualReader, now, pace).likely,
  ).toBeNull()
})

import { expect, it } from 'vitest'
import { usualHours } from '@/core/shop/promise'
import { usualReader } from '@/core/reader'
import type { Job } from '@/data/jobs'
import { benchOrder } from './bench-order'

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

it('a job is not ready before what it waits for is there, and at no day that can be said while nobody knows when', () => {
  const pace = { agreed: { factor: 1, n: 0 }, hours: usualHours, byHand: [] } as unknown as Parameters<
    typeof benchOrder
  >[3]
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

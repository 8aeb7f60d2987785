import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { firstByHand, takenFirst, workingOrder } from './working-order'
import type { Queued } from './working-order'

const now = '2026-11-24T09:00:00.000Z'
const inHours = (h: number) => new Date(Date.parse(now) + h * 3_600_000).toISOString()
const job = (id: string, hours: number | null, minutesLeft = 60, waiting = false): Queued => ({
  id,
  promisedAt: hours === null ? null : inHours(hours),
  minutesLeft,
  waiting,
})

describe('workingOrder', () => {
  it('takes the least time to spare first, unpromised ones after, waiting ones last', () => {
    const order = workingOrder([job('d', 2, 60, true), job('c', null), job('b', 30), job('a', 5)], now)
    expect(order.map((s) => [s.id, s.say])).toEqual([
      ['a', 'today'],
      ['b', 'in time'],
      ['c', 'no promise'],
      ['d', 'waits for the owner'],
    ])
  })
  it('a long job due later can go before a short one due sooner', () => {
    expect(workingOrder([job('short', 20, 10), job('long', 30, 600)], now)[0]!.id).toBe('long')
  })
  it('takes a late one before one with less time to spare, and means the date by today', () => {
    const order = workingOrder([job('long', 30, 6000), job('late', -1, 0)], now)
    expect(order.map((s) => [s.id, s.say])).toEqual([
      ['late', 'late'],
      ['long', 'soon'],
    ])
    expect(workingOrder([job('a', 16)], now)[0]!.say).toBe('soon')
    expect(workingOrder([job('a', 14)], now)[0]!.say).toBe('today')
    const farEast = (at: string) => new Date(Date.parse(at) + 12 * 3_600_000).toISOString().slice(0, 10)
    expect(workingOrder([job('a', 4)], now, farEast)[0]!.say).toBe('soon')
  })
  it('says late when the promise has passed', () => {
    expect(workingOrder([job('a', -1)], now)[0]).toMatchObject({ say: 'late' })
  })
  it('keeps every job once and does not depend on the order they came in', () => {
    const queued = fc.record({
      id: fc.uuid(),
      promisedAt: fc.option(fc.integer({ min: -100, max: 400 }).map(inHours), { nil: null }),
      minutesLeft: fc.integer({ min: -50, max: 900 }),
      waiting: fc.boolean(),
    })
    fc.assert(
      fc.property(fc.uniqueArray(queued, { selector: (q) => q.id, maxLength: 30 }), (queue) => {
        const order = workingOrder(queue, now)
        expect(order.map((s) => s.id).sort()).toEqual(queue.map((q) => q.id).sort())
        expect(workingOrder([...queue].reverse(), now)).toEqual(order)
        const promised = order.filter((s) => s.slackMinutes !== null && s.say !== 'waits for the owner')
        const late = promised.filter((s) => s.say === 'late')
        expect(promised.slice(0, late.length)).toEqual(late)
        for (const part of [late, promised.slice(late.length)]) {
          const slack = part.map((s) => s.slackMinutes!)
          expect(slack).toEqual([...slack].sort((a, b) => a - b))
        }
      }),
    )
  })
})

describe('an order by hand', () => {
  const order = workingOrder([job('d', 2, 60, true), job('c', null), job('b', 30), job('a', 5)], now)
  const ids = (of: readonly { id: string }[]) => of.map((s) => s.id)
  it('comes before the bench’s own; what waits for its owner is not taken up by it', () => {
    expect(ids(takenFirst(order, []))).toEqual(['a', 'b', 'c', 'd'])
    expect(ids(takenFirst(order, ['c', 'gone', 'c', 'a']))).toEqual(['c', 'a', 'b', 'd'])
    expect(ids(takenFirst(order, ['d', 'b']))).toEqual(['b', 'a', 'c', 'd'])
  })
  it('is what was shown, with one put elsewhere: so it is shown after it, and nobody is lost', () => {
    const all = ['a', 'b', 'c', 'e', 'f']
    const queue = all.map((id, i) => job(id, 10 * (i + 1)))
    const own = workingOrder(queue, now)
    const moves = fc.array(
      fc.record({ id: fc.constantFrom(...all), place: fc.integer({ min: 0, max: 4 }) }),
      { maxLength: 6 },
    )
    fc.assert(
      fc.property(moves, (made) => {
        let byHand: string[] = []
        for (const { id, place } of made) {
          const shown = ids(takenFirst(own, byHand))
          const rest = shown.filter((other) => other !== id)
          const wanted = [...rest.slice(0, place), id, ...rest.slice(place)]
          byHand = firstByHand(wanted, byHand, id)
          expect(ids(takenFirst(own, byHand))).toEqual(wanted)
        }
      }),
    )
  })
})

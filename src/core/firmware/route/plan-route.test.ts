import { describe, expect, it } from 'vitest'
import { planRoute } from './plan-route'
import type { ToPlan } from './plan-route'
import { release, starts } from './support-table.testing'
import { usualWays } from './way'

const here = { price: 0, from: null, holds: null }
const asked: ToPlan = {
  table: {
    releases: [release('1.40'), release('2.04', { needs: '1.40' })],
    support: [starts('a', '1.40', '1.40'), starts('b', '1.40'), starts('new', '2.04')],
  },
  ways: [{ ...usualWays.updater, ...here }],
  start: { release: '1.40', cpu: 'new' },
  want: { cpu: 'new', release: null },
  cpus: [{ cpu: 'a', price: 0 }],
  fit: { minutes: 6, risk: 0.01 },
  by: 'time',
  known: 'seen',
  seen: [],
  prices: {},
}

describe('what the station says of a wish', () => {
  it('is the route, and others that it does not beat', () => {
    const slow = { ...usualWays.clip, ...here, minutes: 90, risk: 0 }
    const planned = planRoute({ ...asked, ways: [...asked.ways, slow] })
    expect(planned.is === 'route' && planned.answer.route.minutes).toBe(24)
    expect(planned.is === 'route' && planned.others.map((r) => r.minutes)).toEqual([90])
  })
  it('is what opens one, by the price that is known; what nobody knows counts as the dearest', () => {
    const none = planRoute({ ...asked, cpus: [], prices: { b: 120, a: 150 } })
    expect(none.is === 'none' && none.opens.map((o) => [o.by, o.route.price])).toEqual([
      ['purchase', 120],
      ['programmer', 0],
    ])
    const half = planRoute({ ...asked, cpus: [], prices: { b: 120 } })
    expect(half.is === 'none' && half.opens[0]!.route.price).toBe(120)
  })
  it('never asks to buy what is wanted: it is here', () => {
    const none = planRoute({
      ...asked,
      cpus: [],
      start: { release: '1.40', cpu: null },
      prices: { new: 900, a: 10 },
    })
    expect(none.is === 'none' && none.opens[0]!.route.price).toBe(10)
  })
  it('is what to try next while nobody knows the release', () => {
    const planned = planRoute({ ...asked, known: 'nothing', start: { release: null, cpu: null } })
    expect(planned.is === 'not known' && planned.odds.tries.length).toBe(2)
    expect(
      planned.is === 'not known' && planned.steps.reduce((a, s) => a + s.share, planned.none),
    ).toBeCloseTo(1)
  })
})

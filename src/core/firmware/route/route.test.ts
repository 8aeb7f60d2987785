import { describe, expect, it } from 'vitest'
import { seeded } from '@/core/maths/seeded'
import { routeOf, routesOf, whatOpens } from './route'
import type { RouteAsk } from './route'
import { arrived, drawAsk, everyBest, noWorse, replay } from './route-judge.testing'
import type { Costs } from './route-judge.testing'
import type { Weighting } from './search'
import { tableFaults } from './support-table'
import type { Release, SupportRow } from './support-table'
import { release, starts } from './support-table.testing'
import { usualWays } from './way'

const weightings: readonly Weighting[] = ['time', 'risk', 'purchase']
const firstBy: Record<Weighting, (keyof Costs)[]> = {
  time: ['minutes', 'nats', 'price'],
  risk: ['nats', 'minutes', 'price'],
  purchase: ['price', 'minutes', 'nats'],
}
/** The least of some costs, one after the other. */
const least = (all: readonly Costs[], keys: readonly (keyof Costs)[]): Costs =>
  keys.reduce((left, key) => {
    const best = Math.min(...left.map((c) => c[key]))
    return left.filter((c) => c[key] <= best + 1e-7)
  }, all)[0]!
const nats = (risk: number) => -Math.log(1 - risk)

describe('a route, against trying everything', () => {
  it('is as good as the best, in each weighting; its steps can be played; its Pareto set is the whole one', () => {
    const draw = seeded(7_001)
    let none = 0
    for (let i = 0; i < 400; i++) {
      const ask = drawAsk(draw)
      const say = JSON.stringify(ask)
      const best = everyBest(ask)
      if (best.length === 0) none++
      for (const weighting of weightings) {
        const found = routeOf(ask, weighting)
        expect([found.is, say]).toEqual([best.length > 0 ? 'route' : 'none', say])
        if (found.is === 'none') continue
        const played = replay(ask, found.route.steps)
        expect(['fault' in played ? played.fault : '', say]).toEqual(['', say])
        if ('fault' in played) continue
        expect(arrived(ask, played.end, found.route.unstable)).toBe(true)
        const wanted = least(best, firstBy[weighting])
        for (const key of ['minutes', 'nats', 'price'] as const)
          expect([key, say, played.costs[key].toFixed(6)]).toEqual([key, say, wanted[key].toFixed(6)])
        expect(found.route.minutes).toBeCloseTo(played.costs.minutes, 6)
        expect(found.route.price).toBeCloseTo(played.costs.price, 6)
        expect(nats(found.route.risk)).toBeCloseTo(played.costs.nats, 6)
      }
      const { routes, complete } = routesOf(ask)
      expect([complete, routes.length, say]).toEqual([true, best.length, say])
      for (const r of routes) {
        const costs = { minutes: r.minutes, nats: nats(r.risk), price: r.price }
        expect(best.some((b) => noWorse(b, costs) && noWorse(costs, b))).toBe(true)
      }
    }
    expect(none).toBeGreaterThan(40)
    expect(none).toBeLessThan(300)
  }, 120_000)
})

const at = { price: 0, from: null, holds: null }
const displays: RouteAsk = {
  table: {
    releases: [release('1.0'), release('1.5', { needs: '1.0' }), release('2.0', { needs: '1.5' })],
    support: [starts('31', '1.0', '1.5'), starts('44', '1.5', null), starts('52', '2.0', null)],
  },
  ways: [{ ...usualWays.updater, ...at }],
  start: { release: '1.0', cpu: null },
  want: { cpu: '52', release: null },
  cpus: [
    { cpu: '31', price: 0 },
    { cpu: '52', price: 0 },
  ],
  fit: { minutes: 6, risk: 0.01 },
}
const saysOf = (ask: RouteAsk) => {
  const found = routeOf(ask, 'time')
  return found.is === 'route' ? found.route.steps.map((s) => s.say) : found.why
}

describe('a route in words', () => {
  it('goes by the CPU that still starts, and says where the screen stays dark', () => {
    expect(saysOf(displays)).toEqual([
      'Fit 31.',
      'Write 1.5 from 1.0 by the built-in updater.',
      'Write 2.0 from 1.5 by the built-in updater. A black screen is expected: 2.0 does not run 31.',
      'Fit 52.',
    ])
  })

  it('says why there is none, and what would open it', () => {
    const ask = { ...displays, cpus: [{ cpu: '52', price: 0 }] }
    expect(saysOf(ask)).toBe('none of the ways at hand leads there with these CPUs')
    const opens = whatOpens(ask, {
      cpus: [
        { cpu: '31', price: 90 },
        { cpu: '44', price: 40 },
      ],
      programmer: { ...usualWays.clip, ...at },
    })
    expect(opens.map(({ by, route }) => [by, route.price])).toEqual([
      ['purchase', 90],
      ['programmer', 0],
    ])
    expect(saysOf({ ...displays, want: { cpu: '61', release: null } })).toBe(
      'no row of the table says which release runs 61',
    )
    expect(saysOf({ ...displays, want: { cpu: '52', release: '1.5' } })).toBe('1.5 does not run 52')
    const odd = (rest: Partial<Release>): RouteAsk => ({
      ...displays,
      table: {
        ...displays.table,
        releases: displays.table.releases.map((r) => (r.name === '2.0' ? { ...r, ...rest } : r)),
      },
      want: { cpu: null, release: '2.0' },
    })
    expect(saysOf(odd({ withdrawn: true }))).toBe('2.0 is withdrawn: it is not written any more')
    expect(saysOf(odd({ holds: '1.5' }))).toBe('no file is known that really holds 2.0')
  })

  it('ends on an unstable release only where no stable one can be reached', () => {
    const { releases, support } = displays.table
    const last = release('2.1', { needs: '2.0' })
    const shaky = releases.map((r) => (r.name === '2.0' ? { ...r, unstable: true } : r))
    const both = routeOf({ ...displays, table: { releases: [...shaky, last], support } }, 'time')
    expect(both.is === 'route' && [both.route.ends.release, both.route.unstable]).toEqual(['2.1', false])
    const one = routeOf({ ...displays, table: { releases: shaky, support } }, 'time')
    expect(one.is === 'route' && [one.route.ends.release, one.route.unstable]).toEqual(['2.0', true])
  })

  it('pays a CPU once, however often it is fitted', () => {
    const ask: RouteAsk = {
      ...displays,
      table: {
        releases: [release('a'), release('b'), release('c', { needs: 'b' })],
        support: [starts('x', 'a', 'b'), starts('y', 'c', null)],
      },
      want: { cpu: 'y', release: null },
      start: { release: 'a', cpu: 'y' },
      cpus: [{ cpu: 'x', price: 100 }],
    }
    const found = routeOf(ask, 'purchase')
    expect(found.is === 'route' && [found.route.price, found.route.trust]).toEqual([
      100,
      expect.closeTo(0.95 * 0.95),
    ])
  })

  it('buys the CPU that is needed again, rather than a cheaper one beside it', () => {
    const ask: RouteAsk = {
      ...displays,
      table: {
        releases: ['0', '1', '2', '3'].map((n, i) => release(n, i > 0 ? { needs: String(i - 1) } : {})),
        support: [
          starts('x', '0', '0'),
          starts('x', '2', '2'),
          starts('y', '0', '0'),
          starts('w', '1', '1'),
          starts('z', '3'),
        ],
      },
      start: { release: '0', cpu: null },
      want: { cpu: 'z', release: null },
      cpus: [
        { cpu: 'y', price: 40 },
        { cpu: 'x', price: 50 },
        { cpu: 'w', price: 0 },
      ],
    }
    for (const by of weightings) {
      const found = routeOf(ask, by)
      expect([by, found.is === 'route' && found.route.price]).toEqual([by, 50])
    }
    expect(routesOf(ask).routes.map((r) => r.price)).toEqual([50])
  })

  it('uses the second chip once', () => {
    const once: RouteAsk = {
      ...displays,
      table: {
        releases: [release('a'), release('b'), release('c', { needs: 'b' })],
        support: [starts('x', 'a', 'b'), starts('y', 'c', null)],
      },
      ways: [
        { ...usualWays['second chip'], ...at, holds: 'a' },
        { ...usualWays.updater, ...at, from: 'b' },
      ],
      start: { release: null, cpu: 'x' },
      want: { cpu: 'y', release: null },
      cpus: [{ cpu: 'y', price: 0 }],
    }
    expect(saysOf(once)).toBe('none of the ways at hand leads there with these CPUs')
    const back = { ...once, want: { cpu: null, release: 'a' }, start: { release: 'a', cpu: 'x' } }
    expect(saysOf(back)).toEqual([])
    const twice: RouteAsk = {
      ...once,
      ways: [
        { ...usualWays['second chip'], ...at, holds: 'a' },
        { ...usualWays.updater, ...at, downgrades: false },
      ],
      want: { cpu: 'x', release: 'a' },
      start: { release: 'b', cpu: 'x' },
    }
    expect(saysOf(twice)).toEqual(['Switch to the second chip: it holds a.'])
  })

  it('is trusted as far as the rows it needs: the releases it writes, and the CPUs it counts on', () => {
    const { releases, support } = displays.table
    const half = releases.map((r) => (r.name === '2.0' ? { ...r, trust: 0.5 } : r))
    const found = routeOf({ ...displays, table: { releases: half, support } }, 'time')
    expect(found.is === 'route' && found.route.trust).toBeCloseTo(0.5 * 0.95 * 0.95)
  })

  it('writes no withdrawn release, and knows that a label is wrong', () => {
    const { releases, support } = displays.table
    const gone = { releases: releases.map((r) => ({ ...r, withdrawn: r.name === '1.5' })), support }
    expect(saysOf({ ...displays, table: gone })).toBe('none of the ways at hand leads there with these CPUs')
    const named = { releases: [...gone.releases, release('1.5a', { holds: '1.5' })], support }
    expect(saysOf({ ...displays, table: named })).toContain(
      'Write 1.5a from 1.0 by the built-in updater: its label is wrong, the chip then holds 1.5.',
    )
  })
})

describe('a table', () => {
  it('is told what is wrong in it, with the line and the mend', () => {
    const texts = (releases: readonly Release[], support: readonly SupportRow[]) =>
      tableFaults({ releases, support }).map((f) => `${f.line} ${f.field}: ${f.text}`)
    expect(texts([], [])).toEqual(['0 releases: there is no release in it: name at least one'])
    expect(texts([release('1'), release('1')], [])[0]).toMatch(/^3 release: 1 stands twice/)
    expect(texts([release('1', { needs: '2' }), release('2', { needs: '1' })], [])[0]).toMatch(/in a circle/)
    expect(texts([release('1'), release('2')], [starts('x', '2', '1')])[0]).toMatch(
      /^2 until: x ends with 1 before it begins with 2/,
    )
    expect(texts([release('1')], [starts('x', '3', null)])).toEqual(['2 from: 3 is no release here'])
    expect(texts([release('1')], [starts('x', '1', null), starts('x', '1', null)])[0]).toMatch(
      /line 2 as well/,
    )
  })
})

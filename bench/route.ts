// Firmware routes: against trying everything, and how long the largest table takes.
import { performance } from 'node:perf_hooks'
import { seeded } from '@/core/maths/seeded'
import { routeOf, routesOf } from '@/core/firmware/route/route'
import type { RouteAsk } from '@/core/firmware/route/route'
import { arrived, drawAsk, everyBest, replay } from '@/core/firmware/route/route-judge.testing'
import type { Costs } from '@/core/firmware/route/route-judge.testing'
import { usualWays } from '@/core/firmware/route/way'
import { figure, line, percent } from './figure'
import type { Figure } from './figure'

const orders = {
  time: ['minutes', 'nats', 'price'],
  risk: ['nats', 'minutes', 'price'],
  purchase: ['price', 'minutes', 'nats'],
} as const
const weightings = ['time', 'risk', 'purchase'] as const

/** Small boards, each in three weightings, beside every route there is. */
export function routesAgainstAll(instances: number, seed = 91_001): void {
  const draw = seeded(seed)
  let equal = 0
  let reachable = 0
  let whole = 0
  for (let i = 0; i < instances; i++) {
    const ask = drawAsk(draw)
    const best = everyBest(ask)
    if (best.length > 0) reachable++
    if (weightings.every((w) => sameAs(ask, best, w))) equal++
    if (routesOf(ask).routes.length === best.length) whole++
  }
  line(`routes equal to brute force, ${instances} small boards`, percent(equal / instances), '100 %')
  line('  of which a route exists', percent(reachable / instances))
  line('  Pareto sets whole', percent(whole / instances), '100 %')
}

function sameAs(ask: RouteAsk, best: readonly Costs[], weighting: (typeof weightings)[number]): boolean {
  const found = routeOf(ask, weighting)
  if (found.is === 'none') return best.length === 0
  const played = replay(ask, found.route.steps)
  if ('fault' in played || !arrived(ask, played.end, found.route.unstable)) return false
  let left = best
  for (const key of orders[weighting]) {
    const least = Math.min(...left.map((c) => c[key]))
    left = left.filter((c) => c[key] <= least + 1e-7)
  }
  return left.length > 0 && orders[weighting].every((k) => Math.abs(left[0]![k] - played.costs[k]) < 1e-6)
}

/** A maker's whole table: 400 releases, 200 CPUs, 5 ways; stepping rules, windows, two thirds of the CPUs to be bought. */
function largeBoard(seed: number): RouteAsk {
  const draw = seeded(seed)
  const below = (n: number) => Math.floor(draw() * n)
  const V = 400
  const C = 200
  const at = { price: 0, from: null, holds: null }
  const owned = draw()
  const support = Array.from({ length: C }, (_, c) => {
    const from = Math.max(0, Math.floor((c / C) * V * 0.95) - below(30))
    const until = Math.min(V - 1, from + 20 + below(120))
    return {
      cpu: `c${c}`,
      family: `f${Math.floor(c / 20)}`,
      from: `r${from}`,
      until: until === V - 1 ? null : `r${until}`,
      unstable: draw() < 0.05,
      source: '',
      date: null,
      trust: 0.95,
    }
  })
  return {
    table: {
      releases: Array.from({ length: V }, (_, i) => ({
        name: `r${i}`,
        date: null,
        unstable: draw() < 0.1,
        withdrawn: draw() < 0.05,
        needs: i > 0 && draw() < 0.9 ? `r${Math.max(0, i - 1 - below(60))}` : null,
        holds: null,
        source: '',
        trust: 1,
      })),
      support,
    },
    ways: [
      { ...usualWays.updater, ...at },
      { ...usualWays.button, ...at, from: 'r380' },
      { ...usualWays.recovery, ...at, holds: `r${below(V)}`, minutes: 40 },
      { ...usualWays['second chip'], ...at, holds: `r${below(60)}` },
      { ...usualWays.desoldered, ...at, price: 900 },
    ],
    start: { release: `r${below(30)}`, cpu: `c${C - 1}` },
    want: { cpu: `c${C - 1}`, release: null },
    cpus: support.map(({ cpu }, i) => ({ cpu, price: draw() < owned ? 0 : 50 + i })),
    fit: { minutes: 6, risk: 0.01 },
  }
}

export function routeFigures(): Figure[] {
  const asks = Array.from({ length: 20 }, (_, i) => largeBoard(500 + i))
  for (const ask of asks.slice(0, 3)) routeOf(ask, 'time')
  const figures = weightings.map((weighting) => {
    const samples = asks.map((ask) => {
      const began = performance.now()
      routeOf(ask, weighting)
      return performance.now() - began
    })
    return figure(`route, 400 releases × 200 CPUs × 5 ways, least ${weighting}`, samples, 'ms', 100)
  })
  let cut = 0
  let steps = 0
  let routes = 0
  const pareto = asks.map((ask) => {
    const began = performance.now()
    const all = routesOf(ask)
    if (!all.complete) cut++
    routes += all.routes.length
    steps = Math.max(steps, ...all.routes.map((r) => r.steps.length))
    return performance.now() - began
  })
  line('  longest of their routes', `${steps} steps`)
  line('  routes that no other beats, on average', (routes / asks.length).toFixed(1))
  line('  Pareto sets cut short at 40,000 labels', `${cut} of ${asks.length}`)
  return [...figures, figure('the same, every route that no other beats', pareto, 'ms', null)]
}

// Firmware routes, kits and unknown releases: against trying everything, and how long the largest take.
import { performance } from 'node:perf_hooks'
import { seeded } from '@/core/maths/seeded'
import { routeOf, routesOf } from '@/core/firmware/route/route'
import { kit } from '@/core/firmware/route/kit'
import type { KitBoard } from '@/core/firmware/route/kit'
import type { RouteAsk } from '@/core/firmware/route/route'
import type { SupportTable } from '@/core/firmware/route/support-table'
import { versionOdds } from '@/core/firmware/route/version-odds'
import { arrived, drawAsk, everyBest, replay } from '@/core/firmware/route/route-judge.testing'
import type { Costs } from '@/core/firmware/route/route-judge.testing'
import { usualWays } from '@/core/firmware/route/way'
import { coverSolver } from '@/server/solve-cover'
import { figure, line, percent, timed } from './figure'
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

const plain = { date: null, unstable: false, withdrawn: false, needs: null, holds: null, source: '' }

/** Sixty boards of some makers, eighty CPUs of eight families, each board with two windows of families. */
export async function kitFigures(): Promise<Figure[]> {
  const solve = await coverSolver()
  const draw = seeded(60_080)
  const below = (n: number) => Math.floor(draw() * n)
  const cpus = Array.from({ length: 80 }, (_, c) => ({
    cpu: `c${c}`,
    family: `f${Math.floor(c / 10)}`,
    price: draw() < 0.15 ? 0 : 20 + below(200),
  }))
  const boards = Array.from({ length: 60 }, (_, b): KitBoard => {
    const releases = Array.from({ length: 6 }, (_, i) => ({ ...plain, name: `r${i}`, trust: 1 }))
    const first = below(70)
    const support = cpus
      .filter((_, c) => c >= first - 4 && c < first + 16 && draw() < 0.5)
      .map(({ cpu, family }) => {
        const from = below(6)
        const until = from + below(6 - from)
        const row = { cpu, family, unstable: false, source: '', date: null, trust: 0.95 }
        return { ...row, from: `r${from}`, until: `r${until}` }
      })
    return { board: `b${b}`, table: { releases, support }, mayHold: releases.map((r) => r.name) }
  })
  const got = kit(boards, cpus, 'f0', solve)
  line('  CPUs in that kit, and owned ones not needed', `${got.members.length}, ${got.notNeeded.length}`)
  return [
    timed(
      'kit for 60 boards × 80 CPUs, with what each is worth',
      2000,
      () => kit(boards, cpus, 'f0', solve),
      5,
    ),
  ]
}

/**
 * Chips whose release nobody can see, on boards drawn otherwise than the model thinks: rows wrong twice as often as they
 * say, faults of the board more and less common than asked with, starts lost now and then. Nothing of the model is used
 * for what is so and what is seen.
 */
export function versionFigures(boards: number, seed = 33_003): void {
  const draw = seeded(seed)
  const below = (n: number) => Math.floor(draw() * n)
  const said: { odds: number; right: boolean }[] = []
  for (let i = 0; i < boards; i++) {
    const V = 4 + below(8)
    const cpus = Array.from({ length: 5 }, (_, c) => {
      const from = below(V)
      return { cpu: `c${c}`, from, until: from + below(V - from) }
    })
    const table: SupportTable = {
      releases: Array.from({ length: V }, (_, v) => ({ ...plain, name: `r${v}`, trust: 1 })),
      support: cpus.map(({ cpu, from, until }) => ({
        cpu,
        family: cpu,
        from: `r${from}`,
        until: `r${until}`,
        unstable: false,
        source: '',
        date: null,
        trust: 0.95,
      })),
    }
    const is = below(V)
    const broken = draw() < [0.2, 0.45][i % 2]!
    const seen = cpus.slice(0, 1 + below(5)).map(({ cpu, from, until }) => {
      const listed = from <= is && is <= until
      const really = draw() < 0.1 ? !listed : listed
      return { cpu, saw: !broken && really && draw() < 0.95 ? ('starts' as const) : ('dark' as const) }
    })
    const sticker = draw() < 0.5 ? [{ says: `r${draw() < 0.2 ? below(V) : is}`, on: 'sticker' as const }] : []
    const { odds } = versionOdds({
      table,
      prior: {},
      others: 1,
      labels: sticker,
      seen,
      tries: [],
      otherFault: 0.3,
    })
    for (const o of odds) said.push({ odds: o.odds, right: o.release === `r${is}` })
  }
  for (const [from, to] of [
    [0, 0.1],
    [0.1, 0.3],
    [0.3, 0.6],
    [0.6, 0.9],
    [0.9, 1.01],
  ] as const) {
    const of = said.filter((s) => s.odds >= from && s.odds < to)
    const mean = of.reduce((a, s) => a + s.odds, 0) / of.length
    const right = of.filter((s) => s.right).length / of.length
    line(`  unknown release, ${of.length} odds said as ${percent(mean)}, came true`, percent(right))
  }
}

import { Bought } from './bought'
import { Heap } from './heap'
import { reachable } from './reachable'

/** A way with its names taken out: releases by index, oldest 0; −1 for none. */
export interface WayAt {
  readonly kind: 'updater' | 'button' | 'recovery' | 'second chip' | 'programmer'
  readonly cost: Cost
  /** What is paid for it once: an index into `prices`, or −1. */
  readonly thing: number
  readonly from: number
  readonly downgrades: boolean
  readonly stepping: boolean
  readonly holds: number
}

/** Minutes in thousandths, risk as −ln(1 − p) in thousand millionths, both whole numbers so that sums are exact. */
export interface Cost {
  readonly minutes: number
  readonly risk: number
}

export interface Problem {
  readonly releases: number
  readonly cpus: number
  /** 1 where release `v` starts CPU `c`, at `v * cpus + c`. */
  readonly starts: Uint8Array
  /** 1 where a route may end, with the wanted CPU in the socket; with any when it is −1. */
  readonly ends: Uint8Array
  readonly wantedCpu: number
  readonly files: readonly { readonly gives: number; readonly needs: number }[]
  readonly ways: readonly WayAt[]
  readonly fit: Cost
  /** What is paid for a CPU once: an index into `prices`, −1 where it is at hand. */
  readonly cpuThing: readonly number[]
  readonly prices: readonly number[]
  /** −1 for a chip that starts nothing, and for an empty socket. */
  readonly start: { readonly release: number; readonly cpu: number }
}

/** What is done first: minutes, risk or purchase; the others part equals. */
export const weightings = ['time', 'risk', 'purchase'] as const
export type Weighting = (typeof weightings)[number]
const orders = { time: [0, 1, 2], risk: [1, 0, 2], purchase: [2, 0, 1] } as const

export interface Move {
  /** −1: a CPU is fitted. */
  readonly way: number
  readonly file: number
  readonly release: number
  readonly cpu: number
  readonly pays: number
}
export interface Path {
  readonly moves: readonly Move[]
  readonly minutes: number
  readonly risk: number
  readonly price: number
}
export interface Found {
  readonly paths: readonly Path[]
  /** False where the search was cut short: a better path may exist. */
  readonly complete: boolean
}

/** What is left to be done of a kind, and what was done at this very cost. */
interface Done {
  first: number
  second: number
  left: number[]
  again: number[]
  /** What was bought where it was done at this cost. */
  sets: number[]
}
const indexes = (n: number) => Array.from({ length: n }, (_, i) => i)

/**
 * Best paths from the start to a goal by label setting (Martins 1984): states are release in the chip, CPU in the socket,
 * and what was bought, since a thing is paid for once. That the second chip is used once need not be kept: to come back to
 * what it holds, a route could as well have switched only then. A label gives way to another of the same state
 * but for what was bought, if that one is no worse even when it pays for what it lacks: whatever the first can go on to
 * do, the second can do for no more. With a weighting, costs are compared in its order and the first goal is the best;
 * without one, every path that no other beats in minutes, risk and price at once.
 *
 * @param most labels that are settled at most; the worst case grows with the sets of things that can be bought
 */
export function search(problem: Problem, weighting: Weighting | null, most = 400_000): Found {
  const { releases: V, cpus: C, starts, files, ways, start, ends, wantedCpu } = problem
  const within = reachable(problem)
  if (!ends.some((end, v) => end === 1 && within[v] === 1)) return { paths: [], complete: true }
  const isGoal = (v: number, c: number) => atEnd(v) && atCpu(c)
  const woken = new Uint8Array(C)
  for (const w of ways)
    if (w.kind === 'recovery' && w.holds >= 0)
      for (let k = 0; k < C; k++) woken[k]! |= starts[w.holds * C + k]!
  const bought = new Bought(problem.prices)
  const order = weighting && orders[weighting]
  const priceFirst = weighting === 'purchase'
  const riskFirst = weighting === 'risk'
  // Column 0: minutes, 1: risk, 2: price.
  const cost: [number[], number[], number[]] = [[], [], []]
  const [first, second, third] = (order ?? orders.time).map((k) => cost[k]!) as [number[], number[], number[]]
  const node: number[] = []
  const set: number[] = []
  const parent: number[] = []
  const wayOf: number[] = []
  const fileOf: number[] = []
  const next: number[] = []
  const gone: boolean[] = []
  // Least that is still to come: the wanted CPU has to be fitted, and a release written that may be the end.
  const write = {
    minutes: Math.min(...ways.map((w) => w.cost.minutes)),
    risk: Math.min(...ways.map((w) => w.cost.risk)),
  }
  const atEnd = (v: number) => v < V && ends[v] === 1
  const atCpu = (c: number) => wantedCpu < 0 || c === wantedCpu
  const toCome = (v: number, c: number, of: 'minutes' | 'risk') =>
    (atCpu(c) ? 0 : problem.fit[of]) + (atEnd(v) ? 0 : write[of])
  /** How many of the two are still to come. */
  const short: number[] = []
  // Release V stands for a chip that starts nothing, CPU C for an empty socket.
  const nodeOf = (v: number, c: number) => v * (C + 1) + c
  const head = new Int32Array((V + 1) * (C + 1)).fill(-1)
  const less = (a: number, b: number) =>
    first[a]! - first[b]! ||
    second[a]! - second[b]! ||
    third[a]! - third[b]! ||
    short[a]! - short[b]! ||
    a - b
  const heap = new Heap((a, b) => less(a, b) < 0)
  const goals: number[] = []
  /** Labels of goals, settled or not. */
  const found: number[] = []

  const noWorse = (a: number, minutes: number, risk: number, price: number, paid = cost[2][a]!): boolean => {
    if (!order) return cost[0][a]! <= minutes && cost[1][a]! <= risk && paid <= price
    if (priceFirst && paid !== price) return paid < price
    if (riskFirst && cost[1][a]! !== risk) return cost[1][a]! < risk
    if (cost[0][a]! !== minutes) return cost[0][a]! < minutes
    if (cost[1][a]! !== risk) return cost[1][a]! < risk
    return paid <= price
  }
  /** Whether `a` may stand for a label that costs this, with that bought. */
  const covers = (a: number, minutes: number, risk: number, price: number, owned: number): boolean =>
    noWorse(a, minutes, risk, price, cost[2][a]! + bought.missing(owned, set[a]!))
  /** Whether a route that is found already is no worse than any that goes on from here. */
  const beaten = (v: number, c: number, minutes: number, risk: number, price: number): boolean => {
    if (isGoal(v, c)) return goals.some((g) => noWorse(g, minutes, risk, price))
    const least = minutes + toCome(v, c, 'minutes')
    const leastRisk = risk + toCome(v, c, 'risk')
    return found.some((g) => noWorse(g, least, leastRisk, price))
  }

  function reach(from: number, v: number, c: number, by: Cost, way: number, file: number): void {
    const thing = way < 0 ? problem.cpuThing[c]! : ways[way]!.thing
    const had = from < 0 ? 0 : set[from]!
    const owned = from < 0 || thing < 0 ? had : bought.with(had, thing)
    const minutes = (from < 0 ? 0 : cost[0][from]!) + by.minutes
    const risk = (from < 0 ? 0 : cost[1][from]!) + by.risk
    const price = (from < 0 ? 0 : cost[2][from]!) + (owned === had ? 0 : problem.prices[thing]!)
    if (beaten(v, c, minutes, risk, price)) return
    const at = nodeOf(v, c)
    for (let l = head[at]!; l >= 0; l = next[l]!)
      if (!gone[l] && covers(l, minutes, risk, price, owned)) return
    const label = node.length
    cost[0].push(minutes)
    cost[1].push(risk)
    cost[2].push(price)
    node.push(at)
    set.push(owned)
    parent.push(from)
    wayOf.push(way)
    fileOf.push(file)
    gone.push(false)
    short.push(Number(!atEnd(v)) + Number(!atCpu(c)))
    if (isGoal(v, c)) found.push(label)
    for (let l = head[at]!; l >= 0; l = next[l]!)
      if (!gone[l] && covers(label, cost[0][l]!, cost[1][l]!, cost[2][l]!, set[l]!)) gone[l] = true
    next.push(head[at]!)
    head[at] = label
    heap.push(label)
  }

  /**
   * With a weighting, the first label that comes by has done a thing for all that come later: they cost no less. What
   * was bought can part labels only where the price comes first, or where all else is equal.
   */
  const doneAt = new Map<number, Done>()
  const doneFor = (label: number, what: number, things: number): Done => {
    const key = (priceFirst ? set[label]! : 0) * (V + 1) * (C + 1) * (ways.length + 1) + what
    const done = order ? doneAt.get(key) : undefined
    if (!done) {
      const made = {
        first: first[label]!,
        second: second[label]!,
        left: indexes(things),
        again: [],
        sets: [set[label]!],
      }
      if (order) doneAt.set(key, made)
      return made
    }
    if (priceFirst || done.first !== first[label] || done.second !== second[label]) {
      done.first = first[label]!
      done.second = second[label]!
      done.again = []
      done.sets = [set[label]!]
    } else if (!done.sets.includes(set[label]!)) {
      done.left.push(...done.again.splice(0))
      done.sets.push(set[label]!)
    }
    return done
  }

  reach(
    -1,
    start.release < 0 ? V : start.release,
    start.cpu < 0 ? C : start.cpu,
    { minutes: 0, risk: 0 },
    -1,
    -1,
  )
  let settled = 0
  let complete = true
  for (let label = heap.pop(); label !== undefined; label = heap.pop()) {
    if (gone[label]) continue
    const c = node[label]! % (C + 1)
    const v = Math.floor(node[label]! / (C + 1))
    if (beaten(v, c, cost[0][label]!, cost[1][label]!, cost[2][label]!)) continue
    if (isGoal(v, c)) {
      goals.push(label)
      if (order) break
      continue
    }
    if (++settled > most) {
      complete = false
      break
    }
    // A CPU is fitted where it starts, where it ends the route, or where a boot block may start it.
    const hub = doneFor(label, v, 1)
    if (hub.left.length > 0) {
      hub.again = hub.left.splice(0)
      for (let k = 0; k < C; k++)
        if (k !== c && (woken[k] === 1 || (v < V && starts[v * C + k] === 1) || isGoal(v, k)))
          reach(label, v, k, problem.fit, -1, -1)
    }
    for (let w = 0; w < ways.length; w++) {
      const way = ways[w]!
      if (way.from >= 0 && (v === V || v < way.from)) continue
      if (way.kind === 'second chip') {
        if (way.holds >= 0) reach(label, way.holds, c, way.cost, w, -1)
        continue
      }
      if (way.kind === 'updater' && (v === V || c === C || starts[v * C + c] !== 1)) continue
      if (way.kind === 'recovery' && (c === C || way.holds < 0 || starts[way.holds * C + c] !== 1)) continue
      const done = doneFor(label, V + 1 + c * ways.length + w, files.length)
      const { left } = done
      let kept = 0
      for (const file of left) {
        const { gives, needs } = files[file]!
        const may =
          (!way.stepping || needs < 0 || (v < V && v >= needs)) && (way.downgrades || v === V || gives > v)
        if (!may) {
          left[kept++] = file
          continue
        }
        if (!priceFirst) done.again.push(file)
        if (gives !== v) reach(label, gives, c, way.cost, w, file)
      }
      left.length = kept
    }
  }

  const pathTo = (goal: number): Path => {
    const moves: Move[] = []
    for (let l = goal; parent[l]! >= 0; l = parent[l]!) {
      const c = node[l]! % (C + 1)
      const v = Math.floor(node[l]! / (C + 1))
      moves.push({
        way: wayOf[l]!,
        file: fileOf[l]!,
        release: v === V ? -1 : v,
        cpu: c === C ? -1 : c,
        pays: cost[2][l]! - cost[2][parent[l]!]!,
      })
    }
    return {
      moves: moves.reverse(),
      minutes: cost[0][goal]!,
      risk: cost[1][goal]!,
      price: cost[2][goal]!,
    }
  }
  return { paths: goals.map(pathTo), complete }
}

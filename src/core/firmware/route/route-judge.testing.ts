import type { Uniform } from '@/core/maths/seeded'
import type { RouteAsk, RouteStep } from './route'

/**
 * Routes by trying everything, from the rules as a technician would tell them; nothing of the planner is used.
 * A state is written out whole: what is in the chip, what is in the socket, what was paid for, whether the second chip
 * is used up.
 */
interface State {
  readonly chip: string | null
  readonly cpu: string | null
  readonly paid: readonly string[]
  readonly second: boolean
}
export interface Costs {
  readonly minutes: number
  readonly nats: number
  readonly price: number
}
interface Tried {
  readonly state: State
  readonly costs: Costs
}

const age = (ask: RouteAsk, name: string) => ask.table.releases.findIndex((r) => r.name === name)
const release = (ask: RouteAsk, name: string) => ask.table.releases.find((r) => r.name === name)!

/** The row by which a CPU starts on a release, told from the words of the table. */
function startRow(ask: RouteAsk, chip: string | null, cpu: string | null) {
  if (chip === null || cpu === null) return undefined
  return ask.table.support.find(
    (s) =>
      s.cpu === cpu &&
      age(ask, s.from) <= age(ask, chip) &&
      (s.until === null || age(ask, chip) <= age(ask, s.until)),
  )
}
const runs = (ask: RouteAsk, chip: string | null, cpu: string | null) =>
  startRow(ask, chip, cpu) !== undefined
const shaky = (ask: RouteAsk, chip: string, cpu: string | null) =>
  release(ask, chip).unstable || (cpu !== null && startRow(ask, chip, cpu)?.unstable === true)

/** Everything that can be done in a state, with what it costs and what is then. */
export function possible(ask: RouteAsk, s: State): readonly (Tried & { step: Partial<RouteStep> })[] {
  const done: (Tried & { step: Partial<RouteStep> })[] = []
  const add = (
    next: Partial<State>,
    minutes: number,
    risk: number,
    thing: string | null,
    price: number,
    step: Partial<RouteStep>,
  ) => {
    const owes = thing !== null && price > 0 && !s.paid.includes(thing)
    done.push({
      state: { ...s, ...next, paid: owes ? [...s.paid, thing].sort() : s.paid },
      costs: { minutes, nats: -Math.log(1 - risk), price: owes ? price : 0 },
      step,
    })
  }
  const free = [ask.start.cpu, ask.want.cpu].filter((c): c is string => c !== null)
  const prices = new Map<string, number>()
  for (const c of ask.cpus) prices.set(c.cpu, Math.min(c.price, prices.get(c.cpu) ?? Infinity))
  for (const c of free) if (!prices.has(c) || c === ask.start.cpu) prices.set(c, 0)
  for (const [cpu, price] of prices)
    if (cpu !== s.cpu) add({ cpu }, ask.fit.minutes, ask.fit.risk, `cpu ${cpu}`, price, { do: 'fit', cpu })
  ask.ways.forEach((way, w) => {
    const pay = [way.minutes, way.risk, `way ${w}`, way.price] as const
    if (way.from !== null && (s.chip === null || age(ask, s.chip) < age(ask, way.from))) return
    if (way.kind === 'second chip') {
      if (!s.second && way.holds !== null)
        add({ chip: way.holds, second: true }, ...pay, { do: 'switch', way: w, release: null })
      return
    }
    if (way.kind === 'updater' && !runs(ask, s.chip, s.cpu)) return
    if (way.kind === 'recovery' && !runs(ask, way.holds, s.cpu)) return
    for (const file of ask.table.releases) {
      if (file.withdrawn) continue
      const inside = release(ask, file.holds ?? file.name)
      if (way.stepping && inside.needs !== null)
        if (s.chip === null || age(ask, s.chip) < age(ask, inside.needs)) continue
      if (!way.downgrades && s.chip !== null && age(ask, inside.name) <= age(ask, s.chip)) continue
      add({ chip: inside.name }, ...pay, { do: 'write', way: w, release: file.name })
    }
  })
  return done
}

export const arrived = (ask: RouteAsk, s: Pick<State, 'chip' | 'cpu'>, unstableToo: boolean): boolean => {
  if (s.chip === null) return false
  if (ask.want.release !== null && s.chip !== ask.want.release) return false
  if (ask.want.cpu === null) return unstableToo || !release(ask, s.chip).unstable
  if (s.cpu !== ask.want.cpu || !runs(ask, s.chip, s.cpu)) return false
  return unstableToo || !shaky(ask, s.chip, s.cpu)
}

const no = 1e-7
export const noWorse = (a: Costs, b: Costs) =>
  a.minutes <= b.minutes + no && a.nats <= b.nats + no && a.price <= b.price + no
const written = (s: State) => JSON.stringify([s.chip, s.cpu, s.paid, s.second])

/** Every trade of minutes, risk and price at which a route exists that no other beats. */
export function everyBest(ask: RouteAsk): readonly Costs[] {
  const start: State = { chip: ask.start.release, cpu: ask.start.cpu, paid: [], second: false }
  const known = new Map<string, { state: State; best: Costs[] }>()
  const open: Tried[] = [{ state: start, costs: { minutes: 0, nats: 0, price: 0 } }]
  while (open.length > 0) {
    const { state, costs } = open.pop()!
    const key = written(state)
    const here = known.get(key) ?? { state, best: [] }
    if (here.best.some((b) => noWorse(b, costs))) continue
    known.set(key, { state, best: [...here.best.filter((b) => !noWorse(costs, b)), costs] })
    for (const next of possible(ask, state))
      open.push({
        state: next.state,
        costs: {
          minutes: costs.minutes + next.costs.minutes,
          nats: costs.nats + next.costs.nats,
          price: costs.price + next.costs.price,
        },
      })
  }
  for (const unstableToo of [false, true]) {
    const all = [...known.values()].filter((k) => arrived(ask, k.state, unstableToo)).flatMap((k) => k.best)
    const best = all.filter(
      (a, i) => !all.some((b, j) => i !== j && noWorse(b, a) && (!noWorse(a, b) || j < i)),
    )
    if (best.length > 0) return best
  }
  return []
}

/** Plays a route’s steps one by one; what they cost and where they end, or what is not allowed. */
export function replay(
  ask: RouteAsk,
  steps: readonly RouteStep[],
): { costs: Costs; end: State } | { fault: string } {
  let state: State = { chip: ask.start.release, cpu: ask.start.cpu, paid: [], second: false }
  let costs: Costs = { minutes: 0, nats: 0, price: 0 }
  for (const [i, step] of steps.entries()) {
    const did = possible(ask, state).find(
      ({ step: p }) =>
        p.do === step.do &&
        (p.do === 'fit' ? p.cpu === step.cpu : p.way === step.way && p.release === step.release),
    )
    if (!did) return { fault: `step ${i + 1} cannot be done: ${step.say}` }
    state = did.state
    costs = {
      minutes: costs.minutes + did.costs.minutes,
      nats: costs.nats + did.costs.nats,
      price: costs.price + did.costs.price,
    }
    if (state.chip !== step.after.release || state.cpu !== step.after.cpu)
      return { fault: `step ${i + 1} ends elsewhere: ${step.say}` }
    const dark = state.cpu !== null && !runs(ask, state.chip, state.cpu)
    if (dark !== (step.sees === 'dark' || step.sees === 'not known'))
      return { fault: `step ${i + 1} does not say rightly whether the screen is dark: ${step.say}` }
  }
  return { costs, end: state }
}

/** A small board with everything that can be odd about one. */
export function drawAsk(draw: Uniform): RouteAsk {
  const below = (n: number) => Math.floor(draw() * n)
  const V = 2 + below(5)
  const names = Array.from({ length: V }, (_, i) => `r${i}`)
  const cpus = Array.from({ length: 2 + below(4) }, (_, i) => `c${i}`)
  const some = (share: number) => draw() < share
  const releases = names.map((name, i) => ({
    name,
    date: null,
    unstable: some(0.25),
    withdrawn: some(0.2),
    needs: i > 0 && some(0.5) ? names[below(i)]! : null,
    holds: some(0.12) ? (names.filter((n) => n !== name)[below(V - 1)] ?? null) : null,
    source: '',
    trust: 1,
  }))
  const support = cpus.flatMap((cpu) => {
    if (some(0.1)) return []
    const from = below(V)
    const until = from + below(V - from)
    const row = { cpu, family: cpu, unstable: some(0.15), source: '', date: null, trust: 0.9 }
    const first = { ...row, from: names[from]!, until: until === V - 1 && some(0.7) ? null : names[until]! }
    // Some are dropped, and taken up again.
    const again = until + 2 + below(2)
    return again < V && some(0.4) ? [first, { ...row, from: names[again]!, until: null }] : [first]
  })
  const way = (kind: RouteAsk['ways'][number]['kind'], holds: string | null) => ({
    kind,
    by: null,
    minutes: 5 * (1 + below(4)),
    risk: [0, 0.01, 0.02, 0.05][below(4)]!,
    price: some(0.25) ? 10 * (1 + below(3)) : 0,
    from: some(0.3) ? names[below(V)]! : null,
    downgrades: some(0.7),
    stepping: kind === 'updater' || some(0.3),
    holds,
  })
  const ways = [
    ...(some(0.9) ? [way('updater', null)] : []),
    ...(some(0.25) ? [way('button', null)] : []),
    ...(some(0.25) ? [way('recovery', some(0.8) ? names[below(V)]! : null)] : []),
    ...(some(0.25) ? [way('second chip', some(0.8) ? names[below(V)]! : null)] : []),
    ...(some(0.25) ? [way('programmer', null)] : []),
  ]
  const one = <T>(of: readonly T[]) => of[below(of.length)]!
  const wantCpu = some(0.85) ? one(cpus) : null
  return {
    table: { releases, support },
    ways,
    start: { release: some(0.9) ? one(names) : null, cpu: some(0.8) ? one(cpus) : null },
    want: { cpu: wantCpu, release: wantCpu === null || some(0.2) ? one(names) : null },
    cpus: cpus.filter(() => some(0.7)).map((cpu) => ({ cpu, price: some(0.5) ? 0 : 10 * (1 + below(4)) })),
    fit: { minutes: 5 * (1 + below(2)), risk: one([0, 0.01]) },
  }
}

import { search } from './search'
import type { Path, Problem, Weighting } from './search'
import { Support } from './support-table'
import type { Cell, SupportTable } from './support-table'
import { sayWay } from './way'
import type { Way } from './way'

/** A CPU that can be had: at hand for 0, else bought or borrowed once for its price. */
export interface CpuToHave {
  readonly cpu: string
  readonly price: number
}

export interface RouteAsk {
  readonly table: SupportTable
  readonly ways: readonly Way[]
  /** What is in the chip and in the socket; null: a chip that starts nothing, an empty socket. */
  readonly start: Pair
  /** What is wanted; a CPU that starts, a release, or both. */
  readonly want: Pair
  readonly cpus: readonly CpuToHave[]
  /** Changing the CPU: minutes, and the chance that a contact comes to harm. */
  readonly fit: { readonly minutes: number; readonly risk: number }
}

export interface Pair {
  readonly release: string | null
  readonly cpu: string | null
}

export interface RouteStep {
  readonly do: 'fit' | 'write' | 'switch'
  readonly cpu: string | null
  /** The file written; what it leaves in the chip is `after.release`. */
  readonly release: string | null
  /** Index into the ways asked with. */
  readonly way: number | null
  readonly before: Pair
  readonly after: Pair
  /** What is seen after it: a CPU in the socket that does not start is a dark screen; an empty socket is not. */
  readonly sees: Cell | 'empty socket'
  readonly minutes: number
  readonly risk: number
  readonly price: number
  readonly say: string
}

export interface Route {
  readonly steps: readonly RouteStep[]
  readonly minutes: number
  /** Chance that one of the steps goes wrong. */
  readonly risk: number
  readonly price: number
  /** Where it ends. */
  readonly ends: Pair
  /** It ends on an unstable release, because no stable one can be reached. */
  readonly unstable: boolean
  /** How likely it is that every row of the tables it leans on is right: releases written, CPUs that start. */
  readonly trust: number
  /** The steps between which the screen stays dark. */
  readonly dark: readonly { readonly from: number; readonly to: number }[]
}

export type RouteAnswer =
  | { readonly is: 'route'; readonly route: Route; readonly complete: boolean }
  | { readonly is: 'none'; readonly why: string; readonly complete: boolean }

const whole = (x: number, per: number) => Math.round(x * per)
const nats = (risk: number) => whole(-Math.log1p(-risk), 1e9)

/** A route's question in numbers, and back. */
function asProblem(ask: RouteAsk, support: Support, unstable: boolean): Problem & { names: string[] } {
  const { table, ways, start, want } = ask
  const V = table.releases.length
  const price = new Map<string, number>()
  for (const { cpu, price: p } of ask.cpus) price.set(cpu, Math.min(p, price.get(cpu) ?? Infinity))
  for (const cpu of [start.cpu, want.cpu]) if (cpu !== null && !price.has(cpu)) price.set(cpu, 0)
  if (start.cpu !== null) price.set(start.cpu, 0)
  const names = useful(price, support, [start.cpu, want.cpu])
  const prices: number[] = []
  const thing = (p: number) => (p > 0 ? prices.push(whole(p, 100)) - 1 : -1)
  const cpuThing = names.map((n) => thing(price.get(n)!))
  const starts = support.starting(names)
  const at = (release: string | null) => (release === null ? -1 : support.releaseAt.get(release)!)
  const wantedRelease = at(want.release)
  const wantedCpu = want.cpu === null ? -1 : names.indexOf(want.cpu)
  return {
    names,
    releases: V,
    cpus: names.length,
    starts,
    ends: Uint8Array.from(table.releases, (r, v) => {
      if (wantedRelease >= 0 && v !== wantedRelease) return 0
      if (want.cpu === null) return Number(unstable || !r.unstable)
      const is = support.cell(v, want.cpu)
      return Number(is === 'starts' || (unstable && is === 'unstable'))
    }),
    files: table.releases.flatMap((r, i) => {
      const gives = r.holds === null ? i : at(r.holds)
      return r.withdrawn ? [] : [{ gives, needs: at(table.releases[gives]!.needs) }]
    }),
    ways: ways.map((w) => ({
      kind: w.kind,
      cost: { minutes: whole(w.minutes, 1000), risk: nats(w.risk) },
      thing: thing(w.price),
      from: at(w.from),
      downgrades: w.downgrades,
      stepping: w.stepping,
      holds: at(w.holds),
    })),
    fit: { minutes: whole(ask.fit.minutes, 1000), risk: nats(ask.fit.risk) },
    cpuThing,
    wantedCpu,
    prices,
    start: { release: at(start.release), cpu: start.cpu === null ? -1 : names.indexOf(start.cpu) },
  }
}

/**
 * CPUs that a route can need: one that starts nowhere but where another starts too, and is no cheaper, never serves better,
 * since changing a CPU takes the same whichever it is.
 */
function useful(
  price: ReadonlyMap<string, number>,
  support: Support,
  kept: readonly (string | null)[],
): string[] {
  const all = [...price].map(([cpu, cost]) => ({ cpu, cost, at: support.windows(cpu) }))
  const within = (a: (typeof all)[number], b: (typeof all)[number]) =>
    a.at.every((w) => b.at.some((o) => o.from <= w.from && w.until <= o.until))
  return all
    .filter(
      (a, i) =>
        kept.includes(a.cpu) ||
        !all.some(
          (b, j) =>
            i !== j && b.cost <= a.cost && within(a, b) && (j < i || b.cost < a.cost || !within(b, a)),
        ),
    )
    .map((a) => a.cpu)
}

/**
 * The best route from what is in the chip and in the socket to what is wanted.
 *
 * A route ends on an unstable release only when no stable one can be reached. The stepping rule looks at the release in the
 * chip now; a withdrawn release is never written, but may be left or kept; a CPU is paid once; the second chip is used once.
 *
 * @param ask a table without faults (`tableFaults`), and names that stand in it
 * @param weighting what is least; equals part by the others
 */
export function routeOf(ask: RouteAsk, weighting: Weighting, most?: number): RouteAnswer {
  const support = new Support(ask.table)
  let complete = true
  for (const unstable of [false, true]) {
    const problem = asProblem(ask, support, unstable)
    const found = search(problem, weighting, most)
    complete &&= found.complete
    const path = found.paths[0]
    if (path) return { is: 'route', route: inWords(ask, support, problem, path, unstable), complete }
    if (!found.complete) return { is: 'none', why: 'the search was cut short before it found one', complete }
  }
  return { is: 'none', why: whyNone(ask, support), complete }
}

/** Every route that no other beats in minutes, risk and purchase at once. */
export function routesOf(ask: RouteAsk, most = 40_000): { routes: readonly Route[]; complete: boolean } {
  const support = new Support(ask.table)
  let complete = true
  for (const unstable of [false, true]) {
    const problem = asProblem(ask, support, unstable)
    const found = search(problem, null, most)
    complete &&= found.complete
    if (found.paths.length > 0)
      return { routes: found.paths.map((p) => inWords(ask, support, problem, p, unstable)), complete }
  }
  return { routes: [], complete }
}

function whyNone({ want, table }: RouteAsk, support: Support): string {
  const { cpu, release } = want
  if (cpu !== null && !support.knows(cpu)) return `no row of the table says which release runs ${cpu}`
  if (cpu !== null && release !== null) {
    const is = support.cell(support.releaseAt.get(release)!, cpu)
    if (is === 'dark') return `${release} does not run ${cpu}`
  }
  if (release !== null && !table.releases.some((r) => !r.withdrawn && (r.holds ?? r.name) === release))
    return table.releases.some((r) => r.name === release && r.withdrawn)
      ? `${release} is withdrawn: it is not written any more`
      : `no file is known that really holds ${release}`
  if (cpu !== null && !table.releases.some((r, v) => !r.withdrawn && support.rowOf(v, cpu)))
    return `every release that runs ${cpu} is withdrawn`
  return 'none of the ways at hand leads there with these CPUs'
}

function inWords(
  ask: RouteAsk,
  support: Support,
  problem: Problem & { names: string[] },
  path: Path,
  unstable: boolean,
): Route {
  const { table, ways } = ask
  const files = table.releases.filter((r) => !r.withdrawn)
  const nameOf = (v: number) => (v < 0 ? null : table.releases[v]!.name)
  const cellOf = (v: number, c: number) =>
    c < 0 ? 'empty socket' : v < 0 ? 'dark' : support.cell(v, problem.names[c]!)
  let v = problem.start.release
  let c = problem.start.cpu
  const trusted = new Map<object, number>()
  const leanOn = (v: number, c: number) => {
    const row = v < 0 || c < 0 ? null : support.rowOf(v, problem.names[c]!)
    if (row) trusted.set(row, row.trust)
  }
  const steps = path.moves.map((move): RouteStep => {
    const before = { release: nameOf(v), cpu: c < 0 ? null : problem.names[c]! }
    const way = move.way < 0 ? null : ways[move.way]!
    if (way?.kind === 'updater') leanOn(v, c)
    if (way?.kind === 'recovery') leanOn(support.releaseAt.get(way.holds!)!, c)
    v = move.release
    c = move.cpu
    const after = { release: nameOf(v), cpu: c < 0 ? null : problem.names[c]! }
    const sees = cellOf(v, c)
    const written = move.file < 0 ? null : files[move.file]!
    if (written) trusted.set(written, written.trust)
    const file = written?.name ?? null
    const price = move.pays / 100
    return {
      do: way === null ? 'fit' : way.kind === 'second chip' ? 'switch' : 'write',
      cpu: way === null ? after.cpu : null,
      release: file,
      way: way === null ? null : move.way,
      before,
      after,
      sees,
      minutes: way?.minutes ?? ask.fit.minutes,
      risk: way?.risk ?? ask.fit.risk,
      price,
      say: sayStep(way, file, after, sees, price, before),
    }
  })
  const ends = { release: nameOf(v), cpu: c < 0 ? null : problem.names[c]! }
  leanOn(v, c)
  return {
    steps,
    minutes: path.minutes / 1000,
    risk: -Math.expm1(-path.risk / 1e9),
    price: path.price / 100,
    ends,
    unstable: unstable && (cellOf(v, c) === 'unstable' || table.releases[v]!.unstable),
    trust: [...trusted.values()].reduce((a, b) => a * b, 1),
    dark: darkStretches(steps),
  }
}

/** A step as it is read at the bench. */
function sayStep(
  way: Way | null,
  file: string | null,
  after: Pair,
  sees: RouteStep['sees'],
  price: number,
  before: Pair,
): string {
  const paid = price > 0 ? ' Buy or borrow it first.' : ''
  const seen =
    sees === 'dark'
      ? ` A black screen is expected: ${after.release ?? 'what is in the chip'} does not run ${after.cpu}.`
      : sees === 'not known'
        ? ` Whether ${after.release} runs ${after.cpu} is not known: a black screen says nothing yet.`
        : sees === 'unstable'
          ? ` It starts, unstable.`
          : ''
  if (way === null) return `Fit ${after.cpu}.${paid}${seen}`
  if (way.kind === 'second chip') return `Switch to the second chip: it holds ${after.release}.${paid}${seen}`
  const label = file === after.release ? '' : `: its label is wrong, the chip then holds ${after.release}`
  const older = before.release !== null && way.kind === 'updater' ? ` from ${before.release}` : ''
  return `Write ${file}${older} by ${sayWay(way)}${label}.${paid}${seen}`
}

/** Steps after which the screen is dark, from the first to the last of each stretch. */
function darkStretches(steps: readonly RouteStep[]): { from: number; to: number }[] {
  const stretches: { from: number; to: number }[] = []
  steps.forEach((s, i) => {
    if (s.sees !== 'dark' && s.sees !== 'not known') return
    const last = stretches.at(-1)
    if (last && last.to === i - 1) stretches[stretches.length - 1] = { from: last.from, to: i }
    else stretches.push({ from: i, to: i })
  })
  return stretches
}

/** What would open a way where none is: the least purchase, and the programmer. */
export function whatOpens(
  ask: RouteAsk,
  toHave: { readonly cpus: readonly CpuToHave[]; readonly programmer: Way | null },
): readonly { readonly by: 'purchase' | 'programmer'; readonly route: Route }[] {
  // What is in the socket and what is wanted is here already.
  const more = toHave.cpus.filter((c) => c.cpu !== ask.start.cpu && c.cpu !== ask.want.cpu)
  const bought = routeOf({ ...ask, cpus: [...ask.cpus, ...more] }, 'purchase')
  const written = toHave.programmer
    ? routeOf({ ...ask, ways: [...ask.ways, toHave.programmer] }, 'purchase')
    : null
  return [
    ...(bought.is === 'route' ? [{ by: 'purchase' as const, route: bought.route }] : []),
    ...(written?.is === 'route' ? [{ by: 'programmer' as const, route: written.route }] : []),
  ]
}

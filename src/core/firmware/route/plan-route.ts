import type { ReleaseNow } from './on-route'
import { routeOf, routesOf, whatOpens } from './route'
import type { Route, RouteAnswer, RouteAsk } from './route'
import type { Weighting } from './search'
import type { FirstStep, SeenStart, VersionOdds } from './version-odds'
import { firstSteps, versionOdds } from './version-odds'
import { usualWays } from './way'

export interface ToPlan extends RouteAsk {
  readonly by: Weighting
  /** How the release in the chip is known. */
  readonly known: ReleaseNow['by']
  readonly seen: readonly SeenStart[]
  /** What CPUs would cost that are not at hand; one that nobody knows counts as the dearest. */
  readonly prices: Readonly<Record<string, number>>
}

export type Planned =
  | {
      readonly is: 'route'
      readonly answer: Extract<RouteAnswer, { is: 'route' }>
      /** Others that it does not beat in minutes, risk and purchase at once. */
      readonly others: readonly Route[]
      readonly complete: boolean
    }
  | {
      readonly is: 'none'
      readonly why: string
      readonly opens: readonly { readonly by: 'purchase' | 'programmer'; readonly route: Route }[]
    }
  | {
      readonly is: 'not known'
      readonly odds: VersionOdds
      readonly steps: readonly FirstStep[]
      readonly none: number
    }

/** Chance that a board in this shop stays dark for another reason than its release (bench default). */
const OTHER_FAULT = 0.3

/** What the station says of a wish: the route, what would open one, or what to try while the release is not known. */
export function planRoute({ by, known, seen, prices, ...ask }: ToPlan): Planned {
  if (known === 'nothing') {
    const hand = ask.cpus.map((c) => c.cpu)
    const odds = versionOdds({
      table: ask.table,
      prior: {},
      others: 1,
      labels: [],
      seen,
      tries: ask.want.cpu === null ? hand : [...hand, ask.want.cpu],
      otherFault: OTHER_FAULT,
    })
    return { is: 'not known', odds, ...firstSteps(ask, odds.odds, by) }
  }
  const answer = routeOf(ask, by)
  if (answer.is === 'none') {
    const hand = new Set(ask.cpus.map((c) => c.cpu))
    const dearest = Math.max(1, ...Object.values(prices))
    const named = [...new Set(ask.table.support.map((s) => s.cpu))]
    return {
      is: 'none',
      why: answer.why,
      opens: whatOpens(ask, {
        cpus: named.filter((cpu) => !hand.has(cpu)).map((cpu) => ({ cpu, price: prices[cpu] ?? dearest })),
        programmer: ask.ways.some((w) => w.kind === 'programmer')
          ? null
          : { ...usualWays.clip, price: 0, from: null, holds: null },
      }),
    }
  }
  const { routes, complete } = routesOf(ask)
  const same = (a: Route, b: Route) => a.minutes === b.minutes && a.risk === b.risk && a.price === b.price
  return { is: 'route', answer, others: routes.filter((r) => !same(r, answer.route)), complete }
}

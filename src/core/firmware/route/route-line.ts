import type { FirmwareBodies } from '../bodies'
import type { Route, RouteAsk } from './route'
import type { Weighting } from './search'
import { sayWay } from './way'

/** A route as it goes on the tape, to be followed step by step. */
export const routeLine = (ask: RouteAsk, route: Route, by: Weighting): FirmwareBodies['route'] => ({
  want: ask.want,
  by,
  hand: ask.cpus.filter((c) => c.price === 0).map((c) => c.cpu),
  ways: ask.ways.map(sayWay),
  steps: route.steps.map((s) => {
    const way = s.way === null ? null : ask.ways[s.way]!
    return {
      say: s.say,
      do: s.do,
      cpu: s.cpu,
      release: s.release,
      before: s.before,
      after: s.after,
      dark: s.sees === 'dark' || s.sees === 'not known',
      way: way?.kind ?? null,
      by: way?.by ?? null,
      minutes: s.minutes,
    }
  }),
  minutes: route.minutes,
  risk: route.risk,
  price: route.price,
  trust: route.trust,
  unstable: route.unstable,
})

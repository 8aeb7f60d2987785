import type { Pair, Route } from '@/core/firmware/route/route'
import type { Planned } from '@/core/firmware/route/plan-route'
import { percent } from '@/core/maths/percent'
import { Button } from '@/ui/Button'
import { RouteMap } from './RouteMap'
import type { RouteInHand } from './use-route'

/** The route, or what would open one, or what to try while the release is not known. */
export function RouteAnswer({
  route: r,
  start,
  onFollow,
  followed,
}: {
  route: RouteInHand
  start: Pair
  onFollow: (() => void) | null
  followed: boolean
}) {
  const { planned, planning } = r
  if (planned === null) return <p role="status">Planning…</p>
  if (typeof planned === 'string')
    return (
      <p role="alert" className="font-semibold text-ember">
        {planned}
      </p>
    )
  return (
    <div aria-busy={planning} className={planning ? 'opacity-60' : ''}>
      {planned.is === 'route' && (
        <Found planned={planned} r={r} start={start} onFollow={onFollow} followed={followed} />
      )}
      {planned.is === 'none' && <None planned={planned} />}
      {planned.is === 'not known' && <NotKnown planned={planned} />}
    </div>
  )
}

const chance = (risk: number) => (risk === 0 ? 'no risk noted' : `${percent(risk)} that a step goes wrong`)
const minutes = (of: number) => `${Math.round(of)} min`

function Found({
  planned: { answer, others, complete },
  r,
  start,
  onFollow,
  followed,
}: {
  planned: Extract<Planned, { is: 'route' }>
  r: RouteInHand
  start: Pair
  onFollow: (() => void) | null
  followed: boolean
}) {
  const { route } = answer
  const used = new Set([start.cpu, ...route.steps.map((s) => s.after.cpu)])
  const rows = r.names.filter((n) => used.has(n) || r.chosen.hand.has(n) || n === r.chosen.cpu).slice(0, 12)
  if (route.steps.length === 0)
    return (
      <p className="font-semibold text-verd">
        Nothing has to be written: {start.release} runs {start.cpu ?? 'it'} by the table.
      </p>
    )
  return (
    <>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <h2>
          {route.steps.length} {route.steps.length === 1 ? 'step' : 'steps'}, {minutes(route.minutes)}
        </h2>
        <span className="text-soft">
          {chance(route.risk)}; the rows of the table it needs: {percent(route.trust)} that all are right
        </span>
        {followed ? (
          <span className="font-semibold text-verd">followed</span>
        ) : (
          <Button
            look="first"
            className="px-2.5! py-0.5!"
            disabled={onFollow === null}
            onClick={onFollow ?? undefined}
          >
            Follow this route
          </Button>
        )}
      </div>
      {route.unstable && (
        <p className="font-semibold text-ember">
          It ends on {route.ends.release}, which is unstable: no stable release that runs it can be reached.
        </p>
      )}
      <RouteMap support={r.support!} start={start} route={route} cpus={rows} />
      <Steps route={route} />
      {others.length > 0 && (
        <details className="mt-1">
          <summary className="text-soft">
            {others.length} {others.length === 1 ? 'other route' : 'other routes'} that it does not beat in
            minutes, risk and purchase{complete ? '' : ' (not all were looked at)'}
          </summary>
          <ul className="mt-1">
            {others.map((o, i) => (
              <li key={i} className="border-t border-line py-1">
                {minutes(o.minutes)}, {chance(o.risk)}: {o.steps.map((s) => s.say).join(' ')}
              </li>
            ))}
          </ul>
        </details>
      )}
    </>
  )
}

function Steps({ route }: { route: Route }) {
  return (
    <ol aria-label="Steps of the route" className="mt-1.5">
      {route.steps.map((s, i) => (
        <li
          key={i}
          className="grid grid-cols-[1.6rem_minmax(0,1fr)_auto] gap-x-2 border-b border-line py-1 leading-snug"
        >
          <span className="num text-soft">{i + 1}</span>
          <span className={s.sees === 'dark' ? 'border-l-[6px] border-double border-ink pl-2' : ''}>
            {s.say}
          </span>
          <span className="num text-[0.9rem] text-soft">{minutes(s.minutes)}</span>
        </li>
      ))}
    </ol>
  )
}

function None({ planned: { why, opens } }: { planned: Extract<Planned, { is: 'none' }> }) {
  return (
    <>
      <p className="font-semibold">No route: {why}.</p>
      {opens.map(({ by, route }) => {
        const got = route.steps.filter((s) => s.price > 0).map((s) => s.cpu)
        return (
          <div key={by} className="mt-2">
            <h2>
              {by === 'purchase'
                ? `${got.join(' and ')} would open one, bought or borrowed: ${minutes(route.minutes)}`
                : `A programmer would open one: ${minutes(route.minutes)}`}
            </h2>
            <Steps route={route} />
          </div>
        )
      })}
      {opens.length === 0 && (
        <p className="text-soft">
          Neither another CPU of the table nor a programmer opens one, as the table has it.
        </p>
      )}
    </>
  )
}

function NotKnown({ planned: { odds, steps, none } }: { planned: Extract<Planned, { is: 'not known' }> }) {
  const first = odds.tries[0]
  const shown = odds.odds.slice(0, 6)
  const rest = odds.odds.slice(6).reduce((a, o) => a + o.odds, 0)
  return (
    <>
      <h2>The release in the chip is not known</h2>
      <p>
        {first && first.bits > 0.05
          ? `Try ${first.cpu} next: ${percent(first.starts)} that it starts, and it tells most.`
          : 'Nothing at hand tells more by trying: read the chip, or note the version when it shows.'}
      </p>
      <ul aria-label="Odds of releases" className="mt-1 flex flex-wrap gap-x-5">
        {shown.map((o) => (
          <li key={o.release}>
            <span className="num">{o.release}</span> {percent(o.odds)}
          </li>
        ))}
        {rest > 0 && <li className="text-soft">others {percent(rest)}</li>}
        <li className="text-soft">dark for another reason {percent(odds.otherFault)}</li>
      </ul>
      {steps.length > 0 && (
        <>
          <h2 className="mt-2">First step, by how likely it is right</h2>
          <ul>
            {steps.slice(0, 4).map((s) => (
              <li key={s.say} className="flex justify-between gap-4 border-b border-line py-1">
                <span>{s.say}</span>
                <span className="num">{percent(s.share)}</span>
              </li>
            ))}
            {none > 0.005 && (
              <li className="flex justify-between gap-4 py-1 text-soft">
                <span>no route from there</span>
                <span className="num">{percent(none)}</span>
              </li>
            )}
          </ul>
        </>
      )}
    </>
  )
}

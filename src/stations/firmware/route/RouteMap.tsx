import type { Pair, Route } from '@/core/firmware/route/route'
import type { Support } from '@/core/firmware/route/support-table'

const LEFT = 92
const TOP = 26
const ROW = 40
const WIDE = 640
/** Columns that are drawn at most; of a longer table those round the route. */
const MOST = 16

/** Releases along, CPUs down, what starts inked; the route is a line through it, and where it stays dark a tunnel. */
export function RouteMap({
  support,
  start,
  route,
  cpus,
}: {
  support: Support
  start: Pair
  route: Route
  cpus: readonly string[]
}) {
  const stops: Pair[] = [start, ...route.steps.map((s) => s.after)]
  const rows: (string | null)[] = [...(stops.some((s) => s.cpu === null) ? [null] : []), ...cpus]
  const columns = drawn(support, stops)
  const cell = Math.min(92, (WIDE - LEFT) / columns.length)
  const height = TOP + rows.length * ROW + 6
  const x = (release: string | null) => LEFT + (columns.indexOf(release) + 0.5) * cell
  const y = (cpu: string | null) => TOP + (rows.indexOf(cpu) + 0.5) * ROW
  const isDark = (s: Pair) =>
    s.cpu !== null &&
    (s.release === null ||
      !['starts', 'unstable'].includes(support.cell(support.releaseAt.get(s.release)!, s.cpu)))
  const darkest = route.dark[0]
  const words = darkest && stops[darkest.from + 1]
  return (
    <svg
      viewBox={`0 0 ${WIDE} ${height}`}
      className="mt-1 w-full max-w-[44rem]"
      role="img"
      aria-label={`The route over ${columns.length} releases and ${cpus.length} CPUs; its steps stand beside it in words`}
    >
      <defs>
        <pattern
          id="route-dark"
          width="6"
          height="6"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(-45)"
        >
          <rect width="6" height="6" fill="var(--sheet)" />
          <rect width="2.5" height="6" fill="var(--ink)" />
        </pattern>
      </defs>
      {columns.map((release) => (
        <text
          key={release ?? ''}
          x={x(release)}
          y={TOP - 8}
          textAnchor="middle"
          className={`num text-[12px] ${stops.some((s) => s.release === release) ? 'font-bold' : ''}`}
          fill={
            release !== null && support.table.releases[support.releaseAt.get(release)!]!.withdrawn
              ? 'var(--soft)'
              : 'var(--ink)'
          }
          textDecoration={
            release !== null && support.table.releases[support.releaseAt.get(release)!]!.withdrawn
              ? 'line-through'
              : undefined
          }
        >
          {release ?? 'damaged'}
        </text>
      ))}
      {rows.map((cpu) => (
        <text
          key={cpu ?? ''}
          x={LEFT - 8}
          y={y(cpu) + 4}
          textAnchor="end"
          fill="var(--ink)"
          className="text-[12.5px]"
        >
          {cpu ?? 'no CPU'}
        </text>
      ))}
      {rows.flatMap((cpu) =>
        columns.map((release) => {
          const is =
            cpu === null || release === null ? 'none' : support.cell(support.releaseAt.get(release)!, cpu)
          return (
            <rect
              key={`${release} ${cpu}`}
              x={x(release) - cell / 2 + 1.5}
              y={y(cpu) - ROW / 2 + 1.5}
              width={cell - 3}
              height={ROW - 3}
              fill={is === 'starts' ? 'var(--line)' : 'none'}
              stroke="var(--line)"
              strokeDasharray={is === 'unstable' || is === 'not known' ? '3 3' : undefined}
            />
          )
        }),
      )}
      {stops.slice(1).map((to, i) => {
        const from = stops[i]!
        const dark = isDark(from) && isDark(to)
        return (
          <line
            key={i}
            x1={x(from.release)}
            y1={y(from.cpu)}
            x2={x(to.release)}
            y2={y(to.cpu)}
            stroke={dark ? 'url(#route-dark)' : 'var(--brass)'}
            strokeWidth={dark ? 9 : 3}
            strokeLinecap="round"
          />
        )
      })}
      {stops.map((s, i) => (
        <g key={i}>
          {isDark(s) && (
            <rect
              x={x(s.release) - 11}
              y={y(s.cpu) - 9}
              width={22}
              height={18}
              fill="url(#route-dark)"
              stroke="var(--ink)"
            />
          )}
          <circle
            cx={x(s.release)}
            cy={y(s.cpu)}
            r={i === 0 || i === stops.length - 1 ? 5.5 : 3.5}
            fill={i === stops.length - 1 ? 'var(--brass)' : 'var(--sheet)'}
            stroke="var(--brass)"
            strokeWidth="2.5"
          />
        </g>
      ))}
      {words && (
        <text
          x={Math.min(x(words.release) + 15, WIDE - 130)}
          y={y(words.cpu) + (y(words.cpu) + 26 > height ? -15 : 21)}
          className="text-[11.5px] font-semibold"
          fill="var(--ink)"
          stroke="var(--sheet)"
          strokeWidth="3"
          paintOrder="stroke"
        >
          black screen expected
        </text>
      )}
    </svg>
  )
}

/** The releases that are drawn: all of a short table; of a long one those of the route and their neighbours. */
function drawn(support: Support, stops: readonly Pair[]): (string | null)[] {
  const all = support.table.releases.map((r) => r.name)
  const broken = stops.some((s) => s.release === null) ? [null] : []
  if (all.length <= MOST) return [...broken, ...all]
  const near = stops.flatMap((s) => {
    const at = s.release === null ? -9 : all.indexOf(s.release)
    return [at - 1, at, at + 1]
  })
  return [...broken, ...all.filter((_, i) => near.includes(i)).slice(0, 2 * MOST)]
}

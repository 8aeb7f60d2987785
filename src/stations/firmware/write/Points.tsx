'use client'
import type { PreFlightPoint } from '@/core/firmware/pre-flight'

/** Points that are looked at before something is done: what a person has to see to is ticked. */
export function Points({
  label,
  points,
  ticked,
  onTick,
}: {
  label: string
  points: readonly PreFlightPoint[]
  ticked: ReadonlySet<string>
  onTick: (ticked: ReadonlySet<string>) => void
}) {
  const tick = (point: string, is: boolean) => {
    const next = new Set(ticked)
    if (is) next.add(point)
    else next.delete(point)
    onTick(next)
  }
  return (
    <ul aria-label={label}>
      {points.map(({ point, is, say }) => (
        <li
          key={point}
          className="flex items-baseline gap-2 border-b border-dashed border-line py-1 leading-snug"
        >
          {is === 'open' ? (
            <label className="flex items-baseline gap-2">
              <input
                type="checkbox"
                checked={ticked.has(point)}
                onChange={(e) => tick(point, e.target.checked)}
              />
              <span>
                <b className="font-semibold">{point}</b> {say}
              </span>
            </label>
          ) : (
            <span className={is === 'no' ? 'text-ember' : ''}>
              <span aria-hidden="true" className="mr-2 inline-block w-4">
                {is === 'good' ? '✓' : '×'}
              </span>
              <b className="font-semibold">{point}</b> {say}
            </span>
          )}
        </li>
      ))}
    </ul>
  )
}

/** Whether nothing forbids it, and all that a person has to see to is ticked. */
export const ready = (points: readonly PreFlightPoint[], ticked: ReadonlySet<string>): boolean =>
  points.every((p) => p.is === 'good' || (p.is === 'open' && ticked.has(p.point)))

/** What stood open, and was seen to. */
export const despite = (points: readonly PreFlightPoint[]): readonly string[] =>
  points.filter((p) => p.is === 'open').map((p) => p.say)

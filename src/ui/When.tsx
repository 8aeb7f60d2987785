'use client'
import { useSyncExternalStore } from 'react'

const styles = {
  time: { hour: '2-digit', minute: '2-digit' },
  day: { weekday: 'short', day: 'numeric', month: 'short' },
  moment: { weekday: 'short', day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' },
  date: { day: 'numeric', month: 'short', year: 'numeric' },
} as const satisfies Record<string, Intl.DateTimeFormatOptions>

const never = () => () => undefined

/** A moment in the reader's locale and zone; until the browser knows it, the server's guess stands in its place. */
export function When({ at, as = 'moment' }: { at: string; as?: keyof typeof styles }) {
  const format = (locale: string | undefined, timeZone: string | undefined) =>
    new Intl.DateTimeFormat(locale, { ...styles[as], timeZone }).format(new Date(at))
  const said = useSyncExternalStore(
    never,
    () => format(undefined, undefined),
    () => format('en-GB', 'UTC'),
  )
  return (
    <time dateTime={at} className={as === 'time' ? 'num' : 'whitespace-nowrap tabular-nums'}>
      {said}
    </time>
  )
}

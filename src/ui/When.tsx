'use client'
import { useSyncExternalStore } from 'react'

const styles = {
  time: { hour: '2-digit', minute: '2-digit' },
  day: { weekday: 'short', day: 'numeric', month: 'short' },
  moment: { weekday: 'short', day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' },
  date: { day: 'numeric', month: 'short', year: 'numeric' },
} as const satisfies Record<string, Intl.DateTimeFormatOptions>

type Style = keyof typeof styles

// Making a formatter is slow, and a long tape shows many moments.
const made = new Map<string, Intl.DateTimeFormat>()

function formatter(style: Style, reader: boolean): Intl.DateTimeFormat {
  const key = `${style} ${reader}`
  const known = made.get(key)
  if (known) return known
  const format = reader
    ? new Intl.DateTimeFormat(undefined, styles[style])
    : new Intl.DateTimeFormat('en-GB', { ...styles[style], timeZone: 'UTC' })
  made.set(key, format)
  return format
}

const never = () => () => undefined

/** A moment in the reader's locale and zone; until the browser knows it, the server's guess stands in its place. */
export function When({ at, as = 'moment' }: { at: string; as?: Style }) {
  const say = (reader: boolean) => formatter(as, reader).format(new Date(at))
  const said = useSyncExternalStore(
    never,
    () => say(true),
    () => say(false),
  )
  return (
    <time dateTime={at} className={as === 'time' ? 'num' : 'whitespace-nowrap tabular-nums'}>
      {said}
    </time>
  )
}

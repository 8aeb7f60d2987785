'use client'

const styles = {
  time: { hour: '2-digit', minute: '2-digit' },
  day: { weekday: 'short', day: 'numeric', month: 'short' },
  moment: { weekday: 'short', day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' },
  date: { day: 'numeric', month: 'short', year: 'numeric' },
} as const satisfies Record<string, Intl.DateTimeFormatOptions>

/** A moment in the reader's locale and zone; the server's guess is replaced without moving anything. */
export function When({ at, as = 'moment' }: { at: string; as?: keyof typeof styles }) {
  return (
    <time dateTime={at} className="num" suppressHydrationWarning>
      {new Intl.DateTimeFormat(undefined, styles[as]).format(new Date(at))}
    </time>
  )
}

'use client'
import type { MomentStyle } from '@/core/reader'
import { useReader } from './reader'

/** A moment in the reader's locale and zone. */
export function When({ at, as = 'moment' }: { at: string; as?: MomentStyle }) {
  const { moment } = useReader()
  return (
    // Browser and server may abbreviate a month differently; what stands first stays.
    <time
      suppressHydrationWarning
      dateTime={at}
      className={as === 'time' ? 'num' : 'whitespace-nowrap tabular-nums'}
    >
      {moment(at, as)}
    </time>
  )
}

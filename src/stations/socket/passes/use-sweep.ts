'use client'
import { useCallback, useEffect, useMemo, useState } from 'react'
import { missedBefore, nextStretch, sweepOrder } from '@/core/socket/straighten/sweep'
import { useJob } from '@/job/JobProvider'
import type { Surface } from '@/stations/socket/map/use-surface'

/** The sweep over the whole field: one key proves one look and goes on to the next. */
export function useSweep(surface: Surface) {
  const [on, setOn] = useState(false)
  const passes = useJob((j) => j.state.socket.passes)
  const strokes = useJob((j) => j.state.socket.strokes)
  const append = useJob((j) => j.append)
  const { socket, marks, pass, setSwath, go } = surface
  // The order is laid once, when the sweep begins: what is found on the way must not move it about.
  const [order, setOrder] = useState<ReturnType<typeof sweepOrder>>([])
  const looked = pass?.looked
  const { stretch, left, contactsLeft } = useMemo(() => nextStretch(order, looked ?? {}), [order, looked])
  const toggle = useCallback(() => {
    if (!on) setOrder(sweepOrder(socket, marks, missedBefore(passes, strokes)))
    else setSwath([])
    setOn(!on)
  }, [on, socket, marks, passes, strokes, setSwath])
  const first = on ? (stretch?.contacts.join(' ') ?? '') : ''
  useEffect(() => {
    if (!first) return
    const names = first.split(' ')
    setSwath(names)
    go(names[0]!)
    // A stretch is shown when it becomes the next one, not at each change of the surface.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [first])
  const proved = useCallback(() => {
    if (stretch) append('looked', { contacts: stretch.contacts })
  }, [stretch, append])
  return { on, toggle, proved, stretch, left, contactsLeft, looks: order.length }
}
export type Sweep = ReturnType<typeof useSweep>

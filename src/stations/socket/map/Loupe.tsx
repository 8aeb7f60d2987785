'use client'
import { useMemo } from 'react'
import { displayList, toView } from '@/core/socket/map/display-list'
import { fieldOf } from '@/core/socket/model/socket'
import { FieldPaths } from '@/ui/FieldPaths'
import { useTheme } from '@/ui/use-theme'
import type { Surface } from './use-surface'

/** The contact under the needle and its neighbours, as large as the eyepiece shows them. */
export function Loupe({ surface }: { surface: Surface }) {
  const { socket, pass, view, cursor } = surface
  const theme = useTheme()
  const drawn = useMemo(() => {
    const { named, near } = fieldOf(socket)
    const c = named.get(cursor)
    if (!c) return null
    const reach = socket.pitchMm * 3
    const contacts = near.within(c.xMm, c.yMm, reach * 1.5).map((i) => socket.contacts[i]!)
    const list = displayList({ ...socket, contacts }, pass, view)
    const [x, y] = toView(view, c.xMm, c.yMm)
    return { paths: list.paths.filter((p) => p.ink !== 'pin 1'), x, y, reach: socket.pitchMm * 2.6 }
  }, [socket, pass, view, cursor])
  if (!drawn) return null
  const { x, y, reach } = drawn
  return (
    <svg
      viewBox={`${x - reach} ${y - reach} ${2 * reach} ${2 * reach}`}
      className="size-[132px] shrink-0 max-sm:hidden overflow-hidden rounded-full border-[1.5px] border-line"
      aria-hidden="true"
    >
      <FieldPaths paths={drawn.paths} pitchMm={socket.pitchMm} theme={theme} />
      <circle
        cx={x}
        cy={y}
        r={socket.pitchMm * 0.55}
        fill="none"
        stroke="var(--brass)"
        strokeWidth={socket.pitchMm * 0.07}
      />
    </svg>
  )
}

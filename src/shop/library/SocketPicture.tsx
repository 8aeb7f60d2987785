'use client'
import { useMemo } from 'react'
import { displayList } from '@/core/socket/map/display-list'
import type { Socket } from '@/core/socket/model/socket'
import { useTheme } from '@/ui/use-theme'
import { FieldPaths } from '@/ui/FieldPaths'

/** A socket's field, unmarked, with its regions and the pin-1 mark. */
export function SocketPicture({ socket }: { socket: Socket }) {
  const list = useMemo(() => displayList(socket, null), [socket])
  const theme = useTheme()
  return (
    <svg
      viewBox={list.box.join(' ')}
      className="w-full border border-line"
      role="img"
      aria-label={`${socket.name}: ${socket.contacts.length} contacts`}
    >
      <FieldPaths paths={list.paths} pitchMm={socket.pitchMm} theme={theme} />
    </svg>
  )
}

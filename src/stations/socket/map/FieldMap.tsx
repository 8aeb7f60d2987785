'use client'
import dynamic from 'next/dynamic'
import { useEffect, useRef, useState } from 'react'
import type { Ref } from 'react'
import type { Cluster } from '@/core/socket/damage/cluster'
import type { FieldHandle } from './FieldCanvas'
import type { Surface } from './use-surface'

const FieldCanvas = dynamic(() => import('./FieldCanvas'), {
  ssr: false,
  loading: () => <p className="p-4 text-soft">Laying out the field…</p>,
})

/** The map's place on the surface: as wide as there is room, with its words for a screen reader. */
export function FieldMap({
  surface,
  clusters,
  handle,
}: {
  surface: Surface
  clusters: readonly Cluster[]
  handle: Ref<FieldHandle>
}) {
  const frame = useRef<HTMLDivElement>(null)
  const [size, setSize] = useState<{ width: number; height: number } | null>(null)
  useEffect(() => {
    const measure = () => {
      const width = frame.current!.clientWidth
      setSize({ width, height: Math.round(width * 0.74) })
    }
    measure()
    const observer = new ResizeObserver(measure)
    observer.observe(frame.current!)
    return () => observer.disconnect()
  }, [])
  const damaged = Object.keys(surface.marks).length
  const { view } = surface
  return (
    <div
      ref={frame}
      id="map"
      role="img"
      aria-label={`Map of ${surface.socket.contacts.length} contacts, ${damaged} marked; the needle is on ${surface.cursor}. The marked contacts stand in the table below.`}
      data-cursor={surface.cursor}
      data-view={`${view.quarterTurns} ${view.mirrored ? 'mirrored' : 'plain'}`}
      className="aspect-[100/74] w-full touch-none overflow-hidden"
    >
      {size && (
        <FieldCanvas
          surface={surface}
          clusters={clusters}
          width={size.width}
          height={size.height}
          handle={handle}
        />
      )}
    </div>
  )
}

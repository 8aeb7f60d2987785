'use client'
import dynamic from 'next/dynamic'
import { useId } from 'react'
import type { Ref } from 'react'
import { useSize } from '@/ui/use-size'
import { isDamage, sayMark } from '@/core/socket/damage/mark'
import { leansTo } from '@/core/socket/damage/open-side'
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
  left,
}: {
  surface: Surface
  clusters: readonly Cluster[]
  handle: Ref<FieldHandle>
  /** Contacts that are still to be straightened; null while they are being counted. */
  left: number | null
}) {
  const { frame, size } = useSize()
  const id = useId()
  const { view, cursor, marks, socket, pass, swath } = surface
  const damaged = Object.values(marks).filter(isDamage).length
  const mark = marks[cursor]
  const way = mark?.leanMm ? leansTo(mark.leanMm) : null
  const said = mark
    ? `${sayMark(mark)}${way ? `, to the ${way}` : ''}`
    : pass?.looked[cursor]
      ? 'inspected, not marked'
      : 'not inspected'
  return (
    <div className="relative min-h-0 max-lg:aspect-[100/80] lg:h-full">
      <div
        ref={frame}
        id="map"
        role="grid"
        tabIndex={0}
        aria-label={`Map of ${socket.contacts.length} contacts, ${damaged} marked. Arrows walk, figures mark; the marked contacts stand in the table below.`}
        aria-activedescendant={id}
        data-cursor={cursor}
        data-view={`${view.quarterTurns} ${view.mirrored ? 'mirrored' : 'plain'}`}
        className="size-full touch-none overflow-hidden"
      >
        <div role="row">
          <span id={id} role="gridcell" aria-selected="true" className="sr-only">
            {cursor}, {said}
          </span>
        </div>
        {size && (
          <div aria-hidden="true">
            <FieldCanvas
              surface={surface}
              clusters={clusters}
              width={size.width}
              height={size.height}
              handle={handle}
            />
          </div>
        )}
      </div>
      <p role="status" className="sr-only" data-says>
        {[
          `${cursor}, ${said}`,
          swath.length > 0 && `${swath.length} chosen`,
          left !== null && `${left} left to straighten`,
        ]
          .filter(Boolean)
          .join('; ')}
      </p>
    </div>
  )
}

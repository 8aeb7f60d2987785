'use client'
import type { StrokeResult } from '@/core/socket/bodies'

import Link from 'next/link'
import { useCallback, useDeferredValue, useEffect, useRef, useState } from 'react'
import { fieldOf } from '@/core/socket/model/socket'
import type { Socket } from '@/core/socket/model/socket'
import { useJob } from '@/job/JobProvider'
import { usePointed } from '@/frame/point'
import { StationLink } from '@/frame/StationLink'
import { Pane, StationSurface } from '@/frame/StationSurface'
import { ContactPanel } from './straighten/ContactPanel'
import { useEyepiece } from './straighten/Eyepiece'
import type { FieldHandle } from './map/FieldCanvas'
import { FieldMap } from './map/FieldMap'
import { MapBar } from './map/MapBar'
import { PhotoMap } from './photo/PhotoMap'
import { SocketTabs } from './SocketTabs'
import type { SocketTab } from './SocketTabs'
import { Standing } from './Standing'
import { SweepBar } from './passes/SweepBar'
import { usePush } from './straighten/use-push'
import { useReckoning } from './straighten/use-reckoning'
import { useSocketKeys } from './use-socket-keys'
import { useSurface } from './map/use-surface'
import { useSweep } from './passes/use-sweep'

export function SocketStation() {
  const socket = useJob((j) => j.socket)
  if (socket) return <Mapped socket={socket} />
  return (
    <StationSurface station="socket">
      <p className="mt-4 max-w-xl">
        The map needs the socket’s geometry.{' '}
        <StationLink to="intake" part="board" className="underline">
          Choose it in the ticket
        </StationLink>
        , or{' '}
        <Link href="/library" className="underline">
          import it into the library
        </Link>{' '}
        from a table.
      </p>
    </StationSurface>
  )
}

function Mapped({ socket }: { socket: Socket }) {
  const surface = useSurface(socket)
  // The map comes first; what lies behind it follows a moment later.
  const behind = useDeferredValue(surface)
  const eye = useEyepiece()
  const { reckoning, fresh, failed, weigh, giveBack } = useReckoning(socket, eye.factors)
  const map = useRef<FieldHandle>(null)
  const planned = reckoning?.planned.steps.find((s) => s.contact === surface.cursor) ?? null
  /** One that is better left may be worked all the same; what is advised stands beside it. */
  const step = planned?.otherwise ?? planned
  const [extra, setExtra] = useState(0)
  const strokes = Math.max(1, (step?.strokes ?? 1) + extra)
  const append = useJob((j) => j.append)

  const advice = usePush(surface, step, weigh, eye.factors)
  const strokesDone = useJob((j) => j.state.socket.strokes.length)
  /**
   * The needle goes to what comes first as soon as an order is there that knows of so many strokes: at the beginning, and
   * where it is made anew. Null once it has gone.
   */
  const toFirst = useRef<number | null>(0)

  function tried(result: StrokeResult) {
    if (!step) return
    const { contact, technique, tool, from, snaps, snapFactor } = step
    const mark = surface.marks[contact]
    append('stroke', {
      contact,
      technique,
      tool,
      from,
      strokes,
      result,
      predictedSnaps: snaps,
      ...(snapFactor === 1 ? {} : { snapFactor }),
      ...(mark ? { damage: mark.kind } : {}),
      ...eye.noted,
    })
    setExtra(0)
    // What snapped may make others hardly worth a stroke: the order is waited for. Else the next is known already.
    if (result === 'snapped') toFirst.current = strokesDone + 1
    const next = reckoning?.planned.steps.find((s) => s.contact !== contact && s.technique !== 'leave')
    if (next && result === 'there') surface.go(next.contact)
  }
  const [photos, setPhotos] = useState(false)
  const [tab, setTab] = useState<SocketTab | null>(null)
  /** The one that was open last, for the key that opens it again. */
  const lastTab = useRef<SocketTab>('Order')
  useEffect(() => {
    if (tab) lastTab.current = tab
  }, [tab])
  const toPhotos = () => setPhotos((on) => !on)
  const sweep = useSweep(surface)
  useSocketKeys({
    surface,
    reckoning,
    map,
    step,
    onTried: tried,
    onStrokes: (by) => setExtra((n) => n + by),
    onPhotos: toPhotos,
    onDrawer: () => setTab((open) => (open ? null : lastTab.current)),
    away: photos,
    sweep,
  })

  const { go } = surface
  const point = useCallback(
    (part: string) => {
      if (part === 'ledger' || part === 'seat') setTab('Seating and loose parts')
      if (!fieldOf(socket).named.has(part)) return
      toFirst.current = null
      go(part)
    },
    [socket, go],
  )
  usePointed(point)
  useEffect(() => {
    if (toFirst.current === null || toFirst.current > strokesDone || !reckoning || !fresh) return
    toFirst.current = null
    const { steps } = reckoning.planned
    const first = steps.find((s) => s.technique !== 'leave') ?? steps[0]
    if (first) go(first.contact)
  }, [reckoning, fresh, strokesDone, go])

  const standing = <Standing surface={behind} reckoning={reckoning} fresh={fresh} failed={failed} />
  if (photos)
    return (
      <StationSurface station="socket" work={reckoning} standing={standing}>
        <Pane className="lg:h-full">
          <PhotoMap surface={surface} onClose={toPhotos} />
        </Pane>
      </StationSurface>
    )
  return (
    <StationSurface station="socket" work={reckoning} standing={standing}>
      <div className="grid gap-x-[18px] lg:h-full lg:min-h-0 lg:grid-cols-[minmax(0,1fr)_286px] lg:grid-rows-[minmax(0,1fr)_auto]">
        <div className="relative flex min-h-0 flex-col lg:col-start-1 lg:row-start-1">
          {sweep.on && <SweepBar sweep={sweep} />}
          <div className="relative min-h-0 flex-1">
            <FieldMap
              surface={surface}
              clusters={reckoning?.clusters ?? []}
              handle={map}
              left={reckoning ? reckoning.planned.steps.filter((s) => s.technique !== 'leave').length : null}
            />
            <p className="pointer-events-none text-[0.76rem] leading-tight text-soft lg:absolute lg:inset-x-0 lg:bottom-0 lg:bg-sheet/85">
              <b className="font-semibold text-ink">Care.</b> Unplugged, discharged, wrist strap on. Needles
              and blades point away from the hand; eye protection. Never wipe the board with the socket open;
              cover it when you walk away.
            </p>
          </div>
          <MapBar
            surface={surface}
            onPhotos={toPhotos}
            onSweep={sweep.toggle}
            onFit={() => map.current?.fit()}
            onZoom={(f) => map.current?.zoom(f)}
          />
        </div>
        <ContactPanel surface={surface} step={step} strokes={strokes} advice={advice} onTried={tried} />
        <SocketTabs
          surface={behind}
          reckoning={reckoning}
          advice={advice}
          eye={eye}
          giveBack={giveBack}
          open={tab}
          onOpen={setTab}
        />
      </div>
    </StationSurface>
  )
}

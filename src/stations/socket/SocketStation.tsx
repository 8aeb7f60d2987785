'use client'
import type { StrokeResult } from '@/core/socket/slice'

import Link from 'next/link'
import { useCallback, useEffect, useRef, useState } from 'react'
import { fieldOf } from '@/core/socket/model/socket'
import type { Socket } from '@/core/socket/model/socket'
import { useJob } from '@/job/JobProvider'
import { usePointed } from '@/frame/point'
import { StationFoot } from '@/frame/StationFoot'
import { StationLink } from '@/frame/StationLink'
import { StationStep } from '@/frame/StationStep'
import { Caution } from '@/ui/Caution'
import { ContactPanel } from './straighten/ContactPanel'
import { useEyepiece } from './straighten/Eyepiece'
import type { FieldHandle } from './map/FieldCanvas'
import { FieldMap } from './map/FieldMap'
import { MapBar } from './map/MapBar'
import { PhotoMap } from './photo/PhotoMap'
import { SocketTabs } from './SocketTabs'
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
    <>
      <StationStep station="socket" />
      <p className="mt-4 max-w-xl">
        The map needs the socket’s geometry.{' '}
        <StationLink to="intake" part="board" className="underline">
          Choose it in the ticket
        </StationLink>
        , or{' '}
        <Link href="/library" className="underline">
          read it into the library
        </Link>{' '}
        from a table.
      </p>
      <StationFoot station="socket" />
    </>
  )
}

function Mapped({ socket }: { socket: Socket }) {
  const surface = useSurface(socket)
  const eye = useEyepiece()
  const { reckoning, fresh, failed, weigh, giveBack } = useReckoning(socket, eye.factors)
  const map = useRef<FieldHandle>(null)
  const planned = reckoning?.planned.steps.find((s) => s.contact === surface.cursor) ?? null
  /** One that is better left may be worked all the same; what is advised stands beside it. */
  const step = planned?.otherwise ?? planned
  const [extra, setExtra] = useState(0)
  const strokes = Math.max(1, (step?.strokes ?? 1) + extra)
  const put = useJob((j) => j.put)

  const advice = usePush(surface, step, weigh, eye.factors)

  function tried(result: StrokeResult) {
    if (!step) return
    const { contact, technique, tool, from, snaps, snapFactor } = step
    const mark = surface.marks[contact]
    put('stroke', {
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
    const next = reckoning?.planned.steps.find((s) => s.contact !== contact && s.technique !== 'leave')
    if (next && (result === 'there' || result === 'snapped')) surface.go(next.contact)
  }
  const [photos, setPhotos] = useState(false)
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
    away: photos,
    sweep,
  })

  const begun = useRef(false)
  const firstStep = reckoning?.planned.steps[0]?.contact
  const { go } = surface
  const point = useCallback(
    (part: string) => {
      if (!fieldOf(socket).named.has(part)) return
      begun.current = true
      go(part)
    },
    [socket, go],
  )
  usePointed(point)
  const reckoned = reckoning !== null
  useEffect(() => {
    if (begun.current || !reckoned) return
    begun.current = true
    if (firstStep) go(firstStep)
  }, [reckoned, firstStep, go])

  if (photos)
    return (
      <>
        <StationStep station="socket" work={reckoning} />
        <PhotoMap surface={surface} onClose={toPhotos} />
        <StationFoot station="socket" />
      </>
    )
  return (
    <>
      <StationStep station="socket" work={reckoning} />
      {sweep.on && <SweepBar sweep={sweep} />}
      <div className="mt-2.5 grid grid-cols-[minmax(0,1fr)_204px] gap-x-[18px]">
        <div>
          <FieldMap surface={surface} clusters={reckoning?.clusters ?? []} handle={map} />
          <MapBar
            surface={surface}
            onPhotos={toPhotos}
            onSweep={sweep.toggle}
            onFit={() => map.current?.fit()}
            onZoom={(f) => map.current?.zoom(f)}
          />
        </div>
        <ContactPanel surface={surface} step={step} strokes={strokes} advice={advice} onTried={tried} />
      </div>
      <Standing surface={surface} reckoning={reckoning} fresh={fresh} failed={failed} />
      <SocketTabs surface={surface} reckoning={reckoning} advice={advice} eye={eye} giveBack={giveBack} />
      <div className="mt-4">
        <Caution>
          Unplug, discharge, wrist strap on. Needles and blades point away from the hand; eye protection.
          Never wipe the board with the socket open; cover it when you walk away.
        </Caution>
      </div>
      <StationFoot station="socket" />
    </>
  )
}

'use client'
import type { Remote } from 'comlink'
import { useEffect, useMemo, useRef, useState } from 'react'
import { isFound } from '@/core/parts/found'
import { refsOf } from '@/core/parts/life'
import type { BoardSide } from '@/core/parts/board-map/board-map'
import type { Meeting, PadsByMap } from '@/core/parts/board-map/known-of-part'
import { currentPass } from '@/core/socket/slice'
import { isDamage } from '@/core/socket/damage/mark'
import { useJob } from '@/job/JobProvider'
import { latestOnly } from '@/job/latest-only'
import { remoteOf } from '@/ui/remote'
import type { BoardMapWorker, MapOpened, PartTold } from '@/workers/board-map.worker'

/** Where the map of the job’s board stands. */
type Standing = 'no board' | 'opening' | 'none kept' | 'failed' | MapOpened

/** Places whose small parts can be listed. */
export const mapPlaces = [
  'round the socket',
  'at the core regulator',
  'at the firmware chip',
  'at memory',
] as const
type MapPlace = (typeof mapPlaces)[number]

interface NetTold {
  readonly net: string
  readonly parts: readonly { readonly ref: string; readonly pin: string }[]
}

/**
 * The board of the job as its netlist and placement list have it, read in a worker; a part and a net in hand.
 * @param pads the part whose pads are read
 */
export function useBoardMap(isOpen: boolean, pads: string | null) {
  const board = useJob((j) => j.state.intake.ticket.boardModelId)
  const socket = useJob((j) => j.socket)
  const parts = useJob((j) => j.state.parts)
  const pass = useJob((j) => currentPass(j.state.socket))
  const [read, setRead] = useState<{ of: string; is: Standing } | null>(null)
  const [side, setSide] = useState<BoardSide>('top')
  const [part, setPart] = useState<PartTold | null>(null)
  const [net, setNet] = useState<NetTold | null>(null)
  const [typed, setTyped] = useState('')
  const [found, setFound] = useState<{ parts: readonly string[]; nets: readonly string[] } | null>(null)
  const [meets, setMeets] = useState<readonly Meeting[]>([])
  const worker = useRef<Remote<BoardMapWorker> | null>(null)
  // It is read once it is first wanted, and stays.
  const [wanted, setWanted] = useState(isOpen)
  if (isOpen && !wanted) setWanted(true)
  const key = board && wanted ? `${board} ${socket?.id ?? ''}` : null

  useEffect(() => {
    if (key === null || !board) return
    const thread = new Worker(new URL('../../../workers/board-map.worker.ts', import.meta.url), {
      type: 'module',
    })
    const remote = remoteOf<BoardMapWorker>(thread)
    let here = true
    thread.addEventListener('error', () => here && setRead({ of: key, is: 'failed' }))
    void remote
      .open(board, socket?.contacts.map((c) => c.name) ?? [])
      .then((opened): Standing => opened ?? 'none kept')
      .catch((): Standing => 'failed')
      .then((is) => {
        if (!here) return
        worker.current = is === 'failed' || is === 'none kept' ? null : remote
        setRead({ of: key, is })
      })
    return () => {
      here = false
      worker.current = null
      thread.terminate()
    }
  }, [key, board, socket])

  const standing: Standing = !board ? 'no board' : read && read.of === key ? read.is : 'opening'
  const opened = typeof standing === 'string' ? null : standing

  const refs = useMemo(
    () => refsOf(parts).filter((ref) => parts.noted.some((p) => p.ref === ref && isFound(p))),
    [parts],
  )
  const damaged = useMemo(
    () => Object.entries(pass?.marks ?? {}).flatMap(([name, mark]) => (isDamage(mark) ? [name] : [])),
    [pass],
  )
  useEffect(() => {
    if (!opened) return
    let here = true
    void worker.current?.meetings(damaged, refs).then((m) => here && setMeets(m))
    return () => {
      here = false
    }
  }, [opened, damaged, refs])
  const [byMap, setByMap] = useState<{ of: string; is: PadsByMap | null } | null>(null)
  useEffect(() => {
    if (!opened || pads === null) return
    let here = true
    void worker.current?.part(pads).then((told) => here && setByMap({ of: pads, is: told?.pads ?? null }))
    return () => {
      here = false
    }
  }, [opened, pads])
  const seek = useRef<((text: string) => void) | null>(null)
  useEffect(() => {
    seek.current = latestOnly(async (text) => {
      const remote = worker.current
      setFound(remote && text.trim() ? await remote.find(text) : null)
    })
  }, [])

  const seekAt = async (place: MapPlace) => {
    setTyped('')
    setFound({ parts: (await worker.current?.at(place)) ?? [], nets: [] })
  }
  const choosePart = async (ref: string) => {
    const told = (await worker.current?.part(ref)) ?? null
    setPart(told)
    setNet(null)
    if (told) setSide(told.side)
  }
  const chooseNet = async (name: string) =>
    setNet({ net: name, parts: (await worker.current?.net(name)) ?? [] })
  /** Takes the first that is called as was typed, however soon it is asked for. */
  const takeFirst = async () => {
    const { parts: refs, nets } = (await worker.current?.find(typed)) ?? { parts: [], nets: [] }
    if (refs[0] !== undefined) await choosePart(refs[0])
    else if (nets[0] !== undefined) await chooseNet(nets[0])
  }
  return {
    standing,
    opened,
    part,
    net,
    side,
    flip: () => setSide(side === 'top' ? 'bottom' : 'top'),
    typed,
    found,
    find: (text: string) => {
      setTyped(text)
      seek.current?.(text)
    },
    /** Lists the small parts at a place. */
    seekAt: (place: MapPlace) => void seekAt(place),
    takeFirst: () => void takeFirst(),
    choosePart: (ref: string) => void choosePart(ref),
    chooseNet: (name: string) => void chooseNet(name),
    letGo: () => {
      setPart(null)
      setNet(null)
    },
    meets,
    damaged,
    /** What the map knows of the part whose pads are read. */
    pads: byMap && byMap.of === pads ? byMap.is : null,
  }
}
export type BoardMapInHand = ReturnType<typeof useBoardMap>

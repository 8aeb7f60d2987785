'use client'
import dynamic from 'next/dynamic'
import Link from 'next/link'
import { useMemo, useRef, useState } from 'react'
import { lifeOf, refsOf } from '@/core/parts/life'
import type { View } from '@/core/socket/map/display-list'
import { useKeyHint, useKeys } from '@/frame/use-keys'
import { useSize } from '@/ui/use-size'
import { MapMove } from '@/ui/MapMove'
import { useJob } from '@/job/JobProvider'
import type { BoardHandle } from './BoardCanvas'
import { boxOf, placeOf } from './draw-board'
import type { Marked } from './draw-board'
import type { BoardMapInHand } from './use-board-map'

const BoardCanvas = dynamic(() => import('./BoardCanvas'), {
  ssr: false,
  loading: () => <p className="p-4 text-soft">Laying out the board…</p>,
})

/** A side of the board as it is held, and how it is turned. */
export function BoardView({ map, isOpen }: { map: BoardMapInHand; isOpen: boolean }) {
  const { opened, standing, side, flip, part, net } = map
  const parts = useJob((j) => j.state.parts)
  const boardId = useJob((j) => j.state.intake.ticket.boardModelId)
  const [turns, setTurns] = useState<View['quarterTurns']>(0)
  const [mirrored, setMirrored] = useState(false)
  const handle = useRef<BoardHandle>(null)
  const shown = opened !== null && isOpen
  const { frame, size } = useSize(shown)
  const turn = () => setTurns(((turns + 1) % 4) as View['quarterTurns'])
  const hint = useKeyHint()
  useKeys(
    shown
      ? {
          flipBoard: flip,
          turnBoard: turn,
          mirrorBoard: () => setMirrored(!mirrored),
          nearBoard: () => handle.current?.zoom(1.6),
          farBoard: () => handle.current?.zoom(1 / 1.6),
          wholeBoard: () => handle.current?.whole(),
        }
      : {},
  )
  const marked = useMemo((): readonly Marked[] => {
    if (!opened) return []
    const { drawing, contacts } = opened
    const found = refsOf(parts).flatMap((ref) => {
      const p = drawing.parts.indexOf(ref)
      if (p < 0 || drawing.partSide[p] !== side) return []
      const { last, across } = lifeOf(parts, ref)
      const settled = across ? across.fits : last.did === 'fitted'
      const word =
        last.did === 'found missing' ? 'missing' : last.did === 'found damaged' ? last.how : last.did
      return [{ box: boxOf(drawing, p), label: [ref, word].filter(Boolean).join(' '), settled }]
    })
    const touched =
      side === 'top'
        ? map.damaged.flatMap((name) => {
            const i = contacts[name]
            if (i === undefined) return []
            const [x, y, w, h] = placeOf(drawing, i)
            const box = [x - w / 2, y - h / 2, x + w / 2, y + h / 2] as const
            return [{ box, label: '', settled: false }]
          })
        : []
    return [...touched, ...found]
  }, [opened, parts, side, map.damaged])

  if (!opened)
    return (
      <div className="pt-2 text-soft" role="status">
        {standing === 'opening' ? (
          <p>Reading the board map…</p>
        ) : standing === 'no board' ? (
          <p>No board model is named on the ticket: its map is kept with the model.</p>
        ) : standing === 'failed' ? (
          <p>The map did not come. Open the tab again.</p>
        ) : (
          <p>
            No map is kept of this board.{' '}
            <Link href={`/library/boards/${boardId}#map`} className="underline">
              Import its netlist or placement list
            </Link>{' '}
            in the library; until then parts are noted by hand.
          </p>
        )}
      </div>
    )
  const { drawing } = opened
  return (
    <div className="flex min-h-0 flex-col max-lg:aspect-[100/80] lg:h-full">
      <div
        ref={frame}
        role="img"
        aria-label={`The ${side} of the board: ${opened.parts} parts, ${opened.nets} nets. What is in hand stands in words beside it.`}
        data-board={`${side} ${turns} ${mirrored ? 'mirrored' : 'plain'}`}
        className="min-h-0 flex-1 touch-none overflow-hidden"
      >
        {size && (
          <BoardCanvas
            drawing={drawing}
            side={side}
            turns={turns}
            mirrored={mirrored}
            part={part?.ref ?? null}
            net={net?.net ?? null}
            marked={marked}
            width={size.width}
            height={size.height}
            handle={handle}
            onPart={(ref) => (ref === null ? map.letGo() : map.choosePart(ref))}
          />
        )}
      </div>
      <p className="flex h-[26px] shrink-0 items-center gap-x-2.5 text-[0.8rem] whitespace-nowrap text-soft">
        <MapMove name={`${side} side`} hint={hint('flipBoard')} onPress={flip} />
        <MapMove name={`turn ${turns * 90}°`} hint={hint('turnBoard')} onPress={turn} />
        <MapMove
          name={mirrored ? 'mirrored' : 'mirror'}
          on={mirrored}
          hint={hint('mirrorBoard')}
          onPress={() => setMirrored(!mirrored)}
        />
        <MapMove name="+" says="nearer" hint={hint('nearBoard')} onPress={() => handle.current?.zoom(1.6)} />
        <MapMove
          name="−"
          says="farther"
          hint={hint('farBoard')}
          onPress={() => handle.current?.zoom(1 / 1.6)}
        />
        <MapMove name="whole" hint={hint('wholeBoard')} onPress={() => handle.current?.whole()} />
      </p>
    </div>
  )
}

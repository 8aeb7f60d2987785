'use client'
import { Count } from '@/ui/reader'
import { useState } from 'react'
import { DRAWN_TIMES } from '@/core/socket/photo/displacement'
import type { Merged } from '@/core/socket/photo/merge'
import type { Suspect } from '@/core/socket/photo/suspect'
import type { Socket } from '@/core/socket/model/socket'
import { Button } from '@/ui/Button'
import type { PhotoInHand } from './photo-in-hand'

/** What the photos come to, and taking it onto the map. */
export function PhotoResult({
  merged,
  asked,
  fine,
  photos,
  socket,
  onTake,
  ask,
  onWrong,
}: {
  merged: Merged
  asked: readonly Suspect[]
  fine: number
  photos: readonly PhotoInHand[]
  socket: Socket
  onTake: () => void
  /** Other ways the field could lie that fit as well. */
  ask: readonly string[]
  onWrong: () => void
}) {
  const unseen = socket.contacts.length - merged.seen
  const [sure, setSure] = useState(false)
  const spread = Math.max(...photos.map((p) => p.answer?.located?.spreadMm ?? 0))
  const count = (as: Suspect['as']) => asked.filter((s) => s.as === as).length
  return (
    <div className="mb-3" role="status">
      <p className="text-[1.05rem] leading-snug font-semibold">
        <Count n={fine} /> in place, {asked.length} to look at.
      </p>
      <ul className="mt-1 leading-snug">
        <li>
          {count('displaced')} displaced, {count('missing')} without a tip, {count('ambiguous')} that cannot
          be told, {count('in place')} that look different
        </li>
        {unseen > 0 && (
          <li className="text-brass">
            <b className="font-semibold">
              <Count n={unseen} /> not inspected
            </b>
            : no photo shows them
          </li>
        )}
        {merged.disagreements.length > 0 && (
          <li className="text-ember">
            the photos do not agree on{' '}
            {merged.disagreements
              .map((d) => d.name)
              .slice(0, 8)
              .join(', ')}
            {merged.disagreements.length > 8 && ` and ${merged.disagreements.length - 8} more`}
          </li>
        )}
        {!photos.some((p) => p.side && p.answer?.located) && (
          <li className="text-soft">
            heights are not told: a photo from the side, read beside this one, adds them
          </li>
        )}
        <li className="text-soft">
          healthy tips scatter by {(spread * 1000).toFixed(0)} µm; on the photo each tip’s way from its place
          is drawn
          {` ${DRAWN_TIMES} `}times as long
        </li>
      </ul>
      {ask.length > 0 && !sure ? (
        <div role="alert" className="mt-2 border-l-4 border-brass pl-3">
          <p>
            The field would fit this photo as well {ask.join(', or ')}: only the pin-1 mark tells. Is{' '}
            <b className="num font-semibold">{socket.contacts[0]!.name}</b>, as the clicks have it, at the
            mark?
          </p>
          <div className="mt-1 flex gap-2">
            <Button look="first" onClick={() => setSure(true)}>
              Yes, it is there
            </Button>
            <Button onClick={onWrong}>No, click again</Button>
          </div>
        </div>
      ) : (
        <Button look="first" className="mt-2" onClick={onTake}>
          Take it onto the map
        </Button>
      )}
    </div>
  )
}

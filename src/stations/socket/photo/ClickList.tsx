'use client'
import { nextToClick, parts, roughly, whereIs } from '@/core/socket/photo/clicks'
import type { NextClick } from '@/core/socket/photo/clicks'
import { fieldOf } from '@/core/socket/model/socket'
import { Button } from '@/ui/Button'
import { Choice } from '@/ui/Choice'
import { SelectField, TextField } from '@/ui/Field'
import { useKeyHint, useKeys } from '@/frame/use-keys'
import type { PhotoInHand } from './photo-in-hand'
import type { PhotoMapping } from './use-photo-map'
import type { Surface } from '@/stations/socket/map/use-surface'

/** What is to be clicked next: the suggestion, or what was typed. */
export function nextClick(photo: PhotoInHand, surface: Surface, typed: string): NextClick | null {
  const { socket, marks } = surface
  const { anchors, mirrored, part, size } = photo
  const wanted = typed.trim().toUpperCase()
  if (wanted) {
    const c = fieldOf(socket).named.get(wanted)
    return c
      ? { contact: wanted, aboutPx: roughly(socket, anchors, mirrored)?.([c.xMm, c.yMm]) ?? null }
      : null
  }
  return size && nextToClick(socket, marks, { part, anchors, mirrored, ...size })
}

/** What to click, what is clicked, and reading it. */
export function ClickList({
  photo,
  mapping,
  surface,
}: {
  photo: PhotoInHand
  mapping: PhotoMapping
  surface: Surface
}) {
  const { socket } = surface
  const { typed, setTyped } = mapping
  const next = nextClick(photo, surface, typed)
  const known = photo.side ? (mapping.above?.answer?.located ?? null) : null
  const enough = photo.anchors.length >= 4 && photo.size !== null && (!photo.side || known !== null)
  const read = () => void mapping.read(photo, known)
  const hint = useKeyHint()
  useKeys({ readPhoto: () => photo.progress === null && read() }, enough)
  const { change } = mapping
  if (!photo.size) return null
  const faults = photo.answer?.faults ?? []
  return (
    <div className="border-t border-line pt-2">
      <p className="text-[1.05rem] leading-snug font-semibold">
        {photo.side && !mapping.above
          ? 'Read a photo from straight above first: this one is told against it.'
          : photo.anchors.length < 4
            ? next
              ? `Click the tip of ${next.contact}: ${whereIs(socket, next.contact)}.`
              : `${socket.name} has no contact ${typed}.`
            : photo.answer?.located
              ? 'Read. Another click may be added and it is read again.'
              : 'Four are clicked. Read it.'}
      </p>
      {photo.progress === null ? (
        <p className="mt-2 flex flex-wrap gap-2">
          <Button look="first" keyHint={hint('readPhoto')} onClick={read} disabled={!enough}>
            Read the photo
          </Button>
          <Button look="bare" onClick={() => mapping.remove(photo.id)}>
            Put it away
          </Button>
        </p>
      ) : (
        <p className="mt-2 flex items-center gap-2" role="status">
          <progress
            value={photo.progress}
            max={1}
            className="h-2 flex-1"
            aria-label={`Reading ${photo.name}`}
          />
          <Button onClick={() => mapping.cancel(photo.id)}>Stop</Button>
        </p>
      )}
      {faults.map((f) => (
        <p
          key={f.text}
          role={photo.answer?.located ? undefined : 'alert'}
          className={`mt-2 border-l-4 pl-3 leading-snug ${photo.answer?.located ? 'border-brass' : 'border-ember'}`}
        >
          {f.text.charAt(0).toUpperCase() + f.text.slice(1)}.
        </p>
      ))}
      <ul className="mt-2 text-[0.95rem]">
        {photo.anchors.map((a) => (
          <li key={a.contact} className="flex justify-between border-b border-line">
            <span>
              <span className="num">{a.contact}</span>{' '}
              <span className="text-soft">{whereIs(socket, a.contact)}</span>
            </span>
            <button
              type="button"
              className="text-soft underline"
              aria-label={`Take the click on ${a.contact} away`}
              onClick={() =>
                change(photo.id, { answer: null, anchors: photo.anchors.filter((b) => b !== a) })
              }
            >
              away
            </button>
          </li>
        ))}
      </ul>
      <TextField
        label="Click another contact"
        value={typed}
        placeholder={next?.contact ?? 'such as M31'}
        onChange={(e) => setTyped(e.target.value)}
      />
      <div className="mt-2">
        <SelectField
          label="What it shows"
          value={photo.part}
          onChange={(e) => change(photo.id, { part: e.target.value as PhotoInHand['part'] })}
        >
          {parts.map((part) => (
            <option key={part} value={part}>
              {part === 'whole' ? 'the whole field' : `a part, ${part}`}
            </option>
          ))}
        </SelectField>
        <Choice
          label="Seen"
          value={photo.mirrored ? 'mirrored' : 'plain'}
          options={['plain', 'mirrored']}
          onChange={(as) => change(photo.id, { mirrored: as === 'mirrored', answer: null })}
        />
        <Choice
          label="Taken from"
          value={photo.side ? 'the side' : 'above'}
          options={['above', 'the side']}
          onChange={(from) =>
            change(photo.id, {
              side: from === 'above' ? null : { tiltDeg: 35, towardsDeg: 270 },
              answer: null,
            })
          }
        />
        {photo.side && <FromTheSide photo={photo} mapping={mapping} />}
      </div>
    </div>
  )
}

/** How far the eye leans over, and to which side. */
function FromTheSide({ photo, mapping }: { photo: PhotoInHand; mapping: PhotoMapping }) {
  const { change } = mapping
  if (!photo.side) return null
  return (
    <span className="grid grid-cols-2 gap-2">
      <TextField
        label="Tilt, degrees"
        inputMode="numeric"
        defaultValue={photo.side.tiltDeg}
        onChange={(e) => {
          const tiltDeg = Number(e.target.value)
          if (tiltDeg >= 30 && tiltDeg < 75)
            change(photo.id, { side: { ...photo.side!, tiltDeg }, answer: null })
        }}
      />
      <TextField
        label="Eye towards, degrees"
        inputMode="numeric"
        defaultValue={photo.side.towardsDeg}
        onChange={(e) => {
          const towardsDeg = Number(e.target.value)
          if (Number.isFinite(towardsDeg))
            change(photo.id, { side: { ...photo.side!, towardsDeg }, answer: null })
        }}
      />
      <span className="col-span-2 text-[0.88rem] text-soft">
        30° to 74° from straight above; 0 is from the right, 90 from the far side, 270 from the near side.
      </span>
    </span>
  )
}

'use client'
import { useMemo, useState } from 'react'
import { contactsToClick, whereIs } from '@/core/socket/photo/clicks'
import { suspects } from '@/core/socket/photo/suspect'
import type { Suspect } from '@/core/socket/photo/suspect'
import { fieldOf } from '@/core/socket/socket'
import { useJob } from '@/stations/job/JobProvider'
import { usePhotos } from '@/stations/job/use-photos'
import { Button } from '@/ui/Button'
import { Choice } from '@/ui/Choice'
import { TextField } from '@/ui/Field'
import { useKeys } from '@/ui/keys'
import { PhotoClicks } from './PhotoClicks'
import { PhotoResult } from './PhotoResult'
import { PhotoSources } from './PhotoSources'
import { PhotoSuspects } from './PhotoSuspects'
import type { Settled } from './PhotoSuspects'
import { usePhotoMap } from './use-photo-map'
import type { PhotoInHand, PhotoMapping } from './use-photo-map'
import type { Surface } from './use-surface'

/** From photos to the map: four clicks, every tip found, and only what breaks the pattern is asked about. */
export function PhotoMap({ surface, onClose }: { surface: Surface; onClose: () => void }) {
  const mapping = usePhotoMap(surface.socket)
  const { photos, photo, merged } = mapping
  const put = useJob((j) => j.put)
  const { add: keep } = usePhotos()
  const [settled, setSettled] = useState<Settled | null>(null)
  const asked = useMemo(() => (merged ? suspects(surface.socket, merged) : []), [merged, surface.socket])
  const fine = useMemo(() => {
    const names = new Set(asked.map((s) => s.name))
    return merged?.tips.filter((t) => t.as === 'in place' && !names.has(t.name)).map((t) => t.name) ?? []
  }, [merged, asked])

  const take = () => {
    if (fine.length > 0)
      put('looked', {
        contacts: fine,
        photo: photos
          .map((p) => p.name)
          .join(', ')
          .slice(0, 190),
      })
    keep(
      photos.filter((p) => p.answer?.located).map((p) => new File([p.file], p.name, { type: p.file.type })),
    )
    setSettled({})
    if (asked[0]) surface.go(asked[0].name)
  }
  return (
    <section aria-label="Map from photos" className="mt-2.5">
      <div className="flex items-baseline justify-between gap-4 border-b border-line pb-1.5">
        <h2>From photos</h2>
        <Button look="bare" keyHint="y" onClick={onClose}>
          {settled ? 'Done, to the map' : 'Back to the map'}
        </Button>
      </div>
      {settled ? (
        <div className="pt-3">
          <PhotoSuspects
            surface={surface}
            asked={asked}
            photos={photos}
            settled={settled}
            onSettle={(name, as) => setSettled((now) => ({ ...now, [name]: as }))}
          />
        </div>
      ) : (
        <div className={photo ? 'grid grid-cols-[minmax(0,1fr)_270px] gap-x-5 pt-2.5' : 'pt-2.5'}>
          <div>
            {photos.length > 1 && <Strip mapping={mapping} />}
            {photo ? (
              <OnePhoto key={photo.id} photo={photo} asked={asked} mapping={mapping} surface={surface} />
            ) : (
              <PhotoSources mapping={mapping} />
            )}
          </div>
          {photo && (
            <div>
              {merged && (
                <PhotoResult
                  merged={merged}
                  asked={asked}
                  fine={fine.length}
                  photos={photos}
                  socket={surface.socket}
                  onTake={take}
                />
              )}
              <Clicks key={photo.id} photo={photo} mapping={mapping} surface={surface} />
              <PhotoSources mapping={mapping} more />
            </div>
          )}
        </div>
      )}
    </section>
  )
}

/** The photos in hand, and which is shown. */
function Strip({ mapping }: { mapping: PhotoMapping }) {
  return (
    <ul className="mb-2 flex flex-wrap gap-2">
      {mapping.photos.map((p, i) => (
        <li key={p.id}>
          <button
            type="button"
            aria-pressed={p.id === mapping.photo?.id}
            onClick={() => mapping.choose(p.id)}
            className="border-b-2 border-transparent px-1 aria-pressed:border-brass aria-pressed:font-semibold"
          >
            {i + 1}. {p.side ? `from the side, ${p.side.tiltDeg}°` : p.name.slice(0, 24)}
            <span className="text-soft">{p.answer?.located ? ', read' : p.answer ? ', not read' : ''}</span>
          </button>
        </li>
      ))}
    </ul>
  )
}

/** What is to be clicked next: the suggestion, or what was typed. */
function nextClick(photo: PhotoInHand, surface: Surface, typed: string): string | null {
  const wanted = typed.trim().toUpperCase()
  if (wanted) return fieldOf(surface.socket).named.has(wanted) ? wanted : null
  return (
    contactsToClick(surface.socket, surface.marks).find(
      (name) => !photo.anchors.some((a) => a.contact === name),
    ) ?? null
  )
}

function OnePhoto({
  photo,
  asked,
  mapping,
  surface,
}: {
  photo: PhotoInHand
  asked: readonly Suspect[]
  mapping: PhotoMapping
  surface: Surface
}) {
  const next = nextClick(photo, surface, mapping.typed)
  if (photo.fault)
    return (
      <p role="alert" className="border-l-4 border-ember pl-3">
        <b className="font-semibold">{photo.name}</b>: {photo.fault}{' '}
        <Button look="bare" onClick={() => mapping.remove(photo.id)}>
          Put it away
        </Button>
      </p>
    )
  if (!photo.size) return <p className="text-soft">Opening {photo.name}…</p>
  return (
    <PhotoClicks
      photo={photo}
      asked={photo.side ? [] : asked}
      contact={photo.progress === null ? next : null}
      onClick={(px) => {
        if (next) mapping.click(photo, next, px)
        mapping.setTyped('')
      }}
    />
  )
}

/** What to click, what is clicked, and reading it. */
function Clicks({
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
  useKeys({ a: () => photo.progress === null && read() }, enough)
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
              ? `Click the tip of ${next}: ${whereIs(socket, next)}.`
              : `${socket.name} has no contact ${typed}.`
            : photo.answer?.located
              ? 'Read. Another click may be added and it is read again.'
              : 'Four are clicked. Read it.'}
      </p>
      {photo.progress === null ? (
        <p className="mt-2 flex flex-wrap gap-2">
          <Button look="first" keyHint="a" onClick={read} disabled={!enough}>
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
            className="h-2 flex-1 accent-[var(--brass)]"
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
        placeholder={next ?? 'such as M31'}
        onChange={(e) => setTyped(e.target.value)}
      />
      <div className="mt-2">
        <Choice
          label="Shows it"
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
        {photo.side && (
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
              30° to 74° from straight above; 0 is from the right, 90 from the far side, 270 from the near
              side.
            </span>
          </span>
        )}
      </div>
    </div>
  )
}

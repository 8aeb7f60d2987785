'use client'
import { useKeyHint } from '@/frame/use-keys'
import { useEffect, useMemo, useState } from 'react'
import { cutText } from '@/core/tables/plain-text'
import { suspects } from '@/core/socket/photo/suspect'
import type { Suspect } from '@/core/socket/photo/suspect'
import { useJob } from '@/job/JobProvider'
import { usePhotos } from '@/job/use-photos'
import { Button } from '@/ui/Button'
import { ClickList, nextClick } from './ClickList'
import { PhotoClicks } from './PhotoClicks'
import { PhotoResult } from './PhotoResult'
import { PhotoSources } from './PhotoSources'
import { PhotoSuspects } from './PhotoSuspects'
import type { Settled } from './PhotoSuspects'
import { usePhotoMap } from './use-photo-map'
import type { PhotoInHand } from './photo-in-hand'
import type { PhotoMapping } from './use-photo-map'
import type { Surface } from '@/stations/socket/map/use-surface'

/** From photos to the map: four clicks, every tip found, and only what breaks the pattern is asked about. */
export function PhotoMap({ surface, onClose }: { surface: Surface; onClose: () => void }) {
  const hint = useKeyHint()
  const mapping = usePhotoMap(
    useJob((j) => j.tag),
    surface.socket,
  )
  const { photos, photo, merged } = mapping
  const append = useJob((j) => j.append)
  const { add: keep } = usePhotos()
  const [settled, setSettled] = useState<Settled | null>(null)
  const asked = useMemo(() => (merged ? suspects(surface.socket, merged) : []), [merged, surface.socket])
  const fine = useMemo(() => {
    const names = new Set(asked.map((s) => s.name))
    return merged?.tips.filter((t) => t.as === 'in place' && !names.has(t.name)).map((t) => t.name) ?? []
  }, [merged, asked])

  const { done } = mapping
  const allSettled = settled !== null && asked.every((s) => settled[s.name])
  useEffect(() => {
    if (allSettled) done()
  }, [allSettled, done])

  const take = () => {
    if (fine.length > 0)
      append('looked', {
        contacts: fine,
        photo: cutText(photos.map((p) => p.name).join(', '), 190),
      })
    keep(
      photos
        .filter((p) => p.answer?.located && !p.kept)
        .map((p) => new File([p.file], p.name, { type: p.file.type })),
    )
    setSettled({})
    if (asked[0]) surface.go(asked[0].name)
  }
  return (
    <section aria-label="Map from photos" className="mt-2.5">
      <div className="flex items-baseline justify-between gap-4 border-b border-line pb-1.5">
        <h2>From photos</h2>
        <Button look="bare" keyHint={hint('fromPhotos')} onClick={onClose}>
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
                  ask={[...new Set(photos.flatMap((p) => p.answer?.ask ?? []))]}
                  onWrong={() => mapping.change(photo.id, { anchors: [], answer: null })}
                />
              )}
              <ClickList key={photo.id} photo={photo} mapping={mapping} surface={surface} />
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
      socket={surface.socket}
      asked={photo.side ? [] : asked}
      contact={photo.progress === null ? (next?.contact ?? null) : null}
      aboutPx={next?.aboutPx ?? null}
      onClick={(px) => {
        if (next) mapping.click(photo, next.contact, px)
        mapping.setTyped('')
      }}
    />
  )
}

'use client'
import { percent } from '@/core/maths/percent'
import { useEffect, useRef, useState } from 'react'
import { sayMark } from '@/core/socket/damage/mark'
import type { DamageKind } from '@/core/socket/damage/mark'
import { withKind } from '@/core/socket/damage/marking'
import { together } from '@/core/socket/photo/suspect'
import type { Suspect } from '@/core/socket/photo/suspect'
import { fieldOf } from '@/core/socket/model/socket'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { suspectKinds } from '@/frame/key-table'
import { useKeyHint, useKeys } from '@/frame/use-keys'
import { letGo } from '@/ui/keys'
import type { PhotoInHand } from './photo-in-hand'
import type { Surface } from '@/stations/socket/map/use-surface'

export type Settled = Readonly<Record<string, 'marked' | 'fine'>>

/** What breaks the pattern, one after another: confirm, say what it is, or dismiss; one key each. */
export function PhotoSuspects({
  surface,
  asked,
  photos,
  settled,
  onSettle,
}: {
  surface: Surface
  asked: readonly Suspect[]
  photos: readonly PhotoInHand[]
  settled: Settled
  onSettle: (name: string, as: 'marked' | 'fine') => void
}) {
  const append = useJob((j) => j.append)
  const pictures = usePictures(photos)
  const at = Math.max(
    0,
    asked.findIndex((s) => s.name === surface.cursor),
  )
  const here = asked[at]
  const go = (by: number) => {
    const next = asked[(at + by + asked.length) % asked.length]
    if (next) surface.go(next.name)
  }
  const settle = (suspect: Suspect, as: 'marked' | 'fine') => {
    onSettle(suspect.name, as)
    const open = asked.filter((s) => !settled[s.name] && s.name !== suspect.name)
    const next = open.find((s) => asked.indexOf(s) > at) ?? open[0]
    if (next) surface.go(next.name)
  }
  const confirm = (suspect: Suspect) => {
    append('mark', { contacts: [suspect.name], mark: together(surface.marks[suspect.name], suspect.mark) })
    settle(suspect, 'marked')
  }
  const dismiss = (suspect: Suspect) => {
    append('mark', { contacts: [suspect.name], mark: { kind: 'intact' } })
    settle(suspect, 'fine')
  }
  const correct = (suspect: Suspect, kind: DamageKind) => {
    const { unsure: _, maybe: __, ...measured } = suspect.mark
    append('mark', {
      contacts: [suspect.name],
      mark: withKind(surface.socket, surface.view, suspect.name, measured, kind),
    })
    settle(suspect, 'marked')
  }
  useKeys({ nextSuspect: () => go(1), previousSuspect: () => go(-1) })
  useKeys(
    {
      confirm: () => here && confirm(here),
      dismiss: () => here && dismiss(here),
      ...Object.fromEntries(
        suspectKinds.map((kind) => [`suspect.${kind}`, () => here && correct(here, kind)]),
      ),
    },
    here !== undefined && here !== null,
  )
  const hint = useKeyHint()
  if (!here) return <p className="text-soft">Nothing breaks the pattern in what the photos show.</p>
  const c = fieldOf(surface.socket).named.get(here.name)
  const left = asked.filter((s) => !settled[s.name]).length
  const before = surface.marks[here.name]
  const would = together(before, here.mark)
  return (
    <div className="grid grid-cols-[minmax(0,1fr)_260px] gap-x-6">
      <section aria-label="Contacts that break the pattern">
        <p className="text-soft">
          {asked.length} break the pattern, {left} still to look at
        </p>
        <ul className="mt-1 grid max-h-[430px] grid-cols-[repeat(auto-fill,minmax(112px,1fr))] gap-2 overflow-y-auto">
          {asked.map((s) => (
            <li key={s.name}>
              <button
                type="button"
                aria-current={s === here ? 'true' : undefined}
                onClick={(event) => {
                  letGo(event)
                  surface.go(s.name)
                }}
                className={`block w-full border-2 text-left ${s === here ? 'border-brass' : 'border-transparent'}`}
              >
                <Crop suspect={s} photos={photos} pictures={pictures} sizePx={104} />
                <span className="num">{s.name}</span>{' '}
                <span
                  className={`text-[0.86rem] ${settled[s.name] === 'fine' ? 'text-verd' : settled[s.name] ? 'text-ink' : 'text-soft'}`}
                >
                  {settled[s.name] === 'fine' ? 'fine' : settled[s.name] ? 'marked' : s.as}
                </span>
              </button>
            </li>
          ))}
        </ul>
      </section>
      <aside aria-label="The one under the needle">
        <Crop suspect={here} photos={photos} pictures={pictures} sizePx={252} wideMm />
        <h3 className="num mt-2 text-2xl leading-none font-medium!">{here.name}</h3>
        <p className="text-soft">
          {c?.group}, {c?.net}
        </p>
        <p className="mt-1 leading-snug">
          {here.say.charAt(0).toUpperCase() + here.say.slice(1)}
          {here.heightMm !== null && !/low|high/.test(here.say) && Math.abs(here.heightMm) > 0.04
            ? `, ${here.heightMm < 0 ? 'low' : 'high'} by ${Math.abs(here.heightMm).toFixed(2)} mm`
            : ''}
          {would.unsure ? '' : `, ${percent(here.confidence)} sure`}.{' '}
          {before && <>On the map: {sayMark(before)}. </>}
          Would be marked: <b className="font-semibold">{sayMark(would)}</b>.
        </p>
        <div className="mt-2 flex flex-col gap-1.5 [&>button]:py-1.5">
          <Button look="first" keyHint={hint('confirm')} onClick={() => confirm(here)}>
            Mark it so
          </Button>
          <Button keyHint={hint('dismiss')} onClick={() => dismiss(here)}>
            It is fine
          </Button>
        </div>
        <p className="mt-2 text-[0.9rem] text-soft">
          Or say what it is:{' '}
          {suspectKinds.map((kind) => (
            <button
              key={kind}
              type="button"
              className="mr-2 hover:text-ink"
              onClick={() => correct(here, kind)}
            >
              <kbd className="num">{hint(`suspect.${kind}`)}</kbd> {kind}
            </button>
          ))}
        </p>
      </aside>
    </div>
  )
}

/** Each photo decoded once, turned as its camera was held, for all the crops that are cut from it. */
function usePictures(photos: readonly PhotoInHand[]): ReadonlyMap<string, ImageBitmap> {
  const [pictures, setPictures] = useState<ReadonlyMap<string, ImageBitmap>>(new Map())
  useEffect(() => {
    let here = true
    const made: ImageBitmap[] = []
    for (const { id, file } of photos)
      void createImageBitmap(file, { imageOrientation: 'from-image' }).then((picture) => {
        made.push(picture)
        if (here) setPictures((all) => new Map([...all, [id, picture]]))
        else picture.close()
      })
    return () => {
      here = false
      for (const picture of made) picture.close()
    }
  }, [photos])
  return pictures
}

/** The contact and what is round it, cut from the photo that shows it best. */
function Crop({
  suspect,
  photos,
  pictures,
  sizePx,
  wideMm = false,
}: {
  suspect: Suspect
  photos: readonly PhotoInHand[]
  pictures: ReadonlyMap<string, ImageBitmap>
  sizePx: number
  wideMm?: boolean
}) {
  const canvas = useRef<HTMLCanvasElement>(null)
  const photo = photos.find((p) => p.id === suspect.photo) ?? photos[0]
  const pxPerMm = photo?.answer?.located?.pxPerMm ?? 70
  const [x, y] = suspect.px
  const picture = photo && pictures.get(photo.id)
  useEffect(() => {
    const half = pxPerMm * (wideMm ? 1.5 : 0.85)
    if (picture)
      canvas.current
        ?.getContext('2d')
        ?.drawImage(picture, x - half, y - half, 2 * half, 2 * half, 0, 0, sizePx, sizePx)
  }, [picture, x, y, pxPerMm, sizePx, wideMm])
  return <canvas ref={canvas} width={sizePx} height={sizePx} className="bg-ground" aria-hidden="true" />
}

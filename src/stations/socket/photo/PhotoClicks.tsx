'use client'
import { useMemo, useRef, useState } from 'react'
import type { KeyboardEvent, PointerEvent } from 'react'
import { displacementPath } from '@/core/socket/photo/displacement'
import type { Point } from '@/core/photo/projection'
import type { Suspect } from '@/core/socket/photo/suspect'
import type { Socket } from '@/core/socket/model/socket'
import { inkColours } from '@/core/socket/map/svg'
import type { PhotoInHand } from './photo-in-hand'

const LOUPE_PX = 168
const steps: Readonly<Record<string, Point>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}

/**
 * The photo to click on, whole, with a glass over the pointer that shows it pixel for pixel. Arrows move the cross by
 * one pixel, with shift by forty; Enter sets it.
 */
export function PhotoClicks({
  photo,
  socket,
  contact,
  aboutPx,
  asked,
  onClick,
}: {
  photo: PhotoInHand
  socket: Socket
  contact: string | null
  /** About where the contact to click is. */
  aboutPx: Point | null
  /** Shown on it once it is read. */
  asked: readonly Suspect[]
  onClick: (px: Point) => void
}) {
  const frame = useRef<HTMLDivElement>(null)
  const [at, setAt] = useState<Point | null>(null)
  const { size, answer, side } = photo
  const located = answer?.located ?? null
  // From the side heights shift every tip, so there the field of displacements says nothing.
  const field = useMemo(
    () => (located && !side ? displacementPath(socket, located) : ''),
    [located, side, socket],
  )
  if (!size) return null
  const share = ([x, y]: Point): readonly [string, string] => [
    `${(100 * x) / size.widthPx}%`,
    `${(100 * y) / size.heightPx}%`,
  ]
  const place = (event: PointerEvent): Point => {
    const box = frame.current!.getBoundingClientRect()
    return [
      ((event.clientX - box.left) / box.width) * size.widthPx,
      ((event.clientY - box.top) / box.height) * size.heightPx,
    ]
  }
  const onKey = (event: KeyboardEvent) => {
    const step = steps[event.key]
    const here = at ?? [size.widthPx / 2, size.heightPx / 2]
    if (step) {
      const by = event.shiftKey ? 40 : 1
      setAt([
        Math.min(size.widthPx, Math.max(0, here[0] + step[0] * by)),
        Math.min(size.heightPx, Math.max(0, here[1] + step[1] * by)),
      ])
    } else if (event.key === 'Enter' && at && contact) onClick(at)
    else return
    event.preventDefault()
    event.stopPropagation()
  }
  const far = at && at[1] > size.heightPx / 2
  return (
    <div
      ref={frame}
      role="application"
      tabIndex={0}
      aria-label={`Photo ${photo.name}. ${contact ? `Put the cross on the tip of ${contact} with the arrows, Enter sets it` : 'Four contacts are clicked'}.`}
      className="relative w-full cursor-crosshair touch-none overflow-hidden border border-line outline-none focus-visible:outline-2 focus-visible:outline-brass"
      style={{
        // A field is dark in the photo, whatever the theme.
        ['--brass' as string]: inkColours.scope['pin 1'],
        ['--color-brass' as string]: inkColours.scope['pin 1'],
        aspectRatio: `${size.widthPx} / ${size.heightPx}`,
        // The whole photo stays in sight under header and sentence, whatever its shape.
        maxWidth: `calc((100vh - 15rem) * ${size.widthPx / size.heightPx})`,
      }}
      onPointerMove={(event) => setAt(place(event))}
      onPointerUp={(event) => contact && onClick(place(event))}
      onKeyDown={onKey}
    >
      <img src={photo.url} alt="" draggable={false} className="absolute inset-0 size-full select-none" />
      {photo.anchors.map(({ contact: name, px }) => {
        const [left, top] = share(px)
        return (
          <span key={name} className="pointer-events-none absolute" style={{ left, top }}>
            <span className="absolute -top-2 -left-2 size-4 rounded-full border-2 border-brass" />
            <span
              className={`num absolute bg-sheet px-1 text-[0.82rem] ${px[1] > 0.9 * size.heightPx ? 'bottom-2' : 'top-2'} ${px[0] > 0.9 * size.widthPx ? 'right-2' : 'left-2'}`}
            >
              {name}
            </span>
          </span>
        )
      })}
      {photo.answer?.located && (
        <svg
          viewBox={`0 0 ${size.widthPx} ${size.heightPx}`}
          className="pointer-events-none absolute inset-0 size-full"
          aria-hidden="true"
        >
          <path d={field} fill="none" stroke="var(--brass)" strokeWidth={size.widthPx / 500} opacity={0.8} />
          {asked
            .filter((s) => s.photo === photo.id)
            .map((s) => (
              <circle
                key={s.name}
                cx={s.px[0]}
                cy={s.px[1]}
                r={0.45 * photo.answer!.located!.pxPerMm}
                fill="none"
                stroke="var(--brass)"
                strokeWidth={size.widthPx / 300}
                strokeDasharray={s.as === 'displaced' ? undefined : `${size.widthPx / 150}`}
              />
            ))}
        </svg>
      )}
      {contact && aboutPx && (
        <span
          className="pointer-events-none absolute -mt-4 -ml-4 size-8 rounded-full border-2 border-dashed border-brass"
          style={{ left: share(aboutPx)[0], top: share(aboutPx)[1] }}
        />
      )}
      {at && contact && (
        <>
          <span
            className="pointer-events-none absolute -mt-3 -ml-px h-6 w-0.5 bg-brass"
            style={{ left: share(at)[0], top: share(at)[1] }}
          />
          <span
            className="pointer-events-none absolute -mt-px -ml-3 h-0.5 w-6 bg-brass"
            style={{ left: share(at)[0], top: share(at)[1] }}
          />
          <span
            aria-hidden="true"
            className={`pointer-events-none absolute right-2 overflow-hidden rounded-full border-2 border-brass bg-sheet ${far ? 'top-2' : 'bottom-2'}`}
            style={{ width: LOUPE_PX, height: LOUPE_PX }}
          >
            <img
              src={photo.url}
              alt=""
              className="absolute max-w-none"
              style={{
                width: size.widthPx,
                height: size.heightPx,
                left: LOUPE_PX / 2 - at[0],
                top: LOUPE_PX / 2 - at[1],
              }}
            />
            <span className="absolute top-1/2 left-0 h-px w-full bg-brass" />
            <span className="absolute top-0 left-1/2 h-full w-px bg-brass" />
          </span>
        </>
      )}
    </div>
  )
}

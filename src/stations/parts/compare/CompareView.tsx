'use client'
import { useEffect, useRef, useState } from 'react'
import { lay } from '@/core/photo/overlay'
import { percent } from '@/core/maths/percent'
import type { Mark } from '@/core/parts/compare/compare'
import type { Comparing, Judged } from './use-compare'

/** The photo with its marks, and the one in hand close up on both photos, turned alike. */
export function CompareView({ comparing }: { comparing: Comparing }) {
  const { pictures, marks, chosen, choose, judged, compared } = comparing
  const [size, setSize] = useState<{ of: string; wide: number; high: number } | null>(null)
  const { photo } = pictures
  if (!photo)
    return (
      <div className="pt-2 text-soft">
        <p className="text-lg text-ink">
          A photo of this board beside one of a good board, or of this board before.
        </p>
        <p className="mt-1">
          Same side, from straight above, the light alike; 20 pixels to a millimetre show the smallest parts.
          They need not be taken from the same place: one is laid over the other.
        </p>
      </div>
    )
  const mark = marks[chosen]
  return (
    <section aria-label="Photos compared" className="flex min-h-0 flex-col gap-2 pt-1 lg:h-full">
      <div className="min-h-0">
        <svg
          role="img"
          aria-label={
            compared
              ? `${photo.name} with ${marks.length} places marked; they stand in words beside it.`
              : photo.name
          }
          viewBox={size?.of === photo.url ? `0 0 ${size.wide} ${size.high}` : '0 0 4 3'}
          preserveAspectRatio="xMinYMin meet"
          className="max-h-[46vh] w-full"
        >
          <image href={photo.url} width="100%" height="100%" preserveAspectRatio="xMidYMid meet" />
          {size?.of === photo.url &&
            marks.map((m, i) => (
              <Box
                key={i}
                mark={m}
                n={i + 1}
                on={i === chosen}
                judged={judged[i]}
                onPress={() => choose(i)}
                unit={size.wide}
              />
            ))}
        </svg>
        <img
          src={photo.url}
          alt=""
          className="hidden"
          onLoad={(e) =>
            setSize({
              of: photo.url,
              wide: e.currentTarget.naturalWidth,
              high: e.currentTarget.naturalHeight,
            })
          }
        />
      </div>
      {mark && (
        <div className="grid shrink-0 grid-cols-2 gap-3">
          <CloseUp
            comparing={comparing}
            mark={mark}
            role="photo"
            label={`This board, ${percent(mark.odds)}`}
          />
          <CloseUp comparing={comparing} mark={mark} role="other" label={pictures.other?.name ?? ''} />
        </div>
      )}
    </section>
  )
}

function Box({
  mark: { px, sizePx },
  n,
  on,
  judged,
  unit,
  onPress,
}: {
  mark: Mark
  n: number
  on: boolean
  judged: Judged | null | undefined
  unit: number
  onPress: () => void
}) {
  const grow = unit / 160
  const [w, h] = [sizePx[0] + 2 * grow, sizePx[1] + 2 * grow]
  const [x, y] = [px[0] - w / 2, px[1] - h / 2]
  return (
    <g onClick={onPress} className="cursor-pointer" opacity={judged === 'nothing' ? 0.45 : 1}>
      <rect
        x={x}
        y={y}
        width={w}
        height={h}
        rx={grow}
        fill="transparent"
        className={on ? 'stroke-brass' : judged ? 'stroke-slate' : 'stroke-ember'}
        strokeWidth={on ? unit / 240 : unit / 420}
        strokeDasharray={judged === 'nothing' ? `${grow} ${grow}` : undefined}
      />
      <text
        x={x + w + grow}
        y={y + 3.2 * grow}
        fontSize={unit / 36}
        fontWeight={650}
        paintOrder="stroke"
        className="fill-ink stroke-sheet"
        strokeWidth={unit / 180}
      >
        {n}
      </text>
    </g>
  )
}

const SIDE = 190

/** A mark close up on one of the photos; the other one is turned as this one lies. */
function CloseUp({
  comparing,
  mark,
  role,
  label,
}: {
  comparing: Comparing
  mark: Mark
  role: 'photo' | 'other'
  label: string
}) {
  const canvas = useRef<HTMLCanvasElement>(null)
  const { pictures, compared } = comparing
  const url = pictures[role]?.url
  useEffect(() => {
    const sheet = canvas.current?.getContext('2d')
    if (!sheet || !url || !compared) return
    let here = true
    const picture = new Image()
    picture.onload = () => {
      if (!here) return
      const { width, height } = sheet.canvas
      const [cx, cy] = mark.px
      // Of the photo so much is shown as the mark and its neighbours take.
      const span = Math.max(160, 3.2 * Math.max(...mark.sizePx))
      const zoom = Math.max(width, height) / span
      sheet.setTransform(1, 0, 0, 1, 0, 0)
      sheet.clearRect(0, 0, width, height)
      sheet.imageSmoothingQuality = 'high'
      if (role === 'photo') {
        sheet.setTransform(zoom, 0, 0, zoom, width / 2 - zoom * cx, height / 2 - zoom * cy)
      } else {
        const at = (x: number, y: number) => lay(compared.overlay, x, y)
        const [o, r, d] = [at(cx, cy), at(cx + 50, cy), at(cx, cy + 50)]
        const [a, b] = [(r[0] - o[0]) / 50, (r[1] - o[1]) / 50]
        const [c, e] = [(d[0] - o[0]) / 50, (d[1] - o[1]) / 50]
        const det = a * e - b * c
        // From a place of the other photo to the sheet: the inverse of how the photo lies on it.
        const [ia, ib, ic, id] = [e / det, -b / det, -c / det, a / det]
        sheet.setTransform(
          zoom * ia,
          zoom * ib,
          zoom * ic,
          zoom * id,
          width / 2 - zoom * (ia * o[0] + ic * o[1]),
          height / 2 - zoom * (ib * o[0] + id * o[1]),
        )
      }
      sheet.drawImage(picture, 0, 0)
    }
    picture.src = url
    return () => {
      here = false
    }
  }, [url, mark, role, compared])
  return (
    <figure className="min-w-0">
      <canvas
        ref={canvas}
        width={2 * SIDE * 1.6}
        height={2 * SIDE}
        role="img"
        aria-label={role === 'photo' ? 'The place on this board' : 'The same place on the other photo'}
        className="block aspect-[1.6] w-full bg-sheet"
      />
      <figcaption className="truncate text-[0.88rem] text-soft">{label}</figcaption>
    </figure>
  )
}

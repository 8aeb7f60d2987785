'use client'
import { useEffect, useRef, useState } from 'react'
import { useTheme } from '@/ui/use-theme'
import { COLUMNS } from './field-layout'
import type { Cell } from './field-layout'

const moves: Readonly<Record<string, number>> = {
  ArrowLeft: -1,
  ArrowRight: 1,
  ArrowUp: -COLUMNS,
  ArrowDown: COLUMNS,
  PageUp: -8 * COLUMNS,
  PageDown: 8 * COLUMNS,
}
const MOST_CELL_PX = 13

/** The chip as rows of blocks: whose they are by pattern, how packed by depth, what differs by a mark. */
export function ByteField({
  cells,
  at,
  say,
  onMove,
}: {
  cells: readonly Cell[]
  /** The cell in hand. */
  at: number
  /** What that cell is, in words. */
  say: string
  onMove: (cell: number) => void
}) {
  const canvas = useRef<HTMLCanvasElement>(null)
  const [width, setWidth] = useState(0)
  const theme = useTheme()
  const px = Math.min(MOST_CELL_PX, width / COLUMNS)
  const rows = Math.ceil(cells.length / COLUMNS)
  useEffect(() => {
    const watch = new ResizeObserver(([entry]) => setWidth(entry!.contentRect.width))
    watch.observe(canvas.current!.parentElement!)
    return () => watch.disconnect()
  }, [])
  useEffect(() => {
    if (px > 0) draw(canvas.current!, cells, at, px)
  }, [cells, at, px, theme])
  const to = (cell: number) => onMove(Math.max(0, Math.min(cells.length - 1, cell)))
  return (
    <div
      role="application"
      tabIndex={0}
      aria-label="Byte field: arrows go from block to block"
      aria-describedby="byte-field-says"
      onKeyDown={(event) => {
        const step =
          event.key === 'Home' ? -cells.length : event.key === 'End' ? cells.length : moves[event.key]
        if (step === undefined || event.ctrlKey || event.metaKey || event.altKey) return
        event.preventDefault()
        event.stopPropagation()
        to(at + step)
      }}
    >
      <canvas
        ref={canvas}
        aria-hidden="true"
        style={{ width: px * COLUMNS, height: px * rows }}
        onPointerDown={(event) => {
          const box = event.currentTarget.getBoundingClientRect()
          const column = Math.floor((event.clientX - box.left) / px)
          to(Math.floor((event.clientY - box.top) / px) * COLUMNS + Math.min(COLUMNS - 1, column))
        }}
      />
      <Legend />
      <p id="byte-field-says" aria-live="polite" className="num mt-1 truncate text-[0.85rem]" title={say}>
        {say}
      </p>
    </div>
  )
}

/** What the patterns of the field mean. */
function Legend() {
  return (
    <ul aria-label="Patterns" className="mt-0.5 flex flex-wrap gap-x-3 text-[0.8rem] text-soft">
      {legend.map(([word, mark]) => (
        <li key={word} className="flex items-center gap-1">
          <span aria-hidden="true" className={`inline-block size-2.5 ${mark}`} />
          {word}
        </li>
      ))}
    </ul>
  )
}
const legend = [
  ['code', 'bg-slate'],
  ['the board’s own', 'bg-[repeating-linear-gradient(135deg,var(--brass)_0_1px,transparent_1px_4px)]'],
  ['empty', 'bg-[radial-gradient(var(--slate)_1px,transparent_1.4px)]'],
  ['not known', 'border border-slate'],
  ['differs', 'border-b-4 border-ember'],
] as const

function draw(canvas: HTMLCanvasElement, cells: readonly Cell[], at: number, px: number): void {
  const scale = window.devicePixelRatio || 1
  const rows = Math.ceil(cells.length / COLUMNS)
  canvas.width = Math.round(px * COLUMNS * scale)
  canvas.height = Math.round(px * rows * scale)
  const pen = canvas.getContext('2d')!
  pen.scale(scale, scale)
  const style = getComputedStyle(canvas)
  const ink = (name: string) => style.getPropertyValue(`--${name}`)
  const [slate, line, brass, ember, dark] = ['slate', 'line', 'brass', 'ember', 'ink'].map(ink)
  for (const [i, cell] of cells.entries()) {
    const [x, y] = [(i % COLUMNS) * px, Math.floor(i / COLUMNS) * px]
    const side = px - 1
    pen.globalAlpha = 1
    if (cell.erased || cell.owner === 'empty') {
      pen.fillStyle = line!
      pen.globalAlpha = 0.55
      pen.fillRect(x + px / 2 - 1, y + px / 2 - 1, 1.6, 1.6)
    } else if (cell.owner === 'code') {
      pen.fillStyle = slate!
      pen.globalAlpha = 0.25 + (0.65 * cell.entropy) / 8
      pen.fillRect(x, y, side, side)
    } else {
      pen.strokeStyle = cell.owner === 'own' ? brass! : slate!
      pen.lineWidth = 1
      pen.beginPath()
      // The board's own is hatched; what nobody knows is framed.
      if (cell.owner === 'own')
        for (const shift of [0, side / 2]) {
          pen.moveTo(x + shift, y + side)
          pen.lineTo(x + side, y + shift)
        }
      else pen.rect(x + 0.5, y + 0.5, side - 1, side - 1)
      pen.stroke()
    }
    if (cell.differing > 0) {
      pen.globalAlpha = 1
      pen.fillStyle = ember!
      pen.fillRect(x, y + side - Math.max(2, side * 0.4), side, Math.max(2, side * 0.4))
    }
  }
  pen.globalAlpha = 1
  pen.strokeStyle = dark!
  pen.lineWidth = 2
  pen.strokeRect((at % COLUMNS) * px, Math.floor(at / COLUMNS) * px, px - 1, px - 1)
}

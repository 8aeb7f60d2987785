'use client'
import { useVirtualizer } from '@tanstack/react-virtual'
import { useEffect, useRef, useState } from 'react'
import { hex } from '@/core/firmware/image/image-bytes'

/** Bytes in a row, and in the page that is in hand at once. */
const ROW = 8
const PAGE = 1024 * 1024
const ROW_PX = 20

/** The bytes themselves, a page of 1 MiB at a time; those that differ from the image beside it are underlined. */
export function HexView({
  bytes,
  at,
  page,
  beside,
}: {
  /** Size of the image. */
  bytes: number
  /** The address to show. */
  at: number
  page: (from: number, to: number) => Promise<Uint8Array>
  /** The same of the image beside it, or null. */
  beside: ((from: number, to: number) => Promise<Uint8Array>) | null
}) {
  const base = Math.floor(at / PAGE) * PAGE
  const [loaded, setLoaded] = useState<{ base: number; own: Uint8Array; other: Uint8Array | null } | null>(
    null,
  )
  const scroll = useRef<HTMLDivElement>(null)
  useEffect(() => {
    let here = true
    const to = Math.min(bytes, base + PAGE)
    void Promise.all([page(base, to), beside?.(base, to) ?? null]).then(
      ([own, other]) => here && setLoaded({ base, own, other }),
    )
    return () => {
      here = false
    }
  }, [bytes, base, page, beside])
  const there = loaded?.base === base ? loaded : null
  const rows = useVirtualizer({
    count: there ? Math.ceil(there.own.length / ROW) : 0,
    getScrollElement: () => scroll.current,
    estimateSize: () => ROW_PX,
    overscan: 12,
  })
  useEffect(() => {
    if (there) rows.scrollToIndex(Math.floor((at - base) / ROW), { align: 'start' })
    // Only another address moves it, not a scroll.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [at, there])
  return (
    <div
      ref={scroll}
      tabIndex={0}
      role="region"
      aria-label="Bytes"
      className="num h-full min-h-40 overflow-auto text-[0.82rem] leading-5 whitespace-pre max-lg:max-h-80"
    >
      <div style={{ height: rows.getTotalSize() }} className="relative">
        {there &&
          rows
            .getVirtualItems()
            .map((row) => (
              <HexRow
                key={row.key}
                top={row.start}
                address={base + row.index * ROW}
                own={there.own.subarray(row.index * ROW, (row.index + 1) * ROW)}
                other={there.other?.subarray(row.index * ROW, (row.index + 1) * ROW) ?? null}
              />
            ))}
      </div>
    </div>
  )
}

function HexRow({
  top,
  address,
  own,
  other,
}: {
  top: number
  address: number
  own: Uint8Array
  other: Uint8Array | null
}) {
  const differs = (i: number) => other !== null && other[i] !== own[i]
  return (
    <div className="absolute left-0" style={{ top, height: ROW_PX }}>
      <span className="text-soft">{hex(address)}</span>{' '}
      {[...own].map((byte, i) => (
        <span key={i} className={differs(i) ? 'font-semibold text-ember underline' : ''}>
          {` ${byte.toString(16).toUpperCase().padStart(2, '0')}`}
        </span>
      ))}
      {'  '}
      <span className="text-soft">
        {[...own].map((b) => (b >= 0x20 && b < 0x7f ? String.fromCharCode(b) : '·')).join('')}
      </span>
    </div>
  )
}

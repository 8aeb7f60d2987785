'use client'
import { useRef } from 'react'
import type { PointerEvent } from 'react'
import { HOME_MM } from '@/core/socket/straighten/practice-contact'
import type { PracticeContact } from '@/core/socket/straighten/practice-contact'

const SPAN_MM = 2.4
const HIGH = 62

/** The contact from the side of the row: foot below, tip above, where it belongs, and where the needle holds it. */
export function PracticeView({
  contact,
  takenMm,
  onTake,
  onRelease,
}: {
  contact: PracticeContact
  takenMm: number
  onTake: (mm: number) => void
  onRelease: () => void
}) {
  const frame = useRef<SVGSVGElement>(null)
  const held = useRef(false)
  const x = (mm: number) => 50 + (mm / SPAN_MM) * 100
  const tip = contact.offMm + takenMm
  const place = (event: PointerEvent) => {
    const box = frame.current!.getBoundingClientRect()
    return ((event.clientX - box.left) / box.width - 0.5) * SPAN_MM
  }
  const beam = (mm: number) => {
    const dip = Math.min(14, Math.abs(mm) * 12)
    return `M50 54 C 50 36 ${50 + (x(mm) - 50) * 0.35} ${22 + dip} ${x(mm)} ${14 + dip}`
  }
  const high = (mm: number) => 14 + Math.min(14, Math.abs(mm) * 12)
  return (
    <svg
      ref={frame}
      viewBox={`0 0 100 ${HIGH}`}
      role="img"
      aria-label={
        contact.snapped
          ? 'The contact has snapped'
          : `The tip stands ${contact.offMm.toFixed(2)} mm off its place${takenMm === 0 ? '' : `, held ${tip.toFixed(2)} mm off`}`
      }
      className="w-full cursor-grab touch-none border border-line bg-ground select-none"
      onPointerDown={(event) => {
        held.current = true
        event.currentTarget.setPointerCapture(event.pointerId)
        onTake(place(event) - contact.offMm)
      }}
      onPointerMove={(event) =>
        held.current && onTake(Math.round((place(event) - contact.offMm) * 1000) / 1000)
      }
      onPointerUp={() => {
        held.current = false
        onRelease()
      }}
      onPointerCancel={() => {
        held.current = false
        onTake(0)
      }}
    >
      <rect x="0" y="54" width="100" height="8" fill="var(--line)" />
      <rect
        x={x(-HOME_MM)}
        y="6"
        width={x(HOME_MM) - x(-HOME_MM)}
        height="48"
        fill="var(--verd)"
        opacity="0.16"
      />
      <line
        x1="50"
        x2="50"
        y1="6"
        y2="54"
        stroke="var(--verd)"
        strokeWidth="0.35"
        strokeDasharray="1.5 1.2"
      />
      {[-1, -0.5, 0.5, 1].map((mm) => (
        <g key={mm}>
          <line x1={x(mm)} x2={x(mm)} y1="52.5" y2="54" stroke="var(--slate)" strokeWidth="0.3" />
          <text x={x(mm)} y="58.6" fontSize="3" textAnchor="middle" fill="var(--soft)" className="num">
            {mm}
          </text>
        </g>
      ))}
      <text x="50" y="58.6" fontSize="3" textAnchor="middle" fill="var(--soft)">
        its place
      </text>
      {contact.snapped ? (
        <path d="M50 54 C 50 48 51 45 52 43" fill="none" stroke="var(--ember)" strokeWidth="2" />
      ) : (
        <>
          {takenMm !== 0 && (
            <path
              d={beam(contact.offMm)}
              fill="none"
              stroke="var(--slate)"
              strokeWidth="0.6"
              strokeDasharray="1.4 1.2"
            />
          )}
          <path d={beam(tip)} fill="none" stroke="var(--ink)" strokeWidth="1.6" strokeLinecap="round" />
          <circle cx={x(tip)} cy={high(tip)} r="2" fill="var(--ink)" />
          {takenMm !== 0 && (
            <line
              x1={x(tip) + (takenMm < 0 ? 2.4 : -2.4)}
              y1={high(tip)}
              x2={x(tip) + (takenMm < 0 ? 20 : -20)}
              y2={high(tip) - 10}
              stroke="var(--brass)"
              strokeWidth="0.9"
            />
          )}
        </>
      )}
    </svg>
  )
}

'use client'
import type { ReactNode } from 'react'
import type { Station } from '@/core/board/station'
import type { Step } from '@/core/board/step'
import type { SocketWork } from '@/core/socket/next-step'
import { usePointed } from './point'
import { NextStrip } from './NextStrip'
import { StationFoot } from './StationFoot'
import { useStationStep } from './use-station-step'

/**
 * The centre of a station: what to do next on top, panes that scroll by themselves, one line at the end. The whole does
 * not scroll where there is room for it.
 */
export function StationSurface({
  station,
  work = null,
  instead = null,
  answers,
  standing,
  children,
}: {
  station: Station
  /** The order of work with what is in hand, where the station computes it itself. */
  work?: SocketWork | null
  /** What is done here in place of what the adviser says, because it was chosen. */
  instead?: Step | null
  /** The answers to what stands in the strip; their row keeps its height. */
  answers?: (step: Step) => ReactNode
  /** How the station stands, in the line at its end. */
  standing?: ReactNode
  children: ReactNode
}) {
  const { here, elsewhere } = useStationStep(station, work)
  usePointed(showPart)
  return (
    <div className="flex flex-col lg:grid lg:h-full lg:min-h-0 lg:grid-rows-[auto_minmax(0,1fr)_40px] print:block">
      <NextStrip step={instead ?? here} answers={answers?.(instead ?? here)} />
      <div className="min-h-0 min-w-0">{children}</div>
      <StationFoot station={station} elsewhere={elsewhere}>
        {standing}
      </StationFoot>
    </div>
  )
}

/** The part of a station that a link led to comes into sight; its pane may be further down. */
function showPart(part: string): void {
  requestAnimationFrame(() => document.getElementById(part)?.scrollIntoView({ block: 'nearest' }))
}

/** Part of a surface that scrolls by itself. */
export function Pane({
  id,
  label,
  className = '',
  children,
}: {
  id?: string
  label?: string
  className?: string
  children: ReactNode
}) {
  return (
    <section
      id={id}
      aria-label={label}
      className={`relative min-h-0 min-w-0 lg:overflow-y-auto lg:pr-1.5 ${className}`}
      tabIndex={label ? 0 : undefined}
    >
      {children}
    </section>
  )
}

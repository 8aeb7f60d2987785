'use client'
import type { Station } from '@/core/board/station'
import { benchSeconds } from '@/core/work/slice'
import { usePathname } from 'next/navigation'
import { useEffect, useState } from 'react'
import { useJob } from '@/job/JobProvider'
import { stationOfPath } from '@/job/station-path'

const clockFace = (seconds: number) => {
  const whole = Math.floor(seconds)
  const minutes = Math.floor(whole / 60)
  return `${minutes}:${String(whole % 60).padStart(2, '0')}`
}

/** Minutes spent against minutes promised; a press starts it for this station or pauses it. */
export function BenchClock() {
  const state = useJob((j) => j.state)
  const append = useJob((j) => j.append)
  const station = stationOfPath(usePathname())
  const [now, setNow] = useState<string | null>(null)
  const running = state.work.clock.running
  useEffect(() => {
    const tick = () => setNow(new Date().toISOString())
    tick()
    const timer = setInterval(tick, 1000)
    return () => clearInterval(timer)
  }, [])
  const spent = benchSeconds(state.work, now ?? running?.since ?? new Date(0).toISOString())
  const promised = state.intake.ticket.minutesPromised
  const over = promised !== null && spent.all / 60 > promised
  const label = running
    ? `used${promised ? ` of ${promised} min` : ''}`
    : `${promised ? `used of ${promised} min` : 'used, paused'}`
  return (
    <button
      type="button"
      className="w-[8rem] shrink-0 text-left leading-tight"
      aria-label={
        running
          ? `Bench clock running on ${running.station}; press to pause`
          : 'Bench clock paused; press to start'
      }
      onClick={() => append('clock', { run: running ? null : (station ?? 'triage') })}
      disabled={state.handBack.done !== null}
    >
      <span className={`block truncate text-[0.82rem] ${over ? 'font-semibold text-ember' : 'text-soft'}`}>
        {over ? `over its ${promised} min` : label}
      </span>
      <span className="num flex items-center gap-2 text-xl" data-clock>
        <svg viewBox="0 0 12 12" width="12" height="12" aria-hidden="true" fill="currentColor">
          {running ? <path d="M1 1h3.4v10H1zM7.6 1H11v10H7.6z" /> : <path d="M2 1l9 5-9 5z" />}
        </svg>
        {clockFace(spent.all)}
      </span>
    </button>
  )
}

/** The clock follows the technician from station to station while it runs. */
export function useClockFollows(station: Station | null): void {
  const running = useJob((j) => j.state.work.clock.running?.station ?? null)
  const append = useJob((j) => j.append)
  useEffect(() => {
    if (running && station && running !== station) append('clock', { run: station })
    // Only a change of place moves the clock; a press of its own button must not be answered here.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [station])
}

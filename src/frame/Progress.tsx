'use client'
import { usePathname } from 'next/navigation'
import { progress } from '@/core/job/progress'
import { stationOfPath } from './BenchClock'
import { useJob } from '@/job/JobProvider'
import { StationLink } from './StationLink'

const names: Record<string, string> = {
  intake: 'Intake',
  triage: 'Triage',
  socket: 'Socket',
  firmware: 'Firmware',
  parts: 'Parts',
  proof: 'Proof',
  'hand-back': 'Hand-back',
}

const dots: Record<string, string> = {
  untouched: 'border-slate',
  open: 'border-ink',
  settled: 'border-verd bg-verd',
  'passed over': 'border-slate border-dashed',
}

/** The stations in the order of work, each with how it stands. */
export function Progress() {
  const state = useJob((j) => j.state)
  const socket = useJob((j) => j.socket)
  const here = stationOfPath(usePathname())
  return (
    <nav aria-label="Way of the job" className="no-print overflow-y-auto pt-5 pl-5">
      <ol>
        {progress(state, socket).map((stop, i) => (
          <li
            key={stop.station}
            className="relative pb-5 pl-7 leading-tight before:absolute before:top-5 before:-bottom-0.5 before:left-[6px] before:border-l-2 before:border-line last:before:hidden"
          >
            <i
              aria-hidden="true"
              className={`absolute top-[3px] left-0 size-3.5 rounded-full border-2 bg-ground ${stop.station === here ? 'border-brass! bg-brass! shadow-[0_0_0_5px_var(--brass-bg)]' : dots[stop.mark]}`}
            />
            <StationLink
              to={stop.station}
              aria-current={stop.station === here ? 'page' : undefined}
              className={stop.station === here ? 'font-bold' : ''}
            >
              {names[stop.station]}
              <span className="sr-only">
                , {stop.mark}, key g then {i + 1}
              </span>
            </StationLink>
            {(stop.note || stop.mark === 'settled' || stop.mark === 'passed over') && (
              <span className="block pt-0.5 pr-1 text-[0.85rem] leading-tight text-soft">
                {stop.mark === 'passed over' ? `passed over: ${stop.note}` : stop.note || stop.mark}
              </span>
            )}
          </li>
        ))}
      </ol>
    </nav>
  )
}

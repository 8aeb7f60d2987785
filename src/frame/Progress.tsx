'use client'
import { usePathname } from 'next/navigation'
import { markWords } from '@/core/work/slice'
import { progress } from '@/core/job/stations-say'
import { stationOfPath } from '@/job/station-path'
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
  const setting = useJob((j) => j.setting)
  const here = stationOfPath(usePathname())
  return (
    <nav aria-label="Stations" className="no-print overflow-y-auto pt-4 pl-4 max-lg:py-2">
      <ol className="max-lg:flex max-lg:flex-wrap max-lg:gap-x-5">
        {progress(state, socket, setting).map((stop, i) => (
          <li
            key={stop.station}
            className="relative pl-6 text-[0.95rem] leading-tight before:absolute before:top-5 before:-bottom-0.5 before:left-[5px] before:border-l-2 before:border-line last:before:hidden max-lg:before:hidden lg:pb-4"
          >
            <i
              aria-hidden="true"
              className={`absolute top-[3px] left-0 size-3 rounded-full border-2 bg-ground ${stop.station === here ? 'border-brass! bg-brass! shadow-[0_0_0_4px_var(--brass-bg)]' : dots[stop.mark]}`}
            />
            <StationLink
              to={stop.station}
              aria-current={stop.station === here ? 'page' : undefined}
              className={stop.station === here ? 'font-bold' : ''}
            >
              {names[stop.station]}
              <span className="sr-only">
                , {markWords[stop.mark]}, key g then {i + 1}
              </span>
            </StationLink>
            {(stop.note || stop.mark === 'settled' || stop.mark === 'passed over') && (
              <span className="block pr-1 text-[0.8rem] leading-tight text-soft max-lg:hidden">
                {stop.mark === 'passed over' ? `skipped: ${stop.note}` : stop.note || markWords[stop.mark]}
              </span>
            )}
          </li>
        ))}
      </ol>
    </nav>
  )
}

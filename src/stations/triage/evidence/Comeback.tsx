'use client'
import Link from 'next/link'
import { faults } from '@/core/triage/model/faults'
import { useJob } from '@/job/JobProvider'
import { When } from '@/ui/When'

const sayFault = (id: string) => faults[id as keyof typeof faults]?.say ?? id

/** A board that was here before is read together with what was done then. */
export function Comeback() {
  const earlier = useJob((j) => j.setting.earlier)
  const serial = useJob((j) => j.state.intake.ticket.serial)
  if (earlier.length === 0) return null
  return (
    <section
      id="comeback"
      aria-label="This board was here before"
      className="mt-3 border-l-4 border-brass pl-3 text-[0.9rem]"
    >
      <h2>
        This board was here before <span className="num font-normal text-soft">{serial}</span>
      </h2>
      <ul>
        {earlier.map((job) => {
          const done = [
            job.mended.length > 0 && `repaired ${job.mended.map(sayFault).join(', ')}`,
            job.contacts > 0 && `${job.contacts} ${job.contacts === 1 ? 'contact' : 'contacts'} straightened`,
            job.parts.length > 0 && `fitted ${job.parts.join(', ')}`,
          ].filter(Boolean)
          return (
            <li key={job.tag}>
              <Link href={`/jobs/${job.tag}/hand-back`} className="num underline">
                {job.tag}
              </Link>
              , <When at={job.at} as="date" />: {job.complaint || 'no complaint noted'};{' '}
              {done.join('; ') || 'no repair is noted'}; {job.outcome ?? 'not handed back'}
              {job.advice.length > 0 && (
                <span className="text-soft">. Told then: {job.advice.join('; ')}</span>
              )}
            </li>
          )
        })}
      </ul>
      <p className="text-[0.92rem] text-soft">
        What was repaired then counts as likelier to have failed again: look at that place first.
      </p>
    </section>
  )
}

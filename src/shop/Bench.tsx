import { sayFactor } from '@/core/record/factor'
import { lowerFirst } from '@/core/sentence'
import { Count } from '@/ui/reader'
import Link from 'next/link'
import type { Ready } from '@/core/shop/promise'
import { percent } from '@/core/maths/percent'
import { BenchList } from './BenchList'
import { benchOrder, saidOf } from './bench-order'
import type { Job } from '@/data/jobs'
import type { BenchPace } from '@/server/bench-pace'
import { GateShape, lampWords } from '@/ui/GateLamp'
import { When } from '@/ui/When'
import { LookAgain } from './LookAgain'
import { ImportJob } from './ImportJob'
import { TakeIn } from './TakeIn'
import { BenchKeys } from './BenchKeys'
import { FirstMoves } from './FirstMoves'
import { sayMoment, sayWallClock } from '@/core/reader'
import type { Reader } from '@/core/reader'

const tones = {
  late: 'text-ember font-semibold',
  'likely late': 'text-ember font-semibold',
  today: 'text-brass font-semibold',
  soon: 'text-ink',
  'in time': 'text-soft',
  'waits for the owner': 'text-soft',
  'no promise': 'text-soft',
}

const lampTones = { clear: 'text-verd', 'limit the current': 'text-brass', 'do not power': 'text-ember' }

/** Today's jobs as a working order: what to take next and what to do on it first. */
export function Bench({
  jobs,
  all,
  more,
  later,
  nowIso,
  reader,
  pace,
  firstMoves,
}: {
  jobs: readonly Job[]
  /** How many are on the bench in all. */
  all: number
  more: boolean
  later: boolean
  nowIso: string
  reader: Reader
  pace: BenchPace
  /** Somebody here for the first time is told what is worth trying. */
  firstMoves: 'demo' | 'own shop' | null
}) {
  const { order, ready } = benchOrder(jobs, reader, nowIso, pace)
  const byId = new Map(jobs.map((job) => [job.id, job]))
  const first = order[0] && byId.get(order[0].id)
  return (
    <>
      <div className="mb-5 flex flex-wrap items-start justify-between gap-x-6 gap-y-3 lg:flex-nowrap">
        <div className="min-w-0">
          <h1>
            {first
              ? `Take ${first.tag} next: ${lowerFirst(sayNext(first))}`
              : 'Nothing waits. Start a new job.'}
          </h1>
          <p className="mt-0.5 text-soft">
            {first ? (
              <>
                <Count n={all} /> {all === 1 ? 'job' : 'jobs'} on the bench, late ones first, then least time
                to spare.
                {all > jobs.length && ` ${jobs.length} of them here.`}{' '}
                {pace.agreed.n > 0 && sayFactor(pace.agreed)}
              </>
            ) : (
              'It gets a tag, a tape and a way from intake to hand-back.'
            )}
          </p>
        </div>
        <div className="flex shrink-0 gap-2">
          {jobs.length > 0 && (
            <a href="/api/calendar" download className="self-center underline underline-offset-4">
              Calendar
            </a>
          )}
          <ImportJob />
          <TakeIn />
        </div>
      </div>
      {firstMoves && <FirstMoves demo={firstMoves === 'demo'} />}
      {jobs.some((job) => job.stepIsOlder) && <LookAgain />}
      <BenchKeys />
      {jobs.length > 0 && (
        <BenchList
          putFirst={pace.byHand}
          fixed={later}
          rows={order.map((standing) => {
            const job = byId.get(standing.id)!
            // Jobs of later pages come after all of these: by themselves they would seem ready too soon.
            const is = later ? undefined : ready.get(job.id)
            const said = saidOf(standing, is)
            return {
              id: job.id,
              tag: job.tag,
              waits: standing.say === 'waits for the owner',
              said: (
                <>
                  <Link
                    href={`/jobs/${job.tag}/${job.nextStep?.station ?? 'intake'}`}
                    data-job
                    className="num justify-self-start rounded-[3px_11px_11px_3px] border-[1.5px] border-ink py-px pr-3 pl-2 text-[1.06rem] after:absolute after:inset-0"
                  >
                    {job.tag}
                  </Link>
                  <div className="min-w-0">
                    <p className="truncate">
                      <b className="font-semibold">{job.board || 'no board named yet'}</b>{' '}
                      <span className="text-soft">{job.words}</span>
                    </p>
                    <p className="text-[0.96rem]">
                      {sayNext(job)}
                      {job.nextStep && job.stepIsOlder && (
                        <span className="text-soft"> (being calculated again)</span>
                      )}
                    </p>
                    {job.bench.waitsFor && (
                      <p className="text-[0.9rem] text-soft">
                        waits for {job.bench.waitsFor.what}
                        {job.bench.waitsFor.expectedOn === null
                          ? ', no day known'
                          : `, ${job.bench.waitsFor.expectedOn < nowIso.slice(0, 10) ? 'was expected' : 'expected'} ${sayMoment(reader, `${job.bench.waitsFor.expectedOn}T12:00:00Z`, 'date')}`}
                      </p>
                    )}
                  </div>
                  <div className={`flex items-baseline gap-2 ${lampTones[job.bench.lamp]}`}>
                    <span className="translate-y-0.5">
                      <GateShape lamp={job.bench.lamp} size={18} />
                    </span>
                    <span className="font-semibold">{lampWords[job.bench.lamp]}</span>
                  </div>
                  <div className="lg:text-right">
                    <p className={tones[said]}>{said}</p>
                    {job.promisedAt && (
                      <p className="text-[0.9rem] text-soft">
                        <When at={job.promisedAt} />
                      </p>
                    )}
                    {is && <Likely ready={is} reader={reader} isLate={standing.say === 'late'} />}
                  </div>
                </>
              ),
            }
          })}
        />
      )}
      {(more || later) && (
        <p className="mt-4 flex gap-6">
          {later && (
            <Link href="/" className="underline">
              Back to the first
            </Link>
          )}
          {more && (
            <Link href={pageAfter(jobs.at(-1)!)} className="underline">
              The next {jobs.length} by their promise
            </Link>
          )}
        </p>
      )}
    </>
  )
}

/** When it is likely ready, in the order as it stands; and why its promise is not likely kept. */
function Likely({
  ready: { likely, kept, because },
  reader,
  isLate,
}: {
  ready: Ready
  reader: Reader
  isLate: boolean
}) {
  return (
    <p className="text-[0.9rem] text-soft">
      {likely === 'never' ? 'not within two years' : `likely ${sayWallClock(reader, likely)}`}
      {because !== null && kept !== null && !isLate && (
        <span className="block text-ember">
          kept {percent(kept)}: {because}
        </span>
      )}
    </p>
  )
}

const sayNext = (job: Job) => job.nextStep?.say ?? 'Calculating what comes next.'

const pageAfter = ({ id, promisedAt }: Job) =>
  `/?${new URLSearchParams({ after: id, ...(promisedAt ? { promised: promisedAt } : {}) })}`

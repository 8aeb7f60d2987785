import type { Ticket } from '@/core/intake/bodies'
import { wallClock, sayMoment } from '@/core/reader'
import type { Reader } from '@/core/reader'
import { readyDates } from '@/core/shop/promise'
import type { IfPromised, Ready } from '@/core/shop/promise'
import { takenFirst, workingOrder } from '@/core/shop/working-order'
import type { Standing } from '@/core/shop/working-order'
import type { Job } from '@/data/jobs'
import type { BenchPace } from '@/server/bench-pace'

/** How many jobs the bench shows at a time, and how many the calendar holds: both say the same of a job. */
export const BENCH_PAGE = 100

const minutesLeftOf = ({ bench }: Job, factor: number): number =>
  (bench.minutesPromised ?? 60) * factor - bench.minutes

/** The jobs of the bench in working order, those put first by hand before the others, and when each that may be taken is likely ready in it. */
export function benchOrder(
  jobs: readonly Job[],
  reader: Reader,
  nowIso: string,
  { agreed: { factor }, hours, byHand }: BenchPace,
): { readonly order: readonly Standing[]; readonly ready: ReadonlyMap<string, Ready> } {
  const byId = new Map(jobs.map((job) => [job.id, job]))
  const own = workingOrder(
    jobs.map((job) => ({
      id: job.id,
      promisedAt: job.promisedAt,
      minutesLeft: minutesLeftOf(job, factor),
      waiting: job.bench.waiting,
    })),
    nowIso,
    (at) => sayMoment(reader, at, 'date'),
  )
  const order = takenFirst(own, byHand)
  const queue = order
    .filter((s) => s.say !== 'waits for the owner')
    .map(({ id }) => byId.get(id)!)
    // Nobody can say when a job is ready that waits for something nobody has promised.
    .filter(({ bench }) => bench.waitsFor?.expectedOn !== null)
    .map((job) => ({
      id: job.id,
      minutesLeft: minutesLeftOf(job, factor),
      notBefore: job.bench.waitsFor?.expectedOn ? `${job.bench.waitsFor.expectedOn}T00:00` : null,
      promisedAt: job.promisedAt && wallClock(reader, job.promisedAt),
    }))
  const ready = readyDates(queue, hours, wallClock(reader, nowIso))
  return { order, ready: new Map(ready.map((r) => [r.id, r])) }
}

/** A promise as if it were given, and the owner had agreed: its odds in the order the bench would then have, and whom it puts back. */
export function ifPromised(
  open: readonly Job[],
  own: Job,
  { promisedAt, minutesPromised }: Pick<Ticket, 'promisedAt' | 'minutesPromised'>,
  reader: Reader,
  nowIso: string,
  pace: BenchPace,
): IfPromised {
  const others = open.filter((job) => job.id !== own.id)
  const readyWith = (at: string | null) =>
    benchOrder(
      [...others, { ...own, promisedAt: at, bench: { ...own.bench, minutesPromised, waiting: false } }],
      reader,
      nowIso,
      pace,
    ).ready
  const without = readyWith(null)
  const ready = promisedAt === null ? without : readyWith(promisedAt)
  const is = ready.get(own.id)
  return {
    likely: is && is.likely !== 'never' ? is.likely : null,
    kept: is?.kept ?? null,
    because: is?.because ?? null,
    onceAgreed: own.bench.waiting,
    makesLate: others
      .filter(({ id }) => !without.get(id)?.because && ready.get(id)?.because)
      .map(({ tag }) => tag),
  }
}

/** How a job stands: one whose promise is not likely kept in the queue as it is, is not in time, however much time it would have alone. */
export const saidOf = ({ say }: Standing, ready: Ready | undefined): Standing['say'] | 'likely late' =>
  ready?.because && (say === 'in time' || say === 'soon') ? 'likely late' : say

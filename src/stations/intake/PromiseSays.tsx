import { percent } from '@/core/maths/percent'
import { useReader } from '@/ui/reader'
import { localMoment } from './ticket-form'
import type { Promised } from './use-promise'

/** The odds of a promise before it is given, and what may be promised instead. */
export function PromiseSays({
  of: told,
  typed,
  onPromise,
}: {
  of: Promised | null
  typed: string
  onPromise: (promised: string) => void
}) {
  const { moment } = useReader()
  const likelyAt = told?.likelyAt ?? null
  return (
    // Room for three lines: nothing below moves when the answer comes.
    <div className="min-h-[4.2rem] pb-1 pl-[7.35rem] text-[0.94rem] leading-snug" aria-live="polite">
      {told && told.kept !== null && (
        <p className={told.because ? 'font-semibold text-ember' : ''}>
          Kept {percent(told.kept)}
          {told.because && `: ${told.because}`}.
          {told.makesLate.length > 0 && (
            <>
              {' '}
              It would make{' '}
              {told.makesLate.slice(0, 3).map((late, i) => (
                <span key={late} className="whitespace-nowrap">
                  {i > 0 && ', '}
                  {late}
                </span>
              ))}
              {told.makesLate.length > 3 && ` and ${told.makesLate.length - 3} more`} likely late.
            </>
          )}
        </p>
      )}
      {told && (
        <p className="text-soft">
          {likelyAt === null ? (
            'No day can be promised: what it waits for has none, or the bench is full for two years.'
          ) : (
            <>
              {told.onceAgreed ? 'Once the owner has agreed' : 'As the bench stands'}, ready by{' '}
              {moment(likelyAt)} with 80 %.{' '}
              {(typed === '' || told.because) && (
                <button
                  type="button"
                  className="font-semibold text-ink underline decoration-line underline-offset-4 hover:decoration-ink"
                  onClick={() => onPromise(roundUp(likelyAt))}
                >
                  Promise that
                </button>
              )}
            </>
          )}
        </p>
      )}
    </div>
  )
}

const QUARTER_MS = 15 * 60_000
/** The next quarter of an hour, as its field takes it. */
const roundUp = (at: string) =>
  localMoment(new Date(Math.ceil(Date.parse(at) / QUARTER_MS) * QUARTER_MS).toISOString())

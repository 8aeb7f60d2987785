import { percent } from '@/core/maths/percent'
import { Button } from '@/ui/Button'
import { useReader } from '@/ui/reader'
import { localMoment } from './ticket-form'
import type { Promised } from './use-promise'

/** The odds of a promise before it is given, and what may be promised instead. */
export function PromiseSays({
  of,
  typed,
  onPromise,
}: {
  of: Promised | null
  typed: string
  onPromise: (promised: string) => void
}) {
  const { moment } = useReader()
  const told = of?.promised === typed ? of : null
  const likelyAt = told?.likelyAt ?? null
  return (
    // Room for two lines: nothing below moves when the answer comes.
    <div className="min-h-[3.2rem] py-0.5 text-[0.94rem] leading-snug" aria-live="polite">
      {told && told.kept !== null && (
        <p className={told.because ? 'font-semibold text-ember' : ''}>
          Kept {percent(told.kept)}
          {told.because && `: ${told.because}`}.
          {told.makesLate.length > 0 && (
            <>
              {' '}
              It would make {told.makesLate.slice(0, 3).join(', ')}
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
              As the bench stands, ready by {moment(likelyAt)} with 80 %.{' '}
              {(typed === '' || told.because) && (
                <Button look="bare" onClick={() => onPromise(roundUp(likelyAt))}>
                  Promise that
                </Button>
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

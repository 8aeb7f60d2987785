'use client'
import { percent } from '@/core/maths/percent'
import { useAdvice } from '@/job/AdviceProvider'
import { useJob } from '@/job/JobProvider'
import { Choice } from '@/ui/Choice'

const steps = ['5', '20', '40', '60', '80', '95'] as const
type Step = (typeof steps)[number]
const words = Object.fromEntries(steps.map((s) => [s, `${s} %`])) as Record<Step, string>

/**
 * Odds of a picture, said before the start: kept and scored when the job is done. What is reckoned is shown after they are
 * said, so that they are one’s own.
 */
export function SaidBefore() {
  const append = useJob((j) => j.append)
  const { seq: started } = useJob((j) => j.state.board.baselines.at(-1)) ?? { seq: 0 }
  const said = useJob((j) => j.state.triage.said.at(-1))
  const { belief, fresh } = useAdvice()
  const open = said !== undefined && said.seq > started ? said : null
  const value = steps.find((s) => Number(s) / 100 === open?.odds) ?? ''
  return (
    <div className="mb-2">
      <Choice<Step | ''>
        label="A picture?"
        value={value}
        options={steps}
        words={words}
        onChange={(step) =>
          append('odds said', {
            odds: Number(step) / 100,
            reckoned: fresh && belief ? Math.round(belief.picture * 1000) / 1000 : null,
          })
        }
      />
      <p className="min-h-[1.4em] text-[0.92rem] text-soft" aria-live="polite">
        {open === null
          ? 'How likely is one, said before it starts? It is kept, and scored in the record.'
          : `You say ${percent(open.odds)}${open.reckoned === null ? '' : `; reckoned ${percent(open.reckoned)}`}. The next start tells.`}
      </p>
    </div>
  )
}

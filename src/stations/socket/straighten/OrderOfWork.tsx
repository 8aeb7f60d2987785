'use client'
import { percent } from '@/core/maths/percent'
import type { Plan, Step } from '@/core/socket/straighten/plan'
import { useJob } from '@/job/JobProvider'
import { Choice } from '@/ui/Choice'
import { letGo } from '@/ui/keys'
import { Loupe } from '@/stations/socket/map/Loupe'
import type { Surface } from '@/stations/socket/map/use-surface'

const SHOWN = 60

/** The order of work: who goes first, how, from which side, and what it risks. */
export function OrderOfWork({ surface, planned }: { surface: Surface; planned: Plan | null }) {
  const school = useJob((j) => j.state.socket.school)
  const append = useJob((j) => j.append)
  const all = planned?.steps ?? []
  const steps = all.filter((s) => s.technique !== 'leave')
  const left = all.filter((s) => s.technique === 'leave')
  return (
    <div className="flex gap-5">
      <Loupe surface={surface} />
      <div className="min-w-0 flex-1">
        {steps.length === 0 ? (
          <p className="text-soft">
            {left.length > 0
              ? 'None of the marked contacts is worth a stroke.'
              : 'Nothing to straighten: no contact is marked. Walk the field with the arrows, mark with the figures.'}
          </p>
        ) : (
          <ol className="grid gap-x-5 text-[0.9rem] leading-snug @3xl:grid-cols-2">
            {steps.slice(0, SHOWN).map((step) => (
              <StepLine
                key={step.contact}
                step={step}
                here={step.contact === surface.cursor}
                onGo={() => surface.go(step.contact)}
              />
            ))}
          </ol>
        )}
        {steps.length > SHOWN && (
          <p className="mt-1 text-soft">and {steps.length - SHOWN} more; they stand in the table.</p>
        )}
        {left.length > 0 && (
          <section aria-labelledby="leave-these" className="mt-3">
            <h3 id="leave-these" className="font-semibold">
              Leave these, and why
            </h3>
            <ol className="text-[0.9rem] leading-snug">
              {left.slice(0, SHOWN).map((step) => (
                <StepLine
                  key={step.contact}
                  step={step}
                  here={step.contact === surface.cursor}
                  onGo={() => surface.go(step.contact)}
                />
              ))}
            </ol>
          </section>
        )}
        {steps.length > 0 && (
          <div className="mt-2">
            <Choice
              label="Order"
              value={school}
              options={['A', 'B']}
              words={{ A: 'easy ones first, the worst last', B: 'the worst while the eye is fresh' }}
              onChange={(s) => append('school', { school: s })}
            />
          </div>
        )}
      </div>
    </div>
  )
}

function StepLine({ step, here, onGo }: { step: Step; here: boolean; onGo: () => void }) {
  const odds =
    step.technique === 'leave' || step.technique === 'replace' || step.technique === 'look'
      ? ''
      : `${percent(step.snaps)}`
  return (
    <li className={here ? 'border-t-2 border-brass' : 'border-t border-line'}>
      <button
        type="button"
        onClick={(event) => {
          letGo(event)
          onGo()
        }}
        className="flex w-full gap-2.5 py-1 text-left"
        aria-current={here ? 'step' : undefined}
      >
        <span className="num w-12 shrink-0">{step.contact}</span>
        <span className={`min-w-0 flex-1 ${step.technique === 'leave' ? 'text-soft' : 'font-semibold'}`}>
          {step.technique === 'leave' ? step.say.replace(/^leave: /, '') : step.say}
          {step.after.length > 0 && (
            <span className="font-normal text-soft"> after {step.after.join(', ')}</span>
          )}
        </span>
        {odds && <span className="shrink-0 text-soft">{odds}</span>}
      </button>
    </li>
  )
}

'use client'
import { useJob } from '@/job/JobProvider'
import { useStationStep } from '@/frame/use-station-step'
import { Pane, StationSurface } from '@/frame/StationSurface'
import { Comeback } from './evidence/Comeback'
import { LikelyCauses } from './belief/LikelyCauses'
import { Evidence } from './evidence/Evidence'
import { tabOfStep } from './evidence/tab-of'
import { PracticeStrip } from './simulated/PracticeStrip'
import { StageLine } from './start/StageLine'
import { Answers } from './tests/Answers'
import { useTestInHand } from './tests/use-test-in-hand'

/** Which test next and its answers on top; the likely causes beside the evidence; how far it starts. */
export function TriageStation() {
  const inHand = useTestInHand()
  const practice = useJob((j) => j.simulated === 'practice')
  const { here } = useStationStep('triage', null)
  const step = inHand.step ?? here
  const test = inHand.test?.id === step.test ? inHand.test : null
  return (
    <StationSurface
      station="triage"
      instead={inHand.step}
      answers={(step) => <Answers step={step} inHand={inHand} />}
      standing={
        inHand.after.length > 0 && (
          <span className="min-w-0 truncate">
            after that:{' '}
            {inHand.after.map(({ test: t }, i) => (
              <span key={`${i} ${t.id}`}>
                {i > 0 && ' · '}
                <button
                  type="button"
                  className="font-semibold text-ink underline decoration-line underline-offset-4"
                  onClick={() => inHand.choose(t.id)}
                >
                  {t.say}
                </button>
                , {t.minutes} min
              </span>
            ))}
          </span>
        )
      }
    >
      <div className="flex flex-col lg:h-full lg:min-h-0">
        {practice && <PracticeStrip />}
        <div className="grid min-h-0 flex-1 gap-x-5 lg:grid-rows-[minmax(0,1fr)] lg:grid-cols-[minmax(0,290px)_minmax(0,1fr)] 2xl:grid-cols-[minmax(0,420px)_minmax(0,1fr)]">
          <Pane>
            <LikelyCauses belief={inHand.belief} fresh={inHand.fresh} failed={inHand.failed} />
            <Comeback />
          </Pane>
          <Evidence wanted={tabOfStep(step, test)} />
        </div>
        <StageLine />
      </div>
    </StationSurface>
  )
}

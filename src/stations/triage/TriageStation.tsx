'use client'

import { useAdvice } from '@/job/AdviceProvider'
import { useJob } from '@/job/JobProvider'
import { StationFoot } from '@/frame/StationFoot'
import { StationStep } from '@/frame/StationStep'
import { BeliefStrip } from './BeliefStrip'
import { Comeback } from './Comeback'
import { Fitted } from './Fitted'
import { Instruments } from './Instruments'
import { Looks } from './Looks'
import { NextTests } from './NextTests'
import { PowerUp } from './PowerUp'
import { PracticeStrip } from './PracticeStrip'
import { Rails } from './RailTable'
import { StartLadder } from './StartLadder'

/** Look, measure, then power; from the first power-up on, what it may be and which test is next come first. */
export function TriageStation() {
  const started = useJob((j) => j.state.board.baselines.length > 0)
  /** The outside comes before everything else, and its look stands where the eye is. */
  const looksFirst = useJob((j) => !j.state.board.power.lookedOutside)
  const { belief, fresh } = useAdvice()
  const reasoned = (
    <div className="grid grid-cols-[minmax(0,1.1fr)_minmax(0,1fr)] gap-x-8">
      <BeliefStrip belief={belief} />
      <NextTests belief={belief} fresh={fresh} />
    </div>
  )
  return (
    <>
      <StationStep station="triage" />
      <div className="mt-3">
        <PracticeStrip />
        <Comeback />
        {looksFirst && <Looks />}
        {started && reasoned}
        <Rails />
        {started && <Instruments />}
      </div>
      <div className="grid grid-cols-2 gap-x-8">
        {started ? (
          <>
            <PowerUp />
            <StartLadder />
            <Fitted />
            {!looksFirst && <Looks />}
          </>
        ) : (
          <>
            <div>
              {!looksFirst && <Looks />}
              <Fitted />
            </div>
            <div>
              <PowerUp />
              <StartLadder />
            </div>
          </>
        )}
      </div>
      {!started && reasoned}
      {!started && <Instruments />}
      <StationFoot station="triage" />
    </>
  )
}

'use client'
import { rails } from '@/core/board/rail'

import { stageReached } from '@/core/triage/stage'
import { useJob } from '@/stations/job/JobProvider'
import { StationFoot } from '@/stations/job/StationFoot'
import { StationStep } from '@/stations/job/StationStep'
import { NextStep } from '@/ui/NextStep'
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
import { useBelief } from './use-belief'

/** Look, measure, then power; from the first power-up on, what it may be and which test is next come first. */
export function TriageStation() {
  const started = useJob((j) => j.state.board.baselines.length > 0)
  /** The outside comes before everything else, and its look stands where the eye is. */
  const looksFirst = useJob((j) => !j.state.board.power.lookedOutside)
  const measured = useJob(
    (j) => rails.every((rail) => j.state.board.rails[rail]) && j.state.board.cell !== null,
  )
  /** It may be powered, was, since the last change, and does not run: then a test is next, not a power-up or proof. */
  const stuck = useJob(({ state, gate }) => {
    const last = state.board.baselines.at(-1)
    if (!last || state.handBack.done || gate.lamp === 'do not power') return false
    return state.board.lastPowered > state.board.lastTouched && stageReached(last).stopsAt !== null
  })
  const { belief, fresh } = useBelief()
  const first = belief?.next[0]
  const reasoned = (
    <div className="grid grid-cols-[minmax(0,1.1fr)_minmax(0,1fr)] gap-x-8">
      <BeliefStrip belief={belief} />
      <NextTests belief={belief} fresh={fresh} />
    </div>
  )
  return (
    <>
      {measured && stuck && first ? (
        <NextStep
          say={`${first.test.say}.`}
          why={`It tells most for its ${first.test.minutes} minutes; the outcome is one key below.`}
        />
      ) : (
        <StationStep station="triage" />
      )}
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

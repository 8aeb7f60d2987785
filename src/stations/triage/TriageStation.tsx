'use client'
import { useJob } from '@/stations/job/JobProvider'
import { StationFoot } from '@/stations/job/StationFoot'
import { StationStep } from '@/stations/job/StationStep'
import { Fitted } from './Fitted'
import { Looks } from './Looks'
import { PowerUp } from './PowerUp'
import { Rails } from './RailTable'
import { StartLadder } from './StartLadder'

/** Look, measure, then power; once it was powered, how far it starts comes first. */
export function TriageStation() {
  const started = useJob((j) => j.state.baselines.length > 0)
  return (
    <>
      <StationStep station="triage" />
      <div className="mt-3">
        <Rails />
      </div>
      <div className="grid grid-cols-2 gap-x-8">
        {started ? (
          <>
            <PowerUp />
            <StartLadder />
            <Fitted />
            <Looks />
          </>
        ) : (
          <>
            <div>
              <Looks />
              <Fitted />
            </div>
            <div>
              <PowerUp />
              <StartLadder />
            </div>
          </>
        )}
      </div>
      <StationFoot station="triage" />
    </>
  )
}

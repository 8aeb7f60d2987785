'use client'
import { StationFoot } from '@/stations/job/StationFoot'
import { StationStep } from '@/stations/job/StationStep'
import { Fitted } from './Fitted'
import { Looks } from './Looks'
import { PowerUp } from './PowerUp'
import { RailTable } from './RailTable'
import { StartLadder } from './StartLadder'

/** Look, measure, then power: what is known before power at the left, the start itself at the right. */
export function TriageStation() {
  return (
    <>
      <StationStep station="triage" />
      <div className="mt-3 grid grid-cols-[minmax(0,1.12fr)_minmax(0,1fr)] gap-x-8">
        <div>
          <RailTable />
          <Fitted />
          <Looks />
        </div>
        <div>
          <PowerUp />
          <StartLadder />
        </div>
      </div>
      <StationFoot station="triage" />
    </>
  )
}

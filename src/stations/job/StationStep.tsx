'use client'
import type { Station } from '@/core/job/entry'
import { nextStep } from '@/core/job/way'
import type { Plan } from '@/core/socket/plan'
import { NextStep } from '@/ui/NextStep'
import { useJob } from './JobProvider'

/** What to do next at this station, computed from the tape. */
export function StationStep({ station, planned = null }: { station: Station; planned?: Plan | null }) {
  const state = useJob((j) => j.state)
  const socket = useJob((j) => j.socket)
  const gate = useJob((j) => j.gate)
  return <NextStep {...nextStep(station, state, socket, gate, planned)} />
}

'use client'
import type { Station } from '@/core/board/station'

import { nextStep } from '@/core/job/way'
import type { SocketWork } from '@/core/job/way'
import { NextStep } from '@/ui/NextStep'
import { useJob } from './JobProvider'

/** What to do next at this station, computed from the tape. */
export function StationStep({ station, work = null }: { station: Station; work?: SocketWork | null }) {
  const state = useJob((j) => j.state)
  const socket = useJob((j) => j.socket)
  const gate = useJob((j) => j.gate)
  return <NextStep {...nextStep(station, state, socket, gate, work)} />
}

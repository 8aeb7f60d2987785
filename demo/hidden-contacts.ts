import type { Entry } from '@/core/job/job-state'
import { jobState } from '@/core/job/job-state'
import { isDamage } from '@/core/socket/damage/mark'
import type { Marks } from '@/core/socket/damage/mark'
import { trulyMarked } from '@/simulated-bench/hidden-contacts'
import { demoSockets } from './sockets'

/** What the contacts of a demo board are really like: what its tape has marked so far, and a few nobody has seen yet. */
export function hiddenContacts(entries: readonly Entry[], seed: number): Marks {
  const state = jobState(entries)
  const socket = Object.values(demoSockets).find((s) => s.id === state.intake.ticket.socketId)
  const marks = state.socket.passes.at(-1)?.marks ?? {}
  return socket && Object.values(marks).some(isDamage) ? trulyMarked(socket, marks, seed) : {}
}

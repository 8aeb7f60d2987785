import 'server-only'
import { jointOpen } from '@/simulated-bench/refitted-chip'
import { evidenceOf } from '@/core/job/evidence'
import type { JobState } from '@/core/job/job-state'
import type { References } from '@/core/job/references'
import type { Socket } from '@/core/socket/model/socket'
import type { FaultId } from '@/core/triage/model/faults'
import type { HiddenBoard } from '@/data/hidden-boards'

/** What is wrong with a simulated board now: what it was laid with and is not repaired, and what the work has made. */
export function faultsNow(
  { faults, seed }: Pick<HiddenBoard, 'faults' | 'seed'>,
  state: JobState,
  socket: Socket | null,
  references: Partial<References>,
): readonly FaultId[] {
  const { mended } = evidenceOf(state, socket, references)
  const left = faults.filter((f) => !mended.includes(f))
  return jointOpen(seed, state.firmware) && !left.includes('chip joint') ? [...left, 'chip joint'] : left
}

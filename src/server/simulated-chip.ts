import 'server-only'
import { hiddenBoardOf } from '@/data/hidden-boards'
import { jobNow } from '@/data/job-now'
import { referencesOf } from '@/data/references'
import { faultsNow } from './hidden-faults'
import type { ChipOnBoard } from '@/simulated-bench/chip-on-board'

/** The chip of a job’s simulated board, with what is left of its faults; null on a real bench. */
export async function simulatedChip(jobId: string): Promise<ChipOnBoard | null> {
  const hidden = await hiddenBoardOf(jobId)
  const { state, socket } = await jobNow(jobId)
  const { boardModelId } = state.intake.ticket
  if (!hidden || !boardModelId) return null
  return {
    boardModelId,
    seed: hidden.seed,
    faults: [
      ...faultsNow(hidden, state, socket, await referencesOf(boardModelId)),
      // What was written stands in the chip’s blocks; how it was laid does not change by it.
      ...hidden.faults.filter((f) => f === 'firmware corrupt'),
    ],
  }
}

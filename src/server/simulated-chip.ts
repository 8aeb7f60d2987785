import 'server-only'
import { evidenceOf } from '@/core/job/evidence'
import { hiddenBoardOf } from '@/data/hidden-boards'
import { jobNow } from '@/data/job-now'
import { referencesOf } from '@/data/references'
import type { ChipOnBoard } from '@/simulated-bench/chip-on-board'

/** The chip of a job’s simulated board, with what is left of its faults; null on a real bench. */
export async function simulatedChip(jobId: string): Promise<ChipOnBoard | null> {
  const hidden = await hiddenBoardOf(jobId)
  const { state, socket } = await jobNow(jobId)
  const { boardModelId } = state.intake.ticket
  if (!hidden || !boardModelId) return null
  const { mended } = evidenceOf(state, socket, await referencesOf(boardModelId))
  return {
    boardModelId,
    seed: hidden.seed,
    // What was written stands in the chip’s blocks; how it was laid does not change by it.
    faults: hidden.faults.filter((f) => f === 'firmware corrupt' || !mended.includes(f)),
  }
}

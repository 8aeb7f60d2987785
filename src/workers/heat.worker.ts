import { expose } from 'comlink'
import { correctedBy } from '@/core/parts/heat/corrected'
import { runHeat } from '@/core/parts/heat/heat-run'
import { searchHeat } from '@/core/parts/heat/heat-search'
import type { AtHand, Sought } from '@/core/parts/heat/heat-search'
import type { SetUp } from '@/core/parts/heat/set-up'
import { stepByStep } from './step-by-step'

let searching = 0

const worker = {
  run: runHeat,
  correct: correctedBy,
  /** The best recipe; null when it was stopped, or asked for anew, on the way. */
  async search(setUp: SetUp, hand: AtHand, progress: (share: number) => void): Promise<Sought | null> {
    const own = ++searching
    const work = searchHeat(setUp, hand)
    return stepByStep(work, progress, () => own !== searching)
  },
  stop(): void {
    searching++
  },
}

export type HeatWorker = typeof worker

expose(worker)

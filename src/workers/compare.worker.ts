import { expose } from 'comlink'
import { compareBoards } from '@/core/parts/compare/compare'
import type { CompareAnswer } from '@/core/parts/compare/compare'
import { openPicture, pixelsOf } from './open-picture'
import { stepByStep } from './step-by-step'

let comparing = 0

const worker = {
  /** Compares two pictures; null when it was stopped, or asked for anew, on the way. */
  async compare(
    photo: Blob,
    other: Blob,
    wideMm: number,
    progress: (share: number) => void,
  ): Promise<CompareAnswer | null> {
    const own = ++comparing
    const mine = await openPicture(photo, 'board')
    if ('fault' in mine) return { compared: null, fault: { field: 'photo', text: mine.fault } }
    const theirs = await openPicture(other, 'board')
    if ('fault' in theirs) return { compared: null, fault: { field: 'other', text: theirs.fault } }
    const pxPerMm = mine.width / wideMm
    return stepByStep(
      compareBoards(pixelsOf(mine), pixelsOf(theirs), pxPerMm),
      progress,
      () => own !== comparing,
    )
  },
  stop(): void {
    comparing++
  },
}

export type CompareWorker = typeof worker

expose(worker)

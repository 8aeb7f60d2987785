import { describe, expect, it } from 'vitest'
import { faultIds } from '../model/faults'
import type { FaultId } from '../model/faults'
import { UNKNOWN, WIDTH } from './hypotheses'
import { workBoard } from './work-board'

/** A board that starts dark whatever is done, and of which nothing more can be learned. */
function worked(odds: number, unknown: number) {
  const prior = new Float64Array(WIDTH)
  const rest = ['slot A', 'CPU'] as const
  prior[1 + faultIds.indexOf('module')] = odds
  for (const fault of rest) prior[1 + faultIds.indexOf(fault)] = (1 - odds - unknown) / rest.length
  prior[UNKNOWN + 7] = unknown
  const mended: FaultId[] = []
  const board = {
    wrong: [] as FaultId[],
    unlisted: true,
    see: () => 'memory lamp',
    mend: (fault: FaultId) => mended.push(fault) < 0,
  }
  return { ...workBoard(() => null, prior, board), mended }
}

describe('a board on which no test tells any more', () => {
  it('is repaired to see where the likeliest fault is likely enough, once', () => {
    expect(worked(0.8, 0.02).mended).toEqual(['module'])
    expect(worked(0.3, 0.02).mended).toEqual([])
  })
  it('is left undecided where it may well be something in no list', () => {
    const { mended, needless, end } = worked(0.7, 0.25)
    expect(mended).toEqual([])
    expect(needless).toBe(false)
    expect(end).toBe('undecided')
  })
})

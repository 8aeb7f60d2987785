import { jobState } from '../../job/job-state'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { tape } from '../../job/tape.testing'
import { cellCauses, cellSeen, readCell } from './coin-cell'
import type { CellSeen } from './coin-cell'

const nothingSeen: CellSeen = { aloneV: null, atBoardV: null, settings: null, isNew: false }
const read = (seen: Partial<CellSeen>) => readCell({ ...nothingSeen, ...seen })

describe('the coin cell', () => {
  it.each([
    [{ aloneV: 2.1, settings: 'lost' }, 'cell'],
    [{ aloneV: 3.05, atBoardV: 1.9, settings: 'lost' }, 'holder'],
    [{ aloneV: 3.05, atBoardV: 3.04, settings: 'kept' }, 'nothing'],
    [{ aloneV: 3.1, atBoardV: 2.97 }, 'nothing'],
    [{ aloneV: 3.05, atBoardV: 3.04, settings: 'lost' }, 'settings'],
    [{ aloneV: 2.6, atBoardV: 2.4, settings: 'lost', isNew: true }, 'drain'],
    [{ aloneV: 0.4 }, 'cell'],
    [{ aloneV: 0 }, 'cell'],
    [{ aloneV: 3.05, atBoardV: 0 }, 'holder'],
    [{ atBoardV: 0, isNew: true }, 'holder'],
    [{ aloneV: 3.2, atBoardV: 0.3, isNew: true, settings: 'lost' }, 'holder'],
  ] as const)('%j points to %s', (seen, cause) => {
    expect(read(seen).likeliest).toBe(cause)
  })
  it('a good cell whose board forgets is not cleared by the cell alone: the board is measured next', () => {
    const reading = read({ aloneV: 3.05, settings: 'lost' })
    expect(reading.next).toBe('atBoardV')
    expect(reading.odds.find((o) => o.cause === 'holder')!.odds).toBeGreaterThan(0.2)
  })
  it('asks for nothing more once it is plain', () => {
    expect(read({ aloneV: 3.05, atBoardV: 3.04, settings: 'kept' }).next).toBeNull()
  })
  it('odds sum to one, and lost settings never speak for “nothing”', () => {
    const volts = fc.option(fc.double({ min: 0, max: 3.6, noNaN: true }))
    fc.assert(
      fc.property(volts, volts, fc.boolean(), (aloneV, atBoardV, isNew) => {
        const before = read({ aloneV, atBoardV, isNew })
        const after = read({ aloneV, atBoardV, isNew, settings: 'lost' })
        expect(after.odds.reduce((sum, o) => sum + o.odds, 0)).toBeCloseTo(1, 9)
        const well = (r: typeof before) => r.odds.find((o) => o.cause === 'nothing')!.odds
        expect(well(after)).toBeLessThanOrEqual(well(before) + 1e-12)
        expect(new Set(after.odds.map((o) => o.cause))).toEqual(new Set(cellCauses))
      }),
    )
  })
})

describe('what the tape has seen of the cell', () => {
  const seen = (t: ReturnType<typeof tape>) => {
    const { board, triage } = jobState(t.entries)
    return cellSeen(board, triage)
  }
  const runs = (settingsKept: boolean) => ({ ratedMTs: null, seenMTs: null, startS: null, settingsKept })
  it('is nothing at first, and the last of each afterwards', () => {
    expect(seen(tape())).toEqual(nothingSeen)
    const t = tape()
      .put('cell', { volts: 2.9 })
      .put('cell', { volts: 2.1, where: 'at the board' })
      .put('cell', { volts: 2.8 })
    expect(seen(t)).toEqual({ ...nothingSeen, aloneV: 2.8, atBoardV: 2.1 })
  })
  it('forgets the old cell once there is a new one', () => {
    const t = tape().put('cell', { volts: 2.1 }).put('cell', { volts: 3, where: 'at the board', isNew: true })
    expect(seen(t)).toEqual({ ...nothingSeen, atBoardV: 3, isNew: true })
  })
  it('takes the newest of several new cells', () => {
    const t = tape()
      .put('cell', { volts: 3.1, isNew: true })
      .put('cell', { volts: 0.4, where: 'at the board' })
      .put('cell', { volts: 3.0, where: 'at the board', isNew: true })
    expect(seen(t)).toEqual({ ...nothingSeen, atBoardV: 3, isNew: true })
  })
  it('is never well by itself below two volts', () => {
    for (let v = 0; v <= 2; v += 0.1) expect(read({ aloneV: v }).likeliest).not.toBe('nothing')
  })
  it('takes whether settings stay from whichever was noted last', () => {
    const lost = tape().put('trial', { test: 'settings kept', outcome: 'lost' })
    expect(seen(lost).settings).toBe('lost')
    expect(seen(lost.put('runs', runs(true))).settings).toBe('kept')
    expect(seen(lost.put('trial', { test: 'settings kept', outcome: 'lost' })).settings).toBe('lost')
  })
})

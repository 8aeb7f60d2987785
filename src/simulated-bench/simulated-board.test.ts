import { rails } from '@/core/board/rail'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { benchTests } from '@/core/triage/model/bench-tests'
import { readCodes } from '@/core/triage/instruments/code-tape'
import type { CodeTable } from '@/core/triage/instruments/code-tape'
import { readCurrent } from '@/core/triage/instruments/current-trace'
import { faultIds } from '@/core/triage/model/faults'
import { judgeRails } from '@/core/triage/instruments/rail-table'
import { verdictOf } from '@/core/proof/temperature'
import { SimulatedBoard } from './simulated-board'

const codes: CodeTable = {
  name: 'a board',
  codes: [
    { code: '10', stage: 'first fetch', say: '', restS: 4 },
    { code: '1A', stage: 'CPU and chipset', say: '', restS: 6 },
    { code: '4C', stage: 'memory training', say: '', restS: 60 },
    { code: '70', stage: 'graphics', say: '', restS: 10 },
    { code: 'AA', stage: 'running', say: '', restS: 0 },
  ],
}
const hidden = (faults: readonly (typeof faultIds)[number][], seed = 7) => ({
  faults,
  seed,
  rails: null,
  codes,
})
const any = fc.record({
  faults: fc.uniqueArray(fc.constantFrom(...faultIds), { maxLength: 2 }),
  seed: fc.integer(),
  line: fc.nat({ max: 300 }),
})

describe('a simulated board', () => {
  it('answers the same question at the same line alike, and another line anew', () => {
    const board = (line: number) => new SimulatedBoard(hidden(['module']), [], line)
    expect(board(4).powerUp(null)).toEqual(board(4).powerUp(null))
    const ohms = Array.from({ length: 8 }, (_, line) => board(line).ohms('vmem', 'out'))
    expect(new Set(ohms).size).toBeGreaterThan(4)
  })
  it('gives every test one of its outcomes, and every reading its place', () => {
    fc.assert(
      fc.property(any, ({ faults, seed, line }) => {
        const board = new SimulatedBoard(hidden(faults, seed), [], line)
        for (const test of benchTests) expect(test.outcomes).toContain(board.carryOut(test.id))
        for (const rail of rails) {
          const ohms = board.ohms(rail, 'out')
          const [judged] = judgeRails(
            { ohms: { [rail]: { ohms, cpu: 'out' } }, volts: { [rail]: board.volts(rail) } },
            null,
          )
          expect(judged!.ohms!.state).toBe(board.carryOut(`ohms ${rail}`))
          expect(judged!.volts!.state === 'missing').toBe(board.carryOut(`volts ${rail}`) === 'missing')
        }
      }),
      { numRuns: 40 },
    )
  })
  it('a mended fault acts no more', () => {
    const board = (mended: readonly 'core rail short'[]) =>
      new SimulatedBoard(hidden(['core rail short']), mended, 3)
    expect(board([]).ohms('vcore', 'out')).toBeLessThan(2)
    expect(board(['core rail short']).ohms('vcore', 'out')).toBeGreaterThan(4)
  })
  it('its current reads as the pattern it was drawn as, its codes as far as it comes', () => {
    fc.assert(
      fc.property(any, ({ faults, seed, line }) => {
        const board = new SimulatedBoard(hidden(faults, seed), [], line)
        expect(readCurrent(board.current(null)).pattern).toBe(board.powerUp(null).current)
        const reading = readCodes(board.codes(), codes)
        expect(reading.waitS).toBeNull()
        expect(reading.unknown).toEqual([])
      }),
      { numRuns: 40 },
    )
  })
  it('runs when nothing is wrong, most times', () => {
    const runs = Array.from({ length: 60 }, (_, line) =>
      new SimulatedBoard(hidden([]), [], line).powerUp(null),
    )
    expect(runs.filter((b) => b.picture === 'system loads').length).toBeGreaterThan(45)
  })
  it('levels off well below the limit, and too hot where the cooler is at fault', () => {
    const verdicts = (faults: readonly (typeof faultIds)[number][]) =>
      new Set(
        Array.from({ length: 8 }, (_, seed) =>
          verdictOf(new SimulatedBoard(hidden(faults, seed), [], seed).temperature()),
        ),
      )
    expect(verdicts([])).toEqual(new Set(['levels off']))
    expect(verdicts(['cooling'])).toEqual(new Set(['too hot']))
    expect(verdictOf(new SimulatedBoard(hidden(['cooling']), ['cooling'], 3).temperature())).toBe(
      'levels off',
    )
    const starts = (faults: readonly (typeof faultIds)[number][]) =>
      Array.from({ length: 20 }, (_, line) => new SimulatedBoard(hidden(faults), [], line).starts()).filter(
        Boolean,
      ).length
    expect(starts(['12 V short'])).toBeLessThan(5)
    expect(starts([])).toBeGreaterThan(15)
  })
  it('shows no more than its model can', () => {
    const shown = { 'debug LEDs': false, 'code display': false, 'code card': false }
    fc.assert(
      fc.property(any, ({ faults, seed, line }) => {
        const board = new SimulatedBoard(
          { ...hidden(faults, seed), codes, shows: { name: '', shown } },
          [],
          line,
        )
        expect(board.powerUp(null)).toMatchObject({ lamp: 'not noted', codes: [] })
        expect(board.codes().codes).toEqual([])
        expect(board.carryOut('cold start')).not.toMatch(/lamp/)
      }),
      { numRuns: 60 },
    )
  })
  it('has the rails of its model, and a short on one of its own reads as one', () => {
    const own = (volts: number | null) => ({ ohmsOut: 92, ohmsIn: null, volts })
    const good = { name: '', rails: { chipset: own(1.05), vmem2: own(2.5) } }
    const read = (line: number, faults: readonly 'other rail short'[]) => {
      const board = new SimulatedBoard({ ...hidden(faults), rails: good }, [], line)
      const readings = board.allOhms('out').filter((r) => ['chipset', 'vmem2'].includes(r.rail))
      expect(board.rails).toHaveLength(9)
      return readings.map(
        (r) =>
          judgeRails({ ohms: { [r.rail]: r }, volts: {} }, good).find((j) => j.rail === r.rail)!.ohms!.state,
      )
    }
    const lines = Array.from({ length: 40 }, (_, line) => line)
    for (const line of lines) expect(read(line, [])).toEqual(['good', 'good'])
    const shorted = lines.map((line) => read(line, ['other rail short']))
    expect(shorted.filter((s) => s.includes('short')).length).toBeGreaterThan(25)
    // It is one of them, always the same.
    expect(
      new Set(shorted.map((s) => s.findIndex((state) => state === 'short')).filter((i) => i >= 0)).size,
    ).toBe(1)
  })
  it('the supply never gives more than its limit', () => {
    const board = new SimulatedBoard(hidden([]), [], 1)
    expect(Math.max(...board.current(0.8).amps)).toBeLessThanOrEqual(0.8)
  })
})

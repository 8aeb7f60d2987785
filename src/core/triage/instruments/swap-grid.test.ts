import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readGrid, swapTells, swapWorks } from './swap-grid'
import type { Swap } from './swap-grid'

const tried = (part: string, place: string, works: boolean, knownGood = false): Swap => ({
  what: 'module',
  part,
  place,
  knownGood,
  outcome: works ? 'system loads' : 'memory lamp',
})

describe('a swap grid', () => {
  it('blames the slot when two modules fail in it and work in the other', () => {
    const reading = readGrid('module', [
      tried('own', 'A', false),
      tried('own', 'B', true),
      tried('good', 'A', false, true),
      tried('good', 'B', true, true),
    ])
    expect(reading.blame[0]).toMatchObject({ what: 'place', name: 'A' })
    expect(reading.say).toBe('A fails, the rest is innocent')
  })
  it('blames the module when it fails in both slots and another works', () => {
    const reading = readGrid('module', [
      tried('own', 'A', false),
      tried('own', 'B', false),
      tried('good', 'A', true, true),
    ])
    expect(reading.blame[0]).toMatchObject({ what: 'part', name: 'own' })
    expect(reading.say).toBe('module own fails, the rest is innocent')
  })
  it('blames neither when everything fails everywhere', () => {
    const all = ['own', 'good', 'spare'].flatMap((p) =>
      ['A', 'B', 'C'].map((s) => tried(p, s, false, p === 'good')),
    )
    expect(readGrid('module', all).say).toContain('neither the module nor its place')
  })
  it('says which empty cell would tell most, and none when all is told', () => {
    const half = readGrid('module', [tried('own', 'A', false), tried('good', 'B', true, true)])
    expect(half.tryNext).toMatchObject({ part: 'good', place: 'A' })
    expect(readGrid('module', [tried('own', 'A', true)]).tryNext).toBeNull()
    expect(readGrid('CPU', []).say).toContain('no CPU was tried')
  })
  it('takes a trial as far as it shows the part: a memory lamp clears the CPU, not the module', () => {
    expect(swapWorks({ what: 'CPU', outcome: 'memory lamp' })).toBe(true)
    expect(swapWorks({ what: 'module', outcome: 'memory lamp' })).toBe(false)
    expect(swapWorks({ what: 'drive', outcome: 'maker screen' })).toBe(false)
    expect(swapWorks({ what: 'module', outcome: 'never heard of' })).toBe(false)
  })
  it('leaves out a start in the dark that nobody could tell how far it came, and says so', () => {
    const dark = { ...tried('own', 'A', false), outcome: 'fans, dark' }
    expect(swapTells(dark)).toBe(false)
    expect(swapTells({ ...dark, what: 'supply' })).toBe(true)
    expect(swapWorks({ ...dark, what: 'supply' })).toBe(true)
    expect(swapWorks({ what: 'module', outcome: 'settings screen' })).toBe(true)
    expect(swapTells({ what: 'drive', outcome: 'settings screen' })).toBe(false)
    expect(readGrid('module', [dark]).say).toBe(
      'how far it came with own was not to be seen: that shows nothing',
    )
    const both = readGrid('module', [dark, tried('own', 'B', true)])
    expect(both.say).toContain('how far it came with own was not to be seen')
    expect(both.say).toContain('every trial came through')
  })
  it('takes a CPU that the release does not run for no known-good one: that it stays dark shows nothing', () => {
    const cpu = (part: string, works: boolean, listed?: Swap['listed']): Swap => ({
      what: 'CPU',
      part,
      place: 'this board',
      knownGood: part !== 'own',
      outcome: works ? 'system loads' : 'fans, no lamp',
      ...(listed ? { listed } : {}),
    })
    const dark = readGrid('CPU', [cpu('own', false), cpu('bench', false, 'no')])
    expect(dark.blame).toEqual(readGrid('CPU', [cpu('own', false)]).blame)
    expect(dark.say).toMatch(
      /^what is in the chip does not run bench: that it stayed dark shows nothing; not told/,
    )
    expect(readGrid('CPU', [cpu('bench', false, 'no')]).say).not.toMatch(/came through|innocent|neither/)
    // That it starts shows as much as any other.
    expect(readGrid('CPU', [cpu('bench', true, 'no')]).blame).toEqual(
      readGrid('CPU', [cpu('bench', true, 'yes')]).blame,
    )
  })
  it('never says that every trial came through where one failed', () => {
    const place = fc.constantFrom('A', 'B', 'C', 'D')
    const trials = fc.array(fc.tuple(place, place, fc.boolean(), fc.boolean()), {
      minLength: 1,
      maxLength: 12,
    })
    fc.assert(
      fc.property(trials, (list) => {
        const swaps = list.map(([part, at, works, good]) => tried(part, at, works, good))
        if (readGrid('module', swaps).say.startsWith('every trial')) expect(swaps.every(swapWorks)).toBe(true)
      }),
      { numRuns: 200 },
    )
  })
  it('gives the odds that naming every case gives, for one part and one place', () => {
    const p = readGrid('module', [tried('own', 'A', false)]).blame
    // Bad are: own 0.12, A 0.12, something else 0.2; it fails with 0.95 if any is, else with 0.03.
    const any = 1 - 0.88 * 0.88 * 0.8
    const fails = any * 0.95 + (1 - any) * 0.03
    expect(p.find((b) => b.what === 'part')!.odds).toBeCloseTo((0.12 * 0.95) / fails, 9)
    expect(p.find((b) => b.what === 'neither')!.odds).toBeCloseTo((0.2 * 0.95) / fails, 9)
  })
  it('a failure never makes its part look better, a start never worse; any number of parts is taken', () => {
    const swap = fc.record({
      what: fc.constant('module' as const),
      part: fc.constantFrom(...'abcdefghij'),
      place: fc.constantFrom(...'ABCDEFGH'),
      knownGood: fc.boolean(),
      outcome: fc.constantFrom('memory lamp', 'system loads'),
    })
    fc.assert(
      fc.property(fc.array(swap, { maxLength: 20 }), fc.boolean(), (swaps, works) => {
        const odds = (list: readonly Swap[]) =>
          readGrid('module', list).blame.find((b) => b.name === 'x')?.odds
        const first = [...swaps, tried('x', 'A', true), tried('x', 'A', true), tried('x', 'A', true)]
        const [before, after] = [odds(first)!, odds([...first, tried('x', 'A', works)])!]
        if (works) expect(after).toBeLessThanOrEqual(before + 1e-9)
        else expect(after).toBeGreaterThanOrEqual(before - 1e-9)
      }),
      { numRuns: 40 },
    )
  })
})

import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { codeColumns, codeRows, readCodes, readCodeTable, roundOf } from './code-tape'
import type { CodeTable } from './code-tape'
import { stages } from '../model/stage'

const table: CodeTable = {
  name: 'a board',
  codes: [
    { code: '10', stage: 'first fetch', say: 'first fetch', restS: 5 },
    { code: '1A', stage: 'CPU and chipset', say: 'CPU wakes', restS: 8 },
    { code: '4C', stage: 'memory training', say: 'training', restS: 180 },
    { code: '4D', stage: 'memory training', say: 'training, second channel', restS: 180 },
    { code: '70', stage: 'graphics', say: 'graphics', restS: 20 },
    { code: 'AA', stage: 'running', say: 'handed over', restS: 0 },
  ],
}
const seen = (text: string, more: { atS?: number[]; watchedS?: number } = {}) =>
  readCodes({ codes: text.split(' ').filter(Boolean), ...more }, table)

describe('a run of codes', () => {
  it('asks for a wait while memory may train, and calls it stuck when the training time is over', () => {
    const early = seen('10 1A 4C', { atS: [1, 3, 9], watchedS: 60 })
    expect(early).toMatchObject({ shows: 'wait', waitS: 129, outcome: null })
    expect(early.say).toContain('wait 3 min more')
    const late = seen('10 1A 4C', { atS: [1, 3, 9], watchedS: 200 })
    expect(late).toMatchObject({ shows: 'stuck', outcome: 'memory', furthest: { code: '4C' } })
    expect(late.say).toContain('for 191 s, 180 s is usual')
  })
  it('waits for training when no time was noted, and not for a code that rests briefly', () => {
    expect(seen('10 1A 4C')).toMatchObject({ shows: 'wait', waitS: 180 })
    expect(seen('10 1A')).toMatchObject({ shows: 'stuck', outcome: 'early' })
  })
  it('finds a loop with its members, round time and that it starts over', () => {
    const atS = [0, 2, 4, 30, 32, 34, 60, 62, 64, 90]
    const reading = seen('10 1A 4C 10 1A 4C 10 1A 4C 10', { atS, watchedS: 91 })
    expect(reading).toMatchObject({ shows: 'loops', outcome: 'memory' })
    expect(reading.loop).toMatchObject({ members: ['10', '1A', '4C'], everyS: 30, startsOver: true })
    expect(reading.say).toContain('it starts over')
  })
  it('asks for a third round when it came only twice', () => {
    const twice = seen('19 10 1A 10 1A')
    expect(twice).toMatchObject({ shows: 'goes on', outcome: null, loop: null })
    expect(twice.say).toContain('10 1A came twice: watch whether it comes a third time')
  })
  it('takes going round within training for training until its time is over', () => {
    const codes = '4C 4D 4C 4D 4C 4D'
    const atS = [10, 20, 30, 40, 50, 60]
    expect(seen(codes, { atS, watchedS: 70 })).toMatchObject({ shows: 'wait', waitS: 120 })
    expect(seen(codes, { atS, watchedS: 300 })).toMatchObject({ shows: 'loops', outcome: 'memory' })
    expect(seen(codes, { atS, watchedS: 300 }).say).toContain('longer than training takes')
  })
  it('says which codes it does not know, and concludes nothing from them alone', () => {
    expect(seen('C7 C7', { watchedS: 900 })).toMatchObject({ shows: 'stuck', unknown: ['C7'], outcome: null })
    expect(readCodes({ codes: ['C7'], watchedS: 900 }, null)).toMatchObject({ unknown: [], outcome: null })
  })
  it('knows a board that came through, and one that showed nothing', () => {
    expect(seen('10 1A 4C 70 AA')).toMatchObject({ shows: 'came through', outcome: 'late' })
    expect(seen('')).toMatchObject({ shows: 'nothing', outcome: 'none' })
  })
})

/** The round by trying every period against every tail. */
function slowRound(codes: readonly string[]) {
  for (let p = 2; p <= Math.min(48, codes.length / 2); p++) {
    let best = 0
    for (let tail = 2 * p; tail <= codes.length; tail++) {
      const part = codes.slice(codes.length - tail)
      if (part.every((c, i) => i < p || c === part[i - p])) best = tail
    }
    if (best) return { period: p, tail: best }
  }
  return null
}

describe('the round a sequence ends in', () => {
  it('is the one that brute force finds', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom('A', 'B', 'C'), { maxLength: 14 }), (codes) => {
        expect(roundOf(codes)).toEqual(slowRound(codes))
      }),
    )
  })
  it('is found behind any beginning, as long as it came three times', () => {
    const code = fc.integer({ min: 16, max: 255 }).map((n) => n.toString(16).toUpperCase())
    fc.assert(
      fc.property(
        fc.array(code, { maxLength: 9 }),
        fc.uniqueArray(code, { minLength: 2, maxLength: 8 }),
        (head, round) => {
          const found = readCodes({ codes: [...head, ...round, ...round, ...round] }, null)
          expect(found.shows).toBe('loops')
          expect([...found.loop!.members].sort()).toEqual([...round].sort())
        },
      ),
    )
  })
  it('never throws and always says something', () => {
    const code = fc.constantFrom('10', '1A', '4C', '4D', '70', 'AA', 'C7', '')
    fc.assert(
      fc.property(
        fc.array(code, { maxLength: 30 }),
        fc.option(fc.double({ min: 0, max: 1e5, noNaN: true })),
        (codes, watched) => {
          const reading = readCodes({ codes, ...(watched === null ? {} : { watchedS: watched }) }, table)
          expect(reading.say).not.toBe('')
          expect(reading.shows === 'wait').toBe(reading.waitS !== null)
          if (reading.shows === 'wait') expect(reading.outcome).toBeNull()
        },
      ),
    )
  })
})

describe('a code table', () => {
  it('reads back as it was written', () => {
    const rows = codeRows(table).map((r) => Object.fromEntries(codeColumns.map((c, i) => [c, r[i]])))
    expect(readCodeTable('a board', rows, codeColumns)).toEqual({ table, findings: [] })
  })
  it.each([
    [{ code: '4G', stage: 'graphics', say: '' }, 'code', '“4G” is no code'],
    [{ code: '4C', stage: 'memory', say: '' }, 'stage', `use one of: ${stages.join(', ')}`],
    [{ code: '4C', stage: 'graphics', say: '', rest_s: '1,5' }, 'rest_s', 'write a decimal point'],
    [{ code: '4C', stage: 'graphics', say: '', rest_s: '-3' }, 'rest_s', 'not between 0 and 3,600'],
  ])('refuses %j', (row, field, text) => {
    const { table: none, findings } = readCodeTable('x', [row], codeColumns)
    expect(none).toBeNull()
    expect(findings[0]).toMatchObject({ line: 2, field })
    expect(findings[0]!.text).toContain(text)
  })
  it('refuses a code that stands twice, a missing column and no rows', () => {
    const row = { code: '4c', stage: 'graphics', say: 'x' }
    expect(readCodeTable('x', [row, row], codeColumns).findings[0]!.text).toBe('4C stands already on line 2')
    expect(readCodeTable('x', [], ['code;stage;say']).findings[0]!.text).toContain('columns are not split')
    expect(readCodeTable('x', [], codeColumns).table).toBeNull()
  })
})

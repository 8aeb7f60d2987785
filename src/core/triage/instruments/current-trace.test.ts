import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { seeded } from '../../maths/seeded'
import {
  compareTraces,
  keptCurrent,
  readCurrent,
  readTrace,
  thinCurve,
  traceColumns,
  traceRows,
} from './current-trace'
import type { Trace } from './current-trace'
import { drawn } from './drawn-trace.testing'

const table = (trace: Trace) => traceRows(trace).map(([s, a]) => ({ s, a }))

describe('a current trace', () => {
  it('names standby, inrush and plateau', () => {
    const reading = readCurrent(
      drawn([
        [4, 0.06],
        [0.4, 2.8],
        [8, 1.3],
      ]),
    )
    expect(reading.segments.map((s) => s.kind)).toEqual(['standby', 'inrush', 'steady'])
    expect(reading.pattern).toBe('steady')
    expect(reading.standbyA).toBeCloseTo(0.06, 2)
    expect(reading.plateauA).toBeCloseTo(1.3, 2)
  })
  it('finds cycling and its period behind standby', () => {
    const rounds = Array.from(
      { length: 9 },
      () =>
        [
          [1.1, 0.9],
          [1.3, 0.12],
        ] as const,
    ).flat()
    const reading = readCurrent(drawn([[5, 0.06], ...rounds]))
    expect(reading.pattern).toBe('cycling')
    expect(Math.abs(reading.periodS! - 2.4)).toBeLessThan(0.1)
    expect(reading.say).toContain('it cycles every')
  })
  it('finds cycling too fast for its stretches', () => {
    const rounds = Array.from(
      { length: 200 },
      () =>
        [
          [0.06, 0.7],
          [0.06, 0.2],
        ] as const,
    ).flat()
    const reading = readCurrent(drawn([[3, 0.05], ...rounds], 100))
    expect(reading.pattern).toBe('cycling')
    expect(Math.abs(reading.periodS! / 0.12 - 1)).toBeLessThan(0.1)
  })
  it('calls a steady current with a ripple of 60 mA steady', () => {
    const seconds = Float64Array.from({ length: 4000 }, (_, i) => i / 200)
    const amps = seconds.map((s) => (s < 3 ? 0.06 : 1 + 0.06 * Math.sin(2 * Math.PI * 1.5 * s)))
    const reading = readCurrent({ seconds, amps })
    expect(reading.pattern).toBe('steady')
    expect(reading.plateauA).toBeCloseTo(1, 1)
    const square = seconds.map((s) => (s < 3 ? 0.06 : Math.floor(s * 2) % 2 ? 1.06 : 0.94))
    expect(readCurrent({ seconds, amps: square }).pattern).toBe('steady')
    const falls = seconds.map((s) => (s < 3 ? 0.06 : Math.floor(s) % 2 ? 1 : 0.2))
    expect(readCurrent({ seconds, amps: falls }).pattern).toBe('cycling')
  })
  it('tells a trip, standby alone and nothing at all', () => {
    expect(
      readCurrent(
        drawn([
          [3, 0.06],
          [0.2, 3],
          [5, 0.004],
        ]),
      ).pattern,
    ).toBe('trips')
    expect(readCurrent(drawn([[9, 0.06]])).pattern).toBe('standby')
    expect(readCurrent(drawn([[9, 0]])).pattern).toBe('none')
  })
  it('takes 200,000 samples', () => {
    const trace = drawn([
      [100, 0.05],
      [400, 1.1],
      [500, 1.6],
    ])
    expect(trace.amps.length).toBe(200_000)
    expect(readCurrent(trace).segments.map((s) => [s.kind, Math.round(s.fromS)])).toEqual([
      ['standby', 0],
      ['steady', 100],
      ['steady', 500],
    ])
  })
  it('covers the whole time in order, whatever it is given', () => {
    const level = fc.tuple(
      fc.double({ min: 0.3, max: 4, noNaN: true }),
      fc.constantFrom(0, 0.05, 0.2, 0.8, 2.5),
    )
    fc.assert(
      fc.property(fc.array(level, { minLength: 1, maxLength: 8 }), fc.integer(), (stretches, seed) => {
        const { segments } = readCurrent(drawn(stretches, 50, seed))
        expect(segments[0]!.fromS).toBe(0)
        segments.slice(1).forEach((s, i) => expect(s.fromS).toBe(segments[i]!.toS))
      }),
      { numRuns: 60 },
    )
  })
  it('is told beside a good board’s', () => {
    const good = readCurrent(
      drawn([
        [4, 0.06],
        [8, 1.3],
      ]),
    )
    const poor = readCurrent(
      drawn([
        [4, 0.19],
        [8, 0.5],
      ]),
    )
    const lines = compareTraces(poor, good)
    expect(lines.filter((l) => l.differs).map((l) => l.what)).toEqual(['standby', 'plateau', 'peak'])
    expect(lines.find((l) => l.what === 'standby')!.say).toContain('something draws on standby')
    expect(compareTraces(good, good).some((l) => l.differs)).toBe(false)
  })
})

describe('a trace as it is kept', () => {
  it('holds its reading, its ends, and at most a hundred segments', () => {
    const draw = seeded(2)
    const steps = Array.from({ length: 150 }, () => [2 + 3 * draw(), 0.5 + 3 * draw()] as const)
    const trace = drawn(steps, 20)
    const reading = readCurrent(trace)
    expect(reading.segments.length).toBeGreaterThan(100)
    const kept = keptCurrent('x', trace, reading)
    expect(kept.segments).toHaveLength(100)
    expect(kept.segments.at(-1)!.toS).toBe(reading.segments.at(-1)!.toS)
    expect(kept).toMatchObject({ pattern: reading.pattern, samples: trace.amps.length })
  })
})

describe('a thinned curve', () => {
  it('keeps order, ends and every peak', () => {
    const trace = drawn([
      [30, 0.05],
      [0.01, 4],
      [30, 0.9],
    ])
    const { s, a } = thinCurve(trace, 300)
    expect(s.length).toBeLessThanOrEqual(300)
    expect(s).toEqual([...s].sort((x, y) => x - y))
    expect(Math.max(...a)).toBeCloseTo(Math.max(...trace.amps), 3)
    expect(thinCurve(drawn([[1, 0.5]], 50)).s).toHaveLength(50)
  })
})

describe('a table of a trace', () => {
  const trace = drawn(
    [
      [1, 0.05],
      [1, 1],
    ],
    20,
  )
  it('reads back as it was written', () => {
    expect(readTrace(table(trace), traceColumns)).toEqual({ trace, findings: [] })
  })
  it('refuses time that runs backwards, naming the line', () => {
    const rows = table(trace)
    const swapped = [...rows.slice(0, 10), rows[11]!, rows[10]!, ...rows.slice(12)]
    const { trace: none, findings } = readTrace(swapped, traceColumns)
    expect(none).toBeNull()
    expect(findings[0]).toMatchObject({ line: 13, field: 's' })
    expect(findings[0]!.text).toContain('time runs backwards: 0.5 s after 0.55 s')
  })
  it('warns of a stretch without samples and goes on', () => {
    const rows = table(trace).map(({ s, a }, i) => ({ s: i < 20 ? s : String(Number(s) + 60), a }))
    const read = readTrace(rows, traceColumns)
    expect(read.trace).not.toBeNull()
    expect(read.findings).toMatchObject([{ level: 'warning', line: 22 }])
  })
  it.each([
    [{ s: '1', a: '' }, 'a', 'nothing stands here'],
    [{ s: '1', a: '0,4' }, 'a', 'write a decimal point'],
    [{ s: 'NaN', a: '0' }, 's', '“NaN” is not a number'],
    [{ s: '999', a: '400' }, 'a', 'more than a bench supply gives'],
  ])('refuses %j', (row, field, text) => {
    const { trace: none, findings } = readTrace([...table(trace), row], traceColumns)
    expect(none).toBeNull()
    expect(findings.find((f) => f.field === field)!.text).toContain(text)
  })
  it('refuses too few samples and a missing column', () => {
    expect(readTrace([], traceColumns).findings[0]!.text).toContain('too few')
    expect(readTrace([], ['t', 'a']).findings[0]!.text).toContain('no column “s”')
  })
})

import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { readRecords, recordsKind, writeHexRecords, writeSRecords } from './records'

const bytes = fc.uint8Array({ minLength: 1, maxLength: 400 })
const base = fc.nat(0xfff0_0000)

describe('records', () => {
  it('are read back as they were written, at their address', () => {
    fc.assert(
      fc.property(bytes, base, (data, at) => {
        for (const write of [writeHexRecords, writeSRecords]) {
          const { recorded, findings } = readRecords(write({ base: at, bytes: data }))
          expect(findings).toEqual([])
          expect(recorded!.base).toBe(at)
          expect([...recorded!.bytes]).toEqual([...data])
        }
      }),
    )
  })
  it('reads published examples', () => {
    const hexed = readRecords(':0300300002337A1E\n:00000001FF\n')
    expect(hexed).toMatchObject({ findings: [], recorded: { base: 0x30 } })
    expect([...hexed.recorded!.bytes]).toEqual([0x02, 0x33, 0x7a])
    const s = readRecords(
      'S00F000068656C6C6F202020202000003C\nS11F00007C0802A6900100049421FFF07C6C1B787C8C23783C6000003863000026\nS5030001FB\nS9030000FC\n',
    )
    expect(s.findings).toEqual([])
    expect(s.recorded!.bytes).toHaveLength(28)
  })
  it('leaves what no record gives erased', () => {
    const { recorded } = readRecords(':01000000AA55\n:01000400BB40\n:00000001FF\n')
    expect([...recorded!.bytes]).toEqual([0xaa, 0xff, 0xff, 0xff, 0xbb])
  })
  it('tells one changed figure by its line, whichever it is', () => {
    fc.assert(
      fc.property(bytes, fc.nat(), fc.integer({ min: 1, max: 15 }), (data, where, by) => {
        const text = writeHexRecords({ base: 0, bytes: data })
        const places = [...text].flatMap((c, i) => (/[0-9A-F]/.test(c) ? [i] : []))
        const at = places[where % places.length]!
        const figure = ((parseInt(text[at]!, 16) + by) % 16).toString(16).toUpperCase()
        const { findings } = readRecords(text.slice(0, at) + figure + text.slice(at + 1))
        const line = text.slice(0, at).split('\n').length
        expect(findings.some((f) => f.line === line)).toBe(true)
      }),
    )
  })
  it.each([
    ['hello', 'file', 1],
    [':0300300002337A1E\n', 'end', 0],
    [':00000001FF\n:00000001FF\n', 'end', 2],
    [':0300300002337A1\n:00000001FF\n', 'record', 1],
    [':00000001FF\n', 'data', 0],
    [':01000009AA4C\n:00000001FF\n', 'type', 1],
  ])('%j has its fault named', (text, field, line) => {
    expect(readRecords(text).findings).toContainEqual(expect.objectContaining({ field, line }))
  })
  it('does not lay out addresses that span more than any image', () => {
    const far = ':02000004F0000A\n:0100000001FE\n:00000001FF\n'
    expect(readRecords(`:0100000001FE\n${far}`).findings).toContainEqual(
      expect.objectContaining({ field: 'address' }),
    )
  })
  it('knows its kind by the first line', () => {
    expect([
      recordsKind(':00000001FF'),
      recordsKind('S00300'),
      recordsKind('Serial'),
      recordsKind(''),
    ]).toEqual(['hex records', 'S-records', null, null])
  })
})

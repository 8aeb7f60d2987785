import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { drawSfdp, soldChips } from '@/simulated-bench/flash-chips'
import { readHexBytes, readId, sayId } from './jedec-id'
import { readSfdp } from './sfdp'
import { substitute } from './substitute'
import type { ChipWanted, FlashChip } from './substitute'

const bytes = (text: string) => readHexBytes(text)!
const [m, v, fern] = soldChips as [(typeof soldChips)[0], (typeof soldChips)[0], (typeof soldChips)[0]]
const idOf = (chip: typeof m) => {
  const read = readId(Uint8Array.from(chip.id))
  return read.is === 'read' ? read.id : null
}

describe('ID', () => {
  it.each([
    ['33 40 15', '33 40 15'],
    ['7F 7F 33 40 15', 'bank 3: 33 40 15'],
    ['0x7f,0x3C 25 16 00 00', 'bank 2: 3C 25 16'],
  ])('%s is %s', (text, say) => {
    const read = readId(bytes(text))
    expect(read.is === 'read' && sayId(read.id)).toBe(say)
  })
  it.each([
    ['FF FF FF', 'no answer'],
    ['00 00 00 00', 'no answer'],
    ['7F 7F 7F', 'too short'],
    ['33 40', 'too short'],
  ])('%s is none', (text, is) => expect(readId(bytes(text)).is).toBe(is))
  it.each(['', '3', 'xx', '33 4'])('“%s” are no bytes', (text) => expect(readHexBytes(text)).toBeNull())
})

describe('SFDP', () => {
  it.each(soldChips.map((c) => [c.marking, c] as const))('%s is read as it was written', (_, chip) => {
    const { sfdp, findings } = readSfdp(drawSfdp(chip))
    expect(findings).toEqual([])
    expect(sfdp).toEqual({ ...chip.sfdp, revision: '1.6', fourByteCommands: false })
  })
  it('never throws, and points nowhere but into its own bytes, whatever is changed or cut off', () =>
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(111), fc.nat(255)), { maxLength: 12 }),
        fc.nat(112),
        (changes, length) => {
          const table = drawSfdp(m)
          for (const [at, to] of changes) table[at] = to
          const { sfdp, findings } = readSfdp(table.subarray(0, length))
          if (sfdp === null) expect(findings.length).toBeGreaterThan(0)
          else expect(sfdp.bytes === null || sfdp.bytes > 0).toBe(true)
        },
      ),
      { numRuns: 2000 },
    ))
  it('a wild pointer is a finding with its header', () => {
    const table = drawSfdp(m)
    table[12 + 2] = 0x7f
    expect(readSfdp(table)).toMatchObject({ sfdp: null, findings: [{ at: 8 }, {}] })
  })
})

const chipOf = (chip: typeof m): FlashChip => ({
  name: chip.marking,
  id: idOf(chip),
  volts: chip.volts,
  bytes: chip.sfdp.bytes,
  package: 'SOIC-8 208 mil',
  quadEnable: chip.sfdp.quadEnable,
  addressing: chip.sfdp.addressing,
  erases: chip.sfdp.erases,
  mhz: 104,
})
const wanted: ChipWanted = {
  volts: 1.8,
  bytes: v.sfdp.bytes,
  package: 'SOIC-8 208 mil',
  quadEnable: v.sfdp.quadEnable,
  addressing: '3 bytes',
  erases: v.sfdp.erases,
  mhz: 50,
  checksId: true,
  takes: [idOf(v)!],
  usesQuad: true,
}
const refused = (chip: FlashChip, of: Partial<ChipWanted> = {}) =>
  substitute({ ...wanted, ...of }, chip).points.flatMap((p) => (p.is === 'refuse' ? [p.point] : []))

describe('substitute', () => {
  it('takes the board’s own kind', () => expect(substitute(wanted, chipOf(v)).verdict).toBe('fits'))
  it('refuses the same chip for another voltage, and one of another ID where the board looks', () => {
    expect(refused(chipOf(m))).toEqual(['voltage', 'ID'])
    expect(refused({ ...chipOf(v), id: idOf(fern) })).toEqual(['ID'])
  })
  it('a larger one, or one switched to four lines otherwise, fits with a change where the ID is no matter', () => {
    const larger = substitute({ ...wanted, checksId: false }, chipOf(fern))
    expect(larger.verdict).toBe('fits with change')
    expect(larger.points.filter((p) => p.is === 'with change').map((p) => p.point)).toEqual([
      'size',
      'quad enable',
    ])
  })
  it.each<[string, Partial<FlashChip>, string]>([
    ['smaller', { bytes: 0x100000 }, 'size'],
    ['in another package', { package: 'WSON-8' }, 'package'],
    ['slower', { mhz: 33 }, 'speed'],
    ['spoken to with four bytes only', { addressing: '4 bytes' }, 'addressing'],
    ['without small erases', { erases: v.sfdp.erases.slice(2) }, 'erase commands'],
    ['without four lines', { quadEnable: 'none' }, 'quad enable'],
  ])('refuses one that is %s', (_, change, point) => {
    expect(refused({ ...chipOf(v), ...change })).toEqual([point])
  })
  it('what is not known never makes it fit', () =>
    fc.assert(
      fc.property(
        fc.subarray(['volts', 'bytes', 'package', 'erases', 'mhz', 'checksId', 'usesQuad'] as const, {
          minLength: 1,
        }),
        (fields) => {
          const blind = { ...wanted, takes: [], ...Object.fromEntries(fields.map((f) => [f, null])) }
          expect(['cannot tell', 'refuse']).toContain(substitute(blind, chipOf(v)).verdict)
        },
      ),
    ))
})

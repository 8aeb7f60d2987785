import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { drawImage } from '@/simulated-bench/drawn-image'
import { dumpQuality } from './dump'

const image = drawImage({
  seed: 21,
  bytes: 0x40000,
  descriptor: true,
  files: [9000, 30_000],
  microcodes: [],
  version: '1.10',
  settings: 'as shipped',
})
const causes = (first: Uint8Array, second?: Uint8Array) =>
  dumpQuality(first, second).findings.map((f) => f.cause)

describe('dumpQuality', () => {
  it('calls two equal reads good, and one read not proved', () => {
    expect(dumpQuality(image, image.slice())).toEqual({ quality: 'good', findings: [], differs: 0 })
    expect(dumpQuality(image)).toEqual({ quality: 'not proved', findings: [], differs: null })
  })
  it.each([
    ['no bytes', new Uint8Array(0), 'nothing read'],
    ['blank', new Uint8Array(4096).fill(0xff), 'nothing read'],
    ['zeros', new Uint8Array(4096), 'nothing read'],
    ['cut off', image.subarray(0, 0x30001), 'size'],
  ])('%s is bad', (_, read, cause) => {
    expect(causes(read)).toEqual([cause])
    expect(dumpQuality(read, read).quality).toBe('bad')
  })
  it('finds whichever data line is stuck, at 0 or at 1', () => {
    fc.assert(
      fc.property(fc.nat(7), fc.boolean(), (bit, high) => {
        const read = image.map((b) => (high ? b | (1 << bit) : b & ~(1 << bit)))
        const { findings } = dumpQuality(read, read)
        expect(findings.map((f) => f.cause)).toEqual(['stuck data line', 'stuck data line'])
        expect(findings[0]!.text).toContain(`bit ${bit} is always ${high ? 1 : 0}`)
      }),
    )
  })
  it('finds whichever address line does not arrive', () => {
    for (let line = 12; 2 ** line < image.length; line++) {
      const read = image.map((_, at) => image[at & ~(2 ** line)]!)
      const { findings } = dumpQuality(read)
      expect([line, findings[0]?.cause]).toEqual([line, 'stuck address line'])
      // A lower line that also repeats is named first; the one that was cut is never later.
      expect(findings[0]!.at).toBeLessThanOrEqual(2 ** line)
    }
  })
  it('counts every byte in which two reads differ, and names a line that is alone in it', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.nat(image.length - 1), { minLength: 1, maxLength: 40 }),
        fc.nat(7),
        (places, bit) => {
          const other = image.slice()
          for (const at of places) other[at]! ^= 1 << bit
          const { quality, differs, findings } = dumpQuality(image, other)
          expect([quality, differs]).toEqual(['bad', places.length])
          expect(findings[0]).toMatchObject({ cause: 'reads differ', at: Math.min(...places) })
          expect(findings[0]!.text).toContain(`always in bit ${bit}`)
        },
      ),
    )
    const other = image.slice()
    other[5]! ^= 3
    expect(dumpQuality(image, other).findings[0]!.text).toMatch(/differ in 1 byte, .*not steady/)
  })
  it('does not compare reads of different sizes byte by byte', () => {
    expect(dumpQuality(image, image.subarray(0, 0x20000))).toMatchObject({
      quality: 'bad',
      differs: null,
      findings: [{ cause: 'sizes differ' }],
    })
  })
})

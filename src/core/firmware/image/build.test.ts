import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { drawContents, drawRelease, used } from '@/simulated-bench/chip-contents'
import type { FirmwareLine } from '@/simulated-bench/chip-contents'
import { buildImage } from './build'
import type { Built } from './build'
import { judgeSameCode } from './same-code'

const line: FirmwareLine = {
  seed: 12,
  bytes: 0x80000,
  descriptor: true,
  settingsBytes: 0x4000,
  logBytes: 0x2000,
  versions: ['1.30', '1.40'],
}
const release = drawRelease(line, 1)
const built = (original: Uint8Array, file = release) => buildImage(original, file) as Built

const same = (a: Uint8Array, b: Uint8Array) => expect(Buffer.compare(a, b)).toBe(0)

describe('the image to write', () => {
  it('has the code of the release and the data of the board, every byte from one of the two', () =>
    fc.assert(
      fc.property(fc.nat(999), fc.integer({ min: 0x40, max: 0x70 }), (seed, sector) => {
        const chip = drawContents(
          line,
          1,
          { is: 'stopped', at: sector << 12, way: 'up', erased: 0x1000 },
          seed,
        )
        const before = chip.slice()
        const { image, ranges } = built(chip)
        same(chip, before)
        let at = 0
        for (const { from, to, source } of ranges) {
          expect(from).toBe(at)
          const of = source === 'release' ? release : chip
          same(image.subarray(from, to), of.subarray(from, to))
          at = to
        }
        expect(at).toBe(image.length)
        expect(judgeSameCode({ original: image, second: image, release }).verdict).toBe('same code')
        const settings = [0x20000, 0x24000] as const
        same(image.subarray(...settings), chip.subarray(...settings))
      }),
      { numRuns: 15 },
    ))
  it('a smaller file goes where the descriptor says, and the rest stays', () => {
    const chip = used(line, release, 4)
    const { ranges, image } = built(chip, release.subarray(0x20000))
    expect(ranges[0]).toEqual({ from: 0, to: 0x20000, source: 'original', why: 'outside of the release' })
    same(image.subarray(0, 0x20000), chip.subarray(0, 0x20000))
  })
  it('counts what it takes from the release though it might be the board’s own', () => {
    const strange = release.slice()
    const at = 0x80000 - 0x10000 - 0x1000
    strange.fill(0x5a, at, at + 300)
    const chip = used({ ...line, logBytes: 0x800 }, strange, 2)
    chip.fill(0x11, at, at + 8)
    expect(built(chip, strange).doubtful).toBe(8)
    expect(built(chip).doubtful).toBe(0)
  })
  it('is not built where the file belongs nowhere, or is damaged', () => {
    const chip = used(line, release, 4)
    expect(buildImage(chip, drawRelease({ ...line, bytes: 0x100000 }, 1))).toMatch(/larger chip/)
    const odd = release.slice()
    odd[0x24048 + 30]! ^= 1
    expect(buildImage(chip, odd)).toMatch(/damaged/)
    expect(buildImage(chip, new Uint8Array(0))).toMatch(/damaged/)
  })
})

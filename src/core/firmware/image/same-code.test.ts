import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { codeOf, drawContents, drawRelease, used } from '@/simulated-bench/chip-contents'
import type { FirmwareLine } from '@/simulated-bench/chip-contents'
import { inspect } from './inspect'
import { judgeSameCode } from './same-code'

const line: FirmwareLine = {
  seed: 4,
  bytes: 0x80000,
  descriptor: false,
  settingsBytes: 0x4000,
  logBytes: 0x2000,
  versions: ['1.30', '1.38', '1.40', '1.52'],
}
const release = drawRelease(line, 2)
const older = drawRelease(line, 1)
const code = codeOf(line, release)
const inCode = fc.integer({ min: code.from + 0x6000, max: code.to - 0x6000 })
const judge = (original: Uint8Array, more: object = {}) =>
  judgeSameCode({ original, second: original, release, ...more })

describe('same code or not', () => {
  it('leaves out what the board writes itself', () =>
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 9999 }), (seed) => {
        const chip = used(line, release, seed)
        expect(judge(chip)).toMatchObject({ verdict: 'same code', differing: { code: 0 } })
      }),
      { numRuns: 20 },
    ))
  it('tells what differs from what is masked, and names what is masked', () => {
    const judged = judge(used(line, release, 3))
    expect(judged.masked.map((m) => m.name)).toEqual(['settings and keys', 'room to write in'])
    expect(judged.differing.own).toBeGreaterThan(100)
    expect(judged.versions).toEqual({ original: ['1.40'], release: ['1.40'] })
  })
  it('finds one bit that has turned over in code', () =>
    fc.assert(
      fc.property(inCode, (at) => {
        const judged = judge(drawContents(line, 2, { is: 'rotten', at: [at] }, 8))
        expect(judged.verdict).toBe('damaged')
        expect(judged.at.some((r) => r.from <= at && at < r.to)).toBe(true)
      }),
      { numRuns: 40 },
    ))
  it('does not take a bit turned over behind the older release’s end for an update', () => {
    const last = (image: Uint8Array) => inspect(image).volumes[1]!.files.at(-1)!
    const pair = [1, 2, 3].find(
      (nth) => last(drawRelease(line, nth)).to > last(drawRelease(line, nth - 1)).to + 0x1000,
    )!
    const [now, before] = [drawRelease(line, pair), drawRelease(line, pair - 1)]
    const chip = used(line, now, 2)
    chip[last(now).to - 100]! ^= 1
    expect(judge(chip, { release: now, older: before })).toMatchObject({ verdict: 'damaged' })
  })
  it('finds where an update was broken off, upwards and downwards', () =>
    fc.assert(
      fc.property(inCode, fc.constantFrom('up', 'down'), fc.constantFrom(0, 0x1000), (at, way, erased) => {
        const stopped = Math.floor(at / 0x1000) * 0x1000
        const chip = drawContents(line, 2, { is: 'stopped', at: stopped, way, erased }, 8)
        const judged = judge(chip, { older })
        expect(judged).toMatchObject({ verdict: 'broken off' })
        // Where both releases have the same bytes, nothing tells which it was.
        expect(Math.abs(judged.at[0]!.from - stopped)).toBeLessThanOrEqual(0x8000)
      }),
      { numRuns: 40 },
    ))
  it('tells another release by its own sums and text, and says that the label lies', () => {
    const chip = used(line, older, 5)
    expect(judge(chip)).toMatchObject({ verdict: 'another release', versions: { original: ['1.38'] } })
    expect(judge(chip, { label: '1.40' }).say).toContain('than the label says: 1.38')
    expect(judge(used(line, release, 5), { label: '1.52' })).toMatchObject({ verdict: 'another release' })
    expect(judge(chip, { label: '1.38' })).toMatchObject({ verdict: 'cannot tell' })
    expect(judge(chip, { older }).say).toContain('the older one, byte for byte')
  })
  it('finds an older release that is damaged as well: not broken off', () => {
    const at = inspect(older).volumes[1]!.files.find(
      (f) => f.checks === 'good' && f.to - f.from > 0x3000,
    )!.from
    const chip = drawContents(line, 1, { is: 'hole', at: at + 0x1000, bytes: 0x1000 }, 3)
    expect(judge(chip)).toMatchObject({ verdict: 'damaged' })
    expect(judge(chip).say).toContain('by its own text it is 1.38')
  })
  it.each([
    ['a blank chip', release.map(() => 0xff), release, /cannot be believed/],
    ['nothing', new Uint8Array(0), release, /cannot be believed/],
    ['three bytes', Uint8Array.of(1, 2, 3), release, /cannot be believed/],
    ['a file cut off', used(line, release, 1), release.subarray(0, 0x60000), /damaged or cut off/],
    ['a file of no bytes', used(line, release, 1), new Uint8Array(0), /damaged or cut off/],
    [
      'a file that holds itself twice',
      used(line, release, 1),
      Uint8Array.from([...release, ...release]),
      /the same more than once/,
    ],
    ['a larger file', used(line, release, 1).subarray(0, 0x40000), release, /where the file belongs/],
  ])('cannot tell with %s', (_, original, file, because) => {
    const judged = judgeSameCode({ original, second: original, release: file })
    expect(judged.verdict).toBe('cannot tell')
    expect(judged.say).toMatch(because)
  })
  it('cannot tell by two reads that differ, and says when there was only one', () => {
    const read = used(line, release, 1)
    const other = read.slice()
    other[99]! ^= 4
    expect(judge(read, { second: other })).toMatchObject({ verdict: 'cannot tell' })
    expect(judge(read, { second: null }).why.join()).toContain('only once')
  })
  it('places a smaller file by the descriptor or by its volumes, and otherwise does not', () => {
    const whole = drawRelease({ ...line, descriptor: true }, 2)
    const part = whole.subarray(0x20000)
    const chip = used({ ...line, descriptor: true }, whole, 6)
    expect(judgeSameCode({ original: chip, second: chip, release: part })).toMatchObject({
      verdict: 'same code',
      placedAt: 0x20000,
    })
    const another = drawRelease({ ...line, bytes: 0x40000, seed: 77 }, 0)
    expect(judge(used(line, release, 6), { release: another })).toMatchObject({
      verdict: 'cannot tell',
      placedAt: null,
    })
  })
  it('does not call it the same while something unknown differs, until it is said whose that is', () => {
    const strange = release.slice()
    const at = 0x80000 - 0x10000 - 0x1000
    strange.fill(0x5a, at, at + 300)
    const chip = used({ ...line, logBytes: 0x800 }, strange, 2)
    chip.fill(0x11, at, at + 8)
    expect(judge(chip, { release: strange })).toMatchObject({ verdict: 'cannot tell' })
    expect(judge(chip, { release: strange, own: [{ from: at, to: at + 300 }] })).toMatchObject({
      verdict: 'same code',
    })
  })
  it('never calls it the same where the file has no code, or breaks off into erased space', () => {
    const chip = used(line, release, 3)
    const blank = release.map(() => 0xff)
    expect(judge(chip, { release: blank })).toMatchObject({ verdict: 'cannot tell' })
    // A download that stopped and was filled up: what it has is sound, and the chip has more.
    const files = inspect(release).volumes[1]!.files
    const short = release.slice()
    short.fill(0xff, files[8]!.from, files.at(-1)!.to)
    expect(inspect(short).findings).toEqual([])
    expect(judge(chip, { release: short })).toMatchObject({ verdict: 'cannot tell' })
  })
  it('says what of the board’s own it did not judge', () => {
    expect(judge(used(line, release, 3)).why.join()).toMatch(
      /not judged.*settings and keys \(\d+ bytes differ\)/,
    )
    expect(judge(release).why.join()).not.toContain('not judged')
  })
  it.each(['1.40', 'V1.40', 'version 1.40 (beta)', 'no figures', ''])('a label “%s” does not lie', (label) =>
    expect(judge(used(line, release, 3), { label }).verdict).toBe('same code'),
  )
  it('takes what is erased though the release fills it for damage', () => {
    const chip = drawContents(line, 2, { is: 'hole', at: 0, bytes: 0x4000 }, 3)
    expect(judge(chip)).toMatchObject({ verdict: 'damaged' })
  })
  it('says each place by where it begins and ends, and by nothing else: so it is noted', () => {
    const volume = inspect(older).volumes[1]!
    const file = volume.files.find((f) => f.checks === 'good' && f.to - f.from > 0x3000)!
    for (const at of [0, file.from + 0x1000]) {
      const { verdict, at: places } = judge(drawContents(line, 1, { is: 'hole', at, bytes: 0x1000 }, 3))
      expect(verdict).toBe('damaged')
      expect(places.length).toBeGreaterThan(0)
      for (const place of places) expect(Object.keys(place)).toEqual(['from', 'to'])
    }
  })
})

import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { seeded } from '@/core/maths/seeded'
import { drawImage } from '@/simulated-bench/drawn-image'
import type { ImageRecipe } from '@/simulated-bench/drawn-image'
import { blockEntropy } from './entropy'
import { inspect } from './inspect'
import type { Inspection } from './inspect'

const recipe: ImageRecipe = {
  seed: 7,
  bytes: 0x80000,
  descriptor: true,
  files: [3000, 1, 20_000, 77],
  microcodes: [
    { signature: 0x506e3, revision: 0xc6, date: '2018-04-17' },
    { signature: 0x906e9, revision: 0x84, date: '2018-01-21' },
  ],
  version: '1.40',
  settings: 'serial K61B-20931; clock fast',
}
const image = drawImage(recipe)
const firmware = 0x20000
const main = firmware + 0x10000

/** Every byte once, in order. */
function tiles({ bytes, stretches }: Inspection): boolean {
  let at = 0
  for (const { from, to } of stretches) {
    if (from !== at || to <= from) return false
    at = to
  }
  return at === bytes
}
const texts = (i: Inspection) => i.findings.map((f) => f.text).join('\n')
const changed = (at: number, value: (before: number) => number): Uint8Array => {
  const copy = image.slice()
  copy[at] = value(copy[at]!)
  return copy
}

describe('inspect', () => {
  const whole = inspect(image)
  it('finds in a good image what was put into it, and nothing wrong', () => {
    expect(whole.findings).toEqual([])
    expect(whole.regions?.map((r) => r.name)).toEqual([
      'descriptor',
      'management',
      'network address',
      'firmware',
    ])
    expect(whole.volumes.map((v) => [v.from, v.to, v.headerGood])).toEqual([
      [firmware, main, true],
      [main, recipe.bytes, true],
    ])
    const files = whole.volumes[1]!.files
    expect(files.map((f) => f.to - f.from - 24)).toEqual([12, ...recipe.files, 4096])
    expect(files.every((f) => f.checks === 'good')).toBe(true)
    expect(whole.microcodes.map((m) => [m.signature, m.revision, m.date, m.sumGood])).toEqual([
      [0x506e3, 0xc6, '2018-04-17', true],
      [0x906e9, 0x84, '2018-01-21', true],
    ])
    expect(tiles(whole)).toBe(true)
  })
  it('says of one wrong bit in a file, a header or a microcode where it is', () => {
    const file = whole.volumes[1]!.files[3]!
    const damaged = inspect(changed(file.from + 5000, (b) => b ^ 0x10))
    expect(texts(damaged)).toMatch(/the sum of the file at 0x0\w+ is wrong/)
    expect(damaged.findings[0]!.at).toBe(file.from)
    expect(texts(inspect(changed(main + 44, (b) => b ^ 1)))).toMatch(/header sum of the volume at 0x030000/)
    const { from } = whole.microcodes[0]!
    const broken = inspect(changed(from + 100, (b) => b ^ 1))
    expect(texts(broken)).toMatch(/microcode at 0x\w+ for CPU 0x000506E3 does not add up/)
    expect(broken.microcodes[0]!.sumGood).toBe(false)
  })
  it('cuts what says it goes past the end, and says so', () => {
    const short = inspect(image.subarray(0, 0x60000))
    expect(texts(short)).toMatch(/the firmware region ends at 0x080000; the image ends at 0x060000/)
    expect(texts(short)).toMatch(/says it ends at 0x080000, past the end at 0x060000/)
    expect(tiles(short)).toBe(true)
  })
  it('calls free space that is not empty', () => {
    const { freeFrom } = whole.volumes[1]!
    expect(texts(inspect(changed(freeFrom + 4000, () => 0x12)))).toMatch(/free space .* is not empty/)
  })
  it.each([
    ['nothing', new Uint8Array(0), /is empty/],
    ['three bytes', new Uint8Array([1, 2, 3]), /no firmware volume/],
    ['an odd size', new Uint8Array(4097).fill(0xff), /no firmware volume/],
    ['zeros', new Uint8Array(70_000), /no firmware volume/],
  ])('%s is said to be that', (_, bytes, text) => {
    const seen = inspect(bytes)
    expect(texts(seen)).toMatch(text)
    expect(tiles(seen)).toBe(true)
  })
  it('refuses more than 64 MiB', () => {
    expect(() => inspect(new Uint8Array(64 * 1024 * 1024 + 1))).toThrow(RangeError)
  })
  it('unwraps a capsule, and says when it is cut off', () => {
    const header = new Uint8Array(28)
    const guid = 'BD86663B760D3040B70EB5519E2FC5A0'.match(/../g)!.map((b) => parseInt(b, 16))
    header.set(guid)
    const view = new DataView(header.buffer)
    view.setUint32(16, 28, true)
    view.setUint32(24, 28 + image.length, true)
    const wrapped = new Uint8Array([...header, ...image])
    const seen = inspect(wrapped)
    expect(seen.capsule).toMatchObject({ headerBytes: 28 })
    expect(seen.volumes).toHaveLength(2)
    expect(seen.regions?.at(-1)).toMatchObject({ name: 'firmware', from: 28 + firmware })
    expect(seen.findings).toEqual([])
    expect(tiles(seen)).toBe(true)
    expect(texts(inspect(wrapped.subarray(0, 0x30000)))).toMatch(/capsule says it is/)
  })
  it(
    'never throws, never hangs and accounts for every byte, whatever is changed in it',
    { timeout: 120_000 },
    () => {
      // The places where lengths, sums and pointers stand are hit most.
      const structure = [
        0,
        16,
        20,
        0x40,
        0x44,
        firmware + 32,
        main + 32,
        main + 48,
        main + 52,
        main + 56,
        main + 92,
      ]
      fc.assert(
        fc.property(
          fc.array(
            fc.tuple(
              fc.oneof(fc.constantFrom(...structure), fc.nat(image.length - 1)),
              fc.nat(7),
              fc.oneof(fc.constantFrom(0, 0xff, 1, 0x80), fc.nat(255)),
            ),
            { minLength: 1, maxLength: 12 },
          ),
          fc.nat(image.length),
          (writes, length) => {
            const copy = image.slice(0, length)
            for (const [at, off, value] of writes) if (at + off < copy.length) copy[at + off] = value
            expect(tiles(inspect(copy))).toBe(true)
          },
        ),
        { numRuns: 150 },
      )
    },
  )
})

describe('blockEntropy', () => {
  it('is nothing where all are alike, one bit for two values, eight for every value alike', () => {
    const bytes = new Uint8Array(3 * 4096)
    for (let at = 4096; at < 8192; at++) bytes[at] = at % 2
    for (let at = 8192; at < 12_288; at++) bytes[at] = at % 256
    expect([...blockEntropy(bytes)].map((h) => Math.round(h * 1e6) / 1e6)).toEqual([0, 1, 8])
  })
  it('counts a last block that is not whole by itself', () => {
    const draw = seeded(3)
    const bytes = Uint8Array.from({ length: 4096 + 100 }, () => Math.floor(draw() * 256))
    expect(blockEntropy(bytes)[1]).toBeLessThanOrEqual(Math.log2(100))
  })
})

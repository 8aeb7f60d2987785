import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { blockEntropy } from '@/core/firmware/image/entropy'
import { inspect } from '@/core/firmware/image/inspect'
import { ownersOf } from '@/core/firmware/image/owner'
import { drawContents, drawRelease } from '@/simulated-bench/chip-contents'
import { firmwareOf, readChip } from '@/simulated-bench/chip-on-board'
import { cellsOf } from './field-layout'

const line = { ...firmwareOf('tw-k74'), bytes: 0x80000, descriptor: false }
const cells = (image: Uint8Array) =>
  cellsOf(image.length, ownersOf(image, inspect(image)), blockEntropy(image), null)

describe('the byte field', () => {
  it('has every byte in one cell, however large the image is, and not too many cells', () =>
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 64 * 1024 * 1024 }), (bytes) => {
        const all = cellsOf(bytes, [], new Float32Array(0), null)
        expect(all.length).toBeLessThanOrEqual(2048)
        let at = 0
        for (const { from, to } of all) {
          expect(from).toBe(at)
          at = to
        }
        expect(at).toBe(bytes)
      }),
    ))
  it('tells code, the board’s own and erased space apart', () => {
    const all = cells(drawRelease(line, 2))
    expect(all[0]).toMatchObject({ owner: 'own' })
    expect(all[16]).toMatchObject({ owner: 'code', erased: false })
    expect(all[16]!.entropy).toBeGreaterThan(7)
    expect(all.some((c) => c.erased)).toBe(true)
    expect(all.at(-1)!.to).toBe(0x80000)
  })
  it('does not call what an older release left behind empty', () => {
    const stopped = drawContents(line, 2, { is: 'stopped', at: 0x30000, way: 'up', erased: 0x4000 }, 1)
    expect(cells(stopped).filter((c) => c.owner === 'unknown').length).toBeGreaterThan(4)
  })
})

describe('the chip of a simulated board', () => {
  const chip = { boardModelId: 'tw-k74', faults: [], seed: 413 }
  it('is the same at each read, and broken off while its fault is there', () => {
    expect(Buffer.compare(readChip(chip, 1), readChip(chip, 9))).toBe(0)
    expect(
      Buffer.compare(readChip({ ...chip, faults: ['firmware corrupt'] }, 1), readChip(chip, 1)),
    ).not.toBe(0)
  })
  it('of the wrong kind is twice as large, and two reads of it differ in the upper half only', () => {
    const [one, two] = [3, 4].map((at) => readChip({ ...chip, faults: ['firmware chip'] }, at)) as [
      Uint8Array,
      Uint8Array,
    ]
    const half = one.length / 2
    expect(half).toBe(firmwareOf('tw-k74').bytes)
    expect(Buffer.compare(one.subarray(0, half), two.subarray(0, half))).toBe(0)
    expect(Buffer.compare(one, two)).not.toBe(0)
  })
})

import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { seeded } from '@/core/maths/seeded'
import { drawSfdp, soldChips } from '@/simulated-bench/flash-chips'
import { SpiNor } from '@/simulated-bench/spi-nor'
import type { SpiFaults } from '@/simulated-bench/spi-nor'
import { readId } from '../chip/jedec-id'
import { flashSession } from './session'
import type { FlashOrder } from './session'

const BYTES = 0x8000
const sold = soldChips[1]!
const idRead = readId(Uint8Array.from(sold.id))
const id = idRead.is === 'read' ? idRead.id : null
const noise = (seed: number, bytes = BYTES) => {
  const draw = seeded(seed)
  // Some of it erased, as on a chip.
  return Uint8Array.from({ length: bytes }, (_, i) => ((i >> 12) % 3 === 2 ? 0xff : Math.floor(draw() * 256)))
}
const chipWith = (contents: Uint8Array, faults: SpiFaults = {}, volts = 1.8, bytes = BYTES) =>
  new SpiNor(
    {
      contents,
      volts: 1.8,
      id: sold.id,
      sfdp: drawSfdp({ ...sold, sfdp: { ...sold.sfdp, bytes } }),
      seed: 5,
    },
    volts,
    faults,
  )
const order = (image: Uint8Array, more: Partial<FlashOrder> = {}): FlashOrder => ({
  image,
  chipVolts: 1.8,
  id,
  kept: false,
  withoutBackup: null,
  ...more,
})
const same = (a: Uint8Array, b: Uint8Array) => Buffer.compare(a, b) === 0

describe('a session at the chip', () => {
  it('reads twice, keeps what was there before the first erase, writes and reads back', async () => {
    const [before, image] = [noise(1), noise(2)]
    const chip = chipWith(before.slice())
    const kept: Uint8Array[] = []
    const stages = new Set<string>()
    const report = await flashSession(
      chip,
      order(image),
      (backup) => {
        expect(same(chip.contents, before)).toBe(true)
        kept.push(backup.slice())
        return Promise.resolve()
      },
      ({ stage, share }) => {
        stages.add(stage)
        expect(share).toBeGreaterThanOrEqual(0)
        expect(share).toBeLessThanOrEqual(1)
      },
    )
    expect(report).toMatchObject({ ended: 'verified', id: 'bank 3: 33 60 15' })
    expect([...stages]).toEqual(['voltage', 'identify', 'read', 'read again', 'backup', 'write', 'verify'])
    expect(kept).toHaveLength(1)
    expect(same(kept[0]!, before)).toBe(true)
    expect(same(chip.contents, image)).toBe(true)
  })
  it('erases only what has to become one again', async () => {
    const before = noise(1)
    const image = before.slice()
    image[0x1100]! &= 0x0f
    const chip = chipWith(before.slice())
    expect(await flashSession(chip, order(image), () => Promise.resolve())).toMatchObject({
      ended: 'verified',
      erased: 0,
    })
  })
  it('goes on where the power went, or rolls back, wherever that was', () =>
    fc.assert(
      fc.asyncProperty(fc.nat(2 * BYTES + 500), fc.nat(2 * BYTES), async (first, second) => {
        const [before, image] = [noise(1), noise(2)]
        const chip = { contents: before.slice() }
        let backup: Uint8Array | null = null
        const keep = (contents: Uint8Array) => {
          backup = contents.slice()
          return Promise.resolve()
        }
        const run = async (powerLostAfter: number, to: Uint8Array) => {
          const nor = chipWith(chip.contents, { powerLostAfter })
          return flashSession(nor, order(to, { kept: backup !== null }), keep)
        }
        const one = await run(first, image)
        if (one.ended !== 'verified') {
          expect(one.ended).toBe('failed')
          await run(second, image)
          // What is kept is what was there before anything was erased.
          expect(same(backup!, before)).toBe(true)
          expect(await run(Infinity, before)).toMatchObject({ ended: 'verified' })
          expect(same(chip.contents, before)).toBe(true)
        }
        expect(await run(Infinity, image)).toMatchObject({ ended: 'verified' })
        expect(same(chip.contents, image)).toBe(true)
      }),
      { numRuns: 40 },
    ))
  it.each<[string, SpiFaults, number, Partial<FlashOrder>, RegExp]>([
    ['3.3 V on a 1.8 V chip', {}, 3.3, {}, /nothing was sent to it/],
    ['a voltage nobody has said', {}, 1.8, { chipVolts: null }, /nothing was sent to it/],
    ['a bad clip', { badClip: 0.001 }, 1.8, {}, /seat the clip again/],
    ['a stuck line', { stuckBit: 3 }, 1.8, {}, /chip says it is|cannot be believed|gives no ID/],
    ['a protected chip', { writeProtect: true }, 1.8, {}, /write protected/],
    ['another chip', {}, 1.8, { id: { bank: 0, maker: 1, device: [2, 3] } }, /look at its marking/],
  ])('%s changes nothing on the chip', async (_, faults, volts, more, why) => {
    const before = noise(1)
    const chip = chipWith(before.slice(), faults, volts)
    const report = await flashSession(chip, order(noise(2), more), () => Promise.resolve())
    expect(report.ended).toBe('refused')
    expect(report.say).toMatch(why)
    expect(same(chip.contents, before)).toBe(true)
    if (/nothing was sent/.test(report.say)) expect(chip.sent).toBe(0)
    expect(chip.isDestroyed).toBe(false)
  })
  it('an image of another size, or a backup that cannot be kept, changes nothing', async () => {
    const before = noise(1)
    const chip = chipWith(before.slice())
    expect(await flashSession(chip, order(noise(2, 0x4000)), () => Promise.resolve())).toMatchObject({
      ended: 'refused',
    })
    const failed = await flashSession(chip, order(noise(2)), () =>
      Promise.reject(new Error('the disk is full')),
    )
    expect(failed).toMatchObject({ ended: 'failed', stage: 'backup', erased: 0 })
    expect(failed.say).toContain('The disk is full. Nothing was erased.')
    expect(same(chip.contents, before)).toBe(true)
  })
  it.each([
    ['without a table of itself', new Uint8Array(256).fill(0xff), /does not say how large/],
    [
      'that erases larger blocks only',
      drawSfdp({ ...sold, sfdp: { ...sold.sfdp, bytes: BYTES, erases: sold.sfdp.erases.slice(1) } }),
      /does not say that it erases 4 KiB/,
    ],
  ])('a chip %s is not written', async (_, sfdp, why) => {
    const before = noise(1)
    const chip = new SpiNor({ contents: before.slice(), volts: 1.8, id: sold.id, sfdp, seed: 5 }, 1.8)
    const report = await flashSession(chip, order(noise(2)), () => Promise.resolve())
    expect(report).toMatchObject({ ended: 'refused' })
    expect(report.say).toMatch(why)
    expect(same(chip.contents, before)).toBe(true)
  })
  it('keeps no backup only where somebody said why', async () => {
    let kept = 0
    const keep = () => Promise.resolve(void kept++)
    const chip = chipWith(noise(1))
    expect(
      await flashSession(chip, order(noise(2), { withoutBackup: 'the chip is new, and blank' }), keep),
    ).toMatchObject({ ended: 'verified' })
    expect(kept).toBe(0)
  })
  it('stops between two commands when asked, and says that it may go on', async () => {
    const chip = chipWith(noise(1))
    let writing = 0
    const report = await flashSession(
      chip,
      order(noise(2)),
      () => Promise.resolve(),
      ({ stage }) => (writing += stage === 'write' ? 1 : 0),
      () => writing > 3,
    )
    expect(report).toMatchObject({ ended: 'stopped', stage: 'write' })
    expect(report.say).toContain('Go on from here')
  })
  it('speaks with four bytes of address to a chip of more than 16 MiB', async () => {
    const bytes = 0x1002000
    const before = new Uint8Array(bytes).fill(0xff)
    const image = before.slice()
    image.set([1, 2, 3], 0x1001000)
    const chip = chipWith(before, {}, 1.8, bytes)
    expect(await flashSession(chip, order(image), () => Promise.resolve())).toMatchObject({
      ended: 'verified',
      programmed: 1,
    })
    expect([...chip.contents.subarray(0x1001000, 0x1001003)]).toEqual([1, 2, 3])
    expect(chip.contents[0x1000]).toBe(0xff)
  })
})

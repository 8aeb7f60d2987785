// Firmware images: how long the largest takes, and whatever is changed in one.
import { createHash } from 'node:crypto'
import { seeded } from '@/core/maths/seeded'
import { blockEntropy } from '@/core/firmware/image/entropy'
import { inspect } from '@/core/firmware/image/inspect'
import { readRecords, writeHexRecords, writeSRecords } from '@/core/firmware/image/records'
import { drawImage } from '@/simulated-bench/drawn-image'
import { line, timed } from './figure'
import type { Figure } from './figure'

const MIB = 1024 * 1024
const microcodes = [{ signature: 0x60a51, revision: 0x21, date: '2025-03-14' }]

/** 32 MiB inspected, beside a hash over the same bytes in the same run. */
export function imageFigures(): Figure[] {
  const image = drawImage({
    seed: 32,
    bytes: 32 * MIB,
    descriptor: true,
    files: Array.from({ length: 12 }, (_, i) => (1 + (i % 3)) * MIB),
    microcodes,
    version: '2.10',
    settings: 'as shipped',
  })
  const hash = timed('SHA-256 of 32 MiB', null, () => createHash('sha256').update(image).digest(), 7)
  const seen = timed('firmware image of 32 MiB inspected, with its entropy', 1500, () => [
    inspect(image),
    blockEntropy(image),
  ])
  line('  in multiples of that SHA-256', `${(seen.median / hash.median).toFixed(1)} ×`)
  return [hash, seen]
}

/** Images and records with bytes changed, cut off or put in: what throws, or leaves a byte out, is counted. */
export function imageFuzz(cases: number): void {
  const image = drawImage({
    seed: 9,
    bytes: 0x3000,
    descriptor: false,
    files: [700, 260],
    microcodes,
    version: '1.40',
    settings: 'clock fast',
    settingsBytes: 0x1000,
  })
  const texts = [writeHexRecords, writeSRecords].map((write) =>
    write({ base: 0, bytes: image.subarray(0x1000, 0x1400) }),
  )
  const draw = seeded(770_000)
  const below = (n: number) => Math.floor(draw() * n)
  // Lengths, sums and pointers stand in the first bytes of volumes and files: every other change goes there.
  const structure = [0, 0x1000, 0x1048, 0x1070]
  let wrong = 0
  for (let i = 0; i < cases; i++) {
    const copy = image.slice(0, draw() < 0.2 ? below(image.length + 1) : image.length)
    for (let n = 1 + below(6); n > 0; n--) {
      const at = draw() < 0.5 ? structure[below(structure.length)]! + below(80) : below(image.length)
      if (at < copy.length) copy[at] = below(256)
    }
    try {
      let at = 0
      for (const { from, to } of inspect(copy).stretches) {
        if (from !== at) wrong++
        at = to
      }
      if (at !== copy.length) wrong++
      if (i % 10 === 0) {
        const text = texts[below(2)]!
        const where = below(text.length)
        readRecords(text.slice(0, where) + String.fromCharCode(32 + below(95)) + text.slice(where + below(3)))
      }
    } catch {
      wrong++
    }
  }
  line(
    `${cases} changed images, a tenth as many changed records: threw, or left a byte out`,
    String(wrong),
    `0: ${wrong === 0 ? 'met' : 'MISSED'}`,
  )
}

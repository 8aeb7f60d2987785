// Firmware images: how long the largest takes, and whatever is changed in one.
import { createHash } from 'node:crypto'
import { seeded } from '@/core/maths/seeded'
import { blockEntropy } from '@/core/firmware/image/entropy'
import { inspect } from '@/core/firmware/image/inspect'
import { readRecords, writeHexRecords, writeSRecords } from '@/core/firmware/image/records'
import { compare } from '@/core/firmware/image/compare'
import { judgeSameCode } from '@/core/firmware/image/same-code'
import type { Verdict } from '@/core/firmware/image/same-code'
import { codeOf, drawContents, drawRelease, used } from '@/simulated-bench/chip-contents'
import type { FirmwareLine, Mishap } from '@/simulated-bench/chip-contents'
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
  const other = image.slice()
  for (let at = 0x20000; at < other.length; at += 977) other[at]! ^= 3
  const { stretches } = inspect(image)
  const laid = timed('two images of 32 MiB compared', 300, () => compare(image, other, stretches))
  line('  in multiples of that SHA-256', `${(laid.median / hash.median).toFixed(1)} ×`)
  return [hash, seen, laid]
}

/**
 * Chips with a known past judged against a release: which of them are told rightly. What was done is known from the
 * bytes alone: a chip whose update stopped where both releases agree is what it is, not what was meant.
 */
export function sameCodeFigures(pairs: number, seed = 66_002): void {
  const draw = seeded(seed)
  const below = (n: number) => Math.floor(draw() * n)
  const wrong: string[] = []
  let open = 0
  for (let i = 0; i < pairs; i++) {
    const line_: FirmwareLine = {
      seed: seed + i,
      bytes: 2 ** (19 + below(2)),
      descriptor: draw() < 0.4,
      settingsBytes: 0x4000 * (1 + below(4)),
      logBytes: 0x1000 * below(4),
      versions: ['0.90', '1.02', '1.10', '2.00'],
    }
    const nth = 1 + below(3)
    const [release, older] = [drawRelease(line_, nth), drawRelease(line_, nth - 1)]
    const past = drawPast(line_, release, below, draw)
    const chip =
      past === 'other release'
        ? used(line_, draw() < 0.5 && nth < 3 ? drawRelease(line_, nth + 1) : older, i)
        : drawContents(line_, nth, past, i)
    const should = shouldBe(line_, past, chip, release, older)
    const judged = judgeSameCode({
      original: chip,
      second: chip,
      release,
      older: draw() < 0.5 ? older : null,
      label: draw() < 0.5 ? line_.versions[nth]! : null,
    }).verdict
    if (judged === 'cannot tell') open++
    else if (!should.includes(judged))
      wrong.push(
        `${i}: ${past === 'other release' ? past : JSON.stringify(past)} ${should.join(' or ')} → ${judged}`,
      )
  }
  for (const text of wrong.slice(0, 20)) line(`  ${text}`, '')
  line(
    `${pairs} chips against a release, the board’s own bytes differing: told wrongly`,
    String(wrong.length),
    `0: ${wrong.length === 0 ? 'met' : 'MISSED'}`,
  )
  line('  left open as “cannot tell”', `${open} of ${pairs}`)
}

function drawPast(
  of: FirmwareLine,
  release: Uint8Array,
  below: (n: number) => number,
  draw: () => number,
): Mishap | 'other release' {
  const { from, to } = codeOf(of, release)
  const place = () => from + 0x100 + below(to - from - 0x100)
  switch (below(6)) {
    case 0:
    case 1:
      return { is: 'none' }
    case 2:
      return 'other release'
    case 3:
      return {
        is: 'stopped',
        at: Math.floor(place() / 0x1000) * 0x1000,
        way: draw() < 0.7 ? 'up' : 'down',
        erased: draw() < 0.5 ? 0 : 0x1000 * (1 + below(16)),
      }
    case 4:
      return { is: 'rotten', at: Array.from({ length: 1 + below(8) }, place) }
    default:
      return { is: 'hole', at: Math.floor(place() / 0x1000) * 0x1000, bytes: 0x1000 * (1 + below(16)) }
  }
}

/** What was done, as far as it has left anything to see in the code. */
function shouldBe(
  of: FirmwareLine,
  past: Mishap | 'other release',
  chip: Uint8Array,
  release: Uint8Array,
  older: Uint8Array,
): readonly Verdict[] {
  if (past === 'other release') return ['another release']
  const code = [codeOf(of, release), { from: chip.length - 0x10000, to: chip.length }]
  const alike = (other: Uint8Array, parts: readonly { from: number; to: number }[]) =>
    parts.every(({ from, to }) => Buffer.compare(chip.subarray(from, to), other.subarray(from, to)) === 0)
  if (alike(release, code)) return ['same code']
  // A hole at an end of the code is what a stop leaves that came just before or after it.
  const ends = past.is === 'hole' && code.some((c) => past.at <= c.from || past.at + past.bytes >= c.to)
  if (past.is !== 'stopped') return ends ? ['damaged', 'broken off'] : ['damaged']
  // The older release whole: another release, and where the new one stands behind it, broken off as well.
  if (alike(older, [{ from: codeOf(of, older).from, to: chip.length - 0x10000 - of.logBytes }, code[1]!]))
    return ['another release']
  if (alike(older, [codeOf(of, older), code[1]!])) return ['another release', 'broken off']
  // Where only what was erased differs, a hole and a stop look the same.
  const { at, erased } = past
  const gap = past.way === 'up' ? { from: at, to: at + erased } : { from: at - erased, to: at }
  const outside = code.flatMap(({ from, to }) => [
    { from, to: Math.max(from, Math.min(to, gap.from)) },
    { from: Math.min(to, Math.max(from, gap.to)), to },
  ])
  // Nor is a stop seen that came before anything of the new release was there.
  const nothingNew = past.way === 'up' && at - code[0]!.from < 0x1000
  return nothingNew || alike(release, outside) ? ['broken off', 'damaged'] : ['broken off']
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
        judgeSameCode({ original: copy, release: image })
        judgeSameCode({ original: image, release: copy })
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

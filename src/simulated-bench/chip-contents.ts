import { seeded } from '@/core/maths/seeded'
import type { Uniform } from '@/core/maths/seeded'
import { BOOT_BLOCK, drawImage } from './drawn-image'
import type { DrawnFile } from './drawn-image'

/** A board's firmware as its maker makes it: a chip of that size, with or without a descriptor, release after release. */
export interface FirmwareLine {
  readonly seed: number
  readonly bytes: number
  readonly descriptor: boolean
  /** Room for settings, whole blocks of 4 KiB. */
  readonly settingsBytes: number
  /** Room for the event log. */
  readonly logBytes: number
  readonly versions: readonly string[]
}

/** What has happened to the chip since it held its release. */
export type Mishap =
  | { readonly is: 'none' }
  /** An update from the release before it, stopped at a byte. */
  | { readonly is: 'stopped'; readonly at: number; readonly way: 'up' | 'down'; readonly erased: number }
  /** Bits that have turned over in code. */
  | { readonly is: 'rotten'; readonly at: readonly number[] }
  /** A sector erased in the midst of it. */
  | { readonly is: 'hole'; readonly at: number; readonly bytes: number }

/**
 * A release of a line: most files are those of the release before it, about a third are new and of another length, so
 * what follows them stands elsewhere.
 */
export function drawRelease(line: FirmwareLine, nth: number): Uint8Array {
  const files: DrawnFile[] = []
  const { main, log } = partsOf(line)
  const room = (log - main) * 0.6
  const count = 14
  for (let i = 0; i < count; i++) {
    // In which release this file was made last.
    let made = nth
    while (made > 0 && seeded(line.seed * 131 + i * 17 + made)() > 0.35) made--
    const draw = seeded(line.seed * 977 + i * 31 + made)
    files.push({
      seed: Math.floor(draw() * 2 ** 31),
      length: Math.floor((room / count) * (0.4 + 0.9 * draw())),
      ...(draw() < 0.25 ? { unsummed: true as const } : {}),
    })
  }
  return drawImage({
    seed: line.seed,
    bytes: line.bytes,
    descriptor: line.descriptor,
    files,
    microcodes: [{ signature: 0x60a51, revision: 0x20 + nth, date: `2025-0${1 + (nth % 9)}-14` }],
    version: line.versions[nth]!,
    settings: '',
    settingsBytes: line.settingsBytes,
    bootBlock: { seed: line.seed + 5, length: 0x8000 },
    logBytes: line.logBytes,
  })
}

/** Where a line's parts begin. */
const partsOf = ({ descriptor, settingsBytes, bytes, logBytes }: FirmwareLine) => {
  const settings = descriptor ? 0x20000 : 0
  return { settings, main: settings + settingsBytes, log: bytes - BOOT_BLOCK - logBytes }
}

const bytesOf = (draw: Uniform, count: number) =>
  Uint8Array.from({ length: count }, () => Math.floor(draw() * 256))

/** A release after some years in a board: settings, keys and serial kept, events noted, the management part moved on. */
export function used(line: FirmwareLine, release: Uint8Array, seed: number): Uint8Array {
  const image = release.slice()
  const draw = seeded(seed)
  const { settings, log } = partsOf(line)
  const text = new TextEncoder().encode(
    `serial K${Math.floor(draw() * 1e6)}; version 9.9 of the settings; address 02:${Math.floor(draw() * 90)}:5c`,
  )
  image.set(text, settings + 80)
  image.set(bytesOf(draw, Math.floor(line.settingsBytes * 0.5)), settings + 80 + text.length)
  image.set(bytesOf(draw, Math.floor(line.logBytes * draw() * 0.9)), log)
  if (line.descriptor) {
    image.set(bytesOf(draw, 0x4000), 0x4000)
    image.set(bytesOf(draw, 6), 0x11000)
  }
  return image
}

/** The chip as it lies in the board: a release, used, and what has happened to it. */
export function drawContents(line: FirmwareLine, nth: number, mishap: Mishap, seed: number): Uint8Array {
  const now = drawRelease(line, nth)
  if (mishap.is === 'stopped') {
    const old = used(line, drawRelease(line, nth - 1), seed)
    const [from, to] = [partsOf(line).main, line.bytes]
    const [a, b] = mishap.way === 'up' ? [from, mishap.at] : [mishap.at, to]
    old.set(now.subarray(a, b), a)
    // What was erased for the write that did not come.
    const edge = mishap.way === 'up' ? mishap.at : Math.max(from, mishap.at - mishap.erased)
    old.fill(0xff, edge, mishap.way === 'up' ? mishap.at + mishap.erased : mishap.at)
    return old
  }
  const image = used(line, now, seed)
  if (mishap.is === 'rotten') for (const at of mishap.at) image[at]! ^= 1 << (at % 8)
  if (mishap.is === 'hole') image.fill(0xff, mishap.at, mishap.at + mishap.bytes)
  return image
}

/** The bytes at which a line's code lies in a release: from the main volume on to its last file, and the boot block. */
export function codeOf(
  line: FirmwareLine,
  release: Uint8Array,
): { readonly from: number; readonly to: number } {
  const { main, log } = partsOf(line)
  let to = log
  while (to > main && release[to - 1] === 0xff) to--
  return { from: main, to }
}

import { ImageBytes, hex } from './image-bytes'
import type { Inspection } from './inspect'
import { isCodeVolume } from './owner'
import { fileAt, VOLUME_HEADER } from './volume'
import type { VolumeFile } from './volume'

/** What of an image's code contradicts its own sums and lengths. */
export interface Unsound {
  readonly from: number
  readonly to: number
  readonly text: string
}

/** Where an image's code is broken by what it says of itself, in order; empty when all its sums and lengths agree. */
export function unsoundIn(inspection: Inspection): Unsound[] {
  const { microcodes } = inspection
  const volumes = inspection.volumes.filter(isCodeVolume)
  return [
    ...volumes.flatMap((v): Unsound[] => [
      ...(v.headerGood
        ? []
        : [{ from: v.from, to: v.from + VOLUME_HEADER, text: `the header of the volume at ${hex(v.from)}` }]),
      ...v.files.flatMap((f) =>
        f.checks === 'header wrong' || f.checks === 'body wrong'
          ? [{ from: f.from, to: f.to, text: `the file at ${hex(f.from)}` }]
          : [],
      ),
      ...(v.lostAt === null
        ? []
        : [{ from: v.lostAt, to: v.to, text: `what stands at ${hex(v.lostAt)} is no file` }]),
    ]),
    ...microcodes.flatMap((m) =>
      m.sumGood ? [] : [{ from: m.from, to: m.to, text: `the microcode at ${hex(m.from)}` }],
    ),
  ].sort((a, b) => a.from - b.from)
}

/** Free space of code volumes that is not empty: a volume is sound with it, but something was written there. */
export const straysIn = ({ volumes }: Inspection): Unsound[] =>
  volumes
    .filter(isCodeVolume)
    .flatMap((v) =>
      v.strayAt === null
        ? []
        : [{ from: v.strayAt, to: v.to, text: `free space is not empty at ${hex(v.strayAt)}` }],
    )

/** What speaks against a maker’s file by itself; empty when it may be compared with, or written. */
export function fileFaults(inspection: Inspection): string[] {
  return [
    ...(inspection.bytes === 0 ? ['the file has no bytes'] : []),
    ...unsoundIn(inspection).map((u) => `wrong in the file: ${u.text}`),
    ...inspection.findings.filter((f) => f.cutOff).map((f) => f.text),
  ]
}

const HEADER = 24
/** States a file that counts has, by what erased bytes are. */
const states: ReadonlySet<number> = new Set([0xf8, 0x07])

/**
 * Files whose sums are good, wherever they stand on eight bytes between two, whether a volume leads to them or not:
 * what is left of a release that something else was written over.
 */
export function* soundFilesIn(image: Uint8Array, from: number, to: number): Generator<VolumeFile> {
  const bytes = new ImageBytes(image)
  for (let at = Math.ceil(from / 8) * 8; at + HEADER <= to; at += 8) {
    if (!states.has(image[at + 23]!)) continue
    const size = bytes.u32(at + 20) & 0xffffff
    if (size < HEADER || at + size > image.length || headerSum(image, at) !== 0) continue
    const file = fileAt(bytes, at, HEADER, size)
    if (file.checks === 'good' || file.checks === 'not summed') yield file
  }
}

/** Sum of a file's header with its state and its body's sum left out, modulo 256. */
function headerSum(image: Uint8Array, at: number): number {
  let sum = 0
  for (let i = 0; i < HEADER - 1; i++) if (i !== 17) sum += image[at + i]!
  return sum & 0xff
}

import { hex } from './image-bytes'
import type { ImageBytes, ImageFinding } from './image-bytes'

/** A file of a firmware volume. */
export interface VolumeFile {
  readonly from: number
  /** First byte after it. */
  readonly to: number
  readonly guid: string
  /** As the format numbers it; 0xF0 is padding. */
  readonly type: number
  /** What its sums say: `not summed` where the file has none over its body. */
  readonly checks: 'good' | 'not summed' | 'header wrong' | 'body wrong'
}

/** A firmware volume and what is in it. */
export interface Volume {
  readonly from: number
  readonly to: number
  /** Which file system it holds. */
  readonly guid: string
  readonly headerGood: boolean
  readonly files: readonly VolumeFile[]
  /** Where its free space begins; its end where there is none. */
  readonly freeFrom: number
  /** Where its files can be followed no further, though it is not its free space; null when they all can. */
  readonly lostAt: number | null
  /** The first byte of its free space that is not erased; null where all of it is. */
  readonly strayAt: number | null
  /** The byte that erased space has. */
  readonly erased: 0x00 | 0xff
}

/** `_FVH`, 40 bytes after the begin of a volume. */
const SIGNATURE = 0x4856465f
const SIGNATURE_AT = 40
/** Shortest header of a volume, bytes: one row of the block map and its end. */
export const VOLUME_HEADER = 72
/** File systems whose files are read here. */
export const fileSystems: ReadonlySet<string> = new Set([
  '8C8CE578-8A3D-4F1C-9935-896185C32DD3',
  '5473C07A-3DCB-4DCA-BD6F-1E9689E7349A',
])

const attribute = { erasedIsOne: 0x800 } as const
const fileAttribute = { large: 0x01, summed: 0x40 } as const
/** What stands in place of a sum where the body has none. */
const NO_SUM = 0xaa

/** Sum of 16-bit words, modulo 2¹⁶. */
function sum16(bytes: ImageBytes, from: number, to: number): number {
  let sum = 0
  for (let at = from; at + 1 < to; at += 2) sum += bytes.u16(at)
  return sum & 0xffff
}

/** Sum of bytes, modulo 256. */
function sum8({ bytes }: ImageBytes, from: number, to: number): number {
  let sum = 0
  for (let at = from; at < to; at++) sum = (sum + bytes[at]!) & 0xff
  return sum
}

const onEight = (at: number) => Math.ceil(at / 8) * 8

/**
 * The firmware volumes between two bytes, those inside other volumes left to them.
 * Source: UEFI Platform Initialization Specification, volume 3, "Firmware volume header" and "Firmware file header".
 * Malformed ones give findings: a length past the end is cut there, a file that cannot be followed ends its volume.
 */
export function volumesIn(bytes: ImageBytes, from: number, to: number, findings: ImageFinding[]): Volume[] {
  const volumes: Volume[] = []
  // Counted from where the image begins: a capsule’s header may end anywhere.
  for (let at = from; at + VOLUME_HEADER <= to;) {
    const volume = bytes.u32(at + SIGNATURE_AT) === SIGNATURE ? volumeAt(bytes, at, to, findings) : null
    if (volume) volumes.push(volume)
    at = volume ? from + onEight(volume.to - from) : at + 8
  }
  return volumes
}

function volumeAt(bytes: ImageBytes, from: number, end: number, findings: ImageFinding[]): Volume | null {
  const find = (at: number, text: string, more: Partial<ImageFinding> = {}) =>
    findings.push({ at, text, ...more })
  const length = bytes.u64(from + 32)
  const headerBytes = bytes.u16(from + 48)
  if (headerBytes < VOLUME_HEADER || headerBytes % 2 === 1 || from + headerBytes > end) {
    find(from, `a volume at ${hex(from)} gives its header ${headerBytes} bytes: it is none, or broken`)
    return null
  }
  if (length < headerBytes) {
    find(from, `the volume at ${hex(from)} says it is ${length} bytes long, shorter than its own header`)
    return null
  }
  const headerGood = sum16(bytes, from, from + headerBytes) === 0
  if (!headerGood) find(from, `the header sum of the volume at ${hex(from)} is wrong`)
  const blocks = blockMapBytes(bytes, from, headerBytes)
  if (blocks !== null && blocks !== length)
    find(from, `the block map of the volume at ${hex(from)} gives ${blocks} bytes, its header ${length}`)
  const to = Math.min(end, from + length)
  if (from + length > end)
    find(
      from,
      `the volume at ${hex(from)} says it ends at ${hex(from + length)}, past the end at ${hex(end)}`,
      { cutOff: true },
    )
  const guid = bytes.guid(from + 16)
  const erased = bytes.u32(from + 44) & attribute.erasedIsOne ? 0xff : 0x00
  const extension = bytes.u16(from + 52)
  let first = from + headerBytes
  if (extension !== 0) {
    if (extension >= headerBytes && from + extension + 20 <= to)
      first = from + extension + bytes.u32(from + extension + 16)
    else find(from, `the volume at ${hex(from)} points to a second header that is not in it`)
  }
  const base = { from, to, guid, headerGood, erased } as const
  if (!fileSystems.has(guid)) return { ...base, files: [], freeFrom: to, lostAt: null, strayAt: null }
  if (first > to) {
    find(from, `the second header of the volume at ${hex(from)} is longer than the volume`)
    return { ...base, files: [], freeFrom: to, lostAt: from + headerBytes, strayAt: null }
  }
  return { ...base, ...filesOf(bytes, base, first, find) }
}

/** Bytes that the block map of a volume adds up to; null where it does not end within the header. */
function blockMapBytes(bytes: ImageBytes, from: number, headerBytes: number): number | null {
  let sum = 0
  for (let at = from + 56; at + 8 <= from + headerBytes; at += 8) {
    const [count, size] = [bytes.u32(at), bytes.u32(at + 4)]
    if (count === 0 && size === 0) return sum
    sum += count * size
  }
  return null
}

function filesOf(
  bytes: ImageBytes,
  { from: volume, to, erased }: Pick<Volume, 'from' | 'to' | 'erased'>,
  first: number,
  find: (at: number, text: string) => void,
): Pick<Volume, 'files' | 'freeFrom' | 'lostAt' | 'strayAt'> {
  const files: VolumeFile[] = []
  // Files stand on eight bytes as counted from the volume.
  const next = (at: number) => volume + onEight(at - volume)
  let lostAt: number | null = null
  let at = next(first)
  for (; at + 24 <= to; at = next(files.at(-1)!.to)) {
    if (isAll(bytes, at, at + 24, erased)) break
    const large = (bytes.u8(at + 19) & fileAttribute.large) !== 0
    const headerBytes = large ? 32 : 24
    if (large && at + 32 > to) {
      find(at, `the file at ${hex(at)} ends within its header`)
      lostAt = at
      break
    }
    const size = large ? bytes.u64(at + 24) : bytes.u32(at + 20) & 0xffffff
    if (size < headerBytes || at + size > to) {
      find(
        at,
        `the file at ${hex(at)} says it is ${size} bytes long: what follows in its volume cannot be told`,
      )
      lostAt = at
      break
    }
    const file = fileAt(bytes, at, headerBytes, size)
    if (file.checks === 'header wrong') find(at, `the header sum of the file at ${hex(at)} is wrong`)
    if (file.checks === 'body wrong')
      find(at, `the sum of the file at ${hex(at)} is wrong: its bytes are damaged`)
    files.push(file)
  }
  const freeFrom = Math.min(at, to)
  const strays = lostAt === null && at + 24 <= to ? firstOther(bytes, freeFrom, to, erased) : null
  if (strays !== null)
    find(strays, `the free space of the volume at ${hex(volume)} is not empty at ${hex(strays)}`)
  return { files, freeFrom, lostAt, strayAt: strays }
}

/** The file whose header stands there, and what its sums say. */
export function fileAt(bytes: ImageBytes, at: number, headerBytes: number, size: number): VolumeFile {
  const type = bytes.u8(at + 18)
  // The sums of the header are over it with its state and its body’s sum left out.
  const header = sum8(bytes, at, at + headerBytes) - bytes.u8(at + 17) - bytes.u8(at + 23)
  const said = bytes.u8(at + 17)
  const summed = (bytes.u8(at + 19) & fileAttribute.summed) !== 0
  const body = summed ? (sum8(bytes, at + headerBytes, at + size) + said) & 0xff : said === NO_SUM ? 0 : 1
  const checks =
    (header & 0xff) !== 0 ? 'header wrong' : body !== 0 ? 'body wrong' : summed ? 'good' : 'not summed'
  return { from: at, to: at + size, guid: bytes.guid(at), type, checks }
}

/** The first byte between two that is another than this; null when there is none. */
export function firstOther({ bytes }: ImageBytes, from: number, to: number, value: number): number | null {
  for (let at = from; at < to; at++) if (bytes[at] !== value) return at
  return null
}
const isAll = (bytes: ImageBytes, from: number, to: number, value: number) =>
  firstOther(bytes, from, to, value) === null

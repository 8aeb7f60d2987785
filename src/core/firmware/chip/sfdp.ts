import { hex, ImageBytes } from '../image/image-bytes'
import type { ImageFinding } from '../image/image-bytes'

/** How the quad mode is switched on. Source: JESD216B, basic table, 15th word, bits 20 to 22. */
export const quadEnables = [
  'none',
  'bit 1 of status 2, written with status 1',
  'bit 6 of status 1',
  'bit 7 of status 2',
  'bit 1 of status 2, status 1 left as it is',
  'bit 1 of status 2, read by its own command',
  'bit 1 of status 2, written by its own command',
  'reserved',
] as const
export type QuadEnable = (typeof quadEnables)[number]

export interface EraseType {
  readonly bytes: number
  readonly opcode: number
}

/** What a chip says of itself. */
export interface Sfdp {
  readonly revision: string
  /** Size in bytes; null where it gives none that can be. */
  readonly bytes: number | null
  readonly addressing: '3 bytes' | '3 or 4 bytes' | '4 bytes' | 'reserved'
  readonly erases: readonly EraseType[]
  /** Bytes programmed at once; null in tables too old to say. */
  readonly pageBytes: number | null
  /** null in tables too old to say. */
  readonly quadEnable: QuadEnable | null
  /** Whether it has commands of their own for four bytes of address. */
  readonly fourByteCommands: boolean
}

const SIGNATURE = 0x50444653
const BASIC = 0xff00
const FOUR_BYTE = 0xff84
const HEADER = 8
/** Largest size that is believed: 2³² bytes. */
const MOST_SIZE_BITS = 35

/**
 * The table a chip describes itself with. Source: JEDEC JESD216: signature, count of headers, headers of eight bytes with
 * length in words and a pointer of three bytes; the basic table holds density, erase types, page size, quad enable.
 * What points outside of the bytes is a finding, and what hangs on it is not known.
 * @returns sfdp null where the bytes are no such table
 */
export function readSfdp(table: Uint8Array): {
  readonly sfdp: Sfdp | null
  readonly findings: readonly ImageFinding[]
} {
  const bytes = new ImageBytes(table)
  const findings: ImageFinding[] = []
  const find = (at: number, text: string) => findings.push({ at, text })
  if (!bytes.has(0, 2 * HEADER) || bytes.u32(0) !== SIGNATURE) {
    find(0, 'no self-description: it does not begin with “SFDP”')
    return { sfdp: null, findings }
  }
  const headers = Array.from({ length: bytes.u8(6) + 1 }, (_, i) => HEADER * (i + 1)).filter((at) => {
    if (bytes.has(at, HEADER)) return true
    find(at, `header ${at / HEADER} lies past the end of the table`)
    return false
  })
  const tableOf = (id: number) => {
    // Of several of one kind the last is the newest that the chip has.
    const at = headers.findLast((h) => bytes.u8(h) + 256 * bytes.u8(h + 7) === id)
    if (at === undefined) return null
    const from = bytes.u8(at + 4) + 256 * bytes.u8(at + 5) + 65_536 * bytes.u8(at + 6)
    const words = bytes.u8(at + 3)
    if (words > 0 && bytes.has(from, 4 * words)) return { from, words }
    find(
      at,
      `the table of header ${at / HEADER} is said to be at ${hex(from)}, ${4 * words} bytes: it is not there`,
    )
    return null
  }
  const basic = tableOf(BASIC)
  if (!basic) {
    find(HEADER, 'it has no basic table')
    return { sfdp: null, findings }
  }
  /** The word of that number, counted from 1 as the standard does; null where the table is too short. */
  const word = (n: number) => (n <= basic.words ? bytes.u32(basic.from + 4 * (n - 1)) : null)
  const first = word(1)!
  const density = word(2)
  const pages = word(11)
  const quad = word(15)
  const size = density === null ? null : sizeOf(density)
  if (size === null) find(basic.from + 4, 'the size it gives cannot be')
  return {
    sfdp: {
      revision: `${bytes.u8(5)}.${bytes.u8(4)}`,
      bytes: size,
      addressing: (['3 bytes', '3 or 4 bytes', '4 bytes', 'reserved'] as const)[(first >>> 17) & 3]!,
      erases: erasesOf(first, word(8), word(9)),
      pageBytes: pages === null ? null : 2 ** ((pages >>> 4) & 0xf),
      quadEnable: quad === null ? null : quadEnables[(quad >>> 20) & 7]!,
      fourByteCommands: tableOf(FOUR_BYTE) !== null,
    },
    findings,
  }
}

/** Density in bits: one less than it, or as a power of two where the top bit is set. */
function sizeOf(density: number): number | null {
  if (density >>> 31 === 0) return density > 0 && (density + 1) % 8 === 0 ? (density + 1) / 8 : null
  const power = density & 0x7fffffff
  return power >= 3 && power <= MOST_SIZE_BITS ? 2 ** (power - 3) : null
}

function erasesOf(first: number, eighth: number | null, ninth: number | null): EraseType[] {
  if (eighth === null || ninth === null)
    return (first & 3) === 1 ? [{ bytes: 4096, opcode: (first >>> 8) & 0xff }] : []
  return [eighth & 0xffff, eighth >>> 16, ninth & 0xffff, ninth >>> 16]
    .filter((type) => (type & 0xff) !== 0 && (type & 0xff) < 32)
    .map((type) => ({ bytes: 2 ** (type & 0xff), opcode: type >>> 8 }))
    .sort((a, b) => a.bytes - b.bytes)
}

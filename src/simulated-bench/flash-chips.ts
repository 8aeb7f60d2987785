import type { EraseType, QuadEnable, Sfdp } from '@/core/firmware/chip/sfdp'
import { quadEnables } from '@/core/firmware/chip/sfdp'

/** A chip of the invented makers, as its data sheet has it. */
export interface SoldChip {
  readonly marking: string
  readonly volts: number
  readonly id: readonly number[]
  readonly sfdp: Omit<Sfdp, 'revision' | 'fourByteCommands'> & { readonly bytes: number }
}

const erases: readonly EraseType[] = [
  { bytes: 0x1000, opcode: 0x20 },
  { bytes: 0x8000, opcode: 0x52 },
  { bytes: 0x10000, opcode: 0xd8 },
]
const MIB = 1024 * 1024
const sold = (
  marking: string,
  volts: number,
  bytes: number,
  id: readonly number[],
  quadEnable: QuadEnable,
): SoldChip => ({
  marking,
  volts,
  id,
  sfdp: { bytes, addressing: '3 bytes', erases, pageBytes: 256, quadEnable },
})

/** Chips that come into this harbour; their IDs are in a range that nobody was given. */
export const soldChips: readonly SoldChip[] = [
  sold('LSN-16M', 3.3, 2 * MIB, [0x7f, 0x7f, 0x33, 0x40, 0x15], 'bit 1 of status 2, written with status 1'),
  sold('LSN-16V', 1.8, 2 * MIB, [0x7f, 0x7f, 0x33, 0x60, 0x15], 'bit 1 of status 2, written with status 1'),
  sold('FERN-32V', 1.8, 4 * MIB, [0x7f, 0x3c, 0x25, 0x16], 'bit 6 of status 1'),
]

/** The bytes of a chip's description of itself, written by the standard's own layout. */
export function drawSfdp({ sfdp }: SoldChip): Uint8Array {
  const WORDS = 16
  const BASIC = 0x30
  const table = new Uint8Array(BASIC + 4 * WORDS).fill(0xff)
  const view = new DataView(table.buffer)
  table.set(new TextEncoder().encode('SFDP'), 0)
  table.set([6, 1, 0, 0xff], 4)
  table.set([0x00, 6, 1, WORDS, BASIC, 0, 0, 0xff], 8)
  const word = (n: number, value: number) => view.setUint32(BASIC + 4 * (n - 1), value >>> 0, true)
  const addressing = ['3 bytes', '3 or 4 bytes', '4 bytes'].indexOf(sfdp.addressing)
  word(1, 0xfff1_20e5 + addressing * 0x2_0000)
  word(2, sfdp.bytes * 8 - 1)
  const type = (i: number) => {
    const erase = sfdp.erases[i]
    return erase ? Math.log2(erase.bytes) + erase.opcode * 256 : 0
  }
  word(8, type(0) + type(1) * 65_536)
  word(9, type(2) + type(3) * 65_536)
  word(11, Math.log2(sfdp.pageBytes!) << 4)
  word(15, quadEnables.indexOf(sfdp.quadEnable!) << 20)
  return table
}

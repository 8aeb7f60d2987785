/** A programmer as the session sees it: what a device of any make can do. */
export interface SpiBridge {
  /** What it gives the chip, V. */
  readonly volts: number
  /**
   * Selects the chip, sends bytes, takes as many as are wanted, lets it go.
   * @throws when the device or its supply is gone
   */
  transfer(out: Uint8Array, wanted: number): Promise<Uint8Array>
}

/** Commands that every chip of this kind has. Source: the common command set of SPI NOR flash; JESD216 names them too. */
export const opcode = {
  readId: 0x9f,
  readSfdp: 0x5a,
  readStatus: 0x05,
  writeStatus: 0x01,
  writeEnable: 0x06,
  read: 0x03,
  fastRead: 0x0b,
  program: 0x02,
  erase4K: 0x20,
  erase32K: 0x52,
  erase64K: 0xd8,
  eraseChip: 0xc7,
  enter4Byte: 0xb7,
  exit4Byte: 0xe9,
} as const

/** Bits of the first status byte. */
export const status = { busy: 0x01, writeEnabled: 0x02, protects: 0x7c } as const

/** Programmed at once at most, bytes; from its own beginning round. */
export const PAGE = 256

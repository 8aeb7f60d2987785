import type { SpiBridge } from '@/core/firmware/flash/spi-bridge'
import { seeded } from '@/core/maths/seeded'

/** What can be wrong between a programmer and a chip. */
export interface SpiFaults {
  /** Chance that a bit read arrives turned over. */
  readonly badClip?: number
  /** A bit that always reads as one. */
  readonly stuckBit?: number
  /** The write-protect pin is held, or blocks are protected. */
  readonly writeProtect?: boolean
  /** Bytes that may still be erased or programmed before the supply goes. */
  readonly powerLostAfter?: number
}

export interface SpiNorChip {
  readonly contents: Uint8Array
  readonly volts: number
  readonly id: readonly number[]
  readonly sfdp: Uint8Array
  readonly seed: number
}

/** The supply is gone in the midst of it. */
export class PowerLost extends Error {}

const PAGE = 256
/** How often a chip says that it is busy after a page and after an erase. */
const BUSY = { page: 1, erase: 3 } as const
const PROTECTED = 0x1c

/**
 * A flash chip at the level of its commands, behind a programmer that gives some voltage: erase sets bits, program clears
 * them and runs round in its page, nothing is written without being enabled first, and for a while after it is busy. A
 * supply that is too low for it gives no answer; one too high destroys it.
 */
export class SpiNor implements SpiBridge {
  readonly contents: Uint8Array
  private enabled = false
  private busy = 0
  private fourByte = false
  private statusBits: number
  private left: number
  private destroyed = false
  private readonly draw: () => number

  constructor(
    private readonly chip: SpiNorChip,
    readonly volts: number,
    private readonly faults: SpiFaults = {},
  ) {
    this.contents = chip.contents
    this.statusBits = faults.writeProtect ? PROTECTED : 0
    this.left = faults.powerLostAfter ?? Infinity
    this.draw = seeded(chip.seed)
  }

  /** Commands it was sent, and whether too much voltage has reached it. */
  sent = 0
  get isDestroyed(): boolean {
    return this.destroyed
  }

  transfer(out: Uint8Array, wanted: number): Promise<Uint8Array> {
    this.sent++
    if (this.left <= 0) return Promise.reject(new PowerLost('the supply is gone'))
    if (this.volts > this.chip.volts * 1.15) this.destroyed = true
    if (this.destroyed || this.volts < this.chip.volts * 0.85)
      return Promise.resolve(new Uint8Array(wanted).fill(0xff))
    try {
      return Promise.resolve(this.onTheWay(this.command(out, wanted)))
    } catch (error) {
      return Promise.reject(error as Error)
    }
  }

  private command(out: Uint8Array, wanted: number): Uint8Array {
    const code = out[0]!
    if (code === 0x05) {
      const busy = this.busy > 0
      if (busy) this.busy--
      return new Uint8Array(wanted).fill(this.statusBits | (busy ? 1 : 0) | (this.enabled ? 2 : 0))
    }
    // A busy chip hears nothing but being asked for its status.
    if (this.busy > 0) return new Uint8Array(wanted).fill(0xff)
    switch (code) {
      case 0x9f:
        return Uint8Array.from({ length: wanted }, (_, i) => this.chip.id[i] ?? 0)
      case 0x5a:
        return from(this.chip.sfdp, out[1]! * 65_536 + out[2]! * 256 + out[3]!, wanted)
      case 0x06:
        this.enabled = true
        break
      case 0x04:
        this.enabled = false
        break
      case 0x01:
        if (this.enabled && !this.faults.writeProtect) this.statusBits = out[1]! & 0x7c
        this.enabled = false
        break
      case 0xb7:
        this.fourByte = true
        break
      case 0xe9:
        this.fourByte = false
        break
      case 0x03:
      case 0x0b:
        return from(this.contents, this.address(out), wanted)
      case 0x02:
        this.program(this.address(out), out.subarray(this.fourByte ? 5 : 4))
        break
      case 0x20:
        this.erase(this.address(out), 0x1000)
        break
      case 0x52:
        this.erase(this.address(out), 0x8000)
        break
      case 0xd8:
        this.erase(this.address(out), 0x10000)
        break
      case 0xc7:
        this.erase(0, this.contents.length)
        break
    }
    return new Uint8Array(wanted).fill(0xff)
  }

  private address(out: Uint8Array): number {
    const at = this.fourByte
      ? ((out[1]! << 24) >>> 0) + (out[2]! << 16) + (out[3]! << 8) + out[4]!
      : (out[1]! << 16) + (out[2]! << 8) + out[3]!
    return at % this.contents.length
  }

  private writable(): boolean {
    const may = this.enabled && (this.statusBits & PROTECTED) === 0
    this.enabled = false
    return may
  }

  private program(at: number, data: Uint8Array): void {
    if (!this.writable()) return
    const page = at - (at % PAGE)
    data.forEach((byte, i) => {
      this.spend()
      this.contents[page + ((at + i) % PAGE)]! &= byte
    })
    this.busy = BUSY.page
  }

  private erase(at: number, size: number): void {
    if (!this.writable()) return
    const from = at - (at % size)
    for (let i = from; i < Math.min(from + size, this.contents.length); i++) {
      this.spend()
      this.contents[i] = 0xff
    }
    this.busy = BUSY.erase
  }

  private spend(): void {
    if (this.left-- <= 0) throw new PowerLost('the supply is gone')
  }

  /** What the clip and its wires make of the bytes. */
  private onTheWay(bytes: Uint8Array): Uint8Array {
    const { badClip = 0, stuckBit } = this.faults
    if (badClip === 0 && stuckBit === undefined) return bytes
    return bytes.map((byte) => {
      const turned = badClip > 0 && this.draw() < badClip ? byte ^ (1 << Math.floor(this.draw() * 8)) : byte
      return stuckBit === undefined ? turned : turned | (1 << stuckBit)
    })
  }
}

/** Bytes from an address on, round at the end. */
function from(bytes: Uint8Array, at: number, count: number): Uint8Array {
  if (at + count <= bytes.length) return bytes.slice(at, at + count)
  return Uint8Array.from({ length: count }, (_, i) => bytes[(at + i) % bytes.length] ?? 0xff)
}

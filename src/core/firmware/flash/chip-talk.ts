import { opcode, PAGE, status } from './spi-bridge'
import type { SpiBridge } from './spi-bridge'

/** Largest chip that three bytes of address reach whole. */
const THREE_BYTES = 16 * 1024 * 1024
/** Read at once, bytes. */
const CHUNK = 0x10000
/** Longest that a chip may stay busy, questions for its status. */
const MOST_POLLS = 100_000

/** The chip stays busy for ever, or refuses what it is told. */
export class ChipStuck extends Error {}

/** What a session says to a chip: whole commands, with their addresses and their waiting. */
export class ChipTalk {
  private fourByte = false
  constructor(private readonly bridge: SpiBridge) {}

  id = (count: number): Promise<Uint8Array> => this.bridge.transfer(Uint8Array.of(opcode.readId), count)

  sfdp = (count: number): Promise<Uint8Array> =>
    this.bridge.transfer(Uint8Array.of(opcode.readSfdp, 0, 0, 0, 0), count)

  async status(): Promise<number> {
    return (await this.bridge.transfer(Uint8Array.of(opcode.readStatus), 1))[0]!
  }

  /** Says how large it is, so that it is spoken to with as many bytes of address as it needs. */
  async begin(bytes: number): Promise<void> {
    this.fourByte = bytes > THREE_BYTES
    if (this.fourByte) await this.bridge.transfer(Uint8Array.of(opcode.enter4Byte), 0)
  }

  /** Bytes from one address to another, with a word after each chunk. */
  async read(from: number, to: number, each: (at: number) => void = () => undefined): Promise<Uint8Array> {
    const all = new Uint8Array(to - from)
    for (let at = from; at < to; at += CHUNK) {
      const count = Math.min(CHUNK, to - at)
      all.set(await this.bridge.transfer(this.at(opcode.read, at), count), at - from)
      each(at + count)
    }
    return all
  }

  async erase(code: number, at: number): Promise<void> {
    await this.enable()
    await this.bridge.transfer(this.at(code, at), 0)
    await this.ready()
  }

  /** Programs bytes of one page. */
  async program(at: number, page: Uint8Array): Promise<void> {
    if (page.length > PAGE - (at % PAGE)) throw new RangeError('a page is programmed at a time')
    const head = this.at(opcode.program, at)
    const out = new Uint8Array(head.length + page.length)
    out.set(head)
    out.set(page, head.length)
    await this.enable()
    await this.bridge.transfer(out, 0)
    await this.ready()
  }

  private async enable(): Promise<void> {
    await this.bridge.transfer(Uint8Array.of(opcode.writeEnable), 0)
    if (((await this.status()) & status.writeEnabled) === 0)
      throw new ChipStuck('the chip does not take the command that enables writing')
  }

  private async ready(): Promise<void> {
    for (let i = 0; i < MOST_POLLS; i++) if (((await this.status()) & status.busy) === 0) return
    throw new ChipStuck('the chip stays busy')
  }

  private at(code: number, at: number): Uint8Array {
    const address = [(at >>> 16) & 0xff, (at >>> 8) & 0xff, at & 0xff]
    return Uint8Array.of(code, ...(this.fourByte ? [(at >>> 24) & 0xff] : []), ...address)
  }
}

/** What is odd or broken in an image, and at which byte. */
export interface ImageFinding {
  readonly at: number
  readonly text: string
  /** What is there is shorter than it says it is. */
  readonly cutOff?: true
}

/** A chip is erased, and its regions are counted, in sectors of this size, bytes. */
export const SECTOR = 4096

/** An address as it is written: hexadecimal with at least six figures. */
export const hex = (at: number, figures = 6): string =>
  `0x${at.toString(16).toUpperCase().padStart(figures, '0')}`

/** The bytes as numbers of little end first; what lies past the end is not read but asked for by `has`. */
export class ImageBytes {
  private readonly view: DataView
  constructor(readonly bytes: Uint8Array) {
    this.view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  }
  get length(): number {
    return this.bytes.length
  }
  has(at: number, count: number): boolean {
    return at >= 0 && count >= 0 && at + count <= this.length
  }
  u8 = (at: number): number => this.bytes[at]!
  u16 = (at: number): number => this.view.getUint16(at, true)
  u32 = (at: number): number => this.view.getUint32(at, true)
  /** As a number: beyond 2⁵³ it is too large to be a length in any case. */
  u64 = (at: number): number => this.u32(at) + 2 ** 32 * this.u32(at + 4)
  /** A GUID as it is written, its first three parts with their bytes turned. */
  guid(at: number): string {
    const part = (from: number, to: number) =>
      [...this.bytes.subarray(at + from, at + to)].map((b) => b.toString(16).padStart(2, '0'))
    return [part(0, 4).reverse(), part(4, 6).reverse(), part(6, 8).reverse(), part(8, 10), part(10, 16)]
      .map((bytes) => bytes.join(''))
      .join('-')
      .toUpperCase()
  }
}

/** What a chip answered to the command that reads its ID (0x9F). */
export interface ChipId {
  /** How many continuation codes stood before the maker’s. */
  readonly bank: number
  readonly maker: number
  /** Kind and size, as the maker numbers them. */
  readonly device: readonly [number, number]
}

export type IdRead =
  | { readonly is: 'read'; readonly id: ChipId }
  | { readonly is: 'no answer' | 'too short'; readonly say: string }

/** A code that says: the maker stands in the next bank. Source: JEDEC JEP106. */
const CONTINUATION = 0x7f

/**
 * The ID in the bytes a chip gave: continuation codes, maker, two bytes of device. All ones or all zeros are no ID: the
 * line is open, the chip is without supply, or nobody is there.
 */
export function readId(bytes: Uint8Array): IdRead {
  const first = bytes[0]
  if (first !== undefined && (first === 0xff || first === 0) && bytes.every((b) => b === first))
    return {
      is: 'no answer',
      say: `every byte is ${first === 0 ? '00' : 'FF'}: the chip does not answer; look at clip, supply and orientation`,
    }
  let bank = 0
  while (bytes[bank] === CONTINUATION) bank++
  const [maker, kind, size] = bytes.subarray(bank)
  if (maker === undefined || kind === undefined || size === undefined)
    return { is: 'too short', say: 'an ID is a maker and two bytes of device after any continuation codes' }
  return { is: 'read', id: { bank, maker, device: [kind, size] } }
}

const figures = (byte: number) => byte.toString(16).toUpperCase().padStart(2, '0')

/** As it is written: “bank 3: 33 40 15”, the bank left out where it is the first. */
export const sayId = ({ bank, maker, device }: ChipId): string =>
  `${bank > 0 ? `bank ${bank + 1}: ` : ''}${[maker, ...device].map(figures).join(' ')}`

/** The bytes a chip answers with, continuation codes and all. */
export const sayIdBytes = ({ bank, maker, device }: ChipId): string =>
  [...Array.from({ length: bank }, () => CONTINUATION), maker, ...device].map(figures).join(' ')

export const sameId = (a: ChipId, b: ChipId): boolean =>
  a.bank === b.bank && a.maker === b.maker && a.device[0] === b.device[0] && a.device[1] === b.device[1]

/** Bytes as typed: “7F 7F 33 40 15”, with or without spaces, 0x or commas; null where they are none. */
export function readHexBytes(text: string): Uint8Array | null {
  const figuresOnly = text.replace(/0x/gi, '').replace(/[\s,:]/g, '')
  if (figuresOnly === '' || figuresOnly.length % 2 === 1 || /[^0-9a-f]/i.test(figuresOnly)) return null
  return Uint8Array.from(figuresOnly.match(/../g)!, (byte) => parseInt(byte, 16))
}

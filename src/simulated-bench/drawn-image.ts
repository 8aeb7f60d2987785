import { seeded } from '@/core/maths/seeded'

/** What is put into an image; sizes in bytes. */
export interface ImageRecipe {
  readonly seed: number
  /** Size of the chip it is for. */
  readonly bytes: number
  readonly descriptor: boolean
  /** Files of its main volume: how long their bodies are, or each as it is drawn. */
  readonly files: readonly (number | DrawnFile)[]
  readonly microcodes: readonly {
    readonly signature: number
    readonly revision: number
    readonly date: string
  }[]
  /** What the release calls itself; it stands in a file of its own. */
  readonly version: string
  /** What the board has kept: settings, serial, keys. */
  readonly settings: string
  /** Room for it, whole blocks of 4 KiB. */
  readonly settingsBytes?: number
  /** A volume of its own at the end, of 64 KiB, which the first instruction comes from. */
  readonly bootBlock?: DrawnFile
  /** Erased room between the volumes, for what the board notes down; whole blocks of 4 KiB. */
  readonly logBytes?: number
}

/** A file that is the same in every release that has its seed. */
export interface DrawnFile {
  readonly seed: number
  readonly length: number
  readonly unsummed?: true
}

export const BOOT_BLOCK = 0x10000

const USUAL_SETTINGS_BYTES = 0x10000
const fileSystem = '8C8CE578-8A3D-4F1C-9935-896185C32DD3'
const settingsStore = 'FFF12B8D-7696-4C8B-A985-2747075B4F50'

/** An image as a maker of boards would ship it, or as a board would hold it after a while; made up throughout. */
export function drawImage(recipe: ImageRecipe): Uint8Array {
  const image = new Uint8Array(recipe.bytes).fill(0xff)
  const draw = seeded(recipe.seed)
  const { settingsBytes = USUAL_SETTINGS_BYTES } = recipe
  const firmwareFrom = recipe.descriptor ? 0x20000 : 0
  if (recipe.descriptor) {
    image.set(descriptor(firmwareFrom, recipe.bytes), 0)
    // The management part: enciphered, so any bytes do.
    for (let at = 0x1000; at < 0x10000; at++) image[at] = Math.floor(draw() * 256)
    image.set(new TextEncoder().encode('MAC 02:11:22:33:44:55'), 0x11000)
  }
  image.set(volume(settingsStore, settingsBytes, [new TextEncoder().encode(recipe.settings)]), firmwareFrom)
  const main = [
    fileOf(draw, 2, new TextEncoder().encode(`version ${recipe.version}`)),
    ...recipe.files.map((file) =>
      typeof file === 'number' ? fileOf(draw, 7, random(draw, file)) : drawFile(file),
    ),
    ...(recipe.microcodes.length > 0 ? [microcodeFile(draw, recipe.microcodes)] : []),
  ]
  const from = firmwareFrom + settingsBytes
  const bootFrom = recipe.bytes - (recipe.bootBlock ? BOOT_BLOCK : 0)
  image.set(volume(fileSystem, bootFrom - (recipe.logBytes ?? 0) - from, main), from)
  if (recipe.bootBlock) image.set(volume(fileSystem, BOOT_BLOCK, [drawFile(recipe.bootBlock)]), bootFrom)
  return image
}

const random = (draw: () => number, length: number) =>
  Uint8Array.from({ length }, () => Math.floor(draw() * 256))

function drawFile({ seed, length, unsummed }: DrawnFile): Uint8Array {
  const draw = seeded(seed)
  const file = fileOf(draw, 7, random(draw, length))
  if (!unsummed) return file
  // Its header is summed all the same.
  file[19] = 0
  file[16] = (file[16]! + 0x40) & 0xff
  file[17] = 0xaa
  return file
}

function put(into: Uint8Array, at: number, value: number, bytes: number): void {
  for (let i = 0; i < bytes; i++) into[at + i] = Math.floor(value / 256 ** i) & 0xff
}

function putGuid(into: Uint8Array, at: number, guid: string): void {
  const bytes = guid
    .replaceAll('-', '')
    .match(/../g)!
    .map((b) => parseInt(b, 16))
  const order = [3, 2, 1, 0, 5, 4, 7, 6, 8, 9, 10, 11, 12, 13, 14, 15]
  order.forEach((from, i) => {
    into[at + i] = bytes[from]!
  })
}

function descriptor(firmwareFrom: number, bytes: number): Uint8Array {
  const sector = new Uint8Array(4096).fill(0xff)
  put(sector, 16, 0x0ff0a55a, 4)
  put(sector, 20, 0x04 << 16, 4)
  const region = (i: number, from: number, to: number) =>
    put(sector, 0x40 + 4 * i, (from >> 12) + ((to / 4096 - 1) << 16), 4)
  region(0, 0, 0x1000)
  region(1, firmwareFrom, bytes)
  region(2, 0x1000, 0x10000)
  region(3, 0x11000, 0x12000)
  // Unused: its base lies above its limit.
  put(sector, 0x40 + 16, 0x7fff, 4)
  put(sector, 0x40 + 20, 0x7fff, 4)
  return sector
}

const HEADER = 72

/** A firmware volume of that size, its contents on eight bytes, the rest erased. */
function volume(guid: string, bytes: number, contents: readonly Uint8Array[]): Uint8Array {
  const all = new Uint8Array(bytes).fill(0xff)
  all.fill(0, 0, HEADER)
  putGuid(all, 16, guid)
  put(all, 32, bytes, 8)
  all.set(new TextEncoder().encode('_FVH'), 40)
  put(all, 44, 0x4feff, 4)
  put(all, 48, HEADER, 2)
  all[55] = 2
  put(all, 56, bytes / 4096, 4)
  put(all, 60, 4096, 4)
  let sum = 0
  for (let at = 0; at < HEADER; at += 2) sum += all[at]! + 256 * all[at + 1]!
  put(all, 50, -sum & 0xffff, 2)
  let at = HEADER
  for (const content of contents) {
    all.set(content, at)
    at = Math.ceil((at + content.length) / 8) * 8
  }
  return all
}

/** A file with both its sums. */
function fileOf(draw: () => number, type: number, body: Uint8Array): Uint8Array {
  const size = 24 + body.length
  const file = new Uint8Array(size)
  for (let at = 0; at < 16; at++) file[at] = Math.floor(draw() * 256)
  file[18] = type
  file[19] = 0x40
  put(file, 20, size, 3)
  file.set(body, 24)
  file[16] = -file.subarray(0, 24).reduce((a, b) => a + b, 0) & 0xff
  file[17] = -body.reduce((a, b) => (a + b) & 0xff, 0) & 0xff
  file[23] = 0xf8
  return file
}

/** Microcode updates in one file, each on sixteen bytes of the image. */
function microcodeFile(draw: () => number, all: ImageRecipe['microcodes']): Uint8Array {
  const UPDATE = 2048
  const body = new Uint8Array(all.length * UPDATE)
  all.forEach(({ signature, revision, date }, i) => {
    const from = i * UPDATE
    const [year, month, day] = date.split('-').map((figures) => parseInt(figures, 16)) as [
      number,
      number,
      number,
    ]
    put(body, from, 1, 4)
    put(body, from + 4, revision, 4)
    put(body, from + 8, month * 2 ** 24 + day * 2 ** 16 + year, 4)
    put(body, from + 12, signature, 4)
    put(body, from + 20, 1, 4)
    put(body, from + 24, 1, 4)
    put(body, from + 28, UPDATE - 48, 4)
    put(body, from + 32, UPDATE, 4)
    for (let at = from + 48; at < from + UPDATE; at++) body[at] = Math.floor(draw() * 256)
    let sum = 0
    for (let at = from; at < from + UPDATE; at += 4)
      sum += body[at]! + 2 ** 8 * body[at + 1]! + 2 ** 16 * body[at + 2]! + 2 ** 24 * body[at + 3]!
    put(body, from + 16, (2 ** 32 - (sum % 2 ** 32)) % 2 ** 32, 4)
  })
  return fileOf(draw, 2, body)
}

import { seeded } from '@/core/maths/seeded'
import type { FaultId } from '@/core/triage/model/faults'
import { codeOf, drawContents, drawRelease } from './chip-contents'
import type { FirmwareLine, Mishap } from './chip-contents'
import { soldChips } from './flash-chips'
import type { SoldChip } from './flash-chips'

/** A chip on a simulated board: which board it is, what is still wrong with it, its seed. */
export interface ChipOnBoard {
  readonly boardModelId: string
  readonly faults: readonly FaultId[]
  readonly seed: number
}

const MIB = 1024 * 1024

/** The firmware of a board model: the same for every board of it. */
export function firmwareOf(boardModelId: string): FirmwareLine {
  const seed = [...boardModelId].reduce((sum, letter) => (sum * 31 + letter.charCodeAt(0)) % 100_003, 7)
  return {
    seed,
    bytes: 2 * MIB,
    descriptor: seed % 2 === 0,
    settingsBytes: 0x10000,
    logBytes: 0x8000,
    versions: ['1.20', '1.30', '1.40', '1.52', '1.60', '2.04'],
  }
}

/** Boards that give their chip 1.8 V. */
const atLowVolts: ReadonlySet<string> = new Set(['tw-k61', 'tw-k61-b', 'tw-k74', 'br-sound-7'])

/** The chip that is really on it, whatever was noted. */
export function soldOn({ boardModelId, faults }: Pick<ChipOnBoard, 'boardModelId' | 'faults'>): SoldChip {
  const marking = faults.includes('firmware chip')
    ? 'FERN-32V'
    : atLowVolts.has(boardModelId)
      ? 'LSN-16V'
      : 'LSN-16M'
  return soldChips.find((c) => c.marking === marking)!
}

/** Which release the chip holds, or was being given. */
const nthOf = ({ seed }: ChipOnBoard) => 1 + (seed % 2)

/** Files whose label is wrong: what they hold, by board and by the release they are called. */
const mislabelled: Readonly<Record<string, Readonly<Record<string, string>>>> = {
  'br-sound-5': { '1.52': '1.40' },
}

/** Files that did not come whole, or came twice: what is wrong with them, by board and release. */
const spoilt: Readonly<Record<string, Readonly<Record<string, 'cut short' | 'mirrored'>>>> = {
  'tw-k61': { '1.52': 'cut short' },
  'br-sound-7': { '1.52': 'mirrored' },
}

/** The maker’s file of a release, whatever it really holds; null for a version there is none of. */
export function releaseFile(boardModelId: string, version: string): Uint8Array | null {
  const line = firmwareOf(boardModelId)
  const nth = line.versions.indexOf(mislabelled[boardModelId]?.[version] ?? version)
  if (nth < 0) return null
  const release = drawRelease(line, nth)
  switch (spoilt[boardModelId]?.[version]) {
    case 'cut short':
      return release.subarray(0, Math.floor(release.length * 0.62))
    case 'mirrored':
      return Uint8Array.from([...release, ...release])
    default:
      return release
  }
}

function mishapOf(line: FirmwareLine, { faults, seed }: ChipOnBoard, nth: number): Mishap {
  if (!faults.includes('firmware corrupt')) return { is: 'none' }
  const { from, to } = codeOf(line, drawRelease(line, nth))
  const draw = seeded(seed)
  const place = () => from + Math.floor((0.2 + 0.6 * draw()) * (to - from))
  if (seed % 3 === 1) return { is: 'rotten', at: [place(), place()] }
  return {
    is: 'stopped',
    at: place() & ~0xfff,
    way: seed % 3 === 0 ? 'down' : 'up',
    erased: 0x10000,
  }
}

/**
 * What a programmer reads of the chip. One of the wrong kind is twice as large as the board's, and its upper half
 * answers otherwise each time.
 * @param line of the tape at which it is read
 */
export function readChip(chip: ChipOnBoard, line: number): Uint8Array {
  const firmware = firmwareOf(chip.boardModelId)
  const nth = nthOf(chip)
  const contents = drawContents(firmware, nth, mishapOf(firmware, chip, nth), chip.seed)
  if (!chip.faults.includes('firmware chip')) return contents
  const larger = new Uint8Array(2 * contents.length)
  larger.set(contents)
  larger.set(contents, contents.length)
  const draw = seeded(chip.seed * 7919 + line)
  for (let i = 0; i < 400; i++)
    larger[contents.length + Math.floor(draw() * contents.length)]! ^= 1 << (i % 8)
  return larger
}

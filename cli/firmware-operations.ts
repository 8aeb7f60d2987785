import Joi from 'joi'
import { createHash } from 'node:crypto'
import { writeFileSync } from 'node:fs'
import { readHexBytes, readId, sayId } from '@/core/firmware/chip/jedec-id'
import { quadEnables, readSfdp } from '@/core/firmware/chip/sfdp'
import { movedBy } from '@/core/firmware/bodies'
import type { FirmwareBodies } from '@/core/firmware/bodies'
import { chipPins, refitForbids, refitPoints } from '@/core/firmware/chip/refit'
import { substitute } from '@/core/firmware/chip/substitute'
import type { ChipWanted, FlashChip } from '@/core/firmware/chip/substitute'
import { flashSession } from '@/core/firmware/flash/session'
import { buildImage } from '@/core/firmware/image/build'
import { compare } from '@/core/firmware/image/compare'
import { blockEntropy } from '@/core/firmware/image/entropy'
import { dumpQuality } from '@/core/firmware/image/dump'
import { inspect, MOST_BYTES } from '@/core/firmware/image/inspect'
import { judgeSameCode } from '@/core/firmware/image/same-code'
import { readRecords, recordsKind, writeHexRecords, writeSRecords } from '@/core/firmware/image/records'
import { microcodeSupport } from '@/core/firmware/route/microcode-support'
import { Support } from '@/core/firmware/route/support-table'
import type { SupportTable } from '@/core/firmware/route/support-table'
import { drawSfdp, soldChips } from '@/simulated-bench/flash-chips'
import { SpiNor } from '@/simulated-bench/spi-nor'
import type { SpiFaults } from '@/simulated-bench/spi-nor'
import { BadInput, operation, readFile } from './operation'
import type { Operation } from './operation'
import { known, sound, table } from './route-operations'

/** Longest text of records of the largest image, characters. */
const MOST_TEXT = 4 * MOST_BYTES

/** An image as bytes, hex records or S-records. */
function readImage(path: string, field: string): { base: number; bytes: Uint8Array } {
  const file = readFile(path, field)
  if (!recordsKind(file.subarray(0, 64).toString('latin1'))) {
    if (file.length > MOST_BYTES)
      throw new BadInput(field, `${path} has ${file.length} bytes; images of up to 64 MiB are read`)
    return { base: 0, bytes: new Uint8Array(file) }
  }
  if (file.length > MOST_TEXT) throw new BadInput(field, `${path} is too long for records of 64 MiB`)
  const { recorded, findings } = readRecords(file.toString('latin1'))
  const first = findings[0]
  if (first || !recorded)
    throw new BadInput(field, `${path}, line ${first?.line ?? 0}: ${first?.text ?? 'nothing is in it'}`)
  return recorded
}

/** Stretches of an image, each with its first byte and the one after its last. */
const ranges = Joi.array()
  .items(
    Joi.object({
      from: Joi.number().integer().min(0).required(),
      to: Joi.number().integer().greater(Joi.ref('from')).required(),
    }),
  )
  .max(100)
  .default([])

const byte = Joi.number().integer().min(0).max(255)
const chipId = Joi.object({
  bank: Joi.number().integer().min(0).max(20).default(0),
  maker: byte.required(),
  device: Joi.array().ordered(byte.required(), byte.required()).required(),
})
/** What is known of a chip, or wanted of one; what is left out is not known. */
const chipPoints = {
  volts: Joi.number().min(0.5).max(12).allow(null).default(null),
  bytes: Joi.number()
    .integer()
    .min(1)
    .max(2 ** 32)
    .allow(null)
    .default(null),
  package: Joi.string().max(60).allow(null).default(null),
  quadEnable: Joi.valid(...quadEnables, null).default(null),
  addressing: Joi.valid('3 bytes', '3 or 4 bytes', '4 bytes', 'reserved', null).default(null),
  erases: Joi.array()
    .items(Joi.object({ bytes: Joi.number().integer().min(1).required(), opcode: byte.required() }))
    .max(8)
    .allow(null)
    .default(null),
  mhz: Joi.number().min(1).max(1000).allow(null).default(null),
}

function hexBytes(text: string, field: string): Uint8Array {
  const bytes = readHexBytes(text)
  if (!bytes) throw new BadInput(field, 'give bytes as two hexadecimal figures each, like “7F 7F 33 40 15”')
  return bytes
}

/** @throws BadInput when it cannot be written there, or something is there already */
function writeImage(path: string, image: Uint8Array, field = 'to'): void {
  try {
    writeFileSync(path, image, { flag: 'wx' })
  } catch {
    throw new BadInput(field, `${path} cannot be written; is something there already?`)
  }
}

/** A chip of the invented makers that holds these bytes, at 1.8 V. */
function standIn(contents: Uint8Array) {
  const [, sold] = soldChips
  const sfdp = drawSfdp({ ...sold!, sfdp: { ...sold!.sfdp, bytes: contents.length } })
  return { contents, volts: sold!.volts, id: sold!.id, sfdp, seed: 1 }
}

const kept = (share: number) => Math.round(share * 1000) / 1000

export const firmwareOperations: Readonly<Record<string, Operation>> = {
  'firmware.inspect': operation<{ image: string; table: SupportTable | null; release: string | null }>(
    'What is in a firmware image: capsule, regions, volumes, files and their sums, microcode beside a table, what is empty.',
    Joi.object({
      image: Joi.string().required(),
      table: table.allow(null).default(null),
      release: Joi.string().max(60).allow(null).default(null),
    }),
    ({ image, table: of, release }) => {
      if (of) {
        sound(of, 'table')
        known(of, release, 'release')
      }
      const { base, bytes } = readImage(image, 'image')
      const inspection = inspect(bytes)
      return {
        base,
        ...inspection,
        supports: microcodeSupport(inspection.microcodes, of && new Support(of), release),
        entropy: [...blockEntropy(bytes)].map(kept),
      }
    },
  ),

  'firmware.records': operation<{ image: string; as: 'hex records' | 'S-records' }>(
    'An image as hex records or as S-records, whichever of the three it was.',
    Joi.object({
      image: Joi.string().required(),
      as: Joi.valid('hex records', 'S-records').default('hex records'),
    }),
    ({ image, as }) => {
      const recorded = readImage(image, 'image')
      const text = as === 'S-records' ? writeSRecords(recorded) : writeHexRecords(recorded)
      return {
        base: recorded.base,
        bytes: recorded.bytes.length,
        lines: text.trim().split('\n').length,
        text,
      }
    },
  ),

  'firmware.dump': operation<{ read: string; second?: string }>(
    'Whether a read of a chip can be believed: blank, stuck lines, two reads that differ.',
    Joi.object({ read: Joi.string().required(), second: Joi.string() }),
    ({ read, second }) =>
      dumpQuality(
        readImage(read, 'read').bytes,
        second === undefined ? null : readImage(second, 'second').bytes,
      ),
  ),

  'firmware.compare': operation<{ first: string; second: string }>(
    'Two images laid upon one another: how much differs, stretch by stretch of the first.',
    Joi.object({ first: Joi.string().required(), second: Joi.string().required() }),
    ({ first, second }) => {
      const image = readImage(first, 'first').bytes
      const { blocks, ...rest } = compare(image, readImage(second, 'second').bytes, inspect(image).stretches)
      return { ...rest, blocks: [...blocks] }
    },
  ),

  'firmware.verdict': operation<{
    original: string
    second?: string
    release: string
    older?: string
    label?: string
    own: readonly { from: number; to: number }[]
  }>(
    'Whether a chip holds the code of a release: same, broken off, damaged, another release, or not to be told.',
    Joi.object({
      original: Joi.string().required(),
      second: Joi.string(),
      release: Joi.string().required(),
      older: Joi.string(),
      label: Joi.string().max(60),
      own: ranges,
    }),
    ({ original, second, release, older, label, own }) =>
      judgeSameCode({
        original: readImage(original, 'original').bytes,
        second: second === undefined ? null : readImage(second, 'second').bytes,
        release: readImage(release, 'release').bytes,
        older: older === undefined ? null : readImage(older, 'older').bytes,
        label: label ?? null,
        own,
      }),
  ),

  'firmware.build': operation<{
    original: string
    release: string
    to?: string
    own: readonly { from: number; to: number }[]
  }>(
    'The image to write: the release with the board’s own data carried over, every byte accounted for.',
    Joi.object({
      original: Joi.string().required(),
      release: Joi.string().required(),
      to: Joi.string(),
      own: ranges,
    }),
    ({ original, release, to, own }) => {
      const built = buildImage(
        readImage(original, 'original').bytes,
        readImage(release, 'release').bytes,
        own,
      )
      if (typeof built === 'string') throw new BadInput('release', built)
      if (to !== undefined) writeImage(to, built.image)
      return {
        bytes: built.image.length,
        sha256: createHash('sha256').update(built.image).digest('hex'),
        ranges: built.ranges,
        doubtful: built.doubtful,
      }
    },
  ),

  'flash.identify': operation<{ id: string; sfdp?: string }>(
    'What a flash chip is by its ID, continuation codes counted, and by the table it describes itself with.',
    Joi.object({ id: Joi.string().max(200).required(), sfdp: Joi.string().max(4096) }),
    ({ id, sfdp }) => {
      const read = readId(hexBytes(id, 'id'))
      return {
        ...(read.is === 'read' ? { is: read.is, id: read.id, say: sayId(read.id) } : read),
        ...(sfdp === undefined ? {} : readSfdp(hexBytes(sfdp, 'sfdp'))),
      }
    },
  ),

  'flash.substitute': operation<{ wanted: ChipWanted; chip: FlashChip }>(
    'Whether a flash chip can stand in for a board’s own, point by point.',
    Joi.object({
      wanted: Joi.object({
        ...chipPoints,
        checksId: Joi.boolean().allow(null).default(null),
        takes: Joi.array().items(chipId).max(50).default([]),
        usesQuad: Joi.boolean().allow(null).default(null),
      }).required(),
      chip: Joi.object({
        ...chipPoints,
        name: Joi.string().max(60).default(''),
        id: chipId.allow(null).default(null),
      }).required(),
    }),
    ({ wanted, chip }) => substitute(wanted, chip),
  ),

  'flash.refit': operation<FirmwareBodies['refit'] & Pick<FirmwareBodies['chip moved'], 'by'>>(
    'A chip that was fitted again, point by point, and whether the board may be powered with it.',
    Joi.object({
      by: Joi.valid(...movedBy).required(),
      orientation: Joi.valid('right', 'turned'),
      pads: Joi.valid('whole', 'lifted'),
      joints: Joi.valid('sound', 'open or bridged'),
      seated: Joi.boolean(),
      lines: Joi.object(
        Object.fromEntries(chipPins.map((pin) => [pin, Joi.number().min(0).max(1e9).allow(null)])),
      ),
    }),
    ({ by, ...refit }) => {
      const noted = { at: '', by: '' }
      const of = {
        moves: [{ ...noted, seq: 1, to: 'on', by, despite: [] }],
        refits: [{ ...noted, seq: 2, ...refit }],
      } as const
      return { points: refitPoints(of), forbidsPower: refitForbids(of)?.point ?? null }
    },
  ),

  'flash.session': operation<{
    chip: string
    image: string
    chipVolts: number | null
    volts: number
    id?: string
    kept: boolean
    withoutBackup: string | null
    faults: SpiFaults
    backup?: string
    to?: string
  }>(
    'A session at the stand-in of a chip: voltage, two reads, backup, write, read back; goes on or rolls back.',
    Joi.object({
      chip: Joi.string().required(),
      image: Joi.string().required(),
      chipVolts: Joi.number().min(0.5).max(12).allow(null).required(),
      volts: Joi.number().min(0.5).max(12).required(),
      id: Joi.string().max(60),
      kept: Joi.boolean().default(false),
      withoutBackup: Joi.string().max(300).allow(null).default(null),
      faults: Joi.object({
        badClip: Joi.number().min(0).max(1),
        stuckBit: Joi.number().integer().min(0).max(7),
        writeProtect: Joi.boolean(),
        powerLostAfter: Joi.number().integer().min(0),
      }).default({}),
      backup: Joi.string(),
      to: Joi.string(),
    }),
    async ({ chip, image, chipVolts, volts, id, kept: wasKept, withoutBackup, faults, backup, to }) => {
      const contents = readImage(chip, 'chip').bytes.slice()
      const wanted = id === undefined ? null : readId(hexBytes(id, 'id'))
      if (wanted && wanted.is !== 'read') throw new BadInput('id', wanted.say)
      const nor = new SpiNor(standIn(contents), volts, faults)
      const report = await flashSession(
        nor,
        {
          image: readImage(image, 'image').bytes,
          chipVolts,
          id: wanted?.is === 'read' ? wanted.id : null,
          kept: wasKept,
          withoutBackup,
        },
        (was) => Promise.resolve(backup === undefined ? undefined : writeImage(backup, was, 'backup')),
      )
      if (to !== undefined) writeImage(to, nor.contents)
      const sha256 = createHash('sha256').update(nor.contents).digest('hex')
      return { ...report, sent: nor.sent, sha256 }
    },
  ),
}

import Joi from 'joi'
import { compare } from '@/core/firmware/image/compare'
import { blockEntropy } from '@/core/firmware/image/entropy'
import { dumpQuality } from '@/core/firmware/image/dump'
import { inspect, MOST_BYTES } from '@/core/firmware/image/inspect'
import { judgeSameCode } from '@/core/firmware/image/same-code'
import { readRecords, recordsKind, writeHexRecords, writeSRecords } from '@/core/firmware/image/records'
import { BadInput, operation, readFile } from './operation'
import type { Operation } from './operation'

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

const kept = (share: number) => Math.round(share * 1000) / 1000

export const firmwareOperations: Readonly<Record<string, Operation>> = {
  'firmware.inspect': operation<{ image: string }>(
    'What is in a firmware image: capsule, regions, volumes, files and their sums, microcode, what is empty.',
    Joi.object({ image: Joi.string().required() }),
    ({ image }) => {
      const { base, bytes } = readImage(image, 'image')
      return { base, ...inspect(bytes), entropy: [...blockEntropy(bytes)].map(kept) }
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
      own: Joi.array()
        .items(
          Joi.object({
            from: Joi.number().integer().min(0).required(),
            to: Joi.number().integer().greater(Joi.ref('from')).required(),
          }),
        )
        .max(100)
        .default([]),
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
}

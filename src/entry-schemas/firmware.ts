import Joi from 'joi'
import { imageRoles, movedBy } from '@/core/firmware/bodies'
import type { FirmwareBodies } from '@/core/firmware/bodies'
import { chipPins } from '@/core/firmware/chip/refit'
import { MOST_BYTES } from '@/core/firmware/image/inspect'
import { verdicts } from '@/core/firmware/image/same-code'
import { weightings } from '@/core/firmware/route/search'
import { programmerBy, wayKinds } from '@/core/firmware/route/way'
import { body, sha, some, text } from './field'
import type { Schemas } from './field'

const hexText = (max: number) =>
  Joi.string()
    .pattern(/^([0-9A-F]{2})+$/, 'bytes of two hex figures')
    .max(max)
const pair = Joi.object({ release: text(60).allow(null).required(), cpu: text(60).allow(null).required() })
const count = Joi.number().integer().min(0).max(1_000_000)
const bytes = Joi.number().integer().min(0).max(MOST_BYTES)

export const firmwareSchemas: Schemas<FirmwareBodies> = {
  firmware: body<FirmwareBodies['firmware']>({
    version: text(60),
    chip: text(60),
    chipVolts: Joi.number().min(0.5).max(12),
    programmerVolts: Joi.number().min(0.5).max(12),
    clipOn: Joi.boolean(),
    chipId: hexText(64),
    sfdp: hexText(2048),
    did: text(500),
    wrote: text(60),
    wroteBy: Joi.valid(...programmerBy),
  }).min(1),
  'chip moved': body<FirmwareBodies['chip moved']>({
    to: Joi.valid('off', 'on').required(),
    by: Joi.valid(...movedBy).required(),
    despite: Joi.array().items(text(300)).max(20).required(),
  }),
  refit: body<FirmwareBodies['refit']>({
    orientation: Joi.valid('right', 'turned'),
    pads: Joi.valid('whole', 'lifted'),
    joints: Joi.valid('sound', 'open or bridged'),
    seated: Joi.boolean(),
    reflowed: Joi.valid(true),
    lines: Joi.object(
      Object.fromEntries(chipPins.map((pin) => [pin, Joi.number().min(0).max(1e9).allow(null)])),
    ).min(1),
  }).min(1),
  route: body<FirmwareBodies['route']>({
    want: pair.required(),
    by: Joi.valid(...weightings).required(),
    hand: Joi.array().items(text(60)).max(200).required(),
    ways: Joi.array().items(text(80)).max(20).required(),
    steps: Joi.array()
      .items(
        Joi.object({
          say: some(400),
          do: Joi.valid('fit', 'write', 'switch').required(),
          cpu: text(60).allow(null).required(),
          release: text(60).allow(null).required(),
          before: pair.required(),
          after: pair.required(),
          dark: Joi.boolean().required(),
          way: Joi.valid(...wayKinds)
            .allow(null)
            .required(),
          by: Joi.valid(...programmerBy)
            .allow(null)
            .required(),
          minutes: Joi.number().min(0).max(100_000).required(),
        }),
      )
      .max(60)
      .required(),
    minutes: Joi.number().min(0).max(1_000_000).required(),
    risk: Joi.number().min(0).max(1).required(),
    price: Joi.number().min(0).max(1e8).required(),
    trust: Joi.number().min(0).max(1).required(),
    unstable: Joi.boolean().required(),
  }),
  image: body<FirmwareBodies['image']>({
    file: sha.required(),
    name: some(200),
    bytes: bytes.required(),
    role: Joi.valid(...imageRoles).required(),
    versions: Joi.array().items(text(40)).max(20).required(),
    source: Joi.valid('maker'),
  }),
  written: body<FirmwareBodies['written']>({
    image: sha.required(),
    release: sha.allow(null).required(),
    backup: sha.allow(null).required(),
    id: some(60),
    erased: count.required(),
    programmed: count.required(),
    despite: Joi.array().items(text(300)).max(20).required(),
  }),
  compared: body<FirmwareBodies['compared']>({
    original: sha.required(),
    second: sha.allow(null).required(),
    release: sha.required(),
    older: sha.allow(null).required(),
    label: text(60).allow(null).required(),
    verdict: Joi.valid(...verdicts).required(),
    say: some(500),
    why: Joi.array().items(text(500)).max(20).required(),
    places: Joi.array()
      .items(Joi.object({ from: bytes.required(), to: bytes.required() }))
      .max(100)
      .required(),
  }),
}

import { runToEnd } from '@/core/run-to-end'
import Joi from 'joi'
import type { Marks } from '@/core/socket/damage/mark'
import type { Anchor, PhotoFault } from '@/core/socket/photo/anchors'
import type { GreyImage } from '@/core/photo/grey-image'
import { locate } from '@/core/socket/photo/locate'
import type { Located } from '@/core/socket/photo/locate'
import { mergePhotos } from '@/core/socket/photo/merge'
import type { Merged, Read } from '@/core/socket/photo/merge'
import { suspects } from '@/core/socket/photo/suspect'
import { LEAST_TILT_DEG, tipHeights } from '@/core/socket/photo/tip-height'
import type { TipHeight } from '@/core/socket/photo/tip-height'
import type { SeenAs } from '@/core/socket/photo/work'
import type { Socket } from '@/core/socket/model/socket'
import { plainShot, takePhoto } from '@/simulated-bench/microscope-camera'
import type { Shot } from '@/simulated-bench/microscope-camera'
import { marks, name, oneField, socketOf } from './field-input'
import type { FieldInput } from './field-input'
import { operation } from './operation'
import type { Operation } from './operation'
import { readPixels, shotFields, writePicture } from './picture-input'

/** A picture file in one channel. */
async function readPhoto(path: string, field: string): Promise<GreyImage> {
  const { data, info } = await readPixels(path, field, { of: 'field', channels: 1 })
  return { widthPx: info.width, heightPx: info.height, grey: data }
}

const clicks = Joi.array()
  .items(
    Joi.object({
      contact: name.required(),
      px: Joi.array().items(Joi.number().required(), Joi.number().required()).length(2).required(),
    }),
  )
  .max(40)
  .required()
const photo = { photo: Joi.string().required(), anchors: clicks, mirrored: Joi.boolean().default(false) }

interface PhotoInput {
  readonly photo: string
  readonly anchors: readonly Anchor[]
  readonly mirrored: boolean
}
interface SideInput extends PhotoInput {
  readonly tiltDeg: number
  readonly towardsDeg: number
}
const side = Joi.object({
  ...photo,
  tiltDeg: Joi.number().min(LEAST_TILT_DEG).less(75).required(),
  towardsDeg: Joi.number().min(-360).max(360).required(),
})

async function located(socket: Socket, input: PhotoInput, field: string, known?: Located) {
  const image = await readPhoto(input.photo, field)
  return runToEnd(
    locate(socket, image, input.anchors, { mirrored: input.mirrored, ...(known ? { known } : {}) }),
  )
}

const counted = (tips: readonly { readonly as: SeenAs }[]) => {
  const counts: Partial<Record<SeenAs, number>> = {}
  for (const { as } of tips) counts[as] = (counts[as] ?? 0) + 1
  return counts
}

/** What a map from photos comes to. */
const mapOf = (socket: Socket, merged: Merged, faults: readonly PhotoFault[], ask: readonly string[]) => ({
  good: true,
  /** Other ways the field could lie that fit as well: look for the pin-1 mark before the map is believed. */
  ask,
  counts: counted(merged.tips),
  faults,
  disagreements: merged.disagreements,
  suspects: suspects(socket, merged).map((s) => ({
    name: s.name,
    as: s.as,
    say: s.say,
    confidence: s.confidence,
    mark: s.mark,
  })),
  tips: merged.tips,
})

/** The heights a photo from the side adds, or why it adds none. */
async function fromTheSide(
  socket: Socket,
  above: Located,
  input: SideInput | undefined,
): Promise<{ heights: TipHeight[]; faults: readonly PhotoFault[] }> {
  if (!input) return { heights: [], faults: [] }
  const answer = await located(socket, input, 'side.photo', above)
  return {
    heights: answer.located ? tipHeights(socket, above, answer.located, input) : [],
    faults: answer.faults,
  }
}

/** What is read from photos of a socket, and the camera that takes them here. */
export const photoOperations: Readonly<Record<string, Operation>> = {
  'socket.render': operation<FieldInput & Partial<Shot> & { marks: Marks; out?: string }>(
    'A photo of a field with these marks from the simulated microscope camera, with the truth beside it.',
    oneField({
      marks: marks.default({}),
      mirrored: Joi.boolean(),
      ...shotFields,
    }),
    async ({ table, contacts, kind, pitchMm, marks: truth, out, ...shot }) => {
      const socket = socketOf(
        {
          kind,
          ...(table ? { table } : {}),
          ...(contacts ? { contacts } : {}),
          ...(pitchMm ? { pitchMm } : {}),
        },
        truth,
      )
      const { image, tips } = runToEnd(takePhoto(socket, truth, { ...plainShot, ...shot }))
      const { widthPx, heightPx, grey } = image
      if (out !== undefined) await writePicture(out, grey, { ...image, channels: 1 })
      return { widthPx, heightPx, out: out ?? null, tips }
    },
  ),

  'socket.locate': operation<FieldInput & PhotoInput & { side?: SideInput }>(
    'Where every tip is, from a photo and four or more clicked contacts; heights from a second photo at a tilt.',
    oneField({ ...photo, side }),
    async (input) => {
      const socket = socketOf(input)
      const above = await located(socket, input, 'photo')
      if (!above.located) return { good: false, faults: above.faults }
      const { heights, faults } = await fromTheSide(socket, above.located, input.side)
      const merged = mergePhotos([{ name: input.photo, located: above.located }], heights)
      const { pxPerMm, spreadMm, fitted } = above.located
      return {
        ...mapOf(socket, merged, [...above.faults, ...faults], above.ask ?? []),
        pxPerMm,
        spreadMm,
        fitted,
      }
    },
  ),

  'socket.merge': operation<FieldInput & { photos: readonly PhotoInput[] }>(
    'Several photos of one field as one map: what some show and what they do not agree on.',
    oneField({ photos: Joi.array().items(Joi.object(photo)).min(1).max(24).required() }),
    async ({ photos, ...rest }) => {
      const socket = socketOf(rest)
      const read: Read[] = []
      const faults: (PhotoFault & { photo: string })[] = []
      const ask = new Set<string>()
      for (const [i, one] of photos.entries()) {
        const answer = await located(socket, one, `photos.${i}.photo`)
        if (answer.located) read.push({ name: one.photo, located: answer.located })
        for (const way of answer.ask ?? []) ask.add(way)
        faults.push(...answer.faults.map((f) => ({ photo: one.photo, ...f })))
      }
      return read.length === 0 ? { good: false, faults } : mapOf(socket, mergePhotos(read), faults, [...ask])
    },
  ),
}

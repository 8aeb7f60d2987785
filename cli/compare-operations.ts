import Joi from 'joi'
import sharp from 'sharp'
import { runToEnd } from '@/core/run-to-end'
import { MOST_PIXELS } from '@/core/photo/grey-image'
import { compareBoards, LEAST_PX_PER_MM } from '@/core/parts/compare/compare'
import type { BoardPicture } from '@/core/parts/compare/compare'
import { takeBoardPhoto } from '@/simulated-bench/board-camera'
import { plainBoardShot } from '@/simulated-bench/board-eye'
import { drawScene } from '@/simulated-bench/board-scene'
import { BadInput, operation, readFile } from './operation'
import type { Operation } from './operation'

/** A picture file in colours, turned as its camera was held. */
async function readPicture(path: string, field: string): Promise<BoardPicture> {
  try {
    const picture = sharp(readFile(path, field), { limitInputPixels: MOST_PIXELS })
      .rotate()
      .toColourspace('srgb')
    const { data, info } = await picture.ensureAlpha().raw().toBuffer({ resolveWithObject: true })
    return { widthPx: info.width, heightPx: info.height, rgba: new Uint8Array(data) }
  } catch (error) {
    if (error instanceof BadInput) throw error
    const large = error instanceof Error && /pixel limit/.test(error.message)
    throw new BadInput(
      field,
      large
        ? `${path} has more than 24 million pixels; make it smaller or take the board in parts`
        : `${path} is no picture; PNG and JPEG are read`,
    )
  }
}

interface AskedOfPair {
  readonly photo: string
  readonly other: string
  readonly pxPerMm?: number
  readonly wideMm?: number
}

interface AskedOfCamera {
  readonly scene: number
  readonly wideMm: number
  readonly deepMm: number
  readonly board: number
  readonly missing: readonly string[]
  readonly shifted: Readonly<Record<string, readonly [number, number, number]>>
  readonly out?: string
}

const shot = {
  widthPx: Joi.number().integer().min(200).max(6000),
  heightPx: Joi.number().integer().min(200).max(6000),
  pxPerMm: Joi.number().min(4).max(80),
  centreMm: Joi.array().items(Joi.number()).length(2),
  tiltDeg: Joi.number().min(0).max(40),
  tiltTowardsDeg: Joi.number(),
  turnDeg: Joi.number(),
  lens: Joi.number().min(-0.1).max(0.1),
  blurPx: Joi.number().min(0.3).max(8),
  noise: Joi.number().min(0).max(0.3),
  gradient: Joi.number().min(0).max(0.9),
  lightDeg: Joi.number(),
  glare: Joi.number().integer().min(0).max(20),
  glareStrength: Joi.number().min(0).max(3),
  seed: Joi.number().integer(),
}

/** Two photos of a board compared, and the camera that takes them here. */
export const compareOperations: Readonly<Record<string, Operation>> = {
  'parts.compare': operation<AskedOfPair>(
    'Where a photo of a board differs from one of a good board, or of this board before: parts gone, changed or moved.',
    Joi.object({
      photo: Joi.string().required(),
      other: Joi.string().required(),
      pxPerMm: Joi.number().greater(0).max(400),
      wideMm: Joi.number().greater(0).max(1000),
    }).oxor('pxPerMm', 'wideMm'),
    async ({ photo, other, pxPerMm, wideMm }) => {
      const [mine, theirs] = [await readPicture(photo, 'photo'), await readPicture(other, 'other')]
      const scale = pxPerMm ?? (wideMm === undefined ? null : mine.widthPx / wideMm)
      const { compared, fault } = runToEnd(compareBoards(mine, theirs, scale ?? DEFAULT_PX_PER_MM))
      if (!compared) return { good: false, fault }
      const { marks, share, fitPx } = compared
      return {
        good: true,
        assumed: scale === null ? `${DEFAULT_PX_PER_MM} pixels to a millimetre, as no scale was given` : null,
        share,
        fitPx,
        marks,
      }
    },
  ),
  'parts.photo': operation<AskedOfCamera>(
    'A photo of one board of a drawn model from the simulated camera, with where each part is seen.',
    Joi.object({
      scene: Joi.number().integer().default(1),
      wideMm: Joi.number().min(20).max(320).default(100),
      deepMm: Joi.number().min(20).max(320).default(75),
      board: Joi.number().integer().default(1),
      missing: Joi.array().items(Joi.string().max(12)).max(500).default([]),
      shifted: Joi.object()
        .pattern(Joi.string().max(12), Joi.array().items(Joi.number()).length(3))
        .default({}),
      out: Joi.string().pattern(/\.(png|jpe?g)$/i),
      ...shot,
    }),
    async ({ scene: seed, wideMm, deepMm, board, missing, shifted, out, ...asked }) => {
      const scene = drawScene(seed, wideMm, deepMm)
      const refs = new Set(scene.bodies.map((b) => b.ref))
      const stranger = [...missing, ...Object.keys(shifted)].find((ref) => !refs.has(ref))
      if (stranger !== undefined)
        throw new BadInput(
          'missing',
          `there is no part ${stranger} on this board; leave out to see which there are`,
        )
      const { image, places } = runToEnd(
        takeBoardPhoto(
          scene,
          {
            seed: board,
            missing: new Set(missing),
            shifted: new Map(Object.entries(shifted)),
            placedMm: 0.05,
          },
          { ...plainBoardShot, centreMm: [wideMm / 2, deepMm / 2], ...asked },
        ),
      )
      if (out !== undefined)
        await sharp(image.rgba, { raw: { width: image.widthPx, height: image.heightPx, channels: 4 } })
          .removeAlpha()
          .toFile(out)
          .catch(() => {
            throw new BadInput('out', `${out} cannot be written; give a path to a folder that is there`)
          })
      const sizeOf = new Map(scene.bodies.map((b) => [b.ref, b]))
      return {
        widthPx: image.widthPx,
        heightPx: image.heightPx,
        out: out ?? null,
        parts: places.map((p) => {
          const { look, longMm, wideMm: wide, highMm } = sizeOf.get(p.ref)!
          return { ...p, look, longMm, wideMm: wide, highMm }
        }),
      }
    },
  ),
}

/** A small part can be told from here on; taken where nobody says. */
const DEFAULT_PX_PER_MM = Math.max(20, LEAST_PX_PER_MM)

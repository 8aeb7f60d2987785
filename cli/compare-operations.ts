import Joi from 'joi'
import { runToEnd } from '@/core/run-to-end'
import { compareBoards, LEAST_PX_PER_MM } from '@/core/parts/compare/compare'
import type { BoardPicture } from '@/core/parts/compare/compare'
import { takeBoardPhoto } from '@/simulated-bench/board-camera'
import { plainBoardShot } from '@/simulated-bench/board-eye'
import { drawScene } from '@/simulated-bench/board-scene'
import { BadInput, operation } from './operation'
import type { Operation } from './operation'
import { readPixels, shotFields, writePicture } from './picture-input'

/** A picture file in colours. */
async function readPicture(path: string, field: string): Promise<BoardPicture> {
  const { data, info } = await readPixels(path, field, { of: 'board', channels: 4 })
  return { widthPx: info.width, heightPx: info.height, rgba: data }
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
      ...shotFields,
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
      if (out !== undefined) await writePicture(out, image.rgba, { ...image, channels: 4 })
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

import Joi from 'joi'
import sharp from 'sharp'
import type { OutputInfo } from 'sharp'
import { MOST_PIXELS } from '@/core/photo/grey-image'
import type { CameraShot } from '@/simulated-bench/camera-shot'
import { BadInput, readFile } from './operation'

/** Pixels of a picture file, turned as its camera was held: one channel, or red, green, blue and alpha. */
export async function readPixels(
  path: string,
  field: string,
  { of, channels }: { readonly of: string; readonly channels: 1 | 4 },
): Promise<{ readonly data: Uint8Array; readonly info: OutputInfo }> {
  const bytes = readFile(path, field)
  try {
    const picture = sharp(bytes, { limitInputPixels: MOST_PIXELS }).rotate()
    const read =
      channels === 1
        ? picture.greyscale().toColourspace('b-w').removeAlpha()
        : picture.toColourspace('srgb').ensureAlpha()
    const { data, info } = await read.raw().toBuffer({ resolveWithObject: true })
    return { data: new Uint8Array(data), info }
  } catch (error) {
    const large = error instanceof Error && /pixel limit/.test(error.message)
    throw new BadInput(
      field,
      large
        ? `${path} has more than 24 million pixels; make it smaller or take the ${of} in parts`
        : `${path} is no picture; PNG and JPEG are read`,
    )
  }
}

/** Writes a picture of so many channels where it was asked to. */
export async function writePicture(
  out: string,
  pixels: Uint8Array | Uint8ClampedArray,
  { widthPx: width, heightPx: height, channels }: { widthPx: number; heightPx: number; channels: 1 | 4 },
): Promise<void> {
  const picture = sharp(pixels, { raw: { width, height, channels } })
  await (channels === 4 ? picture.removeAlpha() : picture).toFile(out).catch(() => {
    throw new BadInput('out', `${out} cannot be written; give a path to a folder that is there`)
  })
}

/** How the simulated camera may be asked to stand; what is left out is as usual. */
export const shotFields: Readonly<Record<keyof CameraShot | 'out', Joi.Schema>> = {
  out: Joi.string().pattern(/\.(png|jpe?g)$/i),
  widthPx: Joi.number().integer().min(100).max(6000),
  heightPx: Joi.number().integer().min(100).max(6000),
  pxPerMm: Joi.number().min(4).max(300),
  centreMm: Joi.array().items(Joi.number()).length(2),
  tiltDeg: Joi.number().min(0).max(60),
  tiltTowardsDeg: Joi.number(),
  turnDeg: Joi.number(),
  lens: Joi.number().min(-0.1).max(0.1),
  blurPx: Joi.number().min(0.3).max(12),
  noise: Joi.number().min(0).max(0.3),
  gradient: Joi.number().min(0).max(0.9),
  lightDeg: Joi.number(),
  glare: Joi.number().integer().min(0).max(40),
  glareStrength: Joi.number().min(0).max(3),
  seed: Joi.number().integer(),
}

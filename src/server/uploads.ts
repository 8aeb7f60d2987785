import 'server-only'
import { createWriteStream } from 'node:fs'
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Readable, Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import pLimit from 'p-limit'
import sharp from 'sharp'
import { FileRefused, MAX_PHOTO_BYTES, pictureType } from '@/data/files'
import type { Picture } from '@/data/files'
import { MOST_BYTES } from '@/core/firmware/image/inspect'
import { bodyPieces, BodyRefused } from './body'

const MAX_PIXELS = 120_000_000
/** Uploads of one account under way at once, and pictures decoded at once by the server. */
const AT_ONCE = 4
const DECODED_AT_ONCE = 2

const under = new Map<string, number>()
const decoding = pLimit(DECODED_AT_ONCE)

/** This account sends as much at once as is taken. */
export class TooManyAtOnce extends Error {}

/** The first bytes say what it is; the sender's word for it does not count. */
function firstBytes(onType: (type: NonNullable<ReturnType<typeof pictureType>>) => void): Transform {
  let begun = false
  return new Transform({
    transform(chunk: Buffer, _, done) {
      if (!begun) {
        begun = true
        const type = pictureType(chunk)
        if (!type)
          return done(
            new FileRefused(
              415,
              'This is not a JPEG, PNG or WebP picture. Save it as one and drop it again.',
            ),
          )
        onType(type)
      }
      done(null, chunk)
    },
  })
}

/**
 * Decodes a picture once (so what is no picture is found), turns it upright and writes it anew without what its maker put
 * beside it: no place stays in it. JPEG and WebP are written at quality 95.
 * @throws FileRefused
 */
export async function rewritten(
  from: string | Uint8Array,
  type: NonNullable<ReturnType<typeof pictureType>>,
  to: string,
): Promise<Picture> {
  return decoding(async () => {
    const decode = sharp(from, { failOn: 'error', limitInputPixels: MAX_PIXELS }).rotate()
    if (type === 'image/jpeg') decode.jpeg({ quality: 95, chromaSubsampling: '4:4:4' })
    else if (type === 'image/webp') decode.webp({ quality: 95 })
    else decode.png()
    try {
      const { width, height, size } = await decode.toFile(to)
      return { path: to, type, bytes: size, width, height }
    } catch {
      throw new FileRefused(
        415,
        `It begins like a ${type.slice(6).toUpperCase()} but cannot be read as one; it may be damaged or only named so. Export it again.`,
      )
    }
  })
}

/**
 * Receives a picture to a file of its own, then decodes and rewrites it: all of it before any connection to the
 * database is taken, so that a slow telephone holds nothing up. The files are gone when `work` is done.
 * @throws BodyRefused, FileRefused, TooManyAtOnce
 */
export function receivePicture<T>(
  request: Request,
  account: string,
  work: (picture: Picture) => Promise<T>,
): Promise<T> {
  return received(request, account, MAX_PHOTO_BYTES, async (pieces, folder) => {
    const path = join(folder, 'received')
    let type: NonNullable<ReturnType<typeof pictureType>> | null = null
    await arrived('picture', () =>
      pipeline(
        pieces,
        firstBytes((known) => (type = known)),
        createWriteStream(path),
      ),
    )
    if (!type) throw new BodyRefused(400, 'The picture did not arrive. Drop it again.')
    return work(await rewritten(path, type, join(folder, 'kept')))
  })
}

/**
 * Receives a firmware image to a file, byte for byte: it is what was read, whatever it is.
 * @throws BodyRefused, TooManyAtOnce
 */
export function receiveImage<T>(
  request: Request,
  account: string,
  work: (path: string) => Promise<T>,
): Promise<T> {
  return received(request, account, MOST_BYTES, async (pieces, folder) => {
    const path = join(folder, 'received')
    await arrived('image', () => pipeline(pieces, createWriteStream(path)))
    return work(path)
  })
}

async function arrived(what: string, receive: () => Promise<void>): Promise<void> {
  try {
    await receive()
  } catch (error) {
    if (error instanceof FileRefused || error instanceof BodyRefused) throw error
    throw new BodyRefused(400, `The ${what} did not arrive. Send it again.`)
  }
}

/** One upload of an account: only so many at once, in a folder that is gone afterwards. */
async function received<T>(
  request: Request,
  account: string,
  most: number,
  take: (pieces: Readable, folder: string) => Promise<T>,
): Promise<T> {
  const running = under.get(account) ?? 0
  if (running >= AT_ONCE) throw new TooManyAtOnce('one after the other')
  under.set(account, running + 1)
  const folder = await mkdtemp(join(tmpdir(), 'needle-upload-'))
  try {
    return await take(Readable.from(bodyPieces(request, most)), folder)
  } finally {
    await rm(folder, { recursive: true, force: true })
    const left = (under.get(account) ?? 1) - 1
    if (left > 0) under.set(account, left)
    else under.delete(account)
  }
}

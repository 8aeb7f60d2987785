import { randomBytes, randomUUID } from 'node:crypto'
import { mkdtempSync, readdirSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import { buffer } from 'node:stream/consumers'
import sharp from 'sharp'
import { expect, it, onTestFinished, vi } from 'vitest'
import { describeDatabase, someJob, somebody } from './database.testing'
import {
  attachToJob,
  fileChunks,
  filesOfJob,
  findFile,
  MAX_PHOTO_BYTES,
  pictureType,
  storePicture,
} from './files'
import type { StoredFile } from './files'
import { receivePicture, TooManyAtOnce } from '@/server/uploads'
import { bodyPieces } from '@/server/body'
import { pool } from './pool'
import type { Job } from './jobs'

const streamOf = (...parts: Uint8Array[]) =>
  new ReadableStream<Uint8Array>({
    start(controller) {
      for (const part of parts) controller.enqueue(part)
      controller.close()
    },
  })
const asked = (body: ReadableStream<Uint8Array>) =>
  new Request('http://bench.invalid/photos', { method: 'POST', body, duplex: 'half' } as RequestInit)
const take = (
  job: Job,
  body: ReadableStream<Uint8Array>,
  account: string = randomUUID(),
): Promise<StoredFile> =>
  receivePicture(asked(body), account, (picture) =>
    storePicture(picture, (db, file) => attachToJob(db, job.id, file.sha256, 'photo')),
  )
const noise = (width: number, height: number) =>
  sharp(randomBytes(width * height * 3), { raw: { width, height, channels: 3 } })

it('a picture is known by its first bytes', () => {
  expect(pictureType(new Uint8Array([0xff, 0xd8, 0xff, 0xe0]))).toBe('image/jpeg')
  expect(pictureType(new TextEncoder().encode('<svg onload="alert(1)">'))).toBeNull()
  expect(pictureType(new TextEncoder().encode('RIFF1234WEBP'))).toBe('image/webp')
  expect(pictureType(new Uint8Array())).toBeNull()
})

const fileBytes = (id: string) => buffer(Readable.from(fileChunks(id)))

describeDatabase('photos', (owner) => {
  const jobs = async () => {
    const maren = await somebody('Maren')
    return [await someJob(maren), await someJob(maren)] as const
  }

  it('lose where they were taken, and are turned upright', async () => {
    const [job] = await jobs()
    const exif = {
      IFD0: { Model: 'bench camera' },
      IFD3: { GPSLatitude: '59/1 12/1 0/1', GPSLatitudeRef: 'N' },
    }
    const jpeg = await noise(60, 40).jpeg().withExif(exif).withMetadata({ orientation: 6 }).toBuffer()
    expect((await sharp(jpeg).metadata()).exif).toBeDefined()
    const stored = await take(job, streamOf(jpeg))
    expect(stored).toMatchObject({ type: 'image/jpeg', width: 40, height: 60 })
    const bytes = await fileBytes((await findFile({ jobId: job.id }, stored.sha256))!.id)
    const meta = await sharp(bytes).metadata()
    expect(meta.exif).toBeUndefined()
    expect(meta.orientation).toBeUndefined()
  })

  it('are stored once for the same content and found only through what they hang on', async () => {
    const [one, two] = await jobs()
    const png = await noise(50, 50).png().toBuffer()
    const first = await take(one, streamOf(png))
    expect(await findFile({ jobId: two.id }, first.sha256)).toBeNull()
    const second = await take(two, streamOf(png))
    expect(second.sha256).toBe(first.sha256)
    const { rows } = await owner().query('select count(*)::int as n from file where sha256 = $1', [
      first.sha256,
    ])
    expect(rows[0].n).toBe(1)
    expect(await filesOfJob(two.id)).toMatchObject([{ sha256: first.sha256, purpose: 'photo' }])
  })

  it('come back byte for byte over many chunks, and a damaged chunk is noticed', async () => {
    const [job] = await jobs()
    const stored = await take(job, streamOf(await noise(900, 700).png().toBuffer()))
    const { id } = (await findFile({ jobId: job.id }, stored.sha256))!
    expect((await fileBytes(id)).length).toBe(stored.bytes)
    const { rows } = await owner().query('select count(*)::int as n from file_chunk where file_id = $1', [id])
    expect(rows[0].n).toBeGreaterThan(3)
    await owner().query("update file_chunk set data = 'x' where file_id = $1 and n = 1", [id])
    await expect(fileBytes(id)).rejects.toThrow(/chunk 1 of file .* is damaged/)
  })

  it('that are none are refused with a mend, and leave nothing behind', async () => {
    const [job] = await jobs()
    const before = await owner().query('select count(*)::int as n from file')
    const png = await noise(200, 200).png().toBuffer()
    const refusals = [
      [streamOf(new TextEncoder().encode('MZ this is a program')), 415, /not a JPEG, PNG or WebP/],
      [streamOf(png.subarray(0, 8), randomBytes(4000)), 415, /begins like a PNG but cannot be read as one/],
      [streamOf(png.subarray(0, png.length / 2)), 415, /begins like a PNG but cannot be read/],
      [streamOf(), 400, /did not arrive/],
    ] as const
    for (const [body, status, say] of refusals)
      await expect(take(job, body)).rejects.toMatchObject({ status, message: expect.stringMatching(say) })
    const after = await owner().query('select count(*)::int as n from file')
    expect(after.rows).toEqual(before.rows)
    expect(await filesOfJob(job.id)).toEqual([])
  })

  it('of 60 MB are stopped while they stream', async () => {
    const [job] = await jobs()
    const head = (await noise(10, 10).png().toBuffer()).subarray(0, 8)
    let sent = 0
    const endless = new ReadableStream<Uint8Array>({
      pull(controller) {
        controller.enqueue(sent === 0 ? head : new Uint8Array(1024 * 1024))
        sent += 1
        if (sent > 60) controller.close()
      },
    })
    await expect(take(job, endless)).rejects.toMatchObject({ status: 413 })
    expect(sent * 1024 * 1024).toBeLessThan(MAX_PHOTO_BYTES + 8 * 1024 * 1024)
  })

  it('of slow telephones hold no connection, are bounded by account, and are given up when nothing comes', async () => {
    // A place of its own, where nobody else puts anything.
    const place = mkdtempSync(join(tmpdir(), 'needle-slow-'))
    vi.stubEnv('TMPDIR', place)
    onTestFinished(() => {
      vi.unstubAllEnvs()
      rmSync(place, { recursive: true })
    })
    const [job] = await jobs()
    const png = await noise(40, 40).png().toBuffer()
    const account = randomUUID()
    const slow: ReadableStreamDefaultController<Uint8Array>[] = []
    const telephone = () =>
      new ReadableStream<Uint8Array>({
        start(controller) {
          controller.enqueue(png.subarray(0, 100))
          slow.push(controller)
        },
      })
    const under = Array.from({ length: 4 }, () => take(job, telephone(), account))
    await expect(take(job, telephone(), account)).rejects.toBeInstanceOf(TooManyAtOnce)
    const others = Array.from({ length: 14 }, () => take(job, telephone()))
    expect((await pool().query('select 1 as n')).rows).toEqual([{ n: 1 }])
    expect(pool().totalCount - pool().idleCount).toBe(0)
    for (const controller of slow.filter((_, i) => i !== 4)) {
      controller.enqueue(png.subarray(100))
      controller.close()
    }
    for (const done of [...under, ...others]) expect(await done).toMatchObject({ width: 40 })

    const silent = asked(new ReadableStream<Uint8Array>({ start: (c) => c.enqueue(new Uint8Array(10)) }))
    const all = async () => {
      for await (const piece of bodyPieces(silent, 1000, 20)) expect(piece).toHaveLength(10)
    }
    await expect(all()).rejects.toMatchObject({ status: 408 })
    expect(readdirSync(place)).toEqual([])
  })
})

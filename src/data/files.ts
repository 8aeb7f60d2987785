import 'server-only'
import { createHash, randomUUID } from 'node:crypto'
import { createReadStream } from 'node:fs'
import { Readable, Writable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import sharp from 'sharp'
import type { PoolClient } from 'pg'
import { pool, transaction } from './pool'
import type { Queryable } from './pool'

/** Largest photo taken, bytes. */
export const MAX_PHOTO_BYTES = 40 * 1024 * 1024
const CHUNK = 256 * 1024

export interface StoredFile {
  readonly sha256: string
  readonly type: string
  readonly bytes: number
  readonly width: number
  readonly height: number
}

/** A file that cannot be taken, said so that the sender can mend it. */
export class FileRefused extends Error {
  constructor(
    readonly status: 413 | 415,
    message: string,
  ) {
    super(message)
  }
}

/** What the first bytes say it is; the sender's word for it does not count. */
export function pictureType(head: Uint8Array): 'image/jpeg' | 'image/png' | 'image/webp' | null {
  const ascii = (from: number, to: number) => String.fromCharCode(...head.subarray(from, to))
  if (head[0] === 0xff && head[1] === 0xd8 && head[2] === 0xff) return 'image/jpeg'
  if (head[0] === 0x89 && ascii(1, 4) === 'PNG') return 'image/png'
  if (ascii(0, 4) === 'RIFF' && ascii(8, 12) === 'WEBP') return 'image/webp'
  return null
}

/** Writes chunks of one size into the database as they come. */
class ChunkWriter extends Writable {
  private held: Buffer[] = []
  private size = 0
  private n = 0
  bytes = 0
  readonly hash = createHash('sha256')
  constructor(
    private readonly db: PoolClient,
    private readonly fileId: string,
  ) {
    super()
  }
  private async put(all: boolean): Promise<void> {
    while (this.size >= CHUNK || (all && this.size > 0)) {
      const joined = Buffer.concat(this.held)
      const piece = joined.subarray(0, CHUNK)
      const rest = joined.subarray(CHUNK)
      this.held = [rest]
      this.size = rest.length
      await this.db.query('insert into file_chunk (file_id, n, sha256, data) values ($1, $2, $3, $4)', [
        this.fileId,
        this.n++,
        createHash('sha256').update(piece).digest('hex'),
        piece,
      ])
    }
  }
  override _write(chunk: Buffer, _: string, done: (error?: Error | null) => void): void {
    this.held.push(chunk)
    this.size += chunk.length
    this.bytes += chunk.length
    this.hash.update(chunk)
    this.put(false).then(() => done(), done)
  }
  override _final(done: (error?: Error | null) => void): void {
    this.put(true).then(() => done(), done)
  }
}

async function keep(
  db: PoolClient,
  fileId: string,
  sha256: string,
  type: string,
  bytes: number,
  width: number,
  height: number,
): Promise<StoredFile> {
  const { rowCount } = await db.query('select 1 from file where sha256 = $1', [sha256])
  if (rowCount) await db.query('delete from file where id = $1', [fileId])
  else
    await db.query(
      'update file set sha256 = $2, type = $3, bytes = $4, width = $5, height = $6 where id = $1',
      [fileId, sha256, type, bytes, width, height],
    )
  return { sha256, type, bytes, width, height }
}

/** A picture that lies in a file, decoded and written anew. */
export interface Picture {
  readonly path: string
  readonly type: string
  readonly bytes: number
  readonly width: number
  readonly height: number
}

/** Stores a picture from its file and hangs it where `attach` says, in one short transaction. */
export async function storePicture(
  picture: Picture,
  attach: (db: PoolClient, file: StoredFile) => Promise<void>,
): Promise<StoredFile> {
  return transaction(async (db) => {
    const file = await storeFile(db, picture)
    await attach(db, file)
    return file
  })
}

/** Stores a picture from its file. */
export const storeFile = (db: PoolClient, picture: Picture): Promise<StoredFile> =>
  store(db, createReadStream(picture.path), picture)

async function store(
  db: PoolClient,
  source: Readable,
  { type, width, height }: Pick<Picture, 'type' | 'width' | 'height'>,
): Promise<StoredFile> {
  const id = randomUUID()
  await db.query("insert into file (id, type) values ($1, 'pending')", [id])
  const writer = new ChunkWriter(db, id)
  await pipeline(source, writer)
  return keep(db, id, writer.hash.digest('hex'), type, writer.bytes, width, height)
}

/** How a file that is no picture is kept: as it is. */
export const IMAGE_TYPE = 'application/octet-stream'

/** Stores a firmware image, byte for byte. @param image its path, or its bytes */
export const storeImage = (db: PoolClient, image: string | Uint8Array): Promise<StoredFile> =>
  store(db, typeof image === 'string' ? createReadStream(image) : Readable.from([Buffer.from(image)]), {
    type: IMAGE_TYPE,
    width: 0,
    height: 0,
  })

/** Stores bytes of our own making (the demo's pictures), as they are. */
export async function storeBytes(db: PoolClient, bytes: Uint8Array, type: string): Promise<StoredFile> {
  const meta = await sharp(bytes).metadata()
  return store(db, Readable.from([Buffer.from(bytes)]), {
    type,
    width: meta.width ?? 0,
    height: meta.height ?? 0,
  })
}

export async function attachToJob(
  db: Queryable,
  jobId: string,
  sha256: string,
  purpose: string,
): Promise<void> {
  await db.query(
    'insert into job_file (job_id, sha256, purpose) values ($1, $2, $3) on conflict do nothing',
    [jobId, sha256, purpose],
  )
}

export async function attachToBoard(db: Queryable, boardModelId: string, sha256: string): Promise<void> {
  await db.query('insert into board_file (board_model_id, sha256) values ($1, $2) on conflict do nothing', [
    boardModelId,
    sha256,
  ])
}

/** Whether a picture hangs on this job. */
export async function hasFile(jobId: string, sha256: string, db: Queryable = pool()): Promise<boolean> {
  const { rowCount } = await db.query('select 1 from job_file where job_id = $1 and sha256 = $2', [
    jobId,
    sha256,
  ])
  return rowCount === 1
}

export async function filesOfJob(jobId: string): Promise<(StoredFile & { purpose: string })[]> {
  const { rows } = await pool().query(
    'select f.sha256, f.type, f.bytes::int as bytes, f.width, f.height, j.purpose from job_file j join file f on f.sha256 = j.sha256 where j.job_id = $1 order by j.created_at',
    [jobId],
  )
  return rows
}

/** A file's head, if it hangs on this job or board. */
export async function findFile(
  owner: { readonly jobId: string } | { readonly boardModelId: string },
  sha256: string,
): Promise<(StoredFile & { readonly id: string }) | null> {
  const [table, column, key] =
    'jobId' in owner
      ? ['job_file', 'job_id', owner.jobId]
      : ['board_file', 'board_model_id', owner.boardModelId]
  const { rows } = await pool().query(
    `select f.id, f.sha256, f.type, f.bytes::int as bytes, f.width, f.height from ${table} o join file f on f.sha256 = o.sha256 where o.${column} = $1 and o.sha256 = $2`,
    [key, sha256],
  )
  return rows[0] ?? null
}

/** The file's bytes chunk by chunk, each checked against its hash before it is given out. */
export async function* fileChunks(fileId: string): AsyncGenerator<Buffer> {
  for (let n = 0; ; n++) {
    const { rows } = await pool().query<{ data: Buffer; sha256: string }>(
      'select data, sha256 from file_chunk where file_id = $1 and n = $2',
      [fileId, n],
    )
    const row = rows[0]
    if (!row) return
    if (createHash('sha256').update(row.data).digest('hex') !== row.sha256)
      throw new Error(`chunk ${n} of file ${fileId} is damaged`)
    yield row.data
  }
}

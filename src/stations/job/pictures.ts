import 'server-only'
import type { PoolClient } from 'pg'
import { fileChunks, FileRefused, findFile, MAX_PHOTO_BYTES, storePicture } from '@/data/files'
import { refuse } from './answers'

/** Takes a picture as it streams in and hangs it where `attach` says, in one transaction. */
export async function takePicture(
  request: Request,
  attach: (db: PoolClient, sha256: string) => Promise<void>,
): Promise<Response> {
  if (!request.body) return refuse(400, 'The picture did not arrive. Drop it again.', 'file')
  if (Number(request.headers.get('content-length') ?? 0) > MAX_PHOTO_BYTES) {
    const most = MAX_PHOTO_BYTES / 1_048_576
    return refuse(
      413,
      `This picture is larger than ${most} MB. Save it smaller, or crop it to the socket.`,
      'file',
    )
  }
  try {
    const file = await storePicture(request.body, (db, stored) => attach(db, stored.sha256))
    return Response.json({ file })
  } catch (error) {
    if (error instanceof FileRefused) return refuse(error.status, error.message, 'file')
    throw error
  }
}

/** Streams a stored picture of a job or a board; each chunk is checked before it goes out. */
export async function sendFile(
  owner: { readonly jobId: string } | { readonly boardModelId: string },
  sha256: string,
  request: Request,
): Promise<Response> {
  const file = /^[0-9a-f]{64}$/.test(sha256) ? await findFile(owner, sha256) : null
  if (!file) return refuse(404, 'There is no such picture here.', 'sha256')
  const etag = `"${file.sha256}"`
  if (request.headers.get('if-none-match') === etag) return new Response(null, { status: 304 })
  const chunks = fileChunks(file.id)
  const body = new ReadableStream<Uint8Array>({
    async pull(controller) {
      const next = await chunks.next()
      if (next.done) controller.close()
      else controller.enqueue(next.value)
    },
  })
  return new Response(body, {
    headers: {
      'content-type': file.type,
      'content-length': String(file.bytes),
      etag,
      'cache-control': 'private, max-age=86400, immutable',
      'x-content-type-options': 'nosniff',
      'content-security-policy': "default-src 'none'",
      'content-disposition': 'inline',
    },
  })
}

import 'server-only'
import type { PoolClient } from 'pg'
import { fileChunks, findFile, storePicture } from '@/data/files'
import { receivePicture } from '@/server/uploads'
import { refuse } from './answers'

/** Takes a picture: received and rewritten first, then stored and hung where `attach` says, in one short transaction. */
export const takePicture = (
  request: Request,
  account: string,
  attach: (db: PoolClient, sha256: string) => Promise<void>,
): Promise<Response> =>
  receivePicture(request, account, async (picture) => {
    const file = await storePicture(picture, (db, stored) => attach(db, stored.sha256))
    return Response.json({ file })
  })

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

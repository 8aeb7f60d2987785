import 'server-only'

/** A body that is larger than is taken, or that stopped coming. */
export class BodyRefused extends Error {
  constructor(
    readonly status: 400 | 408 | 413,
    message: string,
  ) {
    super(message)
  }
}

/** A sender that says nothing for so long has gone, ms. */
const IDLE_MS = 20_000
const megabytes = (bytes: number) =>
  bytes >= 1_048_576 ? `${Math.round(bytes / 1_048_576)} MB` : `${Math.round(bytes / 1024)} kB`

/**
 * The pieces of a body as they come, cut when there is more than is taken: by what arrives, not by what is announced.
 * @throws BodyRefused
 */
export async function* bodyPieces(
  request: Request,
  mostBytes: number,
  idleMs = IDLE_MS,
): AsyncGenerator<Uint8Array> {
  if (Number(request.headers.get('content-length') ?? 0) > mostBytes)
    throw new BodyRefused(413, `That is too much: at most ${megabytes(mostBytes)} are taken.`)
  if (!request.body) return
  const reader = request.body.getReader()
  let seen = 0
  try {
    for (;;) {
      let timer: ReturnType<typeof setTimeout> | undefined
      const idle = new Promise<never>((_, reject) => {
        timer = setTimeout(
          () => reject(new BodyRefused(408, 'It stopped coming on the way. Send it again.')),
          idleMs,
        )
      })
      const next = await Promise.race([reader.read(), idle]).finally(() => clearTimeout(timer))
      if (next.done) return
      seen += next.value.length
      if (seen > mostBytes)
        throw new BodyRefused(413, `That is too much: at most ${megabytes(mostBytes)} are taken.`)
      yield next.value
    }
  } finally {
    // Whatever still comes is not wanted; a sender that went away has nothing to say to that.
    await reader.cancel().catch(() => undefined)
  }
}

/** The whole of a body, bounded. */
export async function bodyBytes(request: Request, mostBytes: number): Promise<Uint8Array> {
  const pieces: Uint8Array[] = []
  for await (const piece of bodyPieces(request, mostBytes)) pieces.push(piece)
  return new Uint8Array(Buffer.concat(pieces))
}

/** What is in a JSON body; null when it is none. */
export async function bodyJson(request: Request, mostBytes = 512 * 1024): Promise<unknown> {
  const bytes = await bodyBytes(request, mostBytes)
  try {
    return JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes)) as unknown
  } catch {
    return null
  }
}

/** A file to keep: named, never sniffed, never run. */
export function download(body: string | Uint8Array | ReadableStream, type: string, name: string): Response {
  return new Response(body as BodyInit, {
    headers: {
      'content-type': type,
      'content-disposition': `attachment; filename="${name.replace(/[^\w.-]/g, '_')}"`,
      'x-content-type-options': 'nosniff',
      'content-security-policy': "default-src 'none'; style-src 'unsafe-inline'",
      'cache-control': 'no-store',
    },
  })
}

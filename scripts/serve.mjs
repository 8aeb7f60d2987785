// The application behind one HTTP server of its own: it finds out who asks from the connection, not from what they say.
import { once } from 'node:events'
import { createServer } from 'node:http'
import next from 'next'

/** The port that is asked for; any that is free for 0. */
const asked = Number(process.env.PORT ?? 0)
const host = process.env.HOST ?? '127.0.0.1'
/** Address of the proxy in front, where there is one: only what it says of others is believed, and only its last word. */
const proxy = process.env.NEEDLE_PROXY ?? ''
const dev = process.env.NODE_ENV === 'development'

process.env.NEEDLE_FRONT = '1'
/** What answers, once the application is ready: what is asked before waits for it. */
let ready
const handler = new Promise((resolve) => (ready = resolve))

const plain = (address) => (address ?? '').replace(/^::ffff:/, '')
const last = (header) =>
  String(header ?? '')
    .split(',')
    .at(-1)
    .trim()

const server = createServer((request, response) => {
  const from = plain(request.socket.remoteAddress)
  const behind = proxy !== '' && from === proxy
  const { headers } = request
  for (const name of Object.keys(headers)) if (name.startsWith('x-needle-')) delete headers[name]
  headers['x-needle-address'] = (behind && last(headers['x-forwarded-for'])) || from
  headers['x-needle-host'] = (behind && last(headers['x-forwarded-host'])) || headers.host || ''
  const tls = behind && last(headers['x-forwarded-proto']) === 'https'
  if (tls) {
    headers['x-needle-tls'] = '1'
    response.setHeader('strict-transport-security', 'max-age=31536000')
  }
  // Behind the framework nothing reads these; ahead of it anybody can write them.
  for (const name of ['x-forwarded-for', 'x-forwarded-host', 'x-forwarded-proto', 'forwarded'])
    if (!behind) delete headers[name]
  // An address that is none is the sender's fault, not ours.
  try {
    const path = decodeURIComponent((request.url ?? '/').split('?')[0])
    if (/[\0-\x1f]/.test(path)) throw new URIError('control characters')
  } catch {
    response.writeHead(400, { 'content-type': 'text/plain; charset=utf-8', 'cache-control': 'no-store' })
    response.end('This address is none: check it for a stray % sign.\n')
    return
  }
  void handler.then((handle) => handle(request, response))
})
server.headersTimeout = 15_000
server.requestTimeout = 10 * 60_000
server.keepAliveTimeout = 20_000
try {
  server.listen(asked, host)
  await once(server, 'listening')
} catch (error) {
  console.error(
    error.code === 'EADDRINUSE'
      ? `Port ${asked} is taken by something else: give another one as PORT.`
      : error.message,
  )
  process.exit(1)
}
const { port } = server.address()
const app = next({ dev, hostname: host, port })
await app.prepare()
ready(app.getRequestHandler())
process.send?.({ port })

for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'])
  process.on(signal, () => {
    server.close(() => process.exit(0))
    server.closeAllConnections()
  })

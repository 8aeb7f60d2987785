import { connect, createServer } from 'node:net'
import type { Server, Socket } from 'node:net'

/** The wire between a server and its database, which can be cut and mended. */
export class Wire {
  private readonly open = new Set<Socket>()
  private whole = true
  private still = false

  private constructor(
    private readonly server: Server,
    readonly url: string,
  ) {}

  static async to(databaseUrl: string): Promise<Wire> {
    const { hostname, port } = new URL(databaseUrl)
    const server = createServer()
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
    const url = new URL(databaseUrl)
    url.port = String((server.address() as { port: number }).port)
    const wire = new Wire(server, url.href)
    server.on('connection', (near) => {
      if (!wire.whole) return near.destroy()
      const far = connect(Number(port), hostname)
      for (const [one, other] of [
        [near, far],
        [far, near],
      ] as const) {
        wire.open.add(one)
        one.on('error', () => other.destroy())
        one.on('close', () => (wire.open.delete(one), other.destroy()))
        one.pipe(other)
        if (wire.still) one.pause()
      }
    })
    return wire
  }

  cut(): void {
    this.whole = false
    for (const socket of this.open) socket.destroy()
  }

  /** Nothing is lost and nothing comes: the other side stands still. */
  freeze(): void {
    this.still = true
    for (const socket of this.open) socket.pause()
  }

  thaw(): void {
    this.still = false
    for (const socket of this.open) socket.resume()
  }

  mend(): void {
    this.whole = true
  }

  close(): void {
    this.cut()
    this.server.close()
  }
}

import { MessageChannel } from 'node:worker_threads'
import type { MessagePort } from 'node:worker_threads'
import { expose } from 'comlink'
import type { Endpoint } from 'comlink'
import { afterEach, describe, expect, it } from 'vitest'
import { remoteOf } from './remote'

interface Counter {
  twice(n: number): number
  fail(): void
  never(): Promise<void>
}
const counter: Counter = {
  twice: (n) => 2 * n,
  fail: () => {
    throw new RangeError('no such contact')
  },
  never: () => new Promise<void>(() => undefined),
}

const ports: MessagePort[] = []
afterEach(() => ports.splice(0).forEach((port) => port.close()))

/** A thread as the browser gives it: messages through a channel, and an event when it breaks down. */
function thread(): Worker {
  const { port1, port2 } = new MessageChannel()
  ports.push(port1, port2)
  expose(counter, port2 as unknown as Endpoint)
  port2.start()
  port1.start()
  const events = new EventTarget()
  const listen = (name: string, heard: EventListener) =>
    name === 'error'
      ? events.addEventListener(name, heard)
      : port1.addEventListener(name as 'message', heard as never)
  return {
    postMessage: (message: unknown, moved: readonly never[]) => port1.postMessage(message, moved),
    addEventListener: listen,
    removeEventListener: (name: string, heard: EventListener) =>
      port1.removeEventListener(name as 'message', heard as never),
    dispatchEvent: (event: Event) => events.dispatchEvent(event),
  } as unknown as Worker
}

describe('what a thread answers', () => {
  it('comes, and so does what went wrong in it', async () => {
    const remote = remoteOf<Counter>(thread())
    expect(await Promise.all([remote.twice(2), remote.twice(21)])).toEqual([4, 42])
    await expect(remote.fail()).rejects.toThrow('no such contact')
  })
  it('comes as well where the remote was handed on by a promise', async () => {
    const remote = await Promise.resolve(remoteOf<Counter>(thread()))
    expect(await remote.twice(4)).toBe(8)
  })
  it('is refused once it has broken down, whether it was asked before or is asked after', async () => {
    const broken = thread()
    const remote = remoteOf<Counter>(broken)
    const asked = remote.never()
    expect(await remote.twice(3)).toBe(6)
    broken.dispatchEvent(new Event('error'))
    await expect(asked).rejects.toThrow('Load the page again')
    await expect(remote.twice(3)).rejects.toThrow('Load the page again')
  })
})

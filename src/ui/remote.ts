import { wrap } from 'comlink'
import type { Remote } from 'comlink'

/**
 * What a thread answers. What is asked of one that did not load, or broke down, is refused: it would wait for ever
 * otherwise.
 */
export function remoteOf<W>(thread: Worker): Remote<W> {
  const waiting = new Set<(why: Error) => void>()
  let broken: Error | null = null
  thread.addEventListener('error', () => {
    broken = new Error('This part of the page did not load, or broke down. Load the page again.')
    for (const refuse of waiting) refuse(broken)
    waiting.clear()
  })
  type Ask = (...given: readonly unknown[]) => Promise<unknown>
  const ask =
    (to: Ask): Ask =>
    (...given) =>
      new Promise((resolve, refuse) => {
        if (broken) return refuse(broken)
        waiting.add(refuse)
        to(...given)
          .then(resolve, refuse)
          .finally(() => waiting.delete(refuse))
      })
  return new Proxy(wrap<W>(thread) as object, {
    // It is no promise itself, and may be handed on by one.
    get: (remote, name) => (name === 'then' ? undefined : ask(Reflect.get(remote, name) as Ask)),
  }) as Remote<W>
}

'use client'
import { wrap } from 'comlink'
import type { Remote } from 'comlink'
import { useCallback, useEffect, useRef } from 'react'

/**
 * A web worker of a page: started when it is first asked, ended with the page.
 * @param start makes the thread; the same function always, so that the worker stays
 */
export function useWorker<W>(start: () => Worker): () => Remote<W> {
  const running = useRef<{ readonly thread: Worker; readonly remote: Remote<W> } | null>(null)
  useEffect(
    () => () => {
      running.current?.thread.terminate()
      running.current = null
    },
    [],
  )
  return useCallback(() => {
    if (!running.current) {
      const thread = start()
      running.current = { thread, remote: wrap<W>(thread) }
    }
    return running.current.remote
  }, [start])
}

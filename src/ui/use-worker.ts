'use client'
import type { Remote } from 'comlink'
import { useCallback, useEffect, useRef } from 'react'
import { remoteOf } from './remote'

/**
 * A web worker of a page: started when it is first asked, ended with the page; after one that broke down comes another.
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
      const remote = remoteOf<W>(thread)
      running.current = { thread, remote }
      // The next that is asked begins another.
      thread.addEventListener('error', () => {
        thread.terminate()
        if (running.current?.thread === thread) running.current = null
      })
    }
    return running.current.remote
  }, [start])
}

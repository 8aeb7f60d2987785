'use client'
import { useRouter } from 'next/navigation'
import { startTransition, useEffect, useRef } from 'react'
import { Button } from './Button'

const FIRST_MS = 1500
const LONGEST_MS = 60_000
const CALM_MS = 3 * LONGEST_MS
/** Counts over failures one after another: a failed try brings a new error, and with it this page anew. */
const tries = { wait: FIRST_MS, at: -Infinity }

function nextTryMs(): number {
  const now = performance.now()
  tries.wait = now - tries.at > CALM_MS ? FIRST_MS : Math.min(tries.wait * 2, LONGEST_MS)
  tries.at = now
  return tries.wait
}

/**
 * A page that failed: on the server (it gives a digest, and mostly its database did not answer), or by a fault of ours in
 * the browser. Which of the two is said. Where the server failed it is asked again by itself, at ever longer intervals.
 */
export function Failed({ error, reset }: { error: Error & { digest?: string }; reset: () => void }) {
  const ours = error.digest === undefined
  const router = useRouter()
  const again = () =>
    startTransition(() => {
      router.refresh()
      reset()
    })
  const latest = useRef(again)
  useEffect(() => {
    latest.current = again
  })
  useEffect(() => {
    if (ours) return
    const timer = setTimeout(() => latest.current(), nextTryMs())
    return () => clearTimeout(timer)
  }, [ours, error])
  return (
    <section className="mx-auto max-w-xl py-10">
      <h1>{ours ? 'This page has stopped by a fault of ours.' : 'This page could not be put together.'}</h1>
      <p className="mt-2 text-soft">
        {ours
          ? 'The server is well. What you had entered is kept; go on with “Try again”, and tell the lead what you did just before.'
          : 'The server or its database did not answer. What you had entered is kept in this browser and is sent when they are back. This page comes by itself then.'}
      </p>
      {ours && <p className="num mt-2 text-[0.9rem] break-words text-soft">{error.message}</p>}
      <Button look="first" className="mt-5" onClick={again}>
        Try again
      </Button>
    </section>
  )
}

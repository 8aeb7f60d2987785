'use client'
import { useRouter } from 'next/navigation'
import { startTransition } from 'react'
import { Button } from './Button'

/**
 * A page that failed: on the server (it gives a digest, and mostly its database did not answer), or by a fault of ours in
 * the browser. Which of the two is said.
 */
export function Failed({ error, reset }: { error: Error & { digest?: string }; reset: () => void }) {
  const ours = error.digest === undefined
  const router = useRouter()
  const again = () =>
    startTransition(() => {
      router.refresh()
      reset()
    })
  return (
    <section className="mx-auto max-w-xl py-10">
      <h1>{ours ? 'This page has stopped by a fault of ours.' : 'This page could not be put together.'}</h1>
      <p className="mt-2 text-soft">
        {ours
          ? 'The server is well. What you had entered is kept; go on with “Try again”, and tell the lead what you did just before.'
          : 'The server or its database did not answer. What you had entered is kept in this browser and is sent when they are back.'}
      </p>
      {ours && <p className="num mt-2 text-[0.9rem] break-words text-soft">{error.message}</p>}
      <Button look="first" className="mt-5" onClick={again}>
        Try again
      </Button>
    </section>
  )
}

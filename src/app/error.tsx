'use client'
import { Button } from '@/ui/Button'

export default function Failed({ reset }: { error: Error; reset: () => void }) {
  return (
    <main className="mx-auto max-w-xl p-10">
      <h1>This page could not be put together.</h1>
      <p className="mt-2 text-soft">
        The server or its database did not answer. What you had entered is kept in this browser and is sent
        when they are back.
      </p>
      <Button look="first" className="mt-5" onClick={reset}>
        Try again
      </Button>
    </main>
  )
}

'use client'
import { useRouter } from 'next/navigation'
import { startTransition } from 'react'
import { Button } from '@/ui/Button'

export default function Failed({ reset }: { error: Error; reset: () => void }) {
  const router = useRouter()
  const again = () =>
    startTransition(() => {
      router.refresh()
      reset()
    })
  return (
    <main className="mx-auto max-w-xl p-10">
      <h1>This page could not be put together.</h1>
      <p className="mt-2 text-soft">
        The server or its database did not answer. What you had entered is kept in this browser and is sent
        when they are back.
      </p>
      <Button look="first" className="mt-5" onClick={again}>
        Try again
      </Button>
    </main>
  )
}

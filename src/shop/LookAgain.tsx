'use client'
import { useRouter } from 'next/navigation'
import { useEffect } from 'react'

const EVERY_MS = 1500

/** Looks at the page again while something on it is being computed. */
export function LookAgain() {
  const router = useRouter()
  useEffect(() => {
    const timer = setInterval(() => router.refresh(), EVERY_MS)
    return () => clearInterval(timer)
  }, [router])
  return null
}

'use client'
import { useKeys } from '@/frame/use-keys'

/** Up and down go along the jobs of the bench, Enter opens the one that has the focus. */
export function BenchKeys() {
  const along = (by: number) => {
    const jobs = [...document.querySelectorAll<HTMLElement>('a[data-job]')]
    const at = jobs.findIndex((job) => job === document.activeElement)
    jobs[at < 0 ? (by > 0 ? 0 : jobs.length - 1) : Math.min(Math.max(at + by, 0), jobs.length - 1)]?.focus()
  }
  useKeys({ nextJob: () => along(1), previousJob: () => along(-1) })
  return null
}

'use client'
import { useEffect, useRef, useState } from 'react'

/** How large a frame is, as long as it is shown; null until it was measured. */
export function useSize(shown = true) {
  const frame = useRef<HTMLDivElement>(null)
  const [size, setSize] = useState<{ readonly width: number; readonly height: number } | null>(null)
  useEffect(() => {
    const of = frame.current
    if (!shown || !of) return
    const measure = () => setSize({ width: of.clientWidth, height: of.clientHeight })
    measure()
    const observer = new ResizeObserver(measure)
    observer.observe(of)
    return () => observer.disconnect()
  }, [shown])
  return { frame, size }
}

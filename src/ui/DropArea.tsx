'use client'
import { useState } from 'react'
import type { ReactNode } from 'react'

/** A place that takes files dropped on it, and shows when some are held over it. */
export function DropArea({
  label,
  className = '',
  onFiles,
  children,
}: {
  /** Said by a screen reader, where the place is a part of its own. */
  label?: string
  className?: string
  onFiles: (files: FileList) => void
  children: ReactNode
}) {
  const [over, setOver] = useState(false)
  return (
    <section
      aria-label={label}
      onDragOver={(event) => {
        event.preventDefault()
        setOver(true)
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault()
        setOver(false)
        onFiles(event.dataTransfer.files)
      }}
      className={`${className} ${over ? 'bg-brass-bg' : ''}`}
    >
      {children}
    </section>
  )
}

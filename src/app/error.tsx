'use client'
import type { ComponentProps } from 'react'
import { Failed } from '@/ui/Failed'

export default function PageFailed(of: ComponentProps<typeof Failed>) {
  return (
    <main className="px-6">
      <Failed {...of} />
    </main>
  )
}

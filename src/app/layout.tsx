import type { Metadata } from 'next'
import { cookies } from 'next/headers'
import type { ReactNode } from 'react'
import { readerOf } from '@/server/reader'
import { ReaderProvider } from '@/ui/reader'
import { HeldKeys } from '@/ui/HeldKeys'
import './globals.css'

export const metadata: Metadata = {
  title: { default: 'Arch Needle', template: '%s · Arch Needle' },
  description: 'For the bench technician who brings back a motherboard that will not POST',
}

export default async function RootLayout({ children }: { children: ReactNode }) {
  const theme = (await cookies()).get('theme')?.value === 'scope' ? 'scope' : 'paper'
  return (
    <html lang="en" data-theme={theme} suppressHydrationWarning>
      <body>
        <HeldKeys />
        <ReaderProvider reader={await readerOf()}>{children}</ReaderProvider>
      </body>
    </html>
  )
}

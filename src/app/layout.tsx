import type { Metadata } from 'next'
import { cookies } from 'next/headers'
import type { ReactNode } from 'react'
import { readerOf } from '@/server/reader'
import { ReaderProvider } from '@/ui/reader'
import { HeldKeys } from '@/ui/HeldKeys'
import { PageTitle } from './PageTitle'
import './globals.css'

export const metadata: Metadata = {
  description: 'For the bench technician who brings back a motherboard that will not POST',
}

export default async function RootLayout({ children }: { children: ReactNode }) {
  const theme = (await cookies()).get('theme')?.value === 'scope' ? 'scope' : 'paper'
  return (
    <html lang="en" data-theme={theme} suppressHydrationWarning>
      <body>
        <PageTitle />
        <HeldKeys />
        <ReaderProvider reader={await readerOf()}>{children}</ReaderProvider>
      </body>
    </html>
  )
}

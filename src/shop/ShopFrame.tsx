import Link from 'next/link'
import type { ReactNode } from 'react'
import type { Account } from '@/data/accounts'
import { Button } from '@/ui/Button'
import { ThemeSwitch } from '@/ui/ThemeSwitch'
import { signOutAction } from './sign-in-actions'

const places = [
  ['/', 'Bench'],
  ['/shelf', 'Shelf'],
  ['/library', 'Library'],
  ['/practice', 'Practice'],
  ['/record', 'Record'],
  ['/people', 'People'],
] as const

/** The frame outside a job. */
export function ShopFrame({
  account,
  here,
  children,
}: {
  account: Account
  here: (typeof places)[number][0]
  children: ReactNode
}) {
  return (
    <div className="min-h-screen">
      <header className="flex h-16 items-center gap-7 border-b-2 border-ink px-6">
        <Link href="/" className="text-lg font-semibold">
          Arch Needle
        </Link>
        <nav aria-label="Shop" className="flex flex-1 gap-6">
          {places.map(([href, name]) => (
            <Link
              key={href}
              href={href}
              aria-current={href === here ? 'page' : undefined}
              className={href === here ? 'border-b-[3px] border-brass pb-0.5 font-bold' : 'pb-0.5'}
            >
              {name}
            </Link>
          ))}
        </nav>
        <span className="text-soft">
          {account.name}, {account.role}
        </span>
        <span className="text-[0.9rem] text-soft">
          <ThemeSwitch />
        </span>
        <form action={signOutAction}>
          <Button type="submit" look="bare">
            Sign out
          </Button>
        </form>
      </header>
      <main className="mx-auto max-w-[1180px] px-6 py-6">{children}</main>
    </div>
  )
}

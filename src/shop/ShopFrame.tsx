import Link from 'next/link'
import type { ReactNode } from 'react'
import type { Account } from '@/data/accounts'
import { Button } from '@/ui/Button'
import { ThemeSwitch } from '@/ui/ThemeSwitch'
import { ShopKeys } from './ShopKeys'
import { ShopNav } from './ShopNav'
import { signOutAction } from './sign-in-actions'

/** The frame outside a job. */
export function ShopFrame({ account, children }: { account: Account; children: ReactNode }) {
  return (
    <div className="min-h-screen">
      <a
        href="#page"
        className="absolute -top-20 left-2 z-50 rounded-sheet border-2 border-ink bg-sheet px-3 py-1 focus:top-2"
      >
        To the page
      </a>
      <header className="flex min-h-14 flex-wrap items-center gap-x-6 gap-y-1 border-b-2 border-ink px-6 py-1.5 max-sm:px-3">
        <Link href="/" className="text-lg font-semibold">
          Arch Needle
        </Link>
        <ShopNav />
        <span className="text-soft">
          {account.name}, {account.role}
        </span>
        <ShopKeys />
        <span className="text-[0.9rem] text-soft">
          <ThemeSwitch />
        </span>
        <form action={signOutAction}>
          <Button type="submit" look="bare">
            Sign out
          </Button>
        </form>
      </header>
      <main id="page" tabIndex={-1} className="mx-auto max-w-[1180px] px-6 py-5 outline-none max-sm:px-3">
        {children}
      </main>
    </div>
  )
}

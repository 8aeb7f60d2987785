import 'server-only'
import { cookies, headers } from 'next/headers'
import { redirect } from 'next/navigation'
import { accountOf } from '@/data/accounts'
import type { Account } from '@/data/accounts'

export const SESSION_COOKIE = 'needle_session'

export async function sessionToken(): Promise<string | undefined> {
  return (await cookies()).get(SESSION_COOKIE)?.value
}

/** The account of this request, or null. */
export async function whoIs(): Promise<Account | null> {
  return accountOf(await sessionToken())
}

/** For pages: whoever is not signed in goes to the sign-in and comes back afterwards. */
export async function signedIn(back: string): Promise<Account> {
  const account = await whoIs()
  if (!account) redirect(`/sign-in?back=${encodeURIComponent(back)}`)
  return account
}

/** Reads only from our own pages: a request that writes must come from this origin. */
export async function sameOrigin(): Promise<boolean> {
  const head = await headers()
  const origin = head.get('origin')
  if (!origin) return head.get('sec-fetch-site') !== 'cross-site'
  try {
    return new URL(origin).host === (head.get('x-forwarded-host') ?? head.get('host'))
  } catch {
    return false
  }
}

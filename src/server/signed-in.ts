import 'server-only'
import { cookies, headers } from 'next/headers'
import { redirect } from 'next/navigation'
import { accountOf } from '@/data/accounts'
import type { Account } from '@/data/accounts'

/**
 * What the server in front found out of the connection itself; it drops what a client says of these (scripts/serve.mjs).
 * Without it nothing is known, and nothing is taken from headers a stranger can choose.
 */
export async function connection(): Promise<{ readonly address: string; readonly tls: boolean }> {
  const head = await headers()
  const trusted = process.env.NEEDLE_FRONT === '1'
  return {
    address: (trusted && head.get('x-needle-address')) || 'unknown',
    tls: trusted && head.get('x-needle-tls') === '1',
  }
}

/** Behind TLS the cookie is bound to this host and never sent without it. */
export const sessionCookie = (tls: boolean): string => (tls ? '__Host-needle_session' : 'needle_session')

export async function sessionToken(): Promise<string | undefined> {
  const { tls } = await connection()
  return (await cookies()).get(sessionCookie(tls))?.value
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

/** A path of ours, or the bench: nothing that a browser could read as another host. */
export function localPath(path: unknown): string {
  if (typeof path !== 'string' || !/^\/[\x21-\x7e]*$/.test(path) || path.includes('\\')) return '/'
  const there = URL.parse(path, 'http://here.invalid')
  return there?.origin === 'http://here.invalid' && !path.startsWith('//') ? path : '/'
}

/** Reads only from our own pages: a request that writes must come from this origin. */
export async function sameOrigin(): Promise<boolean> {
  const head = await headers()
  const origin = head.get('origin')
  if (!origin) return head.get('sec-fetch-site') !== 'cross-site'
  const from = URL.parse(origin)
  return from !== null && from.host === (head.get('x-needle-host') ?? head.get('host'))
}

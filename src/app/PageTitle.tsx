'use client'
import { usePathname } from 'next/navigation'

/** What the window is called, by its address; the first that fits. */
const TITLES: readonly [RegExp, string][] = [
  [/^\/jobs\/([^/]+)(?:\/([^/]+))?/, '$1 $2'],
  [/^\/library\/kit$/, 'Bench CPUs'],
  [/^\/library\/sockets\/[^/]+\/edit$/, 'Edit a field'],
  [/^\/library\/sockets\//, 'Socket'],
  [/^\/library\/boards\//, 'Board'],
  [/^\/library\/faults$/, 'Faults'],
  [/^\/library\/bench$/, 'Shop figures'],
  [/^\/library$/, 'Library'],
  [/^\/shelf$/, 'Shelf'],
  [/^\/record$/, 'Record'],
  [/^\/practice\/needle$/, 'Needle practice'],
  [/^\/practice\/hot-air$/, 'Hot air practice'],
  [/^\/practice\/what-was-it$/, 'What was it?'],
  [/^\/practice\/([^/]+)$/, 'Practice $1'],
  [/^\/practice$/, 'Practice'],
  [/^\/people$/, 'People'],
  [/^\/sign-in$/, 'Sign in'],
  [/^\/welcome$/, 'First start'],
]

/**
 * The title stands above every page and changes with the address: a title that comes with its page leaves the window
 * without one while the page is fetched, and a screen reader then says nothing.
 */
export function PageTitle() {
  const path = usePathname()
  const fits = TITLES.find(([at]) => at.test(path))
  const match = fits?.[0].exec(path)
  const name = match && fits![1].replace(/\$(\d)/g, (_, i: string) => match[Number(i)] ?? '').trim()
  return <title>{name ? `${name} · Arch Needle` : 'Arch Needle'}</title>
}

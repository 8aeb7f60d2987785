'use client'
import Link from 'next/link'
import { useState } from 'react'
import { useKeyHint, useKeys } from '@/frame/use-keys'
import { Button } from '@/ui/Button'

const inDemo = [
  [
    'Q-0417',
    '/jobs/Q-0417/socket',
    'a driver bit fell into the socket: the map, and which contact goes first',
  ],
  ['Q-0418', '/jobs/Q-0418/triage', 'it just stopped: run the next test on the simulated bench with c'],
  ['Practice', '/practice', 'find a hidden fault, and see afterwards which choices were worth their minutes'],
] as const
const inOwnShop = [
  ['Library', '/library', 'import the table of a socket, then add the boards that carry it'],
  ['New job', '', 'press n: it gets a tag, a tape and its way from intake to hand-back'],
  ['Practice', '/practice', 'find a hidden fault on a simulated board, without a board at hand'],
] as const

/** The three moves worth trying, until they are put away for good. */
export function FirstMoves({ demo }: { demo: boolean }) {
  const [there, setThere] = useState(true)
  const hint = useKeyHint()
  const putAway = () => {
    document.cookie = 'first-moves=done; path=/; max-age=31536000; samesite=lax'
    setThere(false)
  }
  useKeys({ firstMoves: putAway }, there)
  if (!there) return null
  return (
    <section aria-label="Worth trying first" className="mb-5 border-l-4 border-brass bg-sheet px-4 py-2.5">
      <div className="flex items-baseline justify-between gap-4">
        <h2>Worth trying first</h2>
        <Button look="bare" className="py-0!" keyHint={hint('firstMoves')} onClick={putAway}>
          Put away for good
        </Button>
      </div>
      <ol>
        {(demo ? inDemo : inOwnShop).map(([name, href, why]) => (
          <li key={name} className="py-0.5">
            {href ? (
              <Link href={href} className="font-semibold underline decoration-line underline-offset-4">
                {name}
              </Link>
            ) : (
              <b className="font-semibold">{name}</b>
            )}
            <span className="text-soft">: {why}</span>
          </li>
        ))}
      </ol>
    </section>
  )
}

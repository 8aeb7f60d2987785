import Link from 'next/link'
import type { AtHandItem } from '@/core/parts/stock/stock-item'
import { HeldFor } from './HeldFor'

/** CPUs the bench owns, to carry boards over an update and to try in a socket. */
export function BenchCpus({ cpus }: { cpus: readonly AtHandItem[] }) {
  return (
    <section className="mt-10 max-w-[52rem]" aria-label="Bench CPUs">
      <h2>Bench CPUs</h2>
      <p className="text-soft">
        <Link href="/library/kit" className="underline">
          The kit
        </Link>{' '}
        says which of them carry which board, which are owned for nothing, and what the next would open. A job
        holds one at its parts station.
      </p>
      {cpus.length === 0 && <p className="mt-1">None is owned yet.</p>}
      <ul className="mt-2">
        {cpus.map((of) => (
          <li key={of.item} className="grid grid-cols-[13rem_1fr] gap-4 border-b border-line py-1.5">
            <b className="font-semibold">{of.item}</b>
            <span>{of.held.length > 0 ? <HeldFor of={of} /> : <span className="text-soft">free</span>}</span>
          </li>
        ))}
      </ul>
    </section>
  )
}

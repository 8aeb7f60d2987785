import Link from 'next/link'

/** CPUs the bench owns, to carry boards over an update and to try in a socket. */
export function BenchCpus({ cpus }: { cpus: readonly string[] }) {
  return (
    <section className="mt-10 max-w-[52rem]" aria-label="Bench CPUs">
      <h2>Bench CPUs</h2>
      <p className="num mt-1">{cpus.length > 0 ? cpus.join(', ') : 'None is owned yet.'}</p>
      <p className="text-soft">
        <Link href="/library/kit" className="underline">
          The kit
        </Link>{' '}
        says which of them carry which board, which are owned for nothing, and what the next would open.
      </p>
    </section>
  )
}

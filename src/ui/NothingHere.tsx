import Link from 'next/link'

export function NothingHere() {
  return (
    <section className="mx-auto max-w-xl py-10">
      <h1>There is nothing under this address.</h1>
      <p className="mt-2 text-soft">The job may have another tag, or the link was cut short.</p>
      <Link href="/" className="mt-4 inline-block underline">
        Back to the bench
      </Link>
    </section>
  )
}

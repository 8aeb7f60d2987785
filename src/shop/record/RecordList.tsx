import { Count } from '@/ui/reader'
import Link from 'next/link'
import type { Job } from '@/data/jobs'
import { Button } from '@/ui/Button'
import { When } from '@/ui/When'

/** Finished jobs, newest first, to be looked up when a board comes back. */
export function RecordList({
  jobs,
  more,
  all,
  words,
  later,
}: {
  jobs: readonly Job[]
  more: boolean
  all: number
  words: string
  later: boolean
}) {
  const last = jobs.at(-1)
  const next =
    last &&
    `/record?${new URLSearchParams({ ...(words && { words }), closedAt: last.closedAt!, id: last.id })}`
  return (
    <>
      <h1>
        {all === 0 ? (
          'No job is finished yet.'
        ) : (
          <>
            <Count n={all} /> finished jobs.
          </>
        )}
      </h1>
      {all > 0 && (
        <p className="mt-0.5">
          <Link href="/record/came-true" className="underline">
            What came true of the odds
          </Link>
          <span className="ml-6 text-soft">
            All of them as{' '}
            <a href="/api/record?of=jobs" download className="underline">
              CSV
            </a>{' '}
            or{' '}
            <a href="/api/record?of=jobs&as=json" download className="underline">
              JSON
            </a>
            ; one with its whole tape as a ZIP, at its hand-back.
          </span>
        </p>
      )}
      <form className="mt-3 flex gap-2" role="search">
        <input
          name="words"
          defaultValue={words}
          aria-label="Search"
          placeholder="a tag, a board, what it was used as, what was wrong"
          className="w-96 min-w-0"
        />
        <Button type="submit">Search</Button>
        {words && (
          <Link href="/record" className="self-center underline">
            all of them
          </Link>
        )}
      </form>
      {jobs.length === 0 && all > 0 && (
        <p className="mt-4 text-soft">
          {later ? 'That is all.' : `Nothing with “${words}”. Try fewer letters.`}
        </p>
      )}
      <ol className="mt-4">
        {jobs.map((job) => (
          <li
            key={job.id}
            className="grid items-baseline md:grid-cols-[6.4rem_minmax(0,1fr)_12rem_9rem] gap-x-5 border-t border-line py-2"
          >
            <Link
              href={`/jobs/${job.tag}/hand-back`}
              className="num underline decoration-line underline-offset-4"
            >
              {job.tag}
            </Link>
            <span className="truncate">
              <b className="font-semibold">{job.board || 'no board named'}</b>{' '}
              <span className="text-soft">{job.words}</span>
            </span>
            <span>{job.outcome}</span>
            <span className="text-right text-soft">
              {job.closedAt && <When at={job.closedAt} as="date" />}
            </span>
          </li>
        ))}
      </ol>
      {more && next && (
        <Link href={next} className="mt-3 inline-block underline">
          earlier ones
        </Link>
      )}
    </>
  )
}

import { Count } from '@/ui/reader'
import Link from 'next/link'
import type { BoardModel } from '@/data/boards'
import type { SocketSummary } from '@/data/sockets'
import { AddBoard } from './AddBoard'
import { AddSocket } from './AddSocket'

/** Sockets and boards the shop knows: geometry, functions, and where things are. */
export function Library({
  sockets,
  boards,
}: {
  sockets: readonly SocketSummary[]
  boards: readonly (BoardModel & { landmarks: number })[]
}) {
  return (
    <>
      <h1>
        {sockets.length === 0
          ? 'Import a first socket, then the boards that carry it.'
          : `${sockets.length} sockets, ${boards.length} boards.`}
      </h1>
      <p className="mt-0.5 text-soft">
        A job’s map, odds and limits follow from what stands here, and from{' '}
        <Link href="/library/faults" className="text-ink underline decoration-line underline-offset-4">
          the faults triage knows
        </Link>
        ,{' '}
        <Link href="/library/kit" className="text-ink underline decoration-line underline-offset-4">
          bench CPUs
        </Link>
        ,{' '}
        <Link href="/library/hours" className="text-ink underline decoration-line underline-offset-4">
          bench hours
        </Link>{' '}
        and{' '}
        <Link href="/library/bench" className="text-ink underline decoration-line underline-offset-4">
          shop figures
        </Link>
        .
      </p>
      <div className="mt-4 grid gap-x-10 md:grid-cols-2">
        <section aria-label="Sockets">
          <h2 className="border-b-2 border-ink pb-1">Sockets</h2>
          <ul>
            {sockets.map((s) => (
              <li key={s.id} className="flex items-baseline justify-between gap-4 border-b border-line py-2">
                <Link
                  href={`/library/sockets/${s.id}`}
                  className="text-[1.1rem] font-semibold underline decoration-line underline-offset-4"
                >
                  {s.name}
                </Link>
                <span className="text-right text-soft">
                  {s.kind}, <Count n={s.contactCount} /> contacts, pitch {s.pitchMm} mm; {s.boards}{' '}
                  {s.boards === 1 ? 'board' : 'boards'}
                </span>
              </li>
            ))}
          </ul>
          <AddSocket />
        </section>
        <section aria-label="Boards">
          <h2 className="border-b-2 border-ink pb-1">Boards</h2>
          <ul>
            {boards.map((b) => (
              <li key={b.id} className="flex items-baseline justify-between gap-4 border-b border-line py-2">
                <Link
                  href={`/library/boards/${b.id}`}
                  className="text-[1.1rem] font-semibold underline decoration-line underline-offset-4"
                >
                  {b.maker} {b.name}
                  {b.revision && ` rev ${b.revision}`}
                </Link>
                <span className="text-right text-soft">
                  {b.socketName ?? 'socket not named'}; {b.landmarks}{' '}
                  {b.landmarks === 1 ? 'landmark' : 'landmarks'}
                </span>
              </li>
            ))}
          </ul>
          <AddBoard sockets={sockets} />
        </section>
      </div>
    </>
  )
}

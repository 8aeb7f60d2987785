'use client'
import Link from 'next/link'
import { routeNow } from '@/core/firmware/route/on-route'
import { routeLine } from '@/core/firmware/route/route-line'
import { sayWay } from '@/core/firmware/route/way'
import { useJob } from '@/job/JobProvider'
import { Caution } from '@/ui/Caution'
import { RouteAnswer } from './RouteAnswer'
import type { RouteInHand } from './use-route'
import { Wish } from './Wish'

const knownBy = {
  seen: 'seen',
  written: 'as it was written',
  read: 'as it stands in what was read',
  broken: 'its code is broken off or damaged',
  nothing: 'nobody has seen it',
} as const

/** From what is in the chip and in the socket to what is wanted: the wish, the route, and following it. */
export function RoutePanel({ route: r }: { route: RouteInHand }) {
  const state = useJob((j) => j.state)
  const append = useJob((j) => j.append)
  const { diskLock } = state.intake.ticket
  const kept = state.firmware.route
  const { support, now, ask, planned } = r
  const board = state.intake.ticket.boardModelId
  if (!support)
    return (
      <section aria-label="Route">
        <p>
          Which release runs which CPU is not known of this board yet.{' '}
          {board ? (
            <Link href={`/library/boards/${board}#firmware`} className="underline">
              Give the library its releases and CPUs
            </Link>
          ) : (
            'Say on the ticket which board it is'
          )}
          .
        </p>
      </section>
    )
  const found = planned && typeof planned !== 'string' && planned.is === 'route' ? planned.answer.route : null
  const follow = ask && found && !r.planning ? () => append('route', routeLine(ask, found, ask.by)) : null
  const followed =
    kept !== null &&
    found !== null &&
    routeNow(state)?.is !== 'off' &&
    leads(kept.steps, found.steps) &&
    kept.want.cpu === r.chosen.cpu &&
    kept.want.release === r.chosen.release
  return (
    <section aria-label="Route" className="flex flex-col gap-3 pb-4">
      <p>
        In the chip{' '}
        <b className="num">{now.by === 'broken' ? 'nothing that starts' : (now.said ?? 'not known')}</b>{' '}
        <span className="text-soft">({knownBy[now.by]})</span>; in the socket{' '}
        <b>{now.cpu ?? now.other ?? 'no CPU'}</b>
      </p>
      {now.foreign && (
        <p role="alert" className="font-semibold text-ember">
          {now.said} is no release of this board’s table: correct the version, or{' '}
          <Link href={`/library/boards/${board}#firmware`} className="underline">
            add it
          </Link>
          .
        </p>
      )}
      {now.other && (
        <p className="text-brass">
          The table has no {now.other}: it is taken to run on no release. Note it by a name of the table if it
          is one.
        </p>
      )}
      <Wish route={r} />
      {ask && <RouteAnswer route={r} start={ask.start} onFollow={follow} followed={followed} />}
      {!ask && !now.foreign && (
        <p className="text-soft">Say which CPU is wanted, or which release is wanted.</p>
      )}
      <Caution>
        Before each write: file name, version inside and hash agree, and the supply is steady.{' '}
        {diskLock === 'no'
          ? 'No disk is locked by a security module.'
          : 'A new release can lock disks that a security module protects: ask for the recovery key first.'}
      </Caution>
      <p className="text-[0.9rem] text-soft">
        Ways of this board: {r.ways.map(sayWay).join('; ')}.{' '}
        {board && (
          <Link href={`/library/boards/${board}#firmware`} className="underline">
            its tables
          </Link>
        )}
      </p>
    </section>
  )
}

/** Whether what is left of a followed route is the planned one. */
const leads = (kept: readonly { say: string }[], planned: readonly { say: string }[]) =>
  planned.length <= kept.length &&
  planned.every((s, i) => kept[kept.length - planned.length + i]!.say === s.say)

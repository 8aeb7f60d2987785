import { percent } from '@/core/maths/percent'
import { Count } from '@/ui/reader'
import Link from 'next/link'
import { functionLaw } from '@/core/socket/contact/function-law'
import { fieldOf, trustOdds, trusts } from '@/core/socket/model/socket'
import { functionGroups } from '@/core/board/function-group'
import type { Socket } from '@/core/socket/model/socket'
import { SocketPicture } from './SocketPicture'

/** One socket: its field, what its contacts do, and how far that may be believed. */
export function SocketSheet({ socket }: { socket: Socket }) {
  const { totals } = fieldOf(socket)
  const groups = functionGroups.filter((g) => totals.has(g))
  return (
    <>
      <h1>
        {socket.name}: <Count n={socket.contacts.length} /> contacts, {socket.kind}, pitch {socket.pitchMm} mm
      </h1>
      <p className="mt-0.5 text-soft">
        {trusts
          .map((trust) => ({ trust, n: socket.contacts.filter((c) => c.trust === trust).length }))
          .filter(({ n }) => n > 0)
          .map(({ trust, n }) => `${n} ${trust} (${percent(trustOdds[trust])} right)`)
          .join(', ')}
        .{' '}
        <a
          href={`/api/sockets/${socket.id}`}
          download
          className="underline decoration-line underline-offset-4"
        >
          The table as CSV
        </a>
        ,{' '}
        <Link
          href={`/library/sockets/${socket.id}/edit`}
          className="underline decoration-line underline-offset-4"
        >
          make another field from it
        </Link>
      </p>
      <div className="mt-4 grid gap-8 md:grid-cols-[minmax(0,1.2fr)_minmax(0,1fr)]">
        <SocketPicture socket={socket} />
        <table className="self-start">
          <thead>
            <tr>
              <th>Function</th>
              <th>Contacts</th>
              <th>If one is lost</th>
            </tr>
          </thead>
          <tbody>
            {groups.map((g) => {
              const law = functionLaw[g]
              return (
                <tr key={g}>
                  <td>{g}</td>
                  <td className="num">{totals.get(g)}</td>
                  <td className="text-soft">
                    {law.kind === 'parallel' ? 'the others carry its current' : law.symptom}
                  </td>
                </tr>
              )
            })}
          </tbody>
        </table>
      </div>
    </>
  )
}

'use client'
import Link from 'next/link'
import { lookFirst, suspectsFor } from '@/core/intake/history'
import type { BoardModel } from '@/data/boards'
import type { SocketSummary } from '@/data/sockets'
import { useJob } from '@/job/JobProvider'
import { Photos } from '@/panels/Photos'
import { Pane, StationSurface } from '@/frame/StationSurface'
import { Claims } from './Claims'
import { Consent } from './Consent'
import { Offers } from './Offers'
import { OwnerLink } from './OwnerLink'
import { Owner } from './Owner'
import { BoardSection, FaultSection, TermsSection } from './TicketSections'
import { useTicket } from './use-ticket'

/** The ticket at the left; what follows from it at the right. */
export function IntakeStation({
  boards,
  sockets,
}: {
  boards: readonly BoardModel[]
  sockets: readonly SocketSummary[]
}) {
  const { form, keep, promise } = useTicket()
  return (
    <StationSurface station="intake">
      <div className="grid gap-x-6 lg:h-full lg:min-h-0 lg:grid-rows-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1.25fr)_minmax(0,1fr)]">
        <Pane className="ticket">
          <BoardSection form={form} keep={keep} boards={boards} sockets={sockets} />
          <FaultSection form={form} keep={keep} />
          <TermsSection form={form} keep={keep} promise={promise} />
          <Owner />
          <OwnerLink />
        </Pane>
        <Pane>
          <LookFirst />
          <Consent />
          <Claims />
          <Offers />
          <Photos />
          <Landmarks />
        </Pane>
      </div>
    </StationSurface>
  )
}

function LookFirst() {
  const ticket = useJob((j) => j.state.intake.ticket)
  const suspects = suspectsFor(ticket.history)
  return (
    // Room for what one or two ticks add: nothing below moves under the hand that ticks.
    <section className="min-h-52 border-t border-line pt-2.5 pb-4">
      <h2>Look first, before any power</h2>
      <ol className="mt-1 list-decimal pl-5 leading-snug marker:text-soft">
        {lookFirst(ticket.history).map((look) => (
          <li key={look} className="py-0.5">
            {look}
          </li>
        ))}
      </ol>
      {suspects.length > 0 && (
        <p className="mt-1 text-soft">This history makes likelier: {suspects.join(', ')}.</p>
      )}
    </section>
  )
}

/** Where things are on this board; last, because it comes from the server a moment after the board was chosen. */
function Landmarks() {
  const boardModelId = useJob((j) => j.state.intake.ticket.boardModelId)
  const landmarks = useJob((j) => j.landmarks)
  if (!boardModelId) return null
  return (
    <section className="border-t border-line pt-2.5 pb-4">
      <h2>Where things are</h2>
      {landmarks.length > 0 && (
        <dl className="mt-2">
          {landmarks.map((mark) => (
            <div
              key={mark.id}
              className="grid grid-cols-[7rem_1fr] gap-3 border-t border-dashed border-line py-1 leading-snug"
            >
              <dt className="text-soft">{mark.what}</dt>
              <dd>
                {mark.place}
                {mark.blockedBy && <span className="text-soft">; in the way: {mark.blockedBy}</span>}
              </dd>
            </div>
          ))}
        </dl>
      )}
      <Link
        href={`/library/boards/${boardModelId}`}
        className="mt-1 inline-block underline decoration-line underline-offset-4"
      >
        {landmarks.length > 0 ? 'This board in the library' : 'Note where things are on this board'}
      </Link>
    </section>
  )
}

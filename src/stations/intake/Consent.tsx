'use client'
import { useState } from 'react'
import { risksFor } from '@/core/intake/history'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { useReader } from '@/ui/reader'
import { When } from '@/ui/When'
import { SignatureSheet } from '@/frame/SignatureSheet'

/** The risks in plain words, the limit, and how the owner agreed. */
export function Consent() {
  const { money } = useReader()
  const tag = useJob((j) => j.tag)
  const ticket = useJob((j) => j.state.intake.ticket)
  const consent = useJob((j) => j.state.intake.consent)
  const append = useJob((j) => j.append)
  const [signing, setSigning] = useState(false)
  const risks = risksFor(ticket.history, ticket.diskLock)
  const fresh = risks.filter((risk) => !consent?.risks.includes(risk))
  const agree = (how: string, signature: string | null) =>
    append('consent', { risks, limitMinor: ticket.limitMinor, signature, how })
  return (
    <section id="consent" className="flex min-h-72 flex-col border-t border-line pt-2.5 pb-4">
      <h2>Risks the owner agrees to</h2>
      <ul className="mt-1 list-[square] pl-5 leading-snug marker:text-slate">
        {risks.map((risk) => (
          <li key={risk} className="py-0.5">
            {risk}
            {consent && fresh.includes(risk) && (
              <b className="font-semibold text-brass"> new since the signature</b>
            )}
          </li>
        ))}
      </ul>
      <p className="mt-auto pt-1 text-soft">
        {ticket.limitMinor === null
          ? 'No price limit is named yet.'
          : `Up to ${money(ticket.limitMinor)} without asking again.`}
      </p>
      {consent && fresh.length === 0 ? (
        <div className="mt-2 flex min-h-22 flex-wrap content-start items-center gap-x-4">
          <p className="font-semibold text-verd">
            Agreed, {consent.how}, <When at={consent.at} />
          </p>
          {consent.signature && (
            <img
              src={`/api/jobs/${tag}/files/${consent.signature}`}
              alt="The owner’s signature"
              className="h-11 bg-white px-2"
            />
          )}
        </div>
      ) : (
        <div className="mt-2 flex min-h-22 flex-wrap content-start items-center gap-2">
          <Button look="first" onClick={() => setSigning(true)}>
            Sign here
          </Button>
          <Button onClick={() => agree('signed on paper, kept with the board', null)}>Signed on paper</Button>
          <Button onClick={() => agree('by telephone', null)}>Agreed by telephone</Button>
        </div>
      )}
      <SignatureSheet
        open={signing}
        title="Read this to the owner, then sign"
        lines={risks}
        onClose={() => setSigning(false)}
        onSigned={(sha256) => {
          agree('signed here', sha256)
          setSigning(false)
        }}
      />
    </section>
  )
}

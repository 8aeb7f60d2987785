'use client'
import { useActionState } from 'react'
import type { OfferSeen, OwnerSees } from '@/core/job/owner-sees'
import { Button } from '@/ui/Button'
import { useReader } from '@/ui/reader'
import { answerOfferAction, reportAction } from './owner-actions'
import type { OwnerAnswer } from './owner-actions'

const nothing: OwnerAnswer = { say: '', fault: '' }

/** One board, as its owner sees it. */
export function OwnerPage({
  token,
  tag,
  sees: { board, theirWords, where, limitMinor, asked, answered, ended, mayReport },
  likely,
}: {
  token: string
  tag: string
  sees: OwnerSees
  /** When it is likely ready; null where nobody can say. */
  likely: string | null
}) {
  const { money } = useReader()
  return (
    <main className="mx-auto max-w-xl p-6 pt-[8vh]">
      <p className="num inline-block rounded-[3px_11px_11px_3px] border-[1.5px] border-ink py-px pr-3 pl-2">
        {tag}
      </p>
      <h1 className="mt-3 text-2xl">{where}</h1>
      <p className="mt-1 text-soft">
        {[board, theirWords && `“${theirWords}”`].filter(Boolean).join(', ') || 'Your board'}
      </p>
      {likely !== null && (
        <p className="mt-3">Likely ready by {likely}, as things stand in the workshop today.</p>
      )}
      {limitMinor !== null && !ended && (
        <p className="mt-1 text-soft">Agreed: not more than {money(limitMinor)} without asking you.</p>
      )}
      {asked.map((offer) => (
        <Asked key={offer.seq} token={token} offer={offer} />
      ))}
      {answered.length > 0 && (
        <section aria-label="What you answered" className="mt-6">
          <h2>What you answered</h2>
          <ul>
            {answered.map((offer) => (
              <li key={offer.seq} className="border-b border-line py-1.5">
                {offer.text}: <b className="font-semibold">{offer.approved ? 'yes' : 'no'}</b>
              </li>
            ))}
          </ul>
        </section>
      )}
      {ended && (
        <section aria-label="How it ended" className="mt-6">
          {ended.text && <p>{ended.text}</p>}
          {ended.priceMinor !== null && <p className="mt-1">To pay: {money(ended.priceMinor)}.</p>}
          {ended.advice.length > 0 && (
            <>
              <h2 className="mt-4">So that it does not happen again</h2>
              <ul className="list-disc pl-5">
                {ended.advice.map((text) => (
                  <li key={text}>{text}</li>
                ))}
              </ul>
            </>
          )}
        </section>
      )}
      {mayReport && <Report token={token} />}
    </main>
  )
}

function Asked({ token, offer }: { token: string; offer: OfferSeen }) {
  const { money } = useReader()
  const [{ say, fault }, act, busy] = useActionState(answerOfferAction, nothing)
  return (
    <section aria-label="We ask you" className="mt-6 border-l-4 border-brass bg-sheet p-4">
      <h2>We ask you</h2>
      <p className="mt-1 text-lg">{offer.text}</p>
      {offer.limitMinor !== null && <p>It would cost up to {money(offer.limitMinor)}.</p>}
      <form action={act} className="mt-3 flex gap-3">
        <input type="hidden" name="token" value={token} />
        <input type="hidden" name="offer" value={offer.seq} />
        <Button type="submit" look="first" name="approved" value="yes" disabled={busy}>
          Yes, go on
        </Button>
        <Button type="submit" name="approved" value="no" disabled={busy}>
          No
        </Button>
      </form>
      <Said say={say} fault={fault} />
    </section>
  )
}

function Report({ token }: { token: string }) {
  const [{ say, fault }, act, busy] = useActionState(reportAction, nothing)
  return (
    <section aria-label="How is it going" className="mt-8 border-t border-line pt-4">
      <h2>How is it going?</h2>
      <p className="text-soft">A word some weeks later helps the next board that comes in like yours.</p>
      <form action={act} className="mt-2">
        <input type="hidden" name="token" value={token} />
        <label className="block">
          <span className="text-[0.94rem] text-soft">A few words, if you like</span>
          <input name="text" maxLength={300} className="mt-1 w-full" />
        </label>
        <div className="mt-3 flex gap-3">
          <Button type="submit" look="first" name="holds" value="yes" disabled={busy}>
            It runs
          </Button>
          <Button type="submit" name="holds" value="no" disabled={busy}>
            It fails again
          </Button>
        </div>
      </form>
      <Said say={say} fault={fault} />
    </section>
  )
}

const Said = ({ say, fault }: OwnerAnswer) => (
  <p role="status" className={`mt-2 min-h-[1.4em] ${fault ? 'font-semibold text-ember' : 'text-verd'}`}>
    {fault || say}
  </p>
)

'use client'
import { useState } from 'react'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { TextField } from '@/ui/Field'
import { crowns, readCrowns } from '@/core/maths/money'

/** A changed offer holds the hand-back until the owner has answered it. */
export function Offers() {
  const offers = useJob((j) => j.state.intake.offers)
  const put = useJob((j) => j.put)
  const [making, setMaking] = useState(false)
  return (
    <section id="offers" className="border-t border-line pt-2.5 pb-4">
      <div className="flex items-baseline justify-between">
        <h2>Changed offers</h2>
        {!making && (
          <Button look="bare" onClick={() => setMaking(true)}>
            Change the offer
          </Button>
        )}
      </div>
      {offers.length === 0 && !making && (
        <p className="text-soft">None. When the work grows past the limit, ask before going on.</p>
      )}
      <ol>
        {offers.map((offer) => (
          <li key={offer.seq} className="border-b border-dashed border-line py-1.5">
            <p>
              {offer.text}
              <span className="text-soft">
                {offer.limitMinor !== null && `, up to ${crowns(offer.limitMinor)}`}
                {offer.minutes !== null && `, ${offer.minutes} min`}
              </span>
            </p>
            {offer.approved === null ? (
              <p className="flex flex-wrap items-center gap-2">
                <b className="font-semibold text-ember">Hand-back is held.</b>
                <Button
                  look="bare"
                  onClick={() =>
                    put('offer answered', { offer: offer.seq, approved: true, how: 'by telephone' })
                  }
                >
                  Owner approves
                </Button>
                <Button
                  look="bare"
                  onClick={() =>
                    put('offer answered', { offer: offer.seq, approved: false, how: 'by telephone' })
                  }
                >
                  Owner refuses
                </Button>
              </p>
            ) : (
              <p className={offer.approved ? 'text-verd' : 'text-ember'}>
                {offer.approved ? 'approved' : 'refused'}
              </p>
            )}
          </li>
        ))}
      </ol>
      {making && <NewOffer onDone={() => setMaking(false)} />}
    </section>
  )
}

function NewOffer({ onDone }: { onDone: () => void }) {
  const put = useJob((j) => j.put)
  const [text, setText] = useState('')
  const [limit, setLimit] = useState('')
  const [minutes, setMinutes] = useState('')
  const [tried, setTried] = useState(false)
  const limitMinor = readCrowns(limit)
  const noText = tried && !text.trim() ? 'What changes? One sentence the owner can answer.' : undefined
  const noLimit = tried && Number.isNaN(limitMinor) ? 'An amount in crowns, like 450.' : undefined
  const noMinutes = tried && minutes !== '' && !/^\d+$/.test(minutes) ? 'Whole minutes.' : undefined
  return (
    <form
      className="mt-2 grid grid-cols-2 gap-3"
      onSubmit={(event) => {
        event.preventDefault()
        setTried(true)
        if (!text.trim() || Number.isNaN(limitMinor) || (minutes !== '' && !/^\d+$/.test(minutes))) return
        put('offer', { text: text.trim(), limitMinor, minutes: minutes === '' ? null : Number(minutes) })
        onDone()
      }}
    >
      <TextField
        label="What changes"
        wide
        value={text}
        onChange={(e) => setText(e.target.value)}
        error={noText}
        placeholder="transplant four contacts from a donor"
        autoFocus
      />
      <TextField
        label="New price limit, kr"
        value={limit}
        onChange={(e) => setLimit(e.target.value)}
        error={noLimit}
        inputMode="decimal"
      />
      <TextField
        label="New minutes"
        value={minutes}
        onChange={(e) => setMinutes(e.target.value)}
        error={noMinutes}
        inputMode="numeric"
      />
      <div className="col-span-full flex gap-2">
        <Button type="submit" look="first">
          Put it to the owner
        </Button>
        <Button look="bare" onClick={onDone}>
          Not now
        </Button>
      </div>
    </form>
  )
}

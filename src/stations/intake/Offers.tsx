'use client'
import { useState } from 'react'
import { useForm } from 'react-hook-form'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { TextField } from '@/ui/Field'
import { useReader } from '@/ui/reader'

/** A changed offer holds the hand-back until the owner has answered it. */
export function Offers() {
  const { money } = useReader()
  const offers = useJob((j) => j.state.intake.offers)
  const append = useJob((j) => j.append)
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
                {offer.limitMinor !== null && `, up to ${money(offer.limitMinor)}`}
                {offer.minutes !== null && `, ${offer.minutes} min`}
              </span>
            </p>
            {offer.approved === null ? (
              <p className="flex flex-wrap items-center gap-2">
                <b className="font-semibold text-ember">Hand-back is held.</b>
                <Button
                  look="bare"
                  onClick={() =>
                    append('offer answered', { offer: offer.seq, approved: true, how: 'by telephone' })
                  }
                >
                  Owner approves
                </Button>
                <Button
                  look="bare"
                  onClick={() =>
                    append('offer answered', { offer: offer.seq, approved: false, how: 'by telephone' })
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

interface OfferForm {
  text: string
  limit: string
  minutes: string
}

function NewOffer({ onDone }: { onDone: () => void }) {
  const { currency, readMoney } = useReader()
  const append = useJob((j) => j.append)
  const { register, handleSubmit, formState } = useForm<OfferForm>({
    defaultValues: { text: '', limit: '', minutes: '' },
  })
  const { errors } = formState
  const keep = handleSubmit(({ text, limit, minutes }) => {
    append('offer', {
      text: text.trim(),
      limitMinor: readMoney(limit),
      minutes: minutes === '' ? null : Number(minutes),
    })
    onDone()
  })
  return (
    <form className="mt-2 grid grid-cols-2 gap-3" onSubmit={keep}>
      <TextField
        label="What changes"
        wide
        {...register('text', {
          validate: (text) => text.trim() !== '' || 'What changes? One sentence the owner can answer.',
        })}
        error={errors.text?.message}
        placeholder="transplant four contacts from a donor"
        autoFocus
      />
      <TextField
        label={`New price limit, ${currency}`}
        {...register('limit', {
          validate: (limit) => !Number.isNaN(readMoney(limit)) || 'An amount, like 450.',
        })}
        error={errors.limit?.message}
        inputMode="decimal"
      />
      <TextField
        label="New minutes"
        {...register('minutes', { pattern: { value: /^\d*$/, message: 'Whole minutes.' } })}
        error={errors.minutes?.message}
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

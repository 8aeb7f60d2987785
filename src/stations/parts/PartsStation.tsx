'use client'
import type { Bodies } from '@/core/slices'

import { useForm } from 'react-hook-form'
import { Ledger } from '@/panels/Ledger'
import { useJob } from '@/job/JobProvider'
import { Photos } from '@/panels/Photos'
import { Pane, StationSurface } from '@/frame/StationSurface'
import { Button } from '@/ui/Button'
import { Caution } from '@/ui/Caution'
import { ChoiceField } from '@/ui/ChoiceField'
import { TextField } from '@/ui/Field'

type Did = Bodies['part']['did']
const dids: readonly Did[] = ['found missing', 'found damaged', 'measured', 'taken off', 'fitted']
const whichPart = 'Which part? Its name on the board, or where it is: R214, or “left of the chip”.'

/** Small parts one by one: how each was found, what it was, what became of it. */
export function PartsStation() {
  return (
    <StationSurface station="parts">
      <div className="grid gap-x-6 lg:h-full lg:min-h-0 lg:grid-rows-[minmax(0,1fr)] lg:grid-cols-[minmax(0,1.15fr)_minmax(0,1fr)]">
        <Pane>
          <PartLives />
          <Photos />
        </Pane>
        <Pane>
          <NotePart />
          <div className="border-t border-line py-3">
            <Ledger />
          </div>
          <Caution>
            Power, feedback, straps, resets and clocks are never guessed: look them up or measure a twin. Hot
            air burns: fume extraction, eye protection, nothing flammable near. Lead and flux: wash hands.
          </Caution>
        </Pane>
      </div>
    </StationSurface>
  )
}

/** What each part has gone through, from found to fitted. */
function PartLives() {
  const parts = useJob((j) => j.state.parts.noted)
  const refs = [...new Set(parts.map((p) => p.ref))]
  return (
    <section className="pt-2.5 pb-4">
      <h2>Parts</h2>
      {refs.length === 0 && (
        <p className="text-soft">
          None noted. Look along the edges of the socket and round the firmware chip: empty pads with shiny
          solder, cracked ends, a part at an angle.
        </p>
      )}
      <dl>
        {refs.map((ref) => {
          const life = parts.filter((p) => p.ref === ref)
          const settled = life.at(-1)!.did === 'fitted'
          return (
            <div key={ref} className="grid grid-cols-[6rem_1fr] gap-3 border-b border-line py-2 leading-snug">
              <dt className="num text-[1.1rem]">{ref}</dt>
              <dd>
                {life.map((p, i) => (
                  <span key={p.seq}>
                    {i > 0 && ', then '}
                    <span
                      className={
                        i === life.length - 1 ? `font-semibold ${settled ? 'text-verd' : ''}` : 'text-soft'
                      }
                    >
                      {p.did}
                    </span>
                    {[p.value, p.text].filter(Boolean).length > 0 && (
                      <span className="text-soft"> ({[p.value, p.text].filter(Boolean).join(', ')})</span>
                    )}
                  </span>
                ))}
                {life.findLast((p) => p.side)?.side && (
                  <span className="text-soft">; {life.findLast((p) => p.side)!.side} side</span>
                )}
              </dd>
            </div>
          )
        })}
      </dl>
    </section>
  )
}

interface PartForm {
  ref: string
  did: Did
  side: 'top' | 'bottom'
  value: string
  text: string
}

function NotePart() {
  const append = useJob((j) => j.append)
  const { register, control, handleSubmit, reset, formState } = useForm<PartForm>({
    defaultValues: { ref: '', did: 'found missing', side: 'top', value: '', text: '' },
  })
  const keep = handleSubmit(({ ref, did, side, value, text }) => {
    append('part', {
      ref: ref.trim(),
      did,
      side,
      ...(value.trim() ? { value: value.trim() } : {}),
      ...(text.trim() ? { text: text.trim() } : {}),
    })
    reset({ ref: '', did, side, value: '', text: '' })
  })
  return (
    <form className="flex flex-col gap-2.5 pt-2.5 pb-4" onSubmit={keep}>
      <h2>Note a part</h2>
      <TextField
        label="Part"
        {...register('ref', { validate: (ref) => ref.trim() !== '' || whichPart })}
        error={formState.errors.ref?.message}
        placeholder="R214"
        className="num"
      />
      <ChoiceField label="It was" control={control} name="did" options={dids} />
      <ChoiceField label="Side" control={control} name="side" options={['top', 'bottom']} />
      <div className="grid grid-cols-[7rem_1fr] gap-3">
        <TextField label="Value" {...register('value')} placeholder="33 Ω" className="num" />
        <TextField label="How it is known" {...register('text')} placeholder="twin beside it measures 33 Ω" />
      </div>
      <Button type="submit" look="first" className="self-start">
        Note the part
      </Button>
    </form>
  )
}

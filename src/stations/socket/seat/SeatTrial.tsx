'use client'
import { percent } from '@/core/maths/percent'
import { useForm } from 'react-hook-form'
import { corners, drops, readSeating } from '@/core/socket/seat/seat-reading'
import type { Corner, Drop } from '@/core/socket/seat/seat-reading'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { Caution } from '@/ui/Caution'
import { ChoiceField } from '@/ui/ChoiceField'
import { TextField } from '@/ui/Field'
import { When } from '@/ui/When'
import type { Surface } from '@/stations/socket/map/use-surface'

const dropWords = {
  flat: 'fell flat by itself',
  'light push': 'wanted an even light push',
  proud: 'one corner stays proud',
  'needed force': 'needed force',
} as const

/** Seat and try: how the CPU went in says whether something still stands proud. */
export function SeatTrial({ surface }: { surface: Surface }) {
  const seats = useJob((j) => j.state.socket.seats)
  const ticketCpu = useJob((j) => j.state.intake.ticket.cpu)
  const last = seats.at(-1)
  return (
    <section id="seat">
      <h3 className="font-semibold">Seat and try</h3>
      <ul>
        {seats.map((seat) => (
          <li key={seat.seq} className="border-b border-line py-1">
            {seat.cpu}:{' '}
            <span className={seat.drop === 'flat' ? 'text-verd' : 'font-semibold text-ember'}>
              {dropWords[seat.drop]}
            </span>
            <span className="text-soft">
              , <When at={seat.at} as="time" />
            </span>
          </li>
        ))}
      </ul>
      <NoteSeat key={ticketCpu} ticketCpu={ticketCpu} pins={surface.socket.kind === 'pin-grid'} />
      {last && last.drop !== 'flat' && (
        <ol className="mt-3" aria-label="What may keep it from falling flat">
          {readSeating(surface.socket, surface.marks, last)
            .slice(0, 4)
            .map((r) => (
              <li key={r.cause} className="border-b border-line py-1 leading-snug">
                <b className="font-semibold">{r.cause}</b>, {percent(r.odds)}
                {r.contacts.length > 0 && (
                  <>
                    {' '}
                    (
                    {r.contacts.slice(0, 4).map((name, i) => (
                      <span key={name}>
                        {i > 0 && ', '}
                        <button type="button" className="num underline" onClick={() => surface.go(name)}>
                          {name}
                        </button>
                      </span>
                    ))}
                    )
                  </>
                )}
                : <span className="text-soft">{r.look}.</span>
              </li>
            ))}
        </ol>
      )}
      <div className="mt-2">
        <Caution>
          Never press a CPU down that does not fall flat: lift it out and find what stands proud. No power
          without a heatsink.
        </Caution>
      </div>
    </section>
  )
}

interface SeatForm {
  cpu: string
  drop: Drop | 'not noted'
  heatsink: 'on' | 'off' | 'not noted'
  corner: Corner | 'none'
  turned: 'met' | 'turned'
}

function NoteSeat({ ticketCpu, pins }: { ticketCpu: string; pins: boolean }) {
  const append = useJob((j) => j.append)
  const { register, control, handleSubmit, watch, setError, setValue, formState } = useForm<SeatForm>({
    defaultValues: {
      cpu: ticketCpu,
      drop: 'not noted',
      heatsink: 'not noted',
      corner: 'none',
      turned: 'met',
    },
  })
  const { errors } = formState
  const went = watch('drop')
  const keep = handleSubmit(({ cpu, drop, heatsink, corner, turned }) => {
    if (drop === 'not noted') return setError('drop', { message: 'How did it go in?' })
    append('seat', {
      cpu: cpu.trim(),
      drop,
      ...(heatsink === 'not noted' ? {} : { heatsink: heatsink === 'on' }),
      ...(drop === 'flat' || corner === 'none' ? {} : { corner }),
      ...(drop === 'flat' ? {} : { turned: turned === 'turned' }),
    })
    setValue('drop', 'not noted')
    setValue('heatsink', 'not noted')
  })
  return (
    <form className="mt-2 flex flex-col gap-2" onSubmit={keep}>
      <TextField
        label="CPU"
        {...register('cpu', { validate: (cpu) => cpu.trim() !== '' || 'Which CPU was it?' })}
        error={errors.cpu?.message}
      />
      <ChoiceField
        label="It"
        control={control}
        name="drop"
        options={pins ? drops : drops.filter((d) => d !== 'light push')}
        words={dropWords}
        none="not noted"
      />
      {errors.drop && (
        <p role="alert" className="font-semibold text-ember">
          {errors.drop.message}
        </p>
      )}
      {went !== 'flat' && went !== 'not noted' && (
        <>
          <ChoiceField label="Corner" control={control} name="corner" options={corners} none="none" />
          <ChoiceField
            label="Its marks"
            control={control}
            name="turned"
            options={['met', 'turned']}
            words={{ met: 'met', turned: 'did not meet' }}
          />
        </>
      )}
      <ChoiceField
        label="Heatsink"
        control={control}
        name="heatsink"
        options={['on', 'off']}
        none="not noted"
      />
      <Button type="submit" look="first" className="self-start">
        Note the seating
      </Button>
    </form>
  )
}

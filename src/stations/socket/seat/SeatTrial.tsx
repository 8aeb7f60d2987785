'use client'
import { useState } from 'react'
import { corners, drops, readSeating } from '@/core/socket/seat/seat-reading'
import type { Corner, Drop } from '@/core/socket/seat/seat-reading'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { Caution } from '@/ui/Caution'
import { Choice } from '@/ui/Choice'
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
  const put = useJob((j) => j.put)
  const [cpu, setCpu] = useState<string | null>(null)
  const [drop, setDrop] = useState<Drop | 'not noted'>('not noted')
  const [heatsink, setHeatsink] = useState<'on' | 'off' | 'not noted'>('not noted')
  const [corner, setCorner] = useState<Corner | 'none'>('none')
  const [turned, setTurned] = useState<'met' | 'turned'>('met')
  const [faults, setFaults] = useState<{ cpu?: string; drop?: string }>({})
  const name = (cpu ?? ticketCpu).trim()
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
      <form
        className="mt-2 flex flex-col gap-2"
        onSubmit={(event) => {
          event.preventDefault()
          setFaults({
            cpu: name ? undefined : 'Which CPU was it?',
            drop: drop === 'not noted' ? 'How did it go in?' : undefined,
          })
          if (!name || drop === 'not noted') return
          put('seat', {
            cpu: name,
            drop,
            ...(heatsink === 'not noted' ? {} : { heatsink: heatsink === 'on' }),
            ...(drop === 'flat' || corner === 'none' ? {} : { corner }),
            ...(drop === 'flat' ? {} : { turned: turned === 'turned' }),
          })
          setDrop('not noted')
          setHeatsink('not noted')
        }}
      >
        <TextField
          label="CPU"
          value={cpu ?? ticketCpu}
          onChange={(e) => setCpu(e.target.value)}
          error={faults.cpu}
        />
        <Choice
          label="It"
          value={drop}
          options={surface.socket.kind === 'pin-grid' ? [...drops] : drops.filter((d) => d !== 'light push')}
          words={dropWords}
          none="not noted"
          onChange={setDrop}
        />
        {faults.drop && (
          <p role="alert" className="font-semibold text-ember">
            {faults.drop}
          </p>
        )}
        {drop !== 'flat' && drop !== 'not noted' && (
          <>
            <Choice label="Corner" value={corner} options={[...corners]} none="none" onChange={setCorner} />
            <Choice
              label="Its marks"
              value={turned}
              options={['met', 'turned']}
              words={{ met: 'met', turned: 'did not meet' }}
              onChange={setTurned}
            />
          </>
        )}
        <Choice
          label="Heatsink"
          value={heatsink}
          options={['on', 'off']}
          none="not noted"
          onChange={setHeatsink}
        />
        <Button type="submit" look="first" className="self-start">
          Note the seating
        </Button>
      </form>
      {last && last.drop !== 'flat' && (
        <ol className="mt-3" aria-label="What may keep it from falling flat">
          {readSeating(surface.socket, surface.marks, last)
            .slice(0, 4)
            .map((r) => (
              <li key={r.cause} className="border-b border-line py-1 leading-snug">
                <b className="font-semibold">{r.cause}</b>, {Math.round(100 * r.odds)} of 100
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

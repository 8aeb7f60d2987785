'use client'
import { useState } from 'react'
import { useJob } from '@/stations/job/JobProvider'
import { Button } from '@/ui/Button'
import { Caution } from '@/ui/Caution'
import { Choice } from '@/ui/Choice'
import { TextField } from '@/ui/Field'
import { When } from '@/ui/When'

const dropWords = {
  flat: 'fell flat by itself',
  proud: 'one corner stays proud',
  'needed force': 'needed force',
} as const

/** Seat and try: how the CPU went in says whether something still stands proud. */
export function SeatTrial() {
  const seats = useJob((j) => j.state.seats)
  const ticketCpu = useJob((j) => j.state.ticket.cpu)
  const put = useJob((j) => j.put)
  const [cpu, setCpu] = useState<string | null>(null)
  const [drop, setDrop] = useState<'flat' | 'proud' | 'needed force'>('flat')
  const [heatsink, setHeatsink] = useState<'on' | 'off'>('on')
  const [fault, setFault] = useState(false)
  const name = (cpu ?? ticketCpu).trim()
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
          setFault(!name)
          if (name) put('seat', { cpu: name, drop, heatsink: heatsink === 'on' })
        }}
      >
        <TextField
          label="CPU"
          value={cpu ?? ticketCpu}
          onChange={(e) => setCpu(e.target.value)}
          error={fault ? 'Which CPU was it?' : undefined}
        />
        <Choice
          label="It"
          value={drop}
          options={['flat', 'proud', 'needed force']}
          words={dropWords}
          onChange={setDrop}
        />
        <Choice label="Heatsink" value={heatsink} options={['on', 'off']} onChange={setHeatsink} />
        <Button type="submit" look="first" className="self-start">
          Note the seating
        </Button>
      </form>
      <div className="mt-2">
        <Caution>
          Never press a CPU down that does not fall flat: lift it out and find what stands proud. No power
          without a heatsink.
        </Caution>
      </div>
    </section>
  )
}

'use client'
import Link from 'next/link'
import { GateShape, lampTone, lampWords } from '@/ui/GateLamp'
import { useJob } from '@/job/JobProvider'
import { Photos } from '@/panels/Photos'
import { Tape } from './Tape'

/** On a telephone: photos go on the job, the gate and the tape are read. The stations need a bench. */
export function PhoneFrame() {
  const tag = useJob((j) => j.tag)
  const ticket = useJob((j) => j.state.intake.ticket)
  const gate = useJob((j) => j.gate)
  return (
    <main className="flex min-h-screen flex-col gap-4 bg-sheet p-4">
      <header className="flex items-center gap-4">
        <Link
          href="/"
          className="num shrink-0 rounded-[3px_14px_14px_3px] border-[1.5px] border-ink py-0.5 pr-4 pl-2.5 text-xl"
          aria-label={`${tag}, back to the bench`}
        >
          {tag}
        </Link>
        <h1 className="min-w-0 text-base!">
          {[ticket.board, ticket.use].filter(Boolean).join(', ') || 'no board named yet'}
        </h1>
      </header>
      <p className={`flex items-center gap-3 rounded-sheet px-4 py-2 leading-tight ${lampTone[gate.lamp]}`}>
        <GateShape lamp={gate.lamp} />
        <span>
          <b className="block font-bold">{lampWords[gate.lamp]}</b>
          <span className="text-ink">{gate.reasons[0]?.text ?? 'nothing known speaks against it'}</span>
        </span>
      </p>
      <Photos />
      <Tape />
      <p className="text-soft">
        The stations need a wider screen: turn the telephone, or take a tablet or a laptop.
      </p>
    </main>
  )
}

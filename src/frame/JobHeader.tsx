'use client'
import { Popover, PopoverButton, PopoverPanel } from '@headlessui/react'
import Link from 'next/link'
import { GateShape, lampTone, lampWords } from '@/ui/GateLamp'
import { useState } from 'react'
import { useKeyHint, useKeys } from './use-keys'
import { SecondOpinion } from './SecondOpinion'
import { WorthIt } from './WorthIt'
import { BenchClock } from './BenchClock'
import { useJob } from '@/job/JobProvider'
import { useGoTo } from './StationLink'

/** Tag, board, the owner's words; the power gate; the clock. Always in sight. */
export function JobHeader() {
  const { tag, ticket } = { tag: useJob((j) => j.tag), ticket: useJob((j) => j.state.intake.ticket) }
  return (
    <header className="no-print col-span-full flex items-center gap-4 border-b-2 border-ink px-4 max-lg:flex-wrap max-lg:py-1.5">
      <Link href="/" className="text-[0.9rem] text-soft underline decoration-line underline-offset-4">
        Bench
      </Link>
      <span className="num shrink-0 rounded-[3px_14px_14px_3px] border-[1.5px] border-ink py-0.5 pr-4 pl-2.5 text-lg">
        {tag}
      </span>
      <div className="min-w-0 flex-1 leading-tight">
        <b className="block truncate font-semibold">
          {[ticket.board, ticket.revision && `rev ${ticket.revision}`, ticket.use]
            .filter(Boolean)
            .join(', ') || 'no board named yet'}
        </b>
        <span className="block truncate text-[0.92rem] text-soft">
          {ticket.complaint ? `owner: ${ticket.complaint}` : 'the owner’s words are not noted yet'}
        </span>
      </div>
      <Aside />
      <Gate />
      <BenchClock />
    </header>
  )
}

/** At any moment: whether going on is worth it, and a second opinion. */
function Aside() {
  const [open, setOpen] = useState<'worth' | 'ask' | null>(null)
  const hint = useKeyHint()
  useKeys({ worthIt: () => setOpen('worth'), secondOpinion: () => setOpen('ask') })
  const close = () => setOpen(null)
  const link = (which: 'worth' | 'ask', say: string, key: 'worthIt' | 'secondOpinion') => (
    <button
      type="button"
      className="block underline decoration-line underline-offset-4"
      onClick={() => setOpen(which)}
    >
      {say} {hint(key) && <kbd className="num">{hint(key)}</kbd>}
    </button>
  )
  return (
    <>
      <div className="shrink-0 text-[0.9rem] leading-tight text-soft">
        {link('worth', 'worth it?', 'worthIt')}
        {link('ask', 'second opinion', 'secondOpinion')}
      </div>
      <WorthIt open={open === 'worth'} onClose={close} onAsk={() => setOpen('ask')} />
      <SecondOpinion open={open === 'ask'} onClose={close} />
    </>
  )
}

function Gate() {
  const gate = useJob((j) => j.gate)
  const goTo = useGoTo()
  const first = gate.reasons[0]
  return (
    <Popover className="relative shrink-0">
      <PopoverButton
        data-gate={gate.lamp}
        className={`flex max-w-[21rem] items-center gap-3 rounded-sheet px-3.5 py-1 text-left leading-tight ${lampTone[gate.lamp]}`}
      >
        <GateShape lamp={gate.lamp} />
        <span className="min-w-0" aria-live="polite">
          <span className="flex items-baseline justify-between gap-4">
            <b className="text-[1.06rem] font-bold">{lampWords[gate.lamp]}</b>
            {gate.reasons.length > 1 && <span className="text-[0.88rem]">{gate.reasons.length} reasons</span>}
          </span>
          <span className="block truncate text-[0.9rem] text-ink">
            {first?.text ?? 'nothing known speaks against it'}
          </span>
        </span>
      </PopoverButton>
      <PopoverPanel className="absolute right-0 z-40 mt-2 w-[30rem] rounded-sheet border-2 border-ink bg-sheet p-5">
        {({ close }) => (
          <>
            <h2 className="mb-2">
              {gate.reasons.length === 0 ? 'Nothing known speaks against power' : 'Why, most serious first'}
            </h2>
            <ul className="max-h-[50vh] overflow-y-auto">
              {gate.reasons.map((reason) => (
                <li key={`${reason.code} ${reason.text}`} className="border-t border-line py-2">
                  <p
                    className={
                      reason.level === 'closed' ? 'font-semibold text-ember' : 'font-semibold text-brass'
                    }
                  >
                    {reason.level === 'closed' ? 'Do not power: ' : 'Limit: '}
                    <span className="text-ink">{reason.text}</span>
                  </p>
                  <button
                    type="button"
                    className="underline decoration-line underline-offset-4 hover:decoration-ink"
                    onClick={() => {
                      close()
                      goTo(reason.at.station, reason.at.part)
                    }}
                  >
                    {reason.at.say}
                  </button>
                </li>
              ))}
            </ul>
            <p className="mt-3 text-[0.88rem] text-soft">
              The lamp advises. Local rules and licensed practice come first; unplug before you touch.
            </p>
          </>
        )}
      </PopoverPanel>
    </Popover>
  )
}

'use client'
import { useEffect, useState } from 'react'
import type { UseFormRegisterReturn } from 'react-hook-form'
import type { CpuThere, Exchange as Found, Match } from '@/core/shop/exchange'
import { upperFirst } from '@/core/sentence'
import { useJob } from '@/job/JobProvider'

type Asked = { readonly is: 'asking' } | { readonly is: 'failed' } | ({ readonly is: 'found' } & Found)

/** Which board of verified stock stands in for this one, or what to buy; it is proved before it goes into the case. */
export function Exchange({ chosen }: { chosen: UseFormRegisterReturn }) {
  const tag = useJob((j) => j.tag)
  const { boardModelId, socketId } = useJob((j) => j.state.intake.ticket)
  const [asked, setAsked] = useState<Asked>({ is: 'asking' })
  useEffect(() => {
    const control = new AbortController()
    fetch(`/api/jobs/${tag}/exchange`, { signal: control.signal })
      .then(async (answer) =>
        setAsked(answer.ok ? { is: 'found', ...((await answer.json()) as Found) } : { is: 'failed' }),
      )
      .catch(() => control.signal.aborted || setAsked({ is: 'failed' }))
    return () => control.abort()
  }, [tag, boardModelId, socketId])
  if (asked.is === 'asking') return <p className="text-soft">Looking through verified stock…</p>
  if (asked.is === 'failed')
    return (
      <p role="alert" className="font-semibold text-ember">
        The server does not answer: verified stock was not looked through.
      </p>
    )
  const offered = asked.matches.filter((m) => m.not.length === 0)
  const not = asked.matches.filter((m) => m.not.length > 0)
  return (
    <fieldset className="border-l-4 border-line pl-3">
      <legend className="text-[0.94rem] text-soft">Instead the owner has</legend>
      <label className="flex items-baseline gap-2 py-1">
        <input type="radio" value="" {...chosen} /> another board, not from verified stock
      </label>
      {offered.map((m) => (
        <label key={m.tag} className="flex items-baseline gap-2 border-t border-dashed border-line py-1.5">
          <input type="radio" value={m.tag} {...chosen} />
          <span className="leading-snug">
            <b className="num font-semibold">{m.tag}</b> {m.board}, {m.fitsAs}. <Cpu cpu={m.cpu} />
            <LookFirst check={m.check} />
          </span>
        </label>
      ))}
      {offered.length > 0 && (
        <p className="py-1">
          Prove it on the bench with the owner’s CPU and memory before it goes into the case.
        </p>
      )}
      {offered.length === 0 && (
        <p className="border-t border-dashed border-line py-1.5">
          {boardModelId === null && socketId === null
            ? 'Neither model nor socket is on the ticket: nothing can be matched.'
            : 'No board of verified stock stands in for it.'}
        </p>
      )}
      {not.length > 0 && (
        <ul className="border-t border-dashed border-line py-1 text-soft">
          {not.map((m) => (
            <NotOffered key={m.tag} match={m} />
          ))}
        </ul>
      )}
      {offered.length === 0 && asked.toBuy.length > 0 && (
        <div className="border-t border-dashed border-line py-1.5">
          <p>To buy:</p>
          <ul className="list-[square] pl-5 leading-snug marker:text-slate">
            {asked.toBuy.map((b) => (
              <li key={b.board}>
                {b.board}, {b.fitsAs}. <Cpu cpu={b.cpu} />
                <LookFirst check={b.check} />
              </li>
            ))}
          </ul>
        </div>
      )}
    </fieldset>
  )
}

const Cpu = ({ cpu }: { cpu: CpuThere }) => (
  <span className={cpu.is === 'starts' ? '' : 'font-semibold text-brass'}>{upperFirst(cpu.say)}.</span>
)

const LookFirst = ({ check }: { check: readonly string[] }) =>
  check.length > 0 && <span className="block text-soft">To look at first: {check.join('; ')}.</span>

const NotOffered = ({ match: { tag, board, not } }: { match: Match }) => (
  <li>
    <span className="num">{tag}</span> {board} is not offered: {not.slice(0, 3).join('; ')}
    {not.length > 3 && `, and ${not.length - 3} more`}.
  </li>
)

'use client'
import type { ReactNode } from 'react'
import { percent } from '@/core/maths/percent'
import { inferMissing } from '@/core/parts/missing/infer'
import { useJob } from '@/job/JobProvider'
import { isKept, readPads } from './typed-pads'
import type { TypedPads } from './typed-pads'

/** What the readings come to: what it did, its value or why there is none, what to read next. */
export function WhatWasIt({ of, typed }: { of: string; typed: TypedPads }) {
  const { part } = readPads(typed)
  const kept = useJob((j) => j.state.parts.pads[of])
  if (!part)
    return (
      <p role="status" className="text-soft">
        A reading is not clear yet; the field says which.
      </p>
    )
  const { roles, value, refused, range, sizes, power, expects, next, kind } = inferMissing({
    ...part,
    ref: of,
  })
  const [top] = roles
  return (
    <section aria-label={`What ${of} was`} aria-live="polite" className="pb-4 leading-snug">
      {!isKept(part, kept) && <p className="text-soft">As typed; not kept yet.</p>}
      <ol className="mb-2">
        {roles.slice(0, 4).map(({ role, odds }) => (
          <li key={role} className="grid grid-cols-[7rem_1fr_4.4rem] items-center gap-2 py-0.5">
            <span className={role === top!.role ? 'font-semibold' : 'text-soft'}>{role}</span>
            <span className="h-2.5 border border-line" aria-hidden="true">
              <span className="block h-full bg-slate" style={{ width: `${100 * odds}%` }} />
            </span>
            <span className="num text-right whitespace-nowrap">{percent(odds)}</span>
          </li>
        ))}
      </ol>
      {value ? (
        <>
          <p className="text-[1.05rem]">
            <strong className="num">{value.say}</strong>
            {sizes[0] && `, ${sizes.join(' or ')}`}
            {value.by === 'twin'
              ? ', as its twins.'
              : ': an educated guess, on a low-current data line only.'}
          </p>
          <Row what="usual range">{range.say}</Row>
          {power && <Row what="flows at most">{power.say}</Row>}
          {expects && <Row what="then reads">{expects.say}</Row>}
        </>
      ) : (
        <>
          <p className="text-[1.05rem]">
            <strong>No value is given:</strong> {refused!.because}.
          </p>
          <Row what="usual range">
            {range.say} ({kind}); not a value to fit
          </Row>
          {sizes[0] && <Row what="size">{sizes.join(' or ')}</Row>}
          <h3 className="mt-2 text-[0.94rem] font-semibold">Ways on</h3>
          <ul className="list-disc pl-5">
            {refused!.ways.map((way) => (
              <li key={way}>{way}</li>
            ))}
          </ul>
        </>
      )}
      {next.length > 0 && (
        <>
          <h3 className="mt-2 text-[0.94rem] font-semibold">Readings that would tell most</h3>
          <ul>
            {next.map(({ pad, what, tells }) => (
              <li key={`${pad} ${what}`}>
                pad {pad.toUpperCase()}: {what} <span className="num text-soft">{tells.toFixed(2)} bit</span>
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  )
}

const Row = ({ what, children }: { what: string; children: ReactNode }) => (
  <p className="grid grid-cols-[7rem_1fr] gap-2 border-b border-line py-1">
    <span className="text-soft">{what}</span>
    <span>{children}</span>
  </p>
)

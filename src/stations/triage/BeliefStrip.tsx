'use client'
import { useState } from 'react'
import type { Belief, FaultBelief } from '@/core/triage/reason/belief'
import { figureInHundred } from '@/core/maths/in-hundred'
import { faults } from '@/core/triage/model/fault'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'

/** What it may be: faults as bars of odds, the part the last evidence moved drawn apart; open one to see why. */
export function BeliefStrip({ belief }: { belief: Belief | null }) {
  const [open, setOpen] = useState<string | null>(null)
  return (
    <section id="belief" aria-label="What it may be" className="border-t border-line pt-2.5 pb-4">
      <h2>
        What it may be <span className="num font-normal text-soft">in 100</span>
      </h2>
      {belief === null ? (
        <p className="text-soft">Reckoning…</p>
      ) : (
        <>
          <p className="text-soft">
            {belief.last
              ? `moved last by: ${belief.last.test}, ${belief.last.outcome}`
              : 'nothing seen here yet: as history has it'}
            {belief.two > 0.2 && `; ${figureInHundred(belief.two)} in 100 that there are two`}
          </p>
          <Sentence belief={belief} />
          <ol className="mt-2">
            {belief.faults.map((f) => (
              <FaultBar
                key={f.fault}
                belief={f}
                open={open === f.fault}
                onOpen={() => setOpen(open === f.fault ? null : f.fault)}
              />
            ))}
          </ol>
        </>
      )}
    </section>
  )
}

function Sentence({ belief }: { belief: Belief }) {
  const put = useJob((j) => j.put)
  const mayPower = useJob((j) => j.gate.lamp !== 'do not power')
  const { verdict, somethingElse, unexplained } = belief
  if (verdict?.is === 'found')
    return (
      <div className="my-2 border-l-4 border-verd pl-3">
        <p>
          Found: <b>{faults[verdict.fault].say}</b>, {figureInHundred(verdict.odds)} in 100. Mend it
          {mayPower
            ? ', then power up again: a second fault often stands behind the first.'
            : '; it may not be powered yet, and what comes first stands on top.'}
        </p>
        <Button look="first" className="mt-1" onClick={() => put('mended', { fault: verdict.fault })}>
          It is mended
        </Button>
      </div>
    )
  if (verdict?.is === 'nothing left')
    return (
      <p className="my-2 border-l-4 border-verd pl-3">
        Nothing is left that these tests would show.
        {mayPower ? ' Prove it.' : ' It may not be powered yet.'}
      </p>
    )
  if (verdict?.is === 'nothing known' || somethingElse > 0.3)
    return (
      <p role="status" className="my-2 border-l-4 border-ember pl-3">
        <b>Nothing I know explains this.</b> {figureInHundred(somethingElse)} in 100 that it is something in
        no list, or that a reading slipped: take the odd one again.
      </p>
    )
  if (unexplained.length > 0)
    return (
      <p role="status" className="my-2 border-l-4 border-ember pl-3">
        <b>{unexplained.length > 1 ? 'These do not fit the rest' : 'This does not fit the rest'}:</b>{' '}
        {unexplained.map((u) => `${u.test}, ${u.outcome}`).join('; ')}. Look again before you believe it.
      </p>
    )
  return null
}

function FaultBar({ belief, open, onOpen }: { belief: FaultBelief; open: boolean; onOpen: () => void }) {
  const put = useJob((j) => j.put)
  const { odds, before } = belief
  const [low, high] = odds < before ? [odds, before] : [before, odds]
  const moved = odds >= before ? 'up' : 'down'
  return (
    <li className="border-b border-dashed border-line">
      <button
        type="button"
        aria-expanded={open}
        onClick={onOpen}
        className="grid w-full grid-cols-[13rem_1fr_3.4rem] items-center gap-x-3 py-1 text-left"
      >
        <span className="leading-tight">{belief.say}</span>
        <svg viewBox="0 0 100 10" preserveAspectRatio="none" className="h-4 w-full" aria-hidden="true">
          <rect x="0" y="8.4" width="100" height="0.8" fill="var(--line)" />
          <rect x="0" y="1.5" width={low * 100} height="6" fill="var(--slate)" />
          {moved === 'up' ? (
            <rect x={low * 100} y="1.5" width={(high - low) * 100} height="6" fill="var(--brass)" />
          ) : (
            <rect
              x={low * 100}
              y="2"
              width={(high - low) * 100}
              height="5"
              fill="none"
              stroke="var(--slate)"
              strokeDasharray="1.4 1.2"
              vectorEffect="non-scaling-stroke"
            />
          )}
        </svg>
        <span className="num text-right">
          {figureInHundred(odds)}
          <span className="sr-only">
            {' '}
            in 100, {moved} from {figureInHundred(before)}
          </span>
        </span>
      </button>
      {open && (
        <dl className="grid grid-cols-[4.5rem_1fr] gap-x-3 pb-2 text-[0.95rem]">
          {belief.reasons.length === 0 && (
            <dd className="col-span-2 text-soft">Nothing seen speaks for it or against it; history alone.</dd>
          )}
          {belief.reasons.map((r) => (
            <div key={`${r.test} ${r.outcome}`} className="col-span-2 grid grid-cols-subgrid">
              <dt className={r.bits > 0 ? 'font-semibold' : 'text-soft'}>
                {r.bits > 0 ? 'for' : 'against'} <span className="num">{Math.abs(r.bits).toFixed(1)}</span>
              </dt>
              <dd>
                {r.test}: {r.outcome}
              </dd>
            </div>
          ))}
          <dd className="col-span-2 flex items-baseline justify-between text-[0.88rem] text-soft">
            in bits: one doubles the odds
            <Button look="bare" onClick={() => put('mended', { fault: belief.fault })}>
              It was this, and is mended
            </Button>
          </dd>
        </dl>
      )}
    </li>
  )
}

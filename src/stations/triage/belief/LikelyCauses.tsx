'use client'
import { useState } from 'react'
import { percent } from '@/core/maths/percent'
import { wholePercents } from '@/core/maths/whole-percents'
import { sayOutcome } from '@/core/triage/model/outcome-words'
import { faults } from '@/core/triage/model/faults'
import type { Belief, Cause } from '@/core/triage/reason/belief'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'

const ROWS = 6

/** The likely causes: ways the board may stand, as shares of 100; the part the last evidence moved drawn apart. */
export function LikelyCauses({
  belief,
  fresh,
  failed,
}: {
  belief: Belief | null
  fresh: boolean
  failed: boolean
}) {
  const [open, setOpen] = useState<string | null>(null)
  const causes = belief?.causes ?? []
  const shares = belief ? wholePercents([...causes.map((c) => c.odds), belief.otherwise.odds]) : []
  return (
    <section id="belief" aria-label="Likely causes" aria-busy={!fresh}>
      <h2 className="truncate text-[0.98rem]! leading-7">
        Likely causes{' '}
        <small className="text-[0.82rem] font-normal text-soft">
          {failed && !fresh ? (
            <b className="text-ember">not calculated</b>
          ) : !belief ? (
            fresh ? (
              'the job has ended'
            ) : (
              'calculating…'
            )
          ) : belief.last ? (
            `last evidence: ${belief.last.test}, ${sayOutcome(belief.last.outcome)}`
          ) : (
            'by this board’s history alone'
          )}
        </small>
      </h2>
      <ol>
        {Array.from({ length: ROWS }, (_, i) => {
          const cause = causes[i]
          if (!cause)
            return <li key={i} aria-hidden="true" className="h-[42px] border-b border-dashed border-line" />
          return (
            <CauseRow
              key={i}
              cause={cause}
              share={shares[i]!}
              belief={belief!}
              open={open === cause.say}
              onOpen={() => setOpen(open === cause.say ? null : cause.say)}
            />
          )
        })}
        {(belief || !(fresh || failed)) && (
          <li className="border-b border-dashed border-line">
            <Row
              says={['all others, listed or not']}
              odds={belief?.otherwise.odds ?? 0}
              before={belief?.otherwise.before ?? 0}
              share={belief ? shares.at(-1)! : null}
            />
          </li>
        )}
      </ol>
      <Remark belief={belief} />
    </section>
  )
}

/** What the odds do not show by themselves: that nothing explains it, or that a reading does not fit. */
function Remark({ belief }: { belief: Belief | null }) {
  if (!belief) return null
  const { verdict, somethingElse, unknownAt, unexplained } = belief
  const two = belief.causes.some((c) => c.faults.length === 2)
  return (
    <div className="text-[0.9rem]">
      {(verdict?.is === 'nothing known' || somethingElse > 0.3) && (
        <p role="status" className="my-2 border-l-4 border-ember pl-3">
          <b>Nothing in the list explains this.</b> {percent(somethingElse)}: something unlisted, most likely
          at {unknownAt.stage}, or a reading that slipped. Take the odd one again.
        </p>
      )}
      {unexplained.length > 0 && (
        <p role="status" className="my-2 border-l-4 border-ember pl-3">
          <b>{unexplained.length > 1 ? 'These do not fit the rest' : 'This does not fit the rest'}:</b>{' '}
          {unexplained.map((u) => `${u.test}, ${sayOutcome(u.outcome)}`).join('; ')}. Look again before you
          believe it.
        </p>
      )}
      {two && (
        <p className="mt-1 text-soft">
          A row with two faults means both at once, {percent(belief.two)} in all; a row with one, that one
          alone.
        </p>
      )}
    </div>
  )
}

const saysOf = ({ faults: ids, say }: Cause): string[] =>
  ids.length === 2 ? [faults[ids[0]!].say, `and ${faults[ids[1]!].say}`] : [say]

function Row({
  says,
  odds,
  before,
  share,
}: {
  /** One fault, or two of which each has a line. */
  says: readonly string[]
  odds: number
  before: number
  share: number | null
}) {
  const [low, high] = odds < before ? [odds, before] : [before, odds]
  const up = odds >= before
  return (
    <span className="grid h-[41px] w-full grid-cols-[minmax(0,1fr)_46px_3rem] items-center gap-x-2 text-left">
      {/* Another cause in a row is another text in its place, not one that has moved. */}
      <span key={says.join(' ')} className="min-w-0 text-[0.92rem] leading-tight" title={says.join(' ')}>
        {says.map((say) => (
          <span key={say} className={says.length > 1 ? 'block truncate' : 'line-clamp-2'}>
            {say}
          </span>
        ))}
      </span>
      <svg viewBox="0 0 100 10" preserveAspectRatio="none" className="h-3.5 w-full" aria-hidden="true">
        <rect x="0" y="8.4" width="100" height="0.8" fill="var(--line)" />
        <rect x="0" y="1.5" width={low * 100} height="6" fill="var(--slate)" />
        {up ? (
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
        {/* What is left is never nothing. */}
        {share === null ? '…' : share === 0 && odds > 0 ? percent(odds) : `${share} %`}
        {share !== null && Math.abs(odds - before) >= 0.005 && (
          <span className="sr-only">
            , {up ? 'up' : 'down'} from {percent(before)}
          </span>
        )}
      </span>
    </span>
  )
}

function CauseRow({
  cause,
  share,
  belief,
  open,
  onOpen,
}: {
  cause: Cause
  share: number
  belief: Belief
  open: boolean
  onOpen: () => void
}) {
  const append = useJob((j) => j.append)
  const reasons = cause.faults.map((id) => belief.faults.find((f) => f.fault === id))
  return (
    <li className="border-b border-dashed border-line">
      <button type="button" aria-expanded={open} onClick={onOpen} className="w-full">
        <Row says={saysOf(cause)} odds={cause.odds} before={cause.before} share={share} />
      </button>
      {open &&
        cause.faults.map((id, i) => (
          <dl key={id} className="grid grid-cols-[3.6rem_1fr] gap-x-2 pb-2 text-[0.9rem] leading-snug">
            {cause.faults.length > 1 && <dd className="col-span-2 font-semibold">{faults[id].say}</dd>}
            {(reasons[i]?.reasons.length ?? 0) === 0 && (
              <dd className="col-span-2 text-soft">No evidence for or against it; history alone.</dd>
            )}
            {reasons[i]?.reasons.map((r) => (
              <div key={`${r.test} ${r.outcome}`} className="col-span-2 grid grid-cols-subgrid">
                <dt className={r.bits > 0 ? 'font-semibold' : 'text-soft'}>
                  {r.bits > 0 ? 'for' : 'against'}{' '}
                  <span className="num" title="bits: one doubles the odds">
                    {Math.abs(r.bits).toFixed(1)}
                  </span>
                </dt>
                <dd>
                  {r.test}: {sayOutcome(r.outcome)}
                </dd>
              </div>
            ))}
            <dd className="col-span-2 flex items-baseline justify-between text-[0.84rem] text-soft">
              strongest evidence first, in bits
              <Button
                look="bare"
                className="py-0!"
                onClick={() => append('mended', { fault: id })}
                aria-label={`It was ${faults[id].say}: repaired`}
              >
                Repaired
              </Button>
            </dd>
          </dl>
        ))}
    </li>
  )
}

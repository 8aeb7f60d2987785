'use client'
import { baselineChanges, stageReached, stages } from '@/core/triage/model/stage'
import { useJob } from '@/job/JobProvider'
import { When } from '@/ui/When'

/** How far it starts: the stages one above the other, each with the odds that it is the last it reaches. */
export function StartLadder() {
  const baselines = useJob((j) => j.state.board.baselines)
  const last = baselines.at(-1)
  if (!last)
    return (
      <section className="border-t border-line pt-2.5 pb-4">
        <h2>How far it starts</h2>
        <p className="text-soft">After the first power-up the stage it reaches stands here, with its odds.</p>
      </section>
    )
  const reached = stageReached(last)
  const best = stages.indexOf(reached.likeliest)
  const before = baselines.at(-2)
  const changes = before ? baselineChanges(before, last) : []
  return (
    <section className="border-t border-line pt-2.5 pb-4" aria-label="How far it starts">
      <h2>
        It {reached.say} <span className="num font-normal text-soft">{Math.round(reached.sure * 100)} %</span>
      </h2>
      <p className="text-soft">
        power-up {baselines.length}, <When at={last.at} />
        {reached.told[0] && `; what told most: ${reached.told[0].what}`}
      </p>
      <ol className="mt-2">
        {reached.odds.map(({ stage, odds }, i) => (
          <li
            key={stage}
            className="grid grid-cols-[1.4rem_8.6rem_1fr_3rem] items-center gap-x-2 leading-[1.62rem]"
          >
            <span
              aria-hidden="true"
              className={`relative mx-auto block size-2.5 rounded-full border-2 ${i < best ? 'border-verd bg-verd' : i === best ? 'border-brass bg-brass' : 'border-slate'} ${i > 0 ? 'before:absolute before:-top-[1.15rem] before:left-[1px] before:h-4 before:border-l-2 before:border-line' : ''}`}
            />
            <span className={i === best ? 'font-semibold' : i > best ? 'text-soft' : ''}>{stage}</span>
            <span aria-hidden="true" className="h-2 bg-line/50">
              <span
                className={`block h-full ${i === best ? 'bg-brass' : 'bg-slate'}`}
                style={{ width: `${Math.max(0.5, odds * 100).toFixed(1)}%` }}
              />
            </span>
            <span className="num text-right text-[0.9rem] text-soft">
              {odds >= 0.005 ? `${Math.round(odds * 100)} %` : '0'}
            </span>
          </li>
        ))}
      </ol>
      {before && (
        <div className="mt-3">
          <h3 className="font-semibold">Since the power-up before</h3>
          {changes.length === 0 ? (
            <p className="text-soft">Nothing changed that was noted.</p>
          ) : (
            <ul>
              {changes.map((c) => (
                <li key={c.what}>
                  {c.what}: <s className="text-soft">{c.before}</s> {c.after}
                </li>
              ))}
            </ul>
          )}
        </div>
      )}
    </section>
  )
}

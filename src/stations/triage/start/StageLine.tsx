'use client'
import { stageReached, stages } from '@/core/triage/model/stage'
import { percent } from '@/core/maths/percent'
import { useJob } from '@/job/JobProvider'

/** How far it starts, as one line: the stages in order, the last it reaches with its odds. */
export function StageLine() {
  const baselines = useJob((j) => j.state.board.baselines)
  const last = baselines.at(-1)
  const reached = last ? stageReached(last) : null
  const best = reached ? stages.indexOf(reached.likeliest) : -1
  const more = [
    reached && `It ${reached.say}, ${percent(reached.sure)}`,
    reached?.told[0] && `strongest evidence: ${reached.told[0].what}`,
    ...(reached?.odds.filter((s) => s.odds >= 0.01).map((s) => `${s.stage} ${percent(s.odds)}`) ?? []),
  ].filter(Boolean)
  return (
    <section
      aria-label="How far it starts"
      className="flex items-center gap-x-3 border-t border-line text-[0.82rem] max-lg:flex-wrap lg:h-9 lg:overflow-hidden lg:whitespace-nowrap"
      title={more.join('; ')}
    >
      {reached === null && <span className="text-soft">not powered here yet</span>}
      <ol className="flex min-w-0 items-center gap-x-1.5 max-lg:flex-wrap">
        {stages.map((stage, i) => (
          <li
            key={stage}
            className={`flex items-center gap-x-1.5 ${i === best ? 'font-bold text-brass' : 'text-soft'}`}
            aria-current={i === best ? 'step' : undefined}
          >
            {i > 0 && <span aria-hidden="true" className="h-px w-2 bg-line" />}
            <span>
              {i < best && <span className="text-verd">✓ </span>}
              {i === best && '▸ '}
              {short[stage] ?? stage}
              {i === best && ` ${percent(reached!.sure)}`}
            </span>
          </li>
        ))}
      </ol>
    </section>
  )
}

const short: Readonly<Record<string, string>> = {
  'power-on request': 'power-on',
  'reset released': 'reset',
  'CPU and chipset': 'CPU',
  'memory training': 'memory',
  'boot device': 'boot',
}

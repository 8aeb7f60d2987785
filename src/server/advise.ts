import 'server-only'
import { createHash } from 'node:crypto'
import pLimit from 'p-limit'
import type { LimitFunction } from 'p-limit'
import { gateOf } from '@/core/job/gate'
import { toAdvise } from '@/core/job/advise'
import type { Reckoned, ToAdvise } from '@/core/job/advise'
import { nextStep } from '@/core/job/next-step'
import type { AdviceSetting } from '@/core/job/advice-setting'
import type { JobState } from '@/core/job/job-state'
import type { Socket } from '@/core/socket/model/socket'
import { canonical } from '@/core/tape/canonical'
import { adviceSettingOf } from '@/data/advice-setting'
import { jobNow } from '@/data/job-now'
import { jobById, keptAdvice, saveNextStep } from '@/data/jobs'
import { inThread } from './heavy'

type Reckon = (of: { field: Socket | null; asked: ToAdvise }) => Promise<Reckoned>

const digest = (asked: ToAdvise) => createHash('sha256').update(canonical(asked)).digest('base64')

/** Computes what to do next on a job, and keeps it with the line of the tape it was computed at. */
export async function adviseJob(jobId: string, reckon: Reckon): Promise<void> {
  const job = await jobById(jobId)
  if (!job) return
  const { state, socket: field } = await jobNow(jobId)
  const gate = gateOf(state, field)
  const setting = await adviceSettingOf(job, state.intake.ticket)
  const asked = toAdvise(state, field, gate, setting)
  const reckoned = await reckon({ field, asked })
  const step = nextStep({ state, field, gate, setting, ...reckoned })
  await saveNextStep(
    jobId,
    { ...step, seq: state.seq, settings: job.settings, asked: digest(asked) },
    reckoned.belief,
  )
}

/**
 * What is kept of a job's advice, where it answers what would be asked as job and shop stand; otherwise null. Other jobs bear on it as well: what came of their repairs, and what was done to the same board before.
 */
export function adviceKept(
  jobId: string,
  state: JobState,
  field: Socket | null,
  setting: AdviceSetting,
): ReturnType<typeof keptAdvice> {
  const asked = digest(toAdvise(state, field, gateOf(state, field), setting))
  return keptAdvice(jobId, { seq: state.seq, asked })
}

interface Under {
  readonly under: Set<string>
  readonly again: Set<string>
  /** So many at once: a bench of a hundred jobs must not take every connection. */
  readonly line: LimitFunction
}
const AT_ONCE = 2
const held = globalThis as { needleAdvice?: Under }

/** Has a job advised soon, in a thread; however often it is asked for meanwhile, it is done once more at most. */
export function adviseSoon(jobId: string): void {
  const { under, again, line } = (held.needleAdvice ??= {
    under: new Set(),
    again: new Set(),
    line: pLimit(AT_ONCE),
  })
  if (under.has(jobId)) {
    again.add(jobId)
    return
  }
  under.add(jobId)
  void line(() => adviseJob(jobId, (of) => inThread('advise', of)))
    // Whoever looks at the bench next asks for it again.
    .catch(() => undefined)
    .finally(() => {
      under.delete(jobId)
      if (again.delete(jobId)) adviseSoon(jobId)
    })
}

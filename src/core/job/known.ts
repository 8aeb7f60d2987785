import type { Socket } from '../socket/model/socket'
import { faultIds } from '../triage/model/faults'
import { takesNow } from '../triage/model/repair-record'
import type { Known } from '../triage/reason/belief'
import type { AdviceSetting } from './advice-setting'
import { evidenceOf } from './evidence'
import { historyOf } from './history-told'
import type { JobState } from './job-state'

/** All that the odds of a job's faults follow from: triage and the proof reckon with the same. */
export function knownOf(
  state: JobState,
  field: Socket | null,
  { references, earlier, own, repairs }: AdviceSetting,
): Known {
  const { evidence, changes } = evidenceOf(state, field, references)
  return {
    history: historyOf(state),
    evidence,
    changes: changes.map((c) =>
      c.is === 'mended' ? { ...c, takes: takesNow(c.fault, c.takes, repairs) } : c,
    ),
    again: faultIds.filter((id) => earlier.some((job) => job.mended.includes(id))),
    own,
    ...(references.shows ? { shown: references.shows.shown } : {}),
  }
}

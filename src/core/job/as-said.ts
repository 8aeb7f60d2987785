import { saysOfTest } from '../proof/line-says'
import type { Bodies, Kind } from '../slices'
import type { Socket } from '../socket/model/socket'
import { faultIds } from '../triage/model/faults'
import { repaired } from '../triage/model/repair-record'
import type { AdviceSetting } from './advice-setting'
import type { JobState } from './job-state'
import { proofStanding } from './stations-say'

/**
 * A line with the odds that stand beside it when it is made, so that the record can tell them against what came: of a
 * repair, how often such a one takes; of a test of the proof that it settles, how likely it was to find something. Of a test
 * that had passed it says that it fails after all.
 */
export function asSaid<K extends Kind>(
  kind: K,
  body: Bodies[K],
  state: JobState,
  socket: Socket | null,
  setting: AdviceSetting,
): Bodies[K] {
  if (kind === 'mended') {
    const fault = faultIds.find((id) => id === (body as Bodies['mended']).fault)
    return fault ? (repaired(fault, setting.repairs) as Bodies[K]) : body
  }
  const of = saysOfTest(kind, body)
  const test = of && proofStanding(state, socket, setting).tests.find((t) => t.id === of.test)
  if (!of?.says || !test) return body
  if (test.result === 'pass')
    return kind === 'proof' && of.says === 'fail' ? { ...body, afterAll: true } : body
  // One start of several that came up settles nothing yet.
  const more = kind === 'cold start' && of.says === 'pass' ? (test.starts ?? Infinity) - 1 : 0
  return test.untold === null || (test.counted?.made ?? 0) < more ? body : { ...body, finds: test.untold }
}

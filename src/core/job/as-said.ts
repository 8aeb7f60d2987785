import { verdictOf } from '../proof/temperature'
import type { StandingTest } from '../proof/plan'
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
  switch (kind) {
    case 'mended': {
      const fault = faultIds.find((id) => id === (body as Bodies['mended']).fault)
      return fault ? (repaired(fault, setting.repairs) as Bodies[K]) : body
    }
    case 'proof':
    case 'cold start':
    case 'temperature': {
      const test = proofStanding(state, socket, setting).tests.find((t) => t.id === testOf(kind, body))
      if (test?.result === 'pass' && kind === 'proof' && (body as Bodies['proof']).result === 'fail')
        return { ...body, afterAll: true }
      const finds = test && settles(kind, body, test) ? test.untold : null
      return finds === null ? body : { ...body, finds: Math.round(1000 * finds) / 1000 }
    }
    default:
      return body
  }
}

const testOf = <K extends Kind>(kind: K, body: Bodies[K]): string =>
  kind === 'proof' ? (body as Bodies['proof']).test : kind === 'cold start' ? 'cold starts' : 'temperature'

/** Whether a test is settled by a line: not where it cannot be run, passed already, or takes more of its kind. */
function settles<K extends Kind>(kind: K, body: Bodies[K], test: StandingTest): boolean {
  if (test.result === 'pass') return false
  switch (kind) {
    case 'proof':
      return (body as Bodies['proof']).result !== 'cannot run here'
    case 'cold start':
      return (
        !(body as Bodies['cold start']).came || (test.counted?.made ?? 0) + 1 >= (test.starts ?? Infinity)
      )
    case 'temperature':
      return verdictOf(body as Bodies['temperature']) !== 'not yet'
    default:
      return false
  }
}

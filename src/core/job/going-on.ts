import type { ToDecide } from '../shop/decide'
import { waysOf } from '../shop/decide'
import { isDamage } from '../socket/damage/mark'
import type { Socket } from '../socket/model/socket'
import { currentPass } from '../socket/slice'
import { everyWay } from '../triage/reason/belief'
import type { Way } from '../triage/reason/belief'
import type { AdviceSetting } from './advice-setting'
import type { JobState } from './job-state'
import { knownOf } from './known'

interface GoingOn {
  /** Every way the board may stand. */
  readonly all: readonly Way[]
  readonly weighed: Pick<ToDecide, 'ways' | 'lookingMinutes'>
}

/**
 * What going on with a job is weighed by, the same on the page and on the command line: a stroke for each damaged contact, the
 * shop's own record of repairs and its figures.
 * @param factor how long going on takes against the usual minutes, by the record
 */
export function goingOn(state: JobState, field: Socket | null, setting: AdviceSetting, factor = 1): GoingOn {
  const { repairs, figures } = setting
  const all = everyWay(knownOf(state, field, setting))
  const damaged = Object.values(currentPass(state.socket)?.marks ?? {}).filter(isDamage).length
  const contactsMinutes = damaged * figures.strokeMinutes
  return { all, weighed: waysOf(all, repairs, { factor, contactsMinutes, figures }) }
}

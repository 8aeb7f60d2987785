import { checkWords, failedChecks } from '../hand-back/reassembly'
import { isUnpowered } from '../proof/plan'
import { saysOfTest } from '../proof/line-says'
import type { AdviceSetting } from './advice-setting'
import type { JobState } from './job-state'
import type { Bodies, Kind } from '../slices'
import { proofStanding } from './stations-say'
import type { Socket } from '../socket/model/socket'
import { gateOf } from './gate'
/** What closes the gate, in words. */
const closedBy = (state: JobState, socket: Socket | null): string[] =>
  gateOf(state, socket)
    .reasons.filter((r) => r.level === 'closed')
    .map((r) => r.text)

/** Whether a line says that a test passed, wholly or in part, that takes power. */
function passesPowered(kind: Kind, body: Bodies[Kind]): boolean {
  const of = saysOfTest(kind, body)
  return of?.says === 'pass' && !isUnpowered(of.test)
}

/**
 * What speaks against a line, so that it is asked about before it is written: a test that passes on a board that
 * may not be powered as it stands; a hand-back as fixed with a failed test, a closed gate or a bill over what was agreed; a board
 * kept as verified stock that is not proved.
 * Empty for every other line.
 */
export function speaksAgainst<K extends Kind>(
  kind: K,
  body: Bodies[K],
  state: JobState,
  socket: Socket | null,
  setting: AdviceSetting,
): string[] {
  if (passesPowered(kind, body)) {
    const closed = closedBy(state, socket)
    return closed.length === 0 ? [] : ['it may not be powered as it stands', ...closed]
  }
  if (kind === 'hand-back') {
    const { outcome, priceMinor, fate } = body as Bodies['hand-back']
    const against: string[] = []
    const stays = fate === 'verified stock'
    if (outcome === 'fixed' || stays) {
      const { tests, left } = proofStanding(state, socket, setting)
      against.push(...tests.filter((t) => t.result === 'fail').map((t) => `failed: ${t.test}`))
      if (stays) {
        against.push(
          ...tests
            .filter((t) => t.result !== 'pass' && t.result !== 'fail')
            .map((t) => `not proved: ${t.test}`),
        )
        // Whatever passed before: one that went dark since is not proved.
        if ('notKnown' in left) against.push(`not proved: ${left.notKnown}`)
      }
      against.push(...closedBy(state, socket).map((text) => `do not power: ${text}`))
      if (outcome === 'fixed')
        against.push(
          ...failedChecks(state.handBack.reassembly).map((check) => `not in order: ${checkWords[check].say}`),
        )
    }
    const agreed = state.intake.ticket.limitMinor
    if (priceMinor !== null && agreed !== null && priceMinor > agreed)
      against.push(`the bill is ${(priceMinor - agreed) / 100} over what was agreed`)
    return against
  }
  return []
}

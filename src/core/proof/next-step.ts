import { closedBy } from '../board/gate-reason'
import type { PowerGate } from '../board/gate-reason'
import type { Step } from '../board/step'
import { percent } from '../maths/percent'
import { isUnpowered } from './plan'
import type { ProofStanding, StandingTest } from './plan'

/** A test as the thing to do; of cold starts, the one that is next. */
const sayTest = ({ test, starts, counted }: StandingTest): string =>
  starts !== undefined && counted && counted.made > 0
    ? `Cold start ${counted.made + 1} of ${starts}: mains off a minute, then start it.`
    : `${test}.`

const at = (say: string, why: string): Step => ({ station: 'proof', say, why })

/** The next test that is owed; none that powers the board while the gate is closed. */
export function proofStep({ tests, owed, failed, left }: ProofStanding, gate: PowerGate): Step {
  if (failed > 0)
    return at(
      `${failed} ${failed === 1 ? 'test' : 'tests'} failed: back to triage with what was seen.`,
      'A second fault often hides behind the first.',
    )
  const closed = closedBy(gate)
  const open = tests.filter((t) => t.result === null)
  // What cannot be made for want of something comes last.
  const able = closed ? open.filter((t) => isUnpowered(t.id)) : open
  const next = able.find((t) => t.lacks.length === 0) ?? able[0]
  if (next)
    return {
      ...at(sayTest(next), `${next.why}; passes when: ${next.limit}. ${owed} owed.`),
      takes: [
        `${next.minutes} min`,
        next.lacks.length > 0 &&
          `not at hand: ${next.lacks.join(', ')}; fetch it, or say that it cannot be run here`,
      ]
        .filter(Boolean)
        .join('; '),
      proves: next.id,
    }
  if (closed && open.length > 0)
    return at(`Do not power yet: ${closed.text}.`, `${closed.at.say}. ${owed} owed.`)
  return at(
    'Everything owed is proved. Hand it back.',
    `${'notKnown' in left ? '' : `${percent(left.odds)} that something is still wrong. `}What could not be run here stands on the sheet.`,
  )
}

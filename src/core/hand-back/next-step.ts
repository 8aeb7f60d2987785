import type { Blocker, Step } from '../board/step'

const at = (say: string, why: string): Step => ({ station: 'hand-back', say, why })

export function handBackStep(holds: readonly Blocker[], owed: number): Step {
  if (holds.length > 0)
    return at(
      `Held: ${holds[0]!.text}.`,
      holds.length > 1 ? `and ${holds.length - 1} more below` : 'Clear it, then hand back.',
    )
  return owed > 0
    ? at(
        `${owed} ${owed === 1 ? 'test is' : 'tests are'} still owed; the sheet will say so.`,
        'What is not proved is listed with the odds, never left out.',
      )
    : at(
        'Print the sheet, name the outcome, hand it over.',
        'Found, cause, repaired, verified, failed, not tested, each under its own heading.',
      )
}

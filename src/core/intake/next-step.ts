import type { Step } from '../board/step'
import { openOffers, uncheckedClaims } from './slice'
import type { IntakeState } from './slice'

const at = (say: string, why: string): Step => ({ station: 'intake', say, why })

/** What intake still asks for, in the order in which it is asked. */
export function intakeStep(intake: IntakeState): Step {
  const { ticket, consent } = intake
  const offer = openOffers(intake)[0]
  if (offer)
    return at(
      `Ask the owner about the changed offer: ${offer.text}.`,
      'Hand-back is held until it is answered.',
    )
  if (!ticket.board) return at('Say which board this is.', 'Socket, landmarks and limits follow from it.')
  if (!ticket.complaint)
    return at(
      'Write down what the owner says is wrong, in their words.',
      'It is kept as a claim until somebody here has checked it.',
    )
  if (ticket.history.length === 0)
    return at(
      'Ask what happened just before it died.',
      'It decides what to look at first and which risks to name.',
    )
  if (!consent)
    return at(
      'Read the risks to the owner and have them signed.',
      'Nothing is bent or heated before the owner agrees.',
    )
  const claims = uncheckedClaims(intake).length
  if (claims > 0)
    return at(
      `Ticket taken; ${claims} ${claims === 1 ? 'claim waits' : 'claims wait'} to be checked.`,
      'A claim weighs less until somebody here has checked it.',
    )
  return at(
    'The ticket is complete. Look before power: go to triage.',
    'Outside first, then the socket, then the rails.',
  )
}

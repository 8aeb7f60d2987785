import { boardOf, openOffers } from '../intake/slice'
import type { Offer } from '../intake/slice'
import { waitsFor } from '../parts/slice'
import type { Outcome } from '../hand-back/bodies'
import type { JobState } from './job-state'

/** A changed offer without who made it. */
export type OfferSeen = Pick<Offer, 'seq' | 'text' | 'limitMinor' | 'approved'>

/** What an owner sees of their board: where it stands, what they are asked, and how it ended. Nothing of the work itself. */
export interface OwnerSees {
  readonly board: string
  readonly theirWords: string
  readonly where: string
  readonly limitMinor: number | null
  readonly asked: readonly OfferSeen[]
  readonly answered: readonly OfferSeen[]
  readonly ended: {
    readonly outcome: Outcome
    readonly priceMinor: number | null
    readonly text: string
    readonly advice: readonly string[]
  } | null
  /** Whether the shop may be told how it went on at home. */
  readonly mayReport: boolean
}

const ends: Readonly<Record<Outcome, string>> = {
  fixed: 'It is repaired.',
  exchanged: 'It was exchanged for another board.',
  parked: 'It waits here; nothing is done to it for now.',
  'sent out': 'It was sent on to another workshop.',
  'returned unrepaired': 'It goes back to you unrepaired.',
  'returned untested': 'It goes back to you untested.',
  withdrawn: 'This was begun by mistake; there is nothing to see.',
}

function whereOf({ handBack, intake, parts, proof, triage, work }: JobState): string {
  if (handBack.done) return ends[handBack.done.outcome]
  if (openOffers(intake).length > 0) return 'We ask you something before we go on.'
  if (waitsFor(parts)) return 'It waits for a part that is on its way.'
  if (Object.keys(proof.results).length > 0 || proof.starts.length > 0) return 'It is being tested.'
  const begun = (['triage', 'socket', 'firmware', 'parts'] as const).some(
    (station) => work.marks[station].mark !== 'untouched',
  )
  return begun || triage.trials.length > 0 ? 'We are working on it.' : 'It is here, and waits for its turn.'
}

const seen = ({ seq, text, limitMinor, approved }: Offer): OfferSeen => ({ seq, text, limitMinor, approved })

/** What the owner of a job may see of it. */
export function ownerSees(state: JobState): OwnerSees {
  const { intake, handBack } = state
  const { ticket, offers } = intake
  const { done } = handBack
  return {
    board: boardOf(ticket),
    theirWords: ticket.complaint,
    where: whereOf(state),
    limitMinor: ticket.limitMinor,
    asked: done && done.outcome !== 'parked' ? [] : openOffers(intake).map(seen),
    answered: offers.filter((o) => o.approved !== null).map(seen),
    ended:
      done && done.outcome !== 'withdrawn'
        ? { outcome: done.outcome, priceMinor: done.priceMinor, text: done.text, advice: handBack.advice }
        : null,
    mayReport: done?.outcome === 'fixed',
  }
}

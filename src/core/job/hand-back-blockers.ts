import type { JobState } from './job-state'
import { unaccounted } from '../board/slice'
import { openOffers } from '../intake/slice'
import type { Station } from '../board/station'

/** What keeps the board from being handed back. */
export function handBackBlockers(
  state: JobState,
): { readonly text: string; readonly at: { readonly station: Station; readonly part: string } }[] {
  const holds: { text: string; at: { station: Station; part: string } }[] = []
  for (const offer of openOffers(state.intake))
    holds.push({
      text: `The owner has not answered the changed offer: ${offer.text}`,
      at: { station: 'intake', part: 'offers' },
    })
  for (const item of unaccounted(state.board))
    holds.push({ text: `${item.what} is not accounted for`, at: { station: 'socket', part: 'ledger' } })
  if (!state.intake.consent)
    holds.push({ text: 'The owner has not signed', at: { station: 'intake', part: 'consent' } })
  return holds
}

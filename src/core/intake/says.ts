import type { StationSays } from '../board/station-says'
import { openOffers } from './slice'
import type { IntakeState } from './slice'

export const intakeSays: StationSays<{ readonly intake: IntakeState }> = {
  note: ({ intake }) =>
    openOffers(intake).length > 0 ? 'offer not answered' : intake.consent ? '' : 'not signed yet',
  blocksHandBack: ({ intake }) => [
    ...openOffers(intake).map((offer) => ({
      text: `The owner has not answered the changed offer: ${offer.text}`,
      at: { station: 'intake', part: 'offers' } as const,
    })),
    ...(intake.consent
      ? []
      : [{ text: 'The owner has not signed', at: { station: 'intake', part: 'consent' } as const }]),
  ],
  touches: ({ intake }) => ({ ownGraphics: !/no graphics/i.test(intake.ticket.cpu) }),
}

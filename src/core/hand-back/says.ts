import type { StationSays } from '../board/station-says'
import type { HandBackState } from './slice'

export const handBackSays: StationSays<{ readonly handBack: HandBackState }> = {
  note: ({ handBack }) => handBack.done?.outcome ?? '',
}

import type { Step } from '../board/step'
import type { PartsState } from './slice'

export const partsStep = ({ noted }: PartsState): Step =>
  noted.length === 0
    ? {
        station: 'parts',
        say: 'Look round the socket and the firmware chip for missing or cracked small parts.',
        why: 'A missing resistor can look like dead firmware.',
      }
    : {
        station: 'parts',
        say: 'Note each part found, taken off and fitted.',
        why: 'What was taken off holds the power gate until it is accounted for.',
      }

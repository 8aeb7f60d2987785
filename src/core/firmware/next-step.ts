import type { Step } from '../board/step'
import type { FirmwareState } from './slice'

export const firmwareStep = ({ steps }: FirmwareState): Step =>
  steps.length === 0
    ? {
        station: 'firmware',
        say: 'Do not flash yet: note the version it shows and the chip’s marking.',
        why: 'Firmware is blamed often and wrongly.',
      }
    : {
        station: 'firmware',
        say: 'Note each step and the version seen after it.',
        why: 'Labels lie; only the version shown after a start with mains off counts.',
      }

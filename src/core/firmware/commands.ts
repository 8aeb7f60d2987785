import { lineOf } from '../tape/command'
import type { Command } from '../tape/command'
import { readNumber } from '../tables/read-number'
import type { FirmwareBodies } from './bodies'

const entry = lineOf<FirmwareBodies>()

export const firmwareCommands: readonly Command[] = [
  {
    word: 'chip',
    form: 'chip MARKING [VOLTS]',
    example: 'chip LSN-16V 1.8',
    say: 'marking and voltage of the firmware chip',
    read: (rest) => {
      if (!rest[0]) return 'what does the chip’s marking say?'
      const figure = rest.slice(1).join(' ')
      const volts = figure === '' ? undefined : readNumber(figure, 'V')
      if (volts === null || (volts !== undefined && (volts < 1 || volts > 5.5)))
        return `“${figure}” is no chip voltage; 1.8 or 3.3`
      return entry('firmware', {
        chip: rest[0].toUpperCase(),
        ...(volts === undefined ? {} : { chipVolts: volts }),
      })
    },
  },
  {
    word: 'version',
    form: 'version TEXT',
    example: 'version 1.40',
    say: 'firmware version seen on the screen',
    read: (_, text) => (text ? entry('firmware', { version: text }) : 'which version was seen?'),
  },
]

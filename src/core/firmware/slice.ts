import type { FirmwareBodies } from './bodies'
import { firmwareCommands } from './commands'
import { notedOf } from '../tape/line'
import type { Noted } from '../tape/line'
import { slice } from '../tape/slice'

export interface FirmwareState {
  readonly steps: readonly (Noted & FirmwareBodies['firmware'])[]
}

export const firmware = slice<FirmwareBodies>().of({
  id: 'firmware',
  commands: firmwareCommands,
  initial: (): FirmwareState => ({ steps: [] }),
  kinds: {
    firmware: {
      opens: 'firmware',
      words: ({ body: b }) =>
        [
          b.version && `version ${b.version} seen`,
          b.chip && `chip ${b.chip}`,
          b.chipVolts !== undefined && `${b.chipVolts} V chip`,
          b.programmerVolts !== undefined && `programmer at ${b.programmerVolts} V`,
          b.clipOn !== undefined && `clip ${b.clipOn ? 'on' : 'off'}`,
          b.did,
        ]
          .filter(Boolean)
          .join(', '),
      changesBoard: (b) =>
        b.did !== undefined || b.programmerVolts !== undefined ? { what: 'work on the firmware chip' } : null,
    },
  },
  on: {
    firmware(s, line) {
      s.steps.push({ ...notedOf(line), ...line.body })
    },
  },
})

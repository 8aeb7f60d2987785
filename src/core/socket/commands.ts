import { lineOf } from '../tape/command'
import type { Command } from '../tape/command'
import { damageKinds } from './damage/mark'
import { readMark } from './damage/read-mark'
import type { SocketBodies } from './bodies'

const entry = lineOf<SocketBodies>()

export const socketCommands: readonly Command[] = [
  {
    word: 'mark',
    form: 'mark CONTACT KIND [MM] [WAY] [on CONTACT]',
    example: 'mark M31 low 0.19',
    say: `kinds: ${damageKinds.slice(1).join(', ')}`,
    choices: { 2: damageKinds },
    read: (rest) => {
      const read = readMark(rest)
      return typeof read === 'string' ? read : entry('mark', { contacts: [read.contact], mark: read.mark })
    },
  },
]

import { lineOf } from '../tape/command'
import type { Command } from '../tape/command'
import type { IntakeBodies } from './bodies'

const entry = lineOf<IntakeBodies>()

export const intakeCommands: readonly Command[] = [
  {
    word: 'says',
    form: 'says WHAT THE OWNER SAYS',
    example: 'says it worked until Tuesday',
    say: 'a claim: weighs less until checked here',
    read: (_, text) => (text ? entry('claim', { text }) : 'what does the owner say?'),
  },
]

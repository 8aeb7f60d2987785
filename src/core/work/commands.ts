import { lineOf } from '../tape/command'
import type { Command } from '../tape/command'
import type { WorkBodies } from './bodies'

const entry = lineOf<WorkBodies>()

export const workCommands: readonly Command[] = [
  {
    word: 'note',
    form: 'note TEXT',
    example: 'note flux left of the socket',
    say: 'anything worth keeping',
    read: (_, text) => (text ? entry('note', { text }) : 'what is the note?'),
  },
  {
    word: 'decide',
    form: 'decide TEXT',
    example: 'decide straighten first, flash later',
    say: 'a decision and its reason',
    read: (_, text) => (text ? entry('decision', { text }) : 'what was decided?'),
  },
  {
    word: 'strike',
    form: 'strike NUMBER WHY',
    example: 'strike 6 probe had slipped',
    say: 'strikes a line; it stays readable',
    read: (rest, text) => {
      const seq = /^\d{1,9}$/.test(rest[0] ?? '') ? Number(rest[0]) : 0
      if (seq < 1) return `strike which line? “${rest[0] ?? ''}” is no line number`
      const why = text.slice(text.indexOf(rest[0]!) + rest[0]!.length).trim()
      return why ? entry('strike', { why }, seq) : 'why is it struck? one word is enough'
    },
  },
]

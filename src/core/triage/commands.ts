import { lineOf } from '../tape/command'
import type { Command } from '../tape/command'
import { readNumber } from '../tables/read-number'
import { notACode, readCodesTyped } from './instruments/code'
import type { TriageBodies } from './bodies'

const entry = lineOf<TriageBodies>()

export const triageCommands: readonly Command[] = [
  {
    word: 'say',
    form: 'say PERCENT',
    example: 'say 70',
    say: 'how likely there is a picture at the next start, said before it',
    read: ([first, ...rest]) => {
      const is = readNumber(first?.replace(/%$/, ''))
      if (is === null || is < 0 || is > 100 || rest.length > 0)
        return 'how likely is a picture at the next start? 0 to 100 in a hundred'
      return entry('odds said', { odds: is / 100, reckoned: null })
    },
  },
  {
    word: 'code',
    form: 'code HEX HEX … [for SECONDS]',
    example: 'code 4C 4C 31',
    say: 'codes in the order they showed, and how long it was watched',
    read: (words) => {
      const last = words.findIndex((w) => w.toLowerCase() === 'for')
      const rest = last < 0 ? words : words.slice(0, last)
      const watchedS = last < 0 ? undefined : readNumber(words[last + 1], 's')
      if (watchedS === null || (watchedS !== undefined && (watchedS < 0 || words.length > last + 2)))
        return `watched how long? “${words.slice(last + 1).join(' ')}” is no number of seconds`
      const { codes, odd } = readCodesTyped(rest.join(' '))
      if (codes.length === 0) return 'which codes? two hex figures each'
      if (odd) return notACode(odd)
      return entry('codes', { codes, ...(watchedS === undefined ? {} : { watchedS }) })
    },
  },
]

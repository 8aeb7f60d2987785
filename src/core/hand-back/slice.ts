import type { HandBackBodies } from './bodies'
import { castDraft } from 'immer'
import { notedOf } from '../tape/line'
import type { Noted } from '../tape/line'
import { slice } from '../tape/slice'

export interface HandBackState {
  readonly advice: readonly string[]
  readonly done: (Noted & HandBackBodies['hand-back']) | null
  readonly lateOutcomes: readonly (Noted & HandBackBodies['late outcome'])[]
}

export const handBack = slice<HandBackBodies>().of({
  id: 'handBack',
  initial: (): HandBackState => ({ advice: [], done: null, lateOutcomes: [] }),
  kinds: {
    advice: { opens: 'hand-back', words: ({ body: b }) => `advice: ${b.text}` },
    'hand-back': {
      opens: 'hand-back',
      words: ({ body: b }) =>
        `${b.outcome === 'withdrawn' ? 'withdrawn: begun by mistake' : `handed back: ${b.outcome}`}${b.despite?.length ? ` (despite: ${b.despite.join('; ')})` : ''}`,
      subjects: () => ['hand-back'],
    },
    'late outcome': {
      words: ({ body: b }) => `later: ${b.text}`,
      // It was in other hands since.
      changesBoard: (b) => (b.holds ? null : { what: 'word that it does not hold' }),
    },
  },
  on: {
    advice(s, { body }) {
      s.advice.push(body.text)
    },
    'hand-back'(s, line) {
      s.done = castDraft({ ...notedOf(line), ...line.body })
    },
    'late outcome'(s, line) {
      s.lateOutcomes.push({ ...notedOf(line), ...line.body })
    },
  },
})

import type { ProofBodies } from './bodies'
import { castDraft } from 'immer'
import { notedOf } from '../tape/line'
import type { Noted } from '../tape/line'
import { slice } from '../tape/slice'

export interface ProofState {
  /** The last result of each test. */
  readonly results: Readonly<Record<string, Noted & ProofBodies['proof']>>
  readonly starts: readonly (Noted & ProofBodies['cold start'])[]
}

export const proof = slice<ProofBodies>().of({
  id: 'proof',
  initial: (): ProofState => ({ results: {}, starts: [] }),
  kinds: {
    'cold start': {
      opens: 'proof',
      words: ({ body: { came } }) => `cold start: ${came ? 'came up' : 'stayed dark'}`,
    },
    proof: {
      opens: 'proof',
      words: ({ body: b }) =>
        `${b.test}: ${b.result}${b.reading ? `, ${b.reading}` : ''}${b.despite?.length ? ` (despite: ${b.despite.join('; ')})` : ''}`,
    },
  },
  on: {
    'cold start'(s, line) {
      s.starts.push({ ...notedOf(line), ...line.body })
    },
    proof(s, line) {
      s.results[line.body.test] = castDraft({ ...notedOf(line), ...line.body })
    },
  },
})

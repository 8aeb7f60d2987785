import type { ProofBodies } from './bodies'
import { castDraft } from 'immer'
import { notedOf } from '../tape/line'
import type { Noted } from '../tape/line'
import { slice } from '../tape/slice'

export interface ProofState {
  /** The last result of each test. */
  readonly results: Readonly<Record<string, Noted & ProofBodies['proof']>>
}

export const proof = slice<ProofBodies>().of({
  id: 'proof',
  initial: (): ProofState => ({ results: {} }),
  kinds: {
    proof: {
      opens: 'proof',
      words: ({ body: b }) =>
        `${b.test}: ${b.result}${b.reading ? `, ${b.reading}` : ''}${b.despite?.length ? ` (despite: ${b.despite.join('; ')})` : ''}`,
    },
  },
  on: {
    proof(s, line) {
      s.results[line.body.test] = castDraft({ ...notedOf(line), ...line.body })
    },
  },
})

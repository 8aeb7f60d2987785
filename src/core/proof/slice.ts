import type { ProofBodies } from './bodies'
import { castDraft } from 'immer'
import { notedOf } from '../tape/line'
import type { Noted } from '../tape/line'
import { slice } from '../tape/slice'
import { sayTemperature } from './temperature'

export interface ProofState {
  /** The last result of each test. */
  readonly results: Readonly<Record<string, Noted & ProofBodies['proof']>>
  /** Logs of temperatures, the last of them last. */
  readonly temperatures: readonly (Noted & ProofBodies['temperature'])[]
  readonly starts: readonly (Noted & ProofBodies['cold start'])[]
}

export const proof = slice<ProofBodies>().of({
  id: 'proof',
  initial: (): ProofState => ({ results: {}, temperatures: [], starts: [] }),
  kinds: {
    temperature: {
      opens: 'proof',
      words: ({ body: b }) => `temperature under load, ${b.name}: ${sayTemperature(b)}`,
    },
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
    temperature(s, line) {
      s.temperatures.push(castDraft({ ...notedOf(line), ...line.body }))
    },
    'cold start'(s, line) {
      s.starts.push(castDraft({ ...notedOf(line), ...line.body }))
    },
    proof(s, line) {
      s.results[line.body.test] = castDraft({ ...notedOf(line), ...line.body })
    },
  },
})

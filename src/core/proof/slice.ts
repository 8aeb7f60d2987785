import type { ProofBodies } from './bodies'
import { castDraft } from 'immer'
import { notedOf } from '../tape/line'
import type { Noted } from '../tape/line'
import { slice } from '../tape/slice'
import { percent } from '../maths/percent'
import { saysOfTest } from './line-says'
import { sayTemperature } from './temperature'

export interface ProofState {
  /** The last result of each test. */
  readonly results: Readonly<Record<string, Noted & ProofBodies['proof']>>
  /** Logs of temperatures, the last of them last. */
  readonly temperatures: readonly (Noted & ProofBodies['temperature'])[]
  readonly starts: readonly (Noted & ProofBodies['cold start'])[]
  /** Tests that were settled, with how likely each was said to find something, and whether it did. */
  readonly told: readonly (Noted & {
    readonly test: string
    readonly odds: number
    readonly found: boolean
  })[]
}

const saysOdds = ({ finds }: { readonly finds?: number }): string =>
  finds === undefined ? '' : ` (${percent(finds)} that it would find something)`

type Told = ProofState['told'][number]

/** Keeps what was said of a test with what came of it, where its line says so. */
function tell(
  told: Told[],
  line: Noted & { readonly kind: string; readonly body: { readonly finds?: number } },
): void {
  const of = saysOfTest(line.kind, line.body)
  const { finds } = line.body
  if (of && finds !== undefined)
    told.push({ ...notedOf(line), test: of.test, odds: finds, found: of.says === 'fail' })
}

/** The last line about a test. */
const lastOf = (test: string, { results, starts, temperatures }: Omit<ProofState, 'told'>): number =>
  Math.max(
    results[test]?.seq ?? 0,
    (test === 'cold starts' ? starts.at(-1)?.seq : undefined) ?? 0,
    (test === 'temperature' ? temperatures.at(-1)?.seq : undefined) ?? 0,
  )

export const proof = slice<ProofBodies>().of({
  id: 'proof',
  initial: (): ProofState => ({ results: {}, temperatures: [], starts: [], told: [] }),
  kinds: {
    temperature: {
      opens: 'proof',
      words: ({ body: b }) => `temperature under load, ${b.name}: ${sayTemperature(b)}${saysOdds(b)}`,
    },
    'cold start': {
      opens: 'proof',
      words: ({ body: b }) => `cold start: ${b.came ? 'came up' : 'stayed dark'}${saysOdds(b)}`,
    },
    proof: {
      opens: 'proof',
      words: ({ body: b }) =>
        `${b.test}: ${b.result}${b.afterAll ? ' after all' : ''}${b.reading ? `, ${b.reading}` : ''}${saysOdds(b)}${b.despite?.length ? ` (despite: ${b.despite.join('; ')})` : ''}`,
    },
  },
  on: {
    temperature(s, line) {
      s.temperatures.push(castDraft({ ...notedOf(line), ...line.body }))
      tell(s.told, line)
    },
    'cold start'(s, line) {
      s.starts.push(castDraft({ ...notedOf(line), ...line.body }))
      tell(s.told, line)
    },
    proof(s, line) {
      const { test, afterAll } = line.body
      const passed = afterAll && s.told.find((told) => told.test === test && told.seq === lastOf(test, s))
      if (passed) passed.found = true
      s.results[test] = castDraft({ ...notedOf(line), ...line.body })
      tell(s.told, line)
    },
  },
})

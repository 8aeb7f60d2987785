import type { ProofBodies } from './bodies'
import { verdictOf } from './temperature'

type ProofLine = {
  [K in keyof ProofBodies]: { readonly kind: K; readonly body: ProofBodies[K] }
}[keyof ProofBodies]

/** What a line says of its test; null where it does not tell, or the test cannot be run. */
export interface SaysOfTest {
  readonly test: string
  readonly says: 'pass' | 'fail' | null
}

/** What a temperature log says of its test; one that does not tell yet leaves it owed. */
export const temperatureSays = { 'levels off': 'pass', 'too hot': 'fail', 'not yet': null } as const

/** What a line says of which test of the proof; null for a line of any other kind. */
export function saysOfTest(kind: string, body: unknown): SaysOfTest | null {
  const line = { kind, body } as ProofLine
  switch (line.kind) {
    case 'proof':
      return { test: line.body.test, says: line.body.result === 'cannot run here' ? null : line.body.result }
    case 'cold start':
      return { test: 'cold starts', says: line.body.came ? 'pass' : 'fail' }
    case 'temperature':
      return { test: 'temperature', says: temperatureSays[verdictOf(line.body)] }
    default:
      return null
  }
}

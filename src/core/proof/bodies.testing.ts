import fc from 'fast-check'
import type { ProofBodies } from './bodies'

export const chance = fc.double({ min: 0, max: 1, noNaN: true })
/** A log that levels off well below what the CPU bears. */
export const temperatureKept = {
  ...{ name: 'log.csv', readings: 200, bearsC: 95, levelC: 61, leastC: 60, mostC: 63, slowS: 170 },
  ...{ read: { s: [0, 60, 120, 180], c: [30, 48, 57, 60] }, curve: { s: [0, 9], c: [30, 40] } },
}

/** Lines of the proof, as the edge would let them in. */
export const proofBodies: { readonly [K in keyof ProofBodies]: fc.Arbitrary<ProofBodies[K]> } = {
  temperature: fc
    .record({ mostC: fc.constantFrom(63, 99, null), finds: chance }, { requiredKeys: ['mostC'] })
    .map((told) => ({ ...temperatureKept, ...told })),
  'cold start': fc.record({ came: fc.boolean(), finds: chance }, { requiredKeys: ['came'] }),
  proof: fc.record(
    {
      test: fc.constantFrom('system', 'cold starts', 'else'),
      result: fc.constantFrom('pass', 'fail', 'cannot run here'),
      reading: fc.constantFrom('', '4 of 4', 'hangs'),
      finds: chance,
      afterAll: fc.constant(true as const),
    },
    { requiredKeys: ['test', 'result', 'reading'] },
  ),
}

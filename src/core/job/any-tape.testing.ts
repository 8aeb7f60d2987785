import fc from 'fast-check'
import type { Kind } from '../slices'
import { bodies, line } from './any-body.testing'
import type { Entry } from './job-state'
import { kinds } from './job-state'

const anyLine = fc.constantFrom(...kinds).chain((kind) =>
  fc.record({
    kind: fc.constant(kind),
    body: bodies[kind] as fc.Arbitrary<unknown>,
    strikes: fc.oneof({ weight: 6, arbitrary: fc.constant(null) }, { weight: 1, arbitrary: line }),
  }),
)

/** A strike names a line before it; the first line has none to name. */
const sensible = (
  line: { readonly kind: Kind; readonly body: unknown; readonly strikes: number | null },
  i: number,
) =>
  line.kind !== 'strike'
    ? line
    : i === 0
      ? { kind: 'note' as const, body: { text: 'x' }, strikes: null }
      : { ...line, strikes: Math.min(line.strikes ?? i, i) }

/** Any tape that the edge would let in, sensible or not. */
export const anyTape = (most = 30): fc.Arbitrary<Entry[]> =>
  fc.array(anyLine, { maxLength: most }).map((lines) =>
    lines.map(sensible).map(
      ({ kind, body, strikes }, i) =>
        ({
          id: `00000000-0000-4000-8000-${String(i + 1).padStart(12, '0')}`,
          seq: i + 1,
          at: new Date(Date.UTC(2026, 10, 24, 9, i)).toISOString(),
          by: i % 3 === 0 ? 'Ines' : 'Maren',
          kind,
          v: 1,
          body,
          strikes: strikes !== null && strikes <= i ? strikes : null,
        }) as unknown as Entry,
    ),
  )

import fc from 'fast-check'
import { generateField } from './generate'
import type { Region } from './generate'
import type { Mark, Marks } from '../damage/mark'
import type { Socket, Trust } from './socket'
import type { FunctionGroup } from '../../board/function-group'

export const region = (
  rows: readonly [number, number],
  columns: readonly [number, number],
  group: FunctionGroup,
  trust: Trust = 'published',
): Region => ({
  rows,
  columns,
  group,
  net: group === 'ground' ? 'GND' : `${group.replace(/\W/g, '_')}_`,
  trust,
})

/** A small field for tests: memory A and B at the top, ground left, core power right, control at the bottom. */
export const smallField = (kind: Socket['kind'] = 'land-grid', trust: Trust = 'published'): Socket =>
  generateField({
    id: 'small',
    name: 'small',
    kind,
    pitchMm: 1,
    rows: 8,
    columns: 8,
    holes: [{ rows: [3, 4], columns: [3, 4] }],
    beamDeg: [45, 225],
    regions: [
      region([0, 1], [0, 3], 'memory A', trust),
      region([0, 1], [4, 7], 'memory B', trust),
      region([2, 6], [0, 3], 'ground', trust),
      region([2, 6], [4, 7], 'core power', trust),
      region([7, 7], [0, 3], 'control', trust),
      region([7, 7], [4, 7], 'reserved', trust),
    ],
  })

const hundredths = (min: number, max: number) => fc.integer({ min, max }).map((n) => n / 100)

/** Any damage a person could note, without a neighbour. */
export const anyMark: fc.Arbitrary<Mark> = fc.oneof(
  fc.record({
    kind: fc.constant('lean' as const),
    leanMm: fc.tuple(hundredths(-60, 60), hundredths(-60, 60)),
  }),
  fc.record({ kind: fc.constant('low' as const), heightMm: hundredths(-30, -1) }),
  fc.record({ kind: fc.constant('high' as const), heightMm: hundredths(1, 30) }),
  fc.record({
    kind: fc.constantFrom('twisted' as const, 'tip gone' as const, 'snapped' as const, 'paste' as const),
  }),
)

/** Marks on up to `most` contacts of a field, some of them folded over or touching a neighbour. */
export const anyMarks = (socket: Socket, most = 8): fc.Arbitrary<Marks> =>
  fc
    .array(
      fc.tuple(
        fc.nat({ max: socket.contacts.length - 1 }),
        fc.oneof(
          { weight: 4, arbitrary: anyMark },
          { weight: 1, arbitrary: fc.constantFrom({ kind: 'folded' } as Mark, { kind: 'touching' } as Mark) },
        ),
        fc.nat({ max: 7 }),
      ),
      { maxLength: most },
    )
    .map((picked) =>
      Object.fromEntries(
        picked.map(([i, mark, turn]) => {
          const c = socket.contacts[i]!
          if (mark.kind !== 'folded' && mark.kind !== 'touching') return [c.name, mark]
          const around = socket.contacts.filter(
            (o) => o !== c && Math.hypot(o.xMm - c.xMm, o.yMm - c.yMm) < socket.pitchMm * 1.5,
          )
          return [c.name, { ...mark, touches: around[turn % around.length]!.name }]
        }),
      ),
    )

import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { clusters } from './cluster'
import { anyMarks, smallField } from '../model/field.testing'
import { isDamage } from './mark'
import type { Mark, Marks } from './mark'
import { fieldOf } from '../model/socket'

const socket = smallField()
const named = (names: readonly string[], mark: Mark): Marks => Object.fromEntries(names.map((n) => [n, mark]))

describe('clusters', () => {
  it('are the connected groups of damaged contacts', () => {
    fc.assert(
      fc.property(anyMarks(socket, 20), (marks) => {
        const { named: byName } = fieldOf(socket)
        const damaged = Object.keys(marks).filter((n) => isDamage(marks[n]))
        const label = new Map(damaged.map((n) => [n, n]))
        const near = (a: string, b: string) =>
          Math.hypot(byName.get(a)!.xMm - byName.get(b)!.xMm, byName.get(a)!.yMm - byName.get(b)!.yMm) <= 1.6
        for (let round = 0; round < damaged.length; round++)
          for (const a of damaged)
            for (const b of damaged)
              if (near(a, b) && label.get(b)! < label.get(a)!) label.set(a, label.get(b)!)
        const wanted = [...new Set(label.values())]
          .map((l) =>
            damaged
              .filter((n) => label.get(n) === l)
              .sort()
              .join(' '),
          )
          .sort()
        const found = clusters(socket, marks)
          .map((c) => [...c.names].sort().join(' '))
          .sort()
        expect(found).toEqual(wanted)
      }),
    )
  })
  it('are told apart by their shape', () => {
    expect(clusters(socket, named(['A1', 'A2', 'B1', 'B2', 'C1'], { kind: 'low' }))[0]).toMatchObject({
      shape: 'crater',
      say: expect.stringMatching(/^crater of 5 at/),
    })
    const swath = clusters(
      socket,
      named(['F1', 'F2', 'G1', 'G2', 'G3'], { kind: 'lean', leanMm: [0.2, 0.02] }),
    )[0]!
    expect(swath).toMatchObject({ shape: 'swath' })
    expect(swath.say).toMatch(/leaning east$/)
    expect(
      clusters(socket, named(['H1', 'H2', 'H3', 'H4'], { kind: 'lean', leanMm: [0, 0.2] }))[0]!.shape,
    ).toBe('row')
    expect(clusters(socket, { A1: { kind: 'snapped' } })[0]).toMatchObject({
      shape: 'stray',
      say: 'A1',
      middle: 'A1',
    })
  })
})

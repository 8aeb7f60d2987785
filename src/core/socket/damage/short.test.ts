import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { anyMarks, smallField } from '../model/field.testing'
import { clearance, contactCapsule, segmentDistance, shorts } from './short'
import { fieldOf } from '../model/socket'

const at = fc.integer({ min: -2000, max: 2000 }).map((n) => n / 1000)
const point = fc.tuple(at, at, at)
type Point = readonly [number, number, number]

/** Distance by refining a grid over both segments. */
function searched(p1: Point, q1: Point, p2: Point, q2: Point): number {
  const on = (p: Point, q: Point, t: number) => p.map((v, i) => v + (q[i]! - v) * t)
  let [s0, t0, width] = [0.5, 0.5, 0.5]
  let best = Infinity
  for (let round = 0; round < 40; round++) {
    let [bs, bt] = [s0, t0]
    for (let i = -4; i <= 4; i++)
      for (let j = -4; j <= 4; j++) {
        const s = Math.min(1, Math.max(0, s0 + (i / 4) * width))
        const t = Math.min(1, Math.max(0, t0 + (j / 4) * width))
        const [a, b] = [on(p1, q1, s), on(p2, q2, t)]
        const d = Math.hypot(a[0]! - b[0]!, a[1]! - b[1]!, a[2]! - b[2]!)
        if (d < best) [best, bs, bt] = [d, s, t]
      }
    ;[s0, t0, width] = [bs, bt, width * 0.7]
  }
  return best
}

describe('segmentDistance', () => {
  it('equals the searched least distance', () => {
    fc.assert(
      fc.property(point, point, point, point, (a, b, c, d) => {
        // The search ends a little above the least, the more so the nearer the two come.
        const [exact, found] = [segmentDistance(a, b, c, d), searched(a, b, c, d)]
        expect(exact).toBeLessThanOrEqual(found + 1e-9)
        expect(found - exact).toBeLessThan(0.005)
      }),
      { numRuns: 200 },
    )
  })
  it('does not mind the order of the two or of their ends, nor points and parallels', () => {
    fc.assert(
      fc.property(point, point, point, point, (a, b, c, d) => {
        const distance = segmentDistance(a, b, c, d)
        expect(segmentDistance(c, d, a, b)).toBeCloseTo(distance, 9)
        expect(segmentDistance(b, a, d, c)).toBeCloseTo(distance, 9)
      }),
    )
    expect(segmentDistance([0, 0, 0], [0, 0, 0], [3, 4, 0], [3, 4, 0])).toBe(5)
    expect(segmentDistance([0, 0, 0], [1, 0, 0], [0, 1, 0], [1, 1, 0])).toBe(1)
  })
})

describe('shorts', () => {
  const socket = smallField()
  it('finds none in a healthy field', () => {
    expect(shorts(socket, {})).toEqual([])
    expect(shorts(smallField('pin-grid'), {})).toEqual([])
  })
  it('takes a contact that was seen to touch as certain, and grades the join', () => {
    const [short] = shorts(socket, { C4: { kind: 'touching', touches: 'C5' } })
    expect(short).toMatchObject({ a: 'C4', b: 'C5', how: 'seen', odds: 1, grade: 'gravest' })
    expect(shorts(socket, { C4: { kind: 'touching', touches: 'C5', unsure: true } })[0]!.odds).toBe(0.6)
    expect(shorts(socket, { C1: { kind: 'touching', touches: 'C2' } })[0]!.grade).toBe('harmless')
  })
  it('finds, without being told, a tip dragged onto its neighbour', () => {
    const found = shorts(socket, { C4: { kind: 'lean', leanMm: [0.9, 0] } })
    expect(found.find((s) => s.b === 'C5')?.odds).toBeGreaterThan(0.9)
  })
  it('finds two that meet over a third, however far apart their feet are', () => {
    const found = shorts(socket, {
      A1: { kind: 'folded', touches: 'B2' },
      C3: { kind: 'folded', touches: 'B2' },
    })
    expect(found.map((s) => [s.a, s.b].sort().join(' '))).toContain('A1 C3')
  })
  it('agrees with looking at every pair', () => {
    const { named } = fieldOf(socket)
    fc.assert(
      fc.property(anyMarks(socket), (marks) => {
        const capsule = (name: string) => {
          const mark = marks[name]
          return contactCapsule(named.get(name)!, mark, mark?.touches ? named.get(mark.touches) : undefined)
        }
        const found = new Set(shorts(socket, marks).map((s) => [s.a, s.b].sort().join(' ')))
        for (const name of Object.keys(marks))
          for (const other of socket.contacts) {
            const [one, two] = [capsule(name), capsule(other.name)]
            if (other.name === name || !one || !two || clearance(one, two) > 0) continue
            expect(found).toContain([name, other.name].sort().join(' '))
          }
      }),
      { numRuns: 30 },
    )
  })
})

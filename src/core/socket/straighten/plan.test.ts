import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { liesAcross } from '../damage/across'
import { anyMarks, smallField } from '../model/field.testing'
import { isDamage } from '../damage/mark'
import type { Marks } from '../damage/mark'
import { openSide } from '../damage/open-side'
import { afterPlan, plan } from './plan'
import { fieldOf } from '../model/socket'

const socket = smallField()
const orderOf = (marks: Marks, school: 'A' | 'B' = 'A') =>
  plan(socket, marks, school).steps.map((s) => s.contact)

/** Everything that must go before a contact, directly or through others. */
function before(across: ReadonlyMap<string, readonly string[]>, name: string): Set<string> {
  const found = new Set<string>()
  const queue = [name]
  while (queue.length > 0) {
    const at = queue.pop()!
    for (const [over, unders] of across)
      if (unders.includes(at) && !found.has(over)) {
        found.add(over)
        queue.push(over)
      }
  }
  return found
}

describe('plan', () => {
  it('deals with every damaged contact once, and with no other', () => {
    fc.assert(
      fc.property(anyMarks(socket, 14), fc.constantFrom('A' as const, 'B' as const), (marks, school) => {
        const damaged = Object.keys(marks).filter((name) => isDamage(marks[name]))
        expect(orderOf(marks, school).sort()).toEqual(damaged.sort())
      }),
    )
  })
  it('never places a contact before one that lies across it, unless they lie in a ring', () => {
    fc.assert(
      fc.property(anyMarks(socket, 14), fc.constantFrom('A' as const, 'B' as const), (marks, school) => {
        const across = liesAcross(socket, marks)
        const order = orderOf(marks, school)
        for (const [over, unders] of across)
          for (const under of unders) {
            const ring = before(across, over).has(under)
            if (!ring) expect(order.indexOf(over)).toBeLessThan(order.indexOf(under))
          }
      }),
    )
  })
  it('begins with the folded one that lies over a bent neighbour', () => {
    const marks: Marks = { D7: { kind: 'lean', leanMm: [0.1, 0] }, D6: { kind: 'folded', touches: 'D7' } }
    expect(orderOf(marks)).toEqual(['D6', 'D7'])
    expect(plan(socket, marks).steps[1]).toMatchObject({ contact: 'D7', after: ['D6'] })
  })
  it('takes what frees another before what frees nobody, when both are alike', () => {
    const lean = (x: number, y: number) => ({ kind: 'lean', leanMm: [x, y] }) as const
    const pair = { B2: lean(-0.8, 0), B3: lean(0, 0.8) }
    expect(orderOf({ ...pair, D7: lean(0, 0.8), D8: lean(0, 0.8) })[0]).toBe('B2')
    expect(orderOf({ ...pair, D7: lean(0.8, 0), D8: lean(0, 0.8) })[0]).toBe('D7')
  })
  it('takes the easy ones first in school A and the worst first in school B', () => {
    const marks: Marks = {
      B2: { kind: 'low', heightMm: -0.08 },
      B6: { kind: 'twisted' },
      G2: { kind: 'folded', touches: 'G1' },
    }
    expect(orderOf(marks, 'A')).toEqual(['B2', 'B6', 'G2'])
    expect(orderOf(marks, 'B')[0]).toBe('G2')
  })
  it('works a crater from its rim inward', () => {
    const depth = (row: number, column: number) =>
      0.22 - 0.07 * Math.max(Math.abs(row - 1), Math.abs(column - 1))
    const marks: Marks = Object.fromEntries(
      ['A', 'B', 'C'].flatMap((row, r) =>
        [1, 2, 3].map((c) => [`${row}${c}`, { kind: 'low' as const, heightMm: -depth(r, c - 1) }]),
      ),
    )
    expect(orderOf(marks).at(-1)).toBe('B2')
  })
  it('leaves what is gone and redundant, and says why; keeps a decision to leave', () => {
    const steps = plan(socket, {
      D1: { kind: 'snapped' },
      H6: { kind: 'tip gone' },
      A1: { kind: 'snapped' },
    }).steps
    const say = Object.fromEntries(steps.map((s) => [s.contact, s.say]))
    expect(say.D1).toBe('leave: one of 18 grounds')
    expect(say.H6).toBe('leave: listed as reserved (published table)')
    expect(say.A1).toMatch(/transplant from a donor/)
    expect(
      plan(socket, { B2: { kind: 'twisted' } }, 'A', { B2: 'more risk than gain' }).steps[0],
    ).toMatchObject({ technique: 'leave', snaps: 0, say: 'leave: more risk than gain' })
  })
  it('does not bend what is only suspected', () => {
    expect(plan(socket, { B2: { kind: 'low', unsure: true } }).steps[0]).toMatchObject({
      technique: 'look',
      strokes: 0,
    })
  })
  it('has techniques of its own for pins', () => {
    const pins = smallField('pin-grid')
    const row: Marks = Object.fromEntries(
      ['F1', 'F2', 'F3', 'F4'].map((n) => [n, { kind: 'lean', leanMm: [0, 0.3] }]),
    )
    expect(plan(pins, row).steps.map((s) => s.technique)).toContain('blade')
    expect(plan(pins, { B2: { kind: 'folded', touches: 'B3' } }).steps[0]!.tool).toBe('hollow tube')
  })
  it('counts the odds that any is lost, and what they leave behind', () => {
    fc.assert(
      fc.property(anyMarks(socket, 10), (marks) => {
        const planned = plan(socket, marks)
        const none = planned.steps.reduce((all, s) => all * (1 - s.snaps), 1)
        expect(planned.anySnaps).toBeCloseTo(1 - none, 12)
        const after = afterPlan(planned, marks)
        for (const step of planned.steps) {
          const kept = ['leave', 'look', 'replace'].includes(step.technique)
          expect(isDamage(after.marks[step.contact])).toBe(kept)
        }
      }),
    )
  })
})

describe('openSide', () => {
  const contact = (name: string) => fieldOf(socket).named.get(name)!
  it('comes from the side the tip has gone to, when nothing stands there', () => {
    expect(openSide(socket, contact('D8'), [-0.2, 0], {}).side).toBe('east')
    expect(openSide(socket, contact('A4'), [0, -0.2], {}).side).toBe('north')
  })
  it('goes round what stands raised in its way, and says so when it cannot', () => {
    const side = openSide(socket, contact('F3'), [0, 0.2], { G3: { kind: 'high' } })
    expect(side.side).not.toBe('south')
    const ring = Object.fromEntries(
      ['E2', 'E3', 'E4', 'F2', 'F4', 'G2', 'G3', 'G4'].map((n) => [n, { kind: 'high' as const }]),
    )
    expect(openSide(socket, contact('F3'), [0, 0.2], ring).blockedBy.length).toBeGreaterThan(0)
  })
})

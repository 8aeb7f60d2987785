import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { assess } from './assess'
import { goodOrLost } from './each-contact'
import { smallField } from '../model/field.testing'
import type { Mark } from './mark'

const socket = smallField()
const names = socket.contacts.map((c) => c.name)
const draws = 4000

describe('what each contact is worth to the board', () => {
  it('is what an assessment of the field with it good, and with it snapped, gives', () => {
    const some = names.slice(0, 6)
    const marks: Record<string, Mark> = {
      [names[8]!]: { kind: 'lean', leanMm: [0.3, 0] },
      [names[12]!]: { kind: 'snapped' },
    }
    const mayBeGone = { [names[2]!]: 0.3, [names[20]!]: 0.2 }
    const each = goodOrLost(socket, marks, { mayBeGone, draws }, some)
    for (const name of some) {
      const { [name]: _, ...rest } = mayBeGone
      const good = assess(socket, marks, { mayBeGone: rest, draws, seed: 7 })
      const lost = assess(
        socket,
        { ...marks, [name]: { kind: 'snapped' } },
        { mayBeGone: rest, draws, seed: 7 },
      )
      // Both are means of 4,000 draws with seeds of their own: four standard errors of the difference.
      const near = 4 * Math.sqrt((2 * 0.25) / draws)
      expect(Math.abs(each.get(name)!.good.runs - good.runs)).toBeLessThan(near)
      expect(Math.abs(each.get(name)!.lost.runs - lost.runs)).toBeLessThan(near)
      expect(Math.abs(each.get(name)!.lost.whole - lost.whole)).toBeLessThan(near)
    }
  })
  it('is nothing in a field that is shorted, and known of contacts that are at risk themselves', () => {
    const [rail, ground] = [
      socket.contacts.find((c) => c.group === 'core power')!,
      socket.contacts.find((c) => c.group === 'ground')!,
    ]
    const touching: Record<string, Mark> = { [rail.name]: { kind: 'touching', touches: ground.name } }
    for (const { good, lost } of goodOrLost(socket, touching, { draws: 300 }, names.slice(0, 4)).values())
      expect([good.runs, lost.runs]).toEqual([0, 0])
    // Of a memory contact that is lost half the time, good is what it is worth when it is not.
    const one = socket.contacts.find((c) => c.group === 'control')!.name
    const marks: Record<string, Mark> = { [one]: { kind: 'low', heightMm: -0.1 } }
    const { good, lost } = goodOrLost(socket, marks, { draws, seed: 3 }, [one]).get(one)!
    const whole = goodOrLost(socket, {}, { draws, seed: 3 }, [one]).get(one)!
    expect(good.runs).toBeCloseTo(whole.good.runs, 1)
    // What the table says of it may be wrong, now and then.
    expect(lost.runs).toBeLessThan(0.05)
  })
  it('is never more with the contact lost than with it good, and never whole more often than it runs', () => {
    fc.assert(
      fc.property(fc.subarray(names, { minLength: 1, maxLength: 6 }), fc.nat(99), (damaged, seed) => {
        const marks = Object.fromEntries(
          damaged.map((n): [string, Mark] => [n, { kind: 'low', heightMm: -0.15 }]),
        )
        for (const { good, lost } of goodOrLost(socket, marks, { draws: 60, seed }, names).values()) {
          expect(lost.runs).toBeLessThanOrEqual(good.runs)
          expect(lost.whole).toBeLessThanOrEqual(good.whole)
          expect(good.whole).toBeLessThanOrEqual(good.runs)
        }
      }),
      { numRuns: 40 },
    )
  })
})

import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { between } from '../../maths/between.testing'
import { inCircle } from '../../maths/normal'
import { assess } from './assess'
import { benchBeam } from '../contact/contact-force'
import { smallField } from '../model/field.testing'
import type { Marks } from './mark'
import { openSide } from './open-side'
import { slopeOf } from '../seat/seat-reading'
import { BEAM_RUN_MM, clearance, contactCapsule, segmentDistance, shorts } from './short'
import { fieldOf } from '../model/socket'
import { sweepOrder } from '../straighten/sweep'

const socket = smallField()
const at = (name: string) => fieldOf(socket).named.get(name)!

describe('the corridor of a tool', () => {
  // F3 is pushed north: the needle comes from the south, along F3–G3–H3. Its corridor is 0.25 mm to each side.
  // All others are gone, so that nothing but the one contact stands in any corridor.
  const bare: Marks = Object.fromEntries(socket.contacts.map((c) => [c.name, { kind: 'snapped' as const }]))
  const from = (leanMm: readonly [number, number]) =>
    openSide(socket, at('F3'), [0, 0.2], { ...bare, G4: { kind: 'high', leanMm } }).side
  it('is blocked by a tip 0.24 mm beside its middle, and free at 0.26 mm', () => {
    expect(from([-1 + 0.24, 0])).not.toBe('south')
    expect(from([-1 + 0.26, 0])).toBe('south')
  })
  it('ends 1.6 mm from the contact', () => {
    const far = (y: number) =>
      openSide(socket, at('F3'), [0, 0.2], { ...bare, H4: { kind: 'high', leanMm: [-1, y] } }).side
    expect(far(0.3)).not.toBe('south') // 1.7 mm away: its round end is within reach
    expect(far(-0.1)).toBe('south')
  })
})

it('the CPU’s shift has two axes, each of the placement’s spread', () => {
  const draws = 40_000
  const sigma = Math.hypot(benchBeam.placementSigmaMm, benchBeam.eyeSigmaMm)
  const lands = inCircle(0.2, benchBeam.landDiameterMm / 2, sigma)
  for (const leanMm of [
    [0.2, 0],
    [0, 0.2],
    [-0.2, 0],
    [0, -0.2],
    [Math.SQRT2 / 10, -Math.SQRT2 / 10],
  ] as const) {
    const a = assess(socket, { A1: { kind: 'lean', leanMm } }, { draws })
    expect(Math.abs(a.groups.find((g) => g.group === 'memory A')!.lost - (1 - lands))).toBeLessThan(0.012)
  }
})

describe('clearances to a neighbour on the diagonal', () => {
  // D2 and C3 stand a pitch apart both ways; both strips rise along that diagonal, 45°.
  it('is between the strips, half-width and half-width, as the lean brings them near', () => {
    // In the upright plane through the diagonal: the tip of D2 against the strip of C3, which rises from its foot.
    for (const mm of [0.62, 0.66, 0.7]) {
      const tip = [Math.SQRT2 * mm, 0.5] as const
      const foot = [Math.SQRT2 - BEAM_RUN_MM, 0] as const
      const rise = [BEAM_RUN_MM, 0.5] as const
      const t = Math.max(
        0,
        Math.min(
          1,
          ((tip[0] - foot[0]) * rise[0] + (tip[1] - foot[1]) * rise[1]) / (rise[0] ** 2 + rise[1] ** 2),
        ),
      )
      const gap =
        Math.hypot(tip[0] - foot[0] - t * rise[0], tip[1] - foot[1] - t * rise[1]) - benchBeam.widthMm
      const found = shorts(
        socket,
        { D2: { kind: 'lean', leanMm: [mm, mm] } },
        { ...benchBeam, landDiameterMm: 0.01 },
      )
      expect(found.find((s) => s.b === 'C3' && s.how === 'near')!.clearanceMm).toBeCloseTo(gap, 6)
    }
  })
  it('is between tip and land, radius and radius', () => {
    const beam = { ...benchBeam, widthMm: 0.01 }
    const found = shorts(socket, { D2: { kind: 'lean', leanMm: [0.75, 0.75] } }, beam).find(
      (s) => s.b === 'C3' && s.how === 'pad',
    )!
    expect(found.clearanceMm).toBeCloseTo(0.25 * Math.SQRT2 - 0.35, 9)
  })
  it('two strips whose centres are 0.30 mm apart overlap by 0.05 mm', () => {
    const one = contactCapsule(at('C2'), { kind: 'lean', leanMm: [0, 0] }, undefined)!
    const beside = {
      ...one,
      from: [one.from[0] + 0.3, one.from[1], one.from[2]] as const,
      to: [one.to[0] + 0.3, one.to[1], one.to[2]] as const,
    }
    expect(one.radiusMm).toBe(0.175)
    const apart = segmentDistance(one.from, one.to, beside.from, beside.to)
    expect(clearance(one, beside)).toBeCloseTo(apart - 0.35, 12)
    expect(clearance({ ...one, to: one.from }, { ...beside, to: beside.from })).toBeCloseTo(-0.05, 12)
  })
})

it('the slope of a field is that of its plane, whichever way it falls and wherever it was measured', () => {
  fc.assert(
    fc.property(
      between(-0.03, 0.03),
      between(-0.03, 0.03),
      fc.shuffledSubarray(
        socket.contacts.map((c) => c.name),
        { minLength: 20 },
      ),
      (a, b, names) => {
        const marks: Marks = Object.fromEntries(
          names.map((n) => [n, { kind: 'low', heightMm: -0.2 + a * at(n).xMm + b * at(n).yMm }]),
        )
        const slope = slopeOf(socket, marks)
        if (slope > 0) expect(slope).toBeCloseTo(Math.hypot(a, b), 9)
      },
    ),
  )
  // Measured along one diagonal band only, where both coordinates go together.
  const band = socket.contacts.filter((c) => Math.abs(c.xMm + c.yMm) < 1.5).map((c) => c.name)
  const marks: Marks = Object.fromEntries(
    band.map((n) => [n, { kind: 'low', heightMm: -0.1 + 0.02 * at(n).xMm - 0.01 * at(n).yMm }]),
  )
  expect(slopeOf(socket, marks)).toBeCloseTo(Math.hypot(0.02, 0.01), 9)
})

it('a sweep comes first to what lies within two pitches of damage, and no farther', () => {
  const close = sweepOrder(socket, { E1: { kind: 'low' } })
    .filter((s) => s.why === 'close to damage that is known')
    .flatMap((s) => s.contacts)
  const rows = new Set(close.map((name) => name[0]))
  expect(rows).toEqual(new Set(['C', 'D', 'E', 'F', 'G']))
})

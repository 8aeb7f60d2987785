import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { inCircle, normalCdf } from '../../maths/normal'
import { beamFinding, benchBeam, contactVerdict, rootStress, stiffness, twistOdds } from './contact-force'
import { damageKinds } from '../damage/mark'

describe('the beam', () => {
  it('has the stiffness, force and stress of its dimensions', () => {
    expect(stiffness(benchBeam)).toBeCloseTo(1.006, 3)
    expect(stiffness(benchBeam) * benchBeam.workingDeflectionMm).toBeCloseTo(0.2, 2)
    expect(rootStress(benchBeam, benchBeam.workingDeflectionMm)).toBeCloseTo(970, 0)
    expect(beamFinding(benchBeam)).toBeNull()
  })
  it('says so when a healthy contact would yield', () => {
    expect(beamFinding({ ...benchBeam, thicknessMm: 0.1 })).toMatch(/above the yield of 1100 MPa/)
  })
})

const mm = fc.double({ min: 0, max: 0.6, noNaN: true })

describe('contactVerdict', () => {
  it('gives a low contact the force of its deficit', () => {
    const v = contactVerdict({ kind: 'low', heightMm: -0.19 })
    expect(v.forceN).toBeCloseTo(0.0101, 3)
    expect(v.enoughForce).toBeCloseTo(normalCdf((0.0101 - 0.1) / (stiffness(benchBeam) * 0.03)), 3)
    expect(v.makesContact).toBeLessThan(0.03)
  })
  it('never does better when it leans further or lies lower', () => {
    fc.assert(
      fc.property(mm, mm, mm, mm, (lean, low, moreLean, moreLow) => {
        const at = (l: number, h: number) =>
          contactVerdict({ kind: 'lean', leanMm: [l, 0], heightMm: -h }).makesContact
        expect(at(lean + moreLean, low)).toBeLessThanOrEqual(at(lean, low) + 1e-3)
        expect(at(lean, low + moreLow)).toBeLessThanOrEqual(at(lean, low) + 1e-3)
      }),
    )
  })
  it('counts a twist by its angle: nearly whole at 20°, none from about 45°', () => {
    const at = (twistDeg: number) => contactVerdict({ kind: 'twisted', twistDeg, heightMm: 0 }).makesContact
    expect(at(10)).toBeGreaterThan(0.97)
    expect(at(20)).toBeGreaterThan(0.9)
    expect(at(45)).toBeLessThan(0.05)
    expect(at(90)).toBeLessThan(0.001)
    expect(at(-90)).toBe(at(90))
    for (let deg = 0; deg < 180; deg += 5) expect(at(deg + 5)).toBeLessThanOrEqual(at(deg))
    expect(contactVerdict({ kind: 'twisted' }).makesContact).toBeLessThan(0.7)
  })
  it('a contact only said to lean or to touch is not taken as standing right', () => {
    expect(contactVerdict({ kind: 'lean' }).makesContact).toBe(
      contactVerdict({ kind: 'lean', leanMm: [0.2, 0] }).makesContact,
    )
    expect(contactVerdict({ kind: 'touching' }).makesContact).toBeLessThan(0.01)
  })
  it('does not depend on which way it leans', () => {
    fc.assert(
      fc.property(mm, fc.double({ min: 0, max: 6.28, noNaN: true }), (lean, angle) => {
        const turned = contactVerdict({
          kind: 'lean',
          leanMm: [lean * Math.cos(angle), lean * Math.sin(angle)],
        })
        expect(turned.onLand).toBeCloseTo(contactVerdict({ kind: 'lean', leanMm: [lean, 0] }).onLand, 6)
      }),
    )
  })
  it('is nothing for what is gone, and a probability for every kind', () => {
    for (const kind of damageKinds)
      for (const socket of ['land-grid', 'pin-grid'] as const) {
        const v = contactVerdict({ kind }, socket)
        expect(v.makesContact).toBeGreaterThanOrEqual(0)
        expect(v.makesContact).toBeLessThanOrEqual(1)
        if (kind === 'snapped' || kind === 'tip gone' || kind === 'folded') expect(v.makesContact).toBe(0)
      }
  })
  it('asks of a pin only whether it finds its hole', () => {
    expect(contactVerdict({ kind: 'lean', leanMm: [0.1, 0] }, 'pin-grid').makesContact).toBeGreaterThan(0.99)
    expect(contactVerdict({ kind: 'lean', leanMm: [0.35, 0] }, 'pin-grid').makesContact).toBeLessThan(0.01)
    expect(contactVerdict({ kind: 'lean', leanMm: [0.1, 0] }, 'pin-grid').forceN).toBeNull()
  })
})

describe('a contact verdict, figure by figure', () => {
  const k = stiffness(benchBeam)
  it('of what is gone is nothing, and a pin has no force to tell', () => {
    const gone = { onLand: 0, enoughForce: 0, makesContact: 0 }
    expect(contactVerdict({ kind: 'snapped' })).toEqual({ forceN: 0, ...gone })
    expect(contactVerdict({ kind: 'snapped' }, 'pin-grid')).toEqual({ forceN: null, ...gone })
  })
  it('of what nobody bent depends on where the CPU lies alone, and on dirt', () => {
    const sound = inCircle(0, benchBeam.landDiameterMm / 2, benchBeam.placementSigmaMm)
    const verdict = (kind: 'intact' | 'paste' | 'lodged') => contactVerdict({ kind })
    expect(verdict('intact')).toEqual({
      forceN: k * benchBeam.workingDeflectionMm,
      onLand: sound,
      enoughForce: 1,
      makesContact: sound,
    })
    expect(verdict('paste').makesContact).toBeCloseTo(0.7 * sound, 12)
    expect(verdict('lodged').makesContact).toBeCloseTo(0.3 * sound, 12)
    expect(contactVerdict({ kind: 'paste' }, 'pin-grid')).toMatchObject({ forceN: null, makesContact: 0.7 })
  })
  it('of what leans is known as well as the eye judges it, in place and in force', () => {
    const lean = contactVerdict({ kind: 'lean', leanMm: [0.2, 0] })
    const sigma = Math.hypot(benchBeam.placementSigmaMm, benchBeam.eyeSigmaMm)
    expect(lean.onLand).toBeCloseTo(inCircle(0.2, benchBeam.landDiameterMm / 2, sigma), 12)
    const spare = (k * benchBeam.workingDeflectionMm - benchBeam.leastForceN) / (k * benchBeam.eyeSigmaMm)
    expect(lean.enoughForce).toBeCloseTo(normalCdf(spare), 12)
    const pin = contactVerdict({ kind: 'lean', leanMm: [0.2, 0] }, 'pin-grid')
    expect(pin.makesContact).toBeCloseTo(inCircle(0.2, benchBeam.holeCatchMm, benchBeam.eyeSigmaMm), 12)
  })
  it('of a twist falls from sure to nothing', () => {
    const twist = (deg: number) => twistOdds({ kind: 'twisted', twistDeg: deg })
    expect([twist(0), twist(20) > 0.97, twist(32), twist(45) < 0.03]).toEqual([1, true, 0.5, true])
  })
})

import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { normalCdf } from '../../maths/normal'
import {
  curvatureLeft,
  lifeUsed,
  loadedDeflection,
  pushFor,
  snapOdds,
  straightening,
  yieldDeflection,
} from './bend'
import { benchBeam } from './contact-force'

const yieldCurvature = (2 * benchBeam.yieldMPa) / (benchBeam.modulusMPa * benchBeam.thicknessMm)

/** Curvature of an elastic–perfectly-plastic section under a moment of m yield moments. */
const curvatureAt = (m: number) => (m <= 1 ? m * yieldCurvature : yieldCurvature / Math.sqrt(3 - 2 * m))

/** Tip deflection by walking along the beam: ∫ κ(x)·(L − x) dx, with the moment falling to nothing at the tip. */
function walked(m: number, left: boolean, steps = 40_000): number {
  const L = benchBeam.lengthMm
  let sum = 0
  for (let i = 0; i < steps; i++) {
    const x = ((i + 0.5) / steps) * L
    const local = m * (1 - x / L)
    const kappa = curvatureAt(local)
    sum += (left ? curvatureLeft(kappa) : kappa) * (L - x) * (L / steps)
  }
  return sum
}

describe('springback of a section', () => {
  it('is the textbook formula in radii', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.3, max: 4.5, noNaN: true }), (radius) => {
        const x = (radius * benchBeam.yieldMPa) / (benchBeam.modulusMPa * benchBeam.thicknessMm)
        const ratio = 4 * x ** 3 - 3 * x + 1
        expect(curvatureLeft(1 / radius)).toBeCloseTo(ratio / radius, 9)
      }),
    )
  })
  it('leaves nothing below yield and never more than was bent', () => {
    expect(curvatureLeft(yieldCurvature * 0.99)).toBe(0)
    fc.assert(
      fc.property(fc.double({ min: -20, max: 20, noNaN: true }), (k) => {
        expect(Math.abs(curvatureLeft(k))).toBeLessThanOrEqual(Math.abs(k))
        expect(curvatureLeft(-k)).toBeCloseTo(-curvatureLeft(k), 12)
      }),
    )
  })
})

describe('an end-loaded contact', () => {
  it('deflects as the walk along the beam says', () => {
    for (const m of [0.4, 0.9, 1, 1.1, 1.3, 1.45])
      expect(loadedDeflection(m) * yieldDeflection(benchBeam)).toBeCloseTo(walked(m, false), 3)
  })
  it('keeps, let go, what the walk along the beam says it keeps', () => {
    for (const m of [0.8, 1.1, 1.3, 1.45])
      expect((loadedDeflection(m) - m) * yieldDeflection(benchBeam)).toBeCloseTo(walked(m, true), 3)
  })
  it('refuses a load beyond the hinge', () => {
    expect(() => loadedDeflection(1.6)).toThrow(RangeError)
  })
})

describe('pushFor', () => {
  it('finds the load that leaves the wanted offset', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.001, max: 0.16, noNaN: true }), (offset) => {
        const m = pushFor(offset).overTravelMm / yieldDeflection(benchBeam)
        expect((loadedDeflection(m) - m) * yieldDeflection(benchBeam)).toBeCloseTo(offset, 6)
      }),
    )
  })
  it('asks for more travel and more curvature the further the tip must go', () => {
    const mm = fc.double({ min: 0.005, max: 0.6, noNaN: true })
    fc.assert(
      fc.property(mm, mm, (a, b) => {
        const [near, far] = [pushFor(Math.min(a, b)), pushFor(Math.max(a, b))]
        expect(far.overTravelMm).toBeGreaterThanOrEqual(near.overTravelMm - 1e-9)
        expect(far.curvature).toBeGreaterThanOrEqual(near.curvature - 1e-9)
      }),
    )
  })
  it('springs back by 1.5 yield deflections once there is a hinge', () => {
    expect(pushFor(0.3).overTravelMm).toBeCloseTo(1.5 * yieldDeflection(benchBeam), 9)
  })
})

describe('life', () => {
  it('is Coffin and Manson turned round', () => {
    const strain = (benchBeam.thicknessMm * 5) / 2 - benchBeam.yieldMPa / benchBeam.modulusMPa
    const halfCycles = (strain / 2 / 0.3) ** (1 / -0.6)
    expect(lifeUsed(5)).toBeCloseTo(1 / halfCycles, 12)
    expect(lifeUsed(0.2)).toBe(0)
  })
  it('snap odds are conditional: surviving twice is surviving both', () => {
    const life = fc.double({ min: 0.01, max: 3, noNaN: true })
    fc.assert(
      fc.property(life, life, life, (a, b, c) => {
        const [x, y, z] = [a, a + b, a + b + c]
        const both = (1 - snapOdds(x, y)) * (1 - snapOdds(y, z))
        expect(both).toBeCloseTo(1 - snapOdds(x, z), 5)
      }),
    )
  })
})

describe('straightening', () => {
  it('says a folded contact often snaps and a leaning one hardly', () => {
    expect(straightening(0.2).snaps).toBeLessThan(0.01)
    expect(straightening(0.7, true).snaps).toBeGreaterThan(0.25)
  })
  it.each([
    [0.2, false, 1],
    [0.5, false, 2],
    [0.6, false, 3],
    [0.7, true, 5],
  ])(
    '%d mm (folded: %s) takes %d strokes, each after the first a correction of its own',
    (mm, folded, strokes) => {
      const bend = lifeUsed(folded ? Math.PI / 0.3 : pushFor(mm).curvature)
      const correction = lifeUsed(pushFor(0.1).curvature)
      let life = bend
      for (let stroke = 1; stroke <= strokes; stroke++) life += stroke === 1 ? bend : correction
      expect(straightening(mm, folded)).toMatchObject({ strokes })
      expect(straightening(mm, folded).snaps).toBeCloseTo(snapOdds(bend, life), 12)
      const worn = straightening(mm, folded, 2).snaps
      expect(worn).toBeCloseTo(snapOdds(bend + 2 * correction, life + 2 * correction), 12)
    },
  )
  it('never gets safer with strokes already spent, up to the few a contact can take', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0.05, max: 0.6, noNaN: true }),
        fc.integer({ min: 0, max: 6 }),
        (offset, before) => {
          expect(straightening(offset, false, before + 1).snaps).toBeGreaterThanOrEqual(
            straightening(offset, false, before).snaps - 1e-9,
          )
        },
      ),
    )
  })
})

describe('the push, worked out by hand', () => {
  const L = benchBeam.lengthMm
  const yieldMm = yieldDeflection(benchBeam)
  /** What stays at a load, and the mean curvature where it yields, by walking along the beam. */
  const walk = (m: number) => {
    let sum = 0
    let n = 0
    for (let i = 0; i < 200_000; i++) {
      const local = m * (1 - (i + 0.5) / 200_000)
      if (local <= 1) break
      sum += curvatureAt(local)
      n++
    }
    return { stays: loadedDeflection(m) - m, mean: n > 0 ? sum / n : yieldCurvature }
  }
  it('has the mean curvature of the part that yields, below the hinge', () => {
    for (const m of [1.05, 1.2, 1.35, 1.45]) {
      const { stays, mean } = walk(m)
      const push = pushFor(stays * yieldMm)
      expect(push.overTravelMm / yieldMm).toBeCloseTo(m, 6)
      expect(push.curvature / mean).toBeCloseTo(1, 3)
    }
    expect(pushFor(0).overTravelMm).toBeCloseTo(yieldMm, 6)
    expect(pushFor(0).curvature).toBeCloseTo(yieldCurvature, 6)
  })
  it('adds the turn of the hinge over a third of its length, beyond it', () => {
    const hinge = walk(1.5).stays * yieldMm
    const atHinge = 2 * yieldCurvature
    expect(pushFor(hinge).curvature / atHinge).toBeCloseTo(1, 6)
    for (const more of [0.05, 0.2, 0.5]) {
      const push = pushFor(hinge + more)
      expect(push.overTravelMm).toBeCloseTo(1.5 * yieldMm, 9)
      expect(push.curvature).toBeCloseTo(atHinge + more / L / (L / 3), 9)
    }
  })
  it('takes no load there is not', () => {
    expect(loadedDeflection(0)).toBe(0)
    expect(loadedDeflection(1.5)).toBeCloseTo(20 / 9, 12)
    for (const m of [-0.01, 1.51, NaN])
      expect(() => loadedDeflection(m)).toThrow(`the load must lie between 0 and 1.5 yield loads, got ${m}`)
  })
  it('snaps as a lognormal life does, given that it has stood so far', () => {
    expect(lifeUsed(0)).toBe(0)
    expect(lifeUsed(yieldCurvature)).toBeCloseTo(0, 9)
    const gone = (life: number) => normalCdf(Math.log(life) / 0.6)
    expect(snapOdds(0, 0)).toBe(0)
    expect(snapOdds(0, 0.5)).toBeCloseTo(gone(0.5), 12)
    expect(snapOdds(0.5, 2)).toBeCloseTo((gone(2) - gone(0.5)) / (1 - gone(0.5)), 12)
    expect(snapOdds(1e6, 2e6)).toBe(1)
  })
})

import { normalCdf } from '../../maths/normal'
import { benchBeam } from './contact-force'
import type { Beam } from './contact-force'

/** Fatigue of the spring copper alloy: ductility ε_f′ and exponent c (bench default). */
const FATIGUE_DUCTILITY = 0.3
const FATIGUE_EXPONENT = -0.6
/** Scatter of the damage sum at which a contact snaps (lognormal about 1, bench default). */
const SNAP_SCATTER = 0.6
/** Length over which a contact folds when it is bent back flat, mm (bench default). */
const FOLD_LENGTH_MM = 0.3
/** Change of curvature where a contact is folded back flat, 1/mm. */
export const bendOfFold = Math.PI / FOLD_LENGTH_MM

/** Curvature at which the strip's skin begins to yield, κ_y = 2σ_y/(E·t), 1/mm. */
const yieldCurvature = (beam: Beam) => (2 * beam.yieldMPa) / (beam.modulusMPa * beam.thicknessMm)

/** Tip deflection at which the root begins to yield under an end load, δ_y = κ_y·L²/3, mm. */
export const yieldDeflection = (beam: Beam): number => (yieldCurvature(beam) * beam.lengthMm ** 2) / 3

/**
 * Curvature change left after a section is bent by `loaded` and let go, 1/mm.
 * Elastic–perfectly-plastic rectangular section: M = M_y·(3 − (κ_y/κ)²)/2 beyond yield, and release is elastic.
 * For a straight strip it is, in radii, R_i/R_f = 4·(R_i σ_y/(E t))³ − 3·(R_i σ_y/(E t)) + 1; working in changes
 * of curvature it holds for a strip that is already curved.
 * Source: any sheet-forming text on springback.
 */
export function curvatureLeft(loaded: number, beam: Beam = benchBeam): number {
  const yields = yieldCurvature(beam)
  const size = Math.abs(loaded)
  if (size <= yields) return 0
  const ratio = yields / size
  return Math.sign(loaded) * (size - (yields * (3 - ratio * ratio)) / 2)
}

/**
 * Deflection of an end-loaded cantilever over its deflection at yield, for a load m times the load at yield.
 * δ/δ_y = m up to yield, then (5 − (3 + m)·√(3 − 2m))/m² up to the plastic hinge at m = 1.5.
 * Source: elastic–plastic cantilever, Prager and Hodge (1951); `curvatureLeft` integrated along the beam gives the same.
 * @throws RangeError outside 0 … 1.5
 */
export function loadedDeflection(m: number): number {
  if (!(m >= 0 && m <= 1.5)) throw new RangeError(`the load must lie between 0 and 1.5 yield loads, got ${m}`)
  return m <= 1 ? m : (5 - (3 + m) * Math.sqrt(3 - 2 * m)) / (m * m)
}

/** Deflection that stays when that load is let go, over the deflection at yield. */
const deflectionLeft = (m: number) => loadedDeflection(m) - m

/** What one push does so that the tip is moved for good by `offsetMm`. */
export interface Push {
  /** How far past the mark the tip must be taken, mm: what springs back. */
  readonly overTravelMm: number
  /** Mean change of curvature over the part that yields, 1/mm. */
  readonly curvature: number
}

/**
 * The push that leaves the tip `offsetMm` from where it was: load by bisection up to the hinge, beyond it the hinge
 * turns freely and what springs back stays 1.5 δ_y. Limits: small slopes, no hardening; leans beyond a third of the
 * beam's length are overestimated.
 * @param offsetMm wanted lasting travel of the tip, ≥ 0
 */
export function pushFor(offsetMm: number, beam: Beam = benchBeam): Push {
  const yieldMm = yieldDeflection(beam)
  const hingeMm = deflectionLeft(1.5) * yieldMm
  let low = 1
  let high = 1.5
  if (offsetMm >= hingeMm) low = 1.5
  else
    for (let i = 0; i < 50; i++) {
      const mid = (low + high) / 2
      if (deflectionLeft(mid) * yieldMm < offsetMm) low = mid
      else high = mid
    }
  const m = low
  // Mean of κ_y/√(3 − 2μ) over the moments above yield, and the hinge's turn spread over the same length.
  const mean = m - 1 < 1e-9 ? 1 : (1 - Math.sqrt(3 - 2 * m)) / (m - 1)
  const turn = Math.max(0, offsetMm - hingeMm) / beam.lengthMm
  const yieldingMm = beam.lengthMm * (1 - 1 / m)
  const hinge = turn === 0 ? 0 : turn / yieldingMm
  return { overTravelMm: m * yieldMm, curvature: mean * yieldCurvature(beam) + hinge }
}

/**
 * Share of the contact's bending life that one stroke uses.
 * Coffin–Manson on the plastic strain range Δε_p = max(0, t·|Δκ|/2 − σ_y/E): Δε_p/2 = ε_f′·(2N)^c, 1/(2N) a stroke.
 * Source: Coffin (1954), Manson (1953).
 */
export function lifeUsed(curvatureChange: number, beam: Beam = benchBeam): number {
  const strain = (beam.thicknessMm * Math.abs(curvatureChange)) / 2 - beam.yieldMPa / beam.modulusMPa
  return strain <= 0 ? 0 : (strain / 2 / FATIGUE_DUCTILITY) ** (-1 / FATIGUE_EXPONENT)
}

/** Chance that a contact that stands at damage sum `before` has snapped by `after` (lognormal life). */
export function snapOdds(before: number, after: number): number {
  const gone = (life: number) => (life <= 0 ? 0 : normalCdf(Math.log(life) / SNAP_SCATTER))
  const survived = 1 - gone(before)
  return survived < 1e-9 ? 1 : Math.min(1, Math.max(0, (gone(after) - gone(before)) / survived))
}

export interface Straightening {
  /** How far past level the tip must be taken so that it springs back to it, mm. */
  readonly overTravelMm: number
  readonly strokes: number
  /** Odds that the metal snaps on the way, given that it stands now; slips of the hand are not in it. */
  readonly snaps: number
}

/**
 * Bringing a tip back by `offsetMm`, > 0. The bend that did the damage counts first (a fold-back has used most of the
 * life), the way back is one more reversal of the same size however many strokes it takes, and each stroke after
 * the first adds a small correction. Palmgren–Miner sum; snap odds conditional on having survived so far.
 * @param strokesBefore strokes this contact has had already
 */
export function straightening(
  offsetMm: number,
  foldedBack = false,
  strokesBefore = 0,
  beam: Beam = benchBeam,
): Straightening {
  const push = pushFor(offsetMm, beam)
  const bend = foldedBack ? bendOfFold : push.curvature
  const strokes = foldedBack ? 5 : Math.max(1, Math.ceil(offsetMm / 0.25))
  const correction = lifeUsed(pushFor(Math.min(offsetMm, 0.1), beam).curvature, beam)
  const reversal = lifeUsed(bend, beam)
  const before = reversal + strokesBefore * correction
  const after = before + reversal + (strokes - 1) * correction
  return { overTravelMm: push.overTravelMm, strokes, snaps: snapOdds(before, after) }
}

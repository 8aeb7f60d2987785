import { normalCdf } from '../normal'
import { benchBeam } from './contact-force'
import type { Beam } from './contact-force'

/** Fatigue of the spring copper alloy (bench default). */
const FATIGUE_DUCTILITY = 0.3
const FATIGUE_EXPONENT = -0.6
/** Scatter of the damage sum at which a contact snaps (lognormal, bench default). */
const SNAP_SCATTER = 0.6

/**
 * Curvature left after a straight strip is bent to `loaded` and let go, 1/mm.
 * Elastic–perfectly-plastic rectangular section: M = M_y·(3 − (κ_y/κ)²)/2 beyond yield, and release is elastic.
 * In terms of radii it is R_i/R_f = 4·(R_i σ_y/(E t))³ − 3·(R_i σ_y/(E t)) + 1.
 * Source: any sheet-forming text on springback.
 */
export function curvatureLeft(loaded: number, beam: Beam = benchBeam): number {
  const yieldCurvature = (2 * beam.yieldMPa) / (beam.modulusMPa * beam.thicknessMm)
  const size = Math.abs(loaded)
  if (size <= yieldCurvature) return 0
  const ratio = yieldCurvature / size
  return Math.sign(loaded) * (size - (yieldCurvature * (3 - ratio * ratio)) / 2)
}

/** Curvature to bend to so that `wanted` is left after release: the inverse of `curvatureLeft`, by bisection. */
export function curvatureToReach(wanted: number, beam: Beam = benchBeam): number {
  if (wanted === 0) return 0
  const size = Math.abs(wanted)
  let low = size
  let high = size + (4 * beam.yieldMPa) / (beam.modulusMPa * beam.thicknessMm)
  for (let i = 0; i < 60; i++) {
    const mid = (low + high) / 2
    if (curvatureLeft(mid, beam) < size) low = mid
    else high = mid
  }
  return Math.sign(wanted) * high
}

/** Tip travel of an evenly curved cantilever, δ = κL²/2, and back. */
const travelOf = (curvature: number, beam: Beam) => (curvature * beam.lengthMm ** 2) / 2
const curvatureOf = (travelMm: number, beam: Beam) => (2 * travelMm) / beam.lengthMm ** 2

/**
 * Share of the contact's bending life that one stroke uses.
 * Coffin–Manson on the plastic strain range Δε_p = max(0, t·|Δκ|/2 − σ_y/E): Δε_p/2 = ε_f′·(2N)^c, 1/(2N) a stroke.
 */
export function lifeUsed(curvatureChange: number, beam: Beam = benchBeam): number {
  const plastic = Math.max(0, (beam.thicknessMm * Math.abs(curvatureChange)) / 2 - beam.yieldMPa / beam.modulusMPa)
  return plastic === 0 ? 0 : (plastic / 2 / FATIGUE_DUCTILITY) ** (-1 / FATIGUE_EXPONENT)
}

export interface Straightening {
  /** How far past level the tip must be taken so that it springs back to it, mm. */
  readonly overTravelMm: number
  readonly strokes: number
  /** Odds that it snaps on the way, given that it stands now. */
  readonly snaps: number
}

/**
 * @param offsetMm how far the tip must come back, > 0
 * @param foldedBack the bend that did the damage went through half a turn at the root
 * @param strokesBefore strokes this contact has had already
 *
 * The bend that did the damage counts first. The snap odds are those of a lognormal life, conditional on
 * having survived so far (Palmgren–Miner sum). Assumes one evenly curved length, an approximation that is good for
 * leans up to a third of the beam's length.
 */
export function straightening(offsetMm: number, foldedBack = false, strokesBefore = 0, beam: Beam = benchBeam): Straightening {
  const back = curvatureOf(offsetMm, beam)
  const loaded = curvatureToReach(back, beam)
  const strokes = foldedBack ? 5 : Math.max(1, Math.ceil(offsetMm / 0.25))
  const first = foldedBack ? lifeUsed(1.5 / 0.3, beam) : lifeUsed(loaded, beam)
  const each = foldedBack ? lifeUsed(1.5 / 0.3 / 2, beam) : lifeUsed(loaded / strokes + curvatureToReach(back / strokes, beam) / 2, beam)
  const before = first + strokesBefore * each
  const after = before + strokes * each
  return { overTravelMm: travelOf(loaded, beam) - offsetMm, strokes, snaps: snapOdds(before, after) }
}

/** Chance that a contact that stands at life `before` has snapped by `after`. */
export function snapOdds(before: number, after: number): number {
  const gone = (life: number) => (life <= 0 ? 0 : normalCdf(Math.log(life) / SNAP_SCATTER))
  const survived = 1 - gone(before)
  return survived < 1e-9 ? 1 : Math.min(1, Math.max(0, (gone(after) - gone(before)) / survived))
}

import { inCircle, normalCdf } from '../normal'
import { isGone, usualHeightMm, usualLeanMm } from './mark'
import type { Mark } from './mark'

/** Dimensions of a land-grid contact and what is asked of it; all bench defaults, all editable. */
export interface Beam {
  readonly widthMm: number
  readonly thicknessMm: number
  readonly lengthMm: number
  readonly modulusMPa: number
  readonly yieldMPa: number
  readonly tipRadiusMm: number
  readonly workingDeflectionMm: number
  readonly landDiameterMm: number
  /** Scatter of the CPU's placement in x and in y. */
  readonly placementSigmaMm: number
  /** Scatter of an offset or height judged by eye. */
  readonly eyeSigmaMm: number
  readonly leastForceN: number
}

export const benchBeam: Beam = {
  widthMm: 0.35,
  thicknessMm: 0.08,
  lengthMm: 1.8,
  modulusMPa: 131_000,
  yieldMPa: 1_100,
  tipRadiusMm: 0.1,
  workingDeflectionMm: 0.2,
  landDiameterMm: 0.5,
  placementSigmaMm: 0.05,
  eyeSigmaMm: 0.03,
  leastForceN: 0.1,
}

/**
 * Tip stiffness of an end-loaded cantilever, k = E·w·t³ / (4·L³), N/mm (MPa·mm⁴/mm³).
 * Source: Euler–Bernoulli beam, any strength-of-materials text.
 */
export function stiffness(beam: Beam): number {
  return (beam.modulusMPa * beam.widthMm * beam.thicknessMm ** 3) / (4 * beam.lengthMm ** 3)
}

/** Bending stress at the root for a tip deflection, 3·E·t·δ / (2·L²), MPa. */
export function rootStress(beam: Beam, deflectionMm: number): number {
  return (3 * beam.modulusMPa * beam.thicknessMm * deflectionMm) / (2 * beam.lengthMm ** 2)
}

/** A sentence if a healthy contact of these dimensions would yield when the CPU is seated, else null. */
export function beamFinding(beam: Beam): string | null {
  const stress = rootStress(beam, beam.workingDeflectionMm)
  if (stress <= beam.yieldMPa) return null
  return `A healthy contact would reach ${stress.toFixed(0)} MPa at its root, above the yield of ${beam.yieldMPa} MPa: check thickness, length and deflection.`
}

/** Does one contact still do its work: where its tip lands, and with what force. */
export interface ContactVerdict {
  readonly forceN: number
  readonly onLand: number
  readonly enoughForce: number
  readonly makesContact: number
}

/**
 * @param mark what was seen
 * @param beam dimensions
 * @returns force in N at the mean height, and three probabilities; land and force are taken as independent here
 *   (the assessment samples them together with one shared shift of the CPU)
 */
export function contactVerdict(mark: Mark, beam: Beam = benchBeam): ContactVerdict {
  if (isGone(mark)) return { forceN: 0, onLand: 0, enoughForce: 0, makesContact: 0 }
  const lean = Math.hypot(...usualLeanMm(mark))
  const height = usualHeightMm(mark)
  const k = stiffness(beam)
  const forceN = Math.max(0, k * (beam.workingDeflectionMm + height))
  const measured = lean > 0 || height !== 0
  const sigma = Math.hypot(beam.placementSigmaMm, lean > 0 ? beam.eyeSigmaMm : 0)
  const onLand = inCircle(lean, beam.landDiameterMm / 2, sigma)
  const enoughForce = measured || height !== 0 ? normalCdf((k * (beam.workingDeflectionMm + height) - beam.leastForceN) / (k * beam.eyeSigmaMm)) : 1
  const clean = mark.kind === 'paste' ? 0.7 : mark.kind === 'lodged' ? 0.3 : 1
  return { forceN, onLand, enoughForce, makesContact: onLand * enoughForce * clean }
}

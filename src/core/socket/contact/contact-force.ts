import { inCircle, normalCdf } from '../../maths/normal'
import { isGone, leanSizeMm, usualHeightMm, usualTwistDeg } from '../damage/mark'
import type { Mark } from '../damage/mark'
import type { SocketKind } from '../model/socket'

/** Dimensions of a contact and what is asked of it; all bench defaults, all editable. */
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
  /** Pin-grid: radius of a pin, and how far its end may be off and still find its hole. */
  readonly pinRadiusMm: number
  readonly holeCatchMm: number
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
  pinRadiusMm: 0.15,
  holeCatchMm: 0.22,
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
  /** Null for a pin, which is gripped by the socket. */
  readonly forceN: number | null
  readonly onLand: number
  readonly enoughForce: number
  readonly makesContact: number
}

/** Chance that a dirty contact still conducts (bench default). */
export const cleanOdds = (mark: Mark): number =>
  mark.kind === 'paste' ? 0.7 : mark.kind === 'lodged' ? 0.3 : 1

/** Twist at which a tip is as likely to miss its land as not, and the scatter of that, degrees (bench default). */
const TWIST_MISSES_DEG = 32
const TWIST_SCATTER_DEG = 6

/** Chance that a twisted tip still meets its land: nearly sure up to 20°, none from about 45°. */
export const twistOdds = (mark: Mark): number => {
  const deg = usualTwistDeg(mark)
  return deg === 0 ? 1 : normalCdf((TWIST_MISSES_DEG - deg) / TWIST_SCATTER_DEG)
}

/**
 * Land-grid: chance that the tip's spot lies on its land × chance that its force reaches the least reliable one,
 * F = k·(working deflection − height deficit). Pin-grid: chance that the pin's end finds its hole.
 *
 * @param mark what was seen
 * @returns force in N at the mean height, and three probabilities; land and force are taken as independent here
 *   (the assessment samples them together with one shared shift of the CPU)
 */
export function contactVerdict(
  mark: Mark,
  kind: SocketKind = 'land-grid',
  beam: Beam = benchBeam,
): ContactVerdict {
  if (isGone(mark))
    return { forceN: kind === 'pin-grid' ? null : 0, onLand: 0, enoughForce: 0, makesContact: 0 }
  const lean = leanSizeMm(mark)
  if (kind === 'pin-grid') {
    const finds = lean === 0 ? 1 : inCircle(lean, beam.holeCatchMm, beam.eyeSigmaMm)
    return { forceN: null, onLand: finds, enoughForce: 1, makesContact: finds * cleanOdds(mark) }
  }
  const height = usualHeightMm(mark)
  const k = stiffness(beam)
  const meanN = k * (beam.workingDeflectionMm + height)
  const sigma = Math.hypot(beam.placementSigmaMm, lean > 0 ? beam.eyeSigmaMm : 0)
  const onLand = inCircle(lean, beam.landDiameterMm / 2, sigma)
  const judged = lean > 0 || height !== 0
  const enoughForce = judged ? normalCdf((meanN - beam.leastForceN) / (k * beam.eyeSigmaMm)) : 1
  return {
    forceN: Math.max(0, meanN),
    onLand,
    enoughForce,
    makesContact: onLand * enoughForce * cleanOdds(mark) * twistOdds(mark),
  }
}

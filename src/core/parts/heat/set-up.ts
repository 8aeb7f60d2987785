import { normalCdf } from '../../maths/normal'
import { benchPlate } from './plate'
import type { Plate } from './plate'

export const targets = ['firmware chip', 'small part', 'single contact', 'one joint', 'socket'] as const
export type Target = (typeof targets)[number]
export const solders = ['lead-free', 'leaded'] as const
export type Solder = (typeof solders)[number]

/** Where the solder is liquid, °C. */
export const liquidusC: Readonly<Record<Solder, number>> = { 'lead-free': 220, leaded: 183 }
/** What plastic bears, °C (bench default). */
export const PLASTIC_C = 260
/** How far above liquidus the joint has to be, K, for how long, s, and how fast the board may warm, K/s (bench defaults). */
export const OVER_K = 10
export const OVER_S = 10
export const RAMP_KS = 3

/** What is heated: a body on the board, its joint under it. */
interface Body {
  /** Its footprint is a square of this side, mm. */
  readonly sideMm: number
  /** Heat it holds, J/K, and what flows from it through its joints into the board, W/K. */
  readonly holds: number
  readonly joints: number
}

export const bodies: Readonly<Record<Target, Body>> = {
  'firmware chip': { sideMm: 6, holds: 0.12, joints: 0.06 },
  'small part': { sideMm: 1.2, holds: 0.002, joints: 0.006 },
  'single contact': { sideMm: 1, holds: 0.004, joints: 0.004 },
  'one joint': { sideMm: 1, holds: 0.001, joints: 0.01 },
  socket: { sideMm: 40, holds: 18, joints: 4 },
}

/** A neighbour that must not be harmed: how far its middle is from the target’s, and what it bears. */
export interface Spared {
  readonly what: string
  readonly atMm: number
  readonly bearsC: number
}

/** What stands still while it is heated. */
export interface SetUp {
  readonly board: { readonly wideMm: number; readonly highMm: number; readonly layers?: number }
  readonly target: Target
  readonly solder: Solder
  readonly nozzleMm: number
  /** From the nozzle to the body, mm. */
  readonly distanceMm: number
  readonly roomC: number
  readonly spared: readonly Spared[]
  /** What readings have corrected: how much more the air and the preheater give than reckoned. */
  readonly air: number
  readonly preheater: number
}

/** One stretch of a recipe. */
export interface HeatStep {
  readonly seconds: number
  /** Air at the nozzle, °C; null while it is off. */
  readonly airC: number | null
  /** Litres a minute. */
  readonly flow: number
  /** What the preheater gives to the board’s underside, W/m². */
  readonly preheatWm2: number
}

/**
 * A quarter of the board in cells of so many millimetres. The target stands in the middle, and so does the jet: the other three
 * quarters are the same, and no heat flows over the lines between them.
 */
export function quarterOf({ board }: SetUp, cellMm: number): Plate {
  const cells = (mm: number) => Math.max(4, Math.round(mm / 2 / cellMm))
  // More copper, more spread: about a third more for each two layers beyond four.
  const conducts = benchPlate.conducts * (1 + 0.17 * Math.max(0, (board.layers ?? 4) - 4))
  return { ...benchPlate, conducts, cellMm, nx: cells(board.wideMm), ny: cells(board.highMm) }
}

/** Kinematic viscosity, m²/s, and conductivity, W/mK, of air at °C (power laws through tables). */
const airAt = (c: number) => {
  const ratio = (c + 273.15) / 293.15
  return { nu: 1.51e-5 * ratio ** 1.75, k: 0.0257 * ratio ** 0.82 }
}

export interface Jet {
  /** Exchange under its middle, W/m²K, and over what radius it falls to 1/e, mm. */
  readonly h: number
  readonly radiusMm: number
  /** Air under its middle, °C, and over what radius that falls to 1/e of what is above the room, mm. */
  readonly airC: number
  readonly warmMm: number
}

/**
 * Air that strikes the board: Nu₀ = 0.65·Re^½ at the middle (laminar impinging jet; Martin 1977 gives the like), falling as a
 * Gaussian of 1.2 nozzles; beyond five nozzles the jet has drawn in room air, (T − T_room) ∝ 5·d/z. Bench default: the
 * exchange is known to a third.
 */
export function jetOf(
  { nozzleMm, distanceMm, roomC, air }: Pick<SetUp, 'nozzleMm' | 'distanceMm' | 'roomC' | 'air'>,
  airC: number,
  flow: number,
): Jet {
  const d = nozzleMm / 1000
  const { nu, k } = airAt((airC + roomC) / 2)
  // Litres a minute are of room air; hot it is more, and faster.
  const speed = ((flow / 60_000) * ((airC + 273.15) / 293.15)) / ((Math.PI * d * d) / 4)
  const h = (air * 0.65 * Math.sqrt((speed * d) / nu) * k) / d
  const reach = Math.min(1, (5 * nozzleMm) / Math.max(distanceMm, 1e-6))
  return {
    h,
    radiusMm: 1.2 * nozzleMm,
    airC: roomC + (airC - roomC) * reach,
    warmMm: 2.5 * nozzleMm,
  }
}

/** Mean of exp(−r²/R²) over a square of side L about the middle: ((√π·R/L)·erf(L/2R))². */
const overSquare = (radiusMm: number, sideMm: number): number =>
  (((Math.sqrt(Math.PI) * radiusMm) / sideMm) * (2 * normalCdf(sideMm / (Math.SQRT2 * radiusMm)) - 1)) ** 2

/** What a body of that side feels of a jet: its mean exchange, W/m²K, and the air that goes with it, °C. */
export function feltBy(
  { h, radiusMm, airC, warmMm }: Jet,
  sideMm: number,
  roomC: number,
): Pick<Jet, 'h' | 'airC'> {
  const mean = overSquare(radiusMm, sideMm)
  // Where the air is warm and where it blows, both fall off: 1/R² + 1/w².
  const both = overSquare(1 / Math.hypot(1 / radiusMm, 1 / warmMm), sideMm)
  return { h: h * mean, airC: roomC + ((airC - roomC) * both) / mean }
}

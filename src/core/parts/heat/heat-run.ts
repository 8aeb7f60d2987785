import { noExchange, PlateHeat } from './plate'
import { bodies, feltBy, jetOf, liquidusC, OVER_K, OVER_S, PLASTIC_C, quarterOf, RAMP_KS } from './set-up'
import type { HeatStep, SetUp } from './set-up'

/** How it went, second by second, and what it came to. */
export interface HeatRun {
  readonly s: Float64Array
  /** The joint, the body, the board beside it, °C. */
  readonly jointC: Float64Array
  readonly bodyC: Float64Array
  readonly boardC: Float64Array
  /** Each neighbour that is to be spared. */
  readonly sparedC: readonly Float64Array[]
  readonly verdict: HeatVerdict
}

export interface HeatVerdict {
  /** When the joint has been liquid for long enough to pull; null when it never was. */
  readonly floatsAtS: number | null
  readonly jointMostC: number
  readonly bodyMostC: number
  readonly sparedMostC: readonly number[]
  /** Fastest warming of the joint, over three seconds, K/s. */
  readonly rampKs: number
  /** What went wrong; empty when nothing did. */
  readonly wrong: readonly string[]
  /** Of that, what was harmed: body, neighbours, warmed too fast. */
  readonly harms: readonly string[]
}

const EMITS = 0.9
const SIGMA = 5.670374e-8
const kelvin = (c: number) => c + 273.15
/** Natural convection over both faces of a plate of a hand’s width, W/m²K: 1.32 above and 0.59 below, (ΔT/L)^¼. */
const NATURAL = (1.32 + 0.59) / 0.1 ** 0.25

/** Cells and seconds of the search and of the check. After each change the first steps are a quarter of that, damped. */
export const coarse = { cellMm: 4, stepS: 1 } as const
export const fine = { cellMm: 1, stepS: 1 } as const
const AFTER_CHANGE = 12
const DAMPED = 2

/**
 * A recipe on a board: the plate (`PlateHeat`), natural convection and radiation (ε 0.9) from both faces, the preheater as a
 * flux from below, the jet from above, and the body with its joint as lumps. The joint is halfway between
 * body and board under it, (T_body + T_board)/2: it conducts better than what it joins.
 *
 * Limits: one jet that stands still over the middle of the board; the body shades the board under it; parts round it hold no heat of their own; the board is
 * of one make all over, so a plane of copper under the joint shows only in readings.
 */
export function runHeat(
  setUp: SetUp,
  steps: readonly HeatStep[],
  { cellMm: cell, stepS }: { readonly cellMm: number; readonly stepS: number } = fine,
  untilItFloats = false,
): HeatRun {
  const plate = quarterOf(setUp, cell)
  const { nx, ny, cellMm } = plate
  const { roomC, target, spared } = setUp
  const heat = new PlateHeat(plate, new Float64Array(nx * ny).fill(roomC))
  const exchange = noExchange(plate)
  const body = bodies[target]
  const footprint = (body.sideMm / 1000) ** 2
  // Distances from the middle of the board, where the target stands and the quarter begins.
  const r2 = new Float64Array(nx * ny)
  const under: number[] = []
  for (let j = 0; j < ny; j++)
    for (let i = 0; i < nx; i++) {
      const [x, y] = [(i + 0.5) * cellMm, (j + 0.5) * cellMm]
      r2[j * nx + i] = x * x + y * y
      if (Math.max(x, y) <= body.sideMm / 2) under.push(j * nx + i)
    }
  if (under.length === 0) under.push(0)
  const covers = footprint / 4 / (under.length * (cellMm / 1000) ** 2)
  const at = (mm: number) => Math.min(nx - 1, Math.floor(mm / cellMm))
  const places = spared.map((s) => at(s.atMm))
  const beside = at(body.sideMm / 2 + cellMm)

  const total = steps.reduce((sum, step) => sum + step.seconds, 0)
  const count = Math.ceil(total / stepS) + steps.length * (AFTER_CHANGE + 1) + 1
  const s = new Float64Array(count)
  const [jointC, bodyC, boardC] = [0, 0, 0].map(() => new Float64Array(count).fill(roomC)) as [
    Float64Array,
    Float64Array,
    Float64Array,
  ]
  const sparedC = spared.map(() => new Float64Array(count).fill(roomC))
  const [blow, blowTo] = [new Float64Array(nx * ny), new Float64Array(nx * ny)]
  let bodyT = roomC
  let over = 0
  let floatsAtS: number | null = null
  let n = 0
  let since = 0
  const needed = liquidusC[setUp.solder] + OVER_K
  recipe: for (const step of steps) {
    const jet = step.airC === null || step.flow <= 0 ? null : jetOf(setUp, step.airC, step.flow)
    const felt = jet && feltBy(jet, body.sideMm, roomC)
    since = 0
    for (let c = 0; c < r2.length; c++) {
      blow[c] = jet ? jet.h * Math.exp(-r2[c]! / (jet.radiusMm * jet.radiusMm)) : 0
      blowTo[c] = jet
        ? blow[c]! * (roomC + (jet.airC - roomC) * Math.exp(-r2[c]! / (jet.warmMm * jet.warmMm)))
        : 0
    }
    exchange.flux.fill(step.preheatWm2 * setUp.preheater)
    for (let rest = step.seconds, dt = 0; rest > 1e-9; rest -= dt) {
      dt = Math.min(since < AFTER_CHANGE ? stepS / 4 : stepS, rest)
      const { t } = heat
      for (let c = 0; c < t.length; c++) {
        const here = t[c]!
        const above = Math.max(0, here - roomC)
        const [a, b] = [kelvin(here), kelvin(roomC)]
        const loss = NATURAL * Math.sqrt(Math.sqrt(above)) + 2 * EMITS * SIGMA * (a * a + b * b) * (a + b)
        exchange.h[c] = loss + blow[c]!
        exchange.hTo[c] = loss * roomC + blowTo[c]!
      }
      // The body stands between air and board: the board under it feels the body through its joints.
      const through = (body.joints / footprint) * covers
      const shades = Math.min(1, covers)
      for (const c of under) {
        exchange.h[c]! += through - shades * blow[c]!
        exchange.hTo[c]! += through * bodyT - shades * blowTo[c]!
      }
      heat.step(exchange, dt, since < DAMPED ? 1 : 0.5)
      since++
      const site = under.reduce((sum, c) => sum + heat.t[c]!, 0) / under.length
      const blown = felt ? felt.h * footprint : 0
      const shines = 4 * EMITS * SIGMA * kelvin(roomC) ** 3 * footprint
      const pulls = blown + shines + body.joints
      const rests = (blown * (felt?.airC ?? 0) + shines * roomC + body.joints * site) / pulls
      bodyT = rests + (bodyT - rests) * Math.exp((-pulls * dt) / body.holds)
      n++
      s[n] = s[n - 1]! + dt
      bodyC[n] = bodyT
      jointC[n] = (bodyT + site) / 2
      boardC[n] = heat.t[beside]!
      places.forEach((c, k) => (sparedC[k]![n] = heat.t[c]!))
      over = jointC[n]! >= needed ? over + dt : 0
      if (over >= OVER_S) floatsAtS ??= s[n]!
      if (untilItFloats && floatsAtS !== null) break recipe
    }
  }
  const cut = (of: Float64Array) => of.subarray(0, n + 1)
  const run = {
    s: cut(s),
    jointC: cut(jointC),
    bodyC: cut(bodyC),
    boardC: cut(boardC),
    sparedC: sparedC.map(cut),
  }
  return { ...run, verdict: judgeHeat(setUp, run, floatsAtS) }
}

const most = (of: Float64Array) => of.reduce((a, b) => Math.max(a, b), -Infinity)

/** What a run came to. */
function judgeHeat(setUp: SetUp, run: Omit<HeatRun, 'verdict'>, floatsAtS: number | null): HeatVerdict {
  const { s, jointC, bodyC, sparedC } = run
  const needed = liquidusC[setUp.solder] + OVER_K
  let rampKs = 0
  let back = 0
  for (let i = 1; i < s.length; i++) {
    while (s[i]! - s[back]! > 3 + 1e-9) back++
    if (s[i]! - s[back]! >= 3 - 1e-9)
      rampKs = Math.max(rampKs, (jointC[i]! - jointC[back]!) / (s[i]! - s[back]!))
  }
  const [jointMostC, bodyMostC] = [most(jointC), most(bodyC)]
  const sparedMostC = sparedC.map(most)
  const deg = (c: number) => `${Math.round(c)} °C`
  const harms = [
    ...(bodyMostC > PLASTIC_C ? [`the body gets to ${deg(bodyMostC)}, it bears ${deg(PLASTIC_C)}`] : []),
    ...setUp.spared.flatMap(({ what, bearsC }, i) =>
      sparedMostC[i]! > bearsC ? [`${what} gets to ${deg(sparedMostC[i]!)}, it bears ${deg(bearsC)}`] : [],
    ),
    ...(rampKs > RAMP_KS ? [`it warms by ${rampKs.toFixed(1)} K a second, ${RAMP_KS} at most`] : []),
  ]
  return {
    floatsAtS,
    jointMostC,
    bodyMostC,
    sparedMostC,
    rampKs,
    wrong: [
      ...(floatsAtS === null
        ? [
            jointMostC < needed
              ? `the joint never melts through: ${deg(jointMostC)} at most, ${deg(needed)} for ${OVER_S} s is needed`
              : `the joint is liquid for less than ${OVER_S} s`,
          ]
        : []),
      ...harms,
    ],
    harms,
  }
}

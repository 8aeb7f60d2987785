import { coarse, fine, runHeat } from './heat-run'
import type { HeatRun } from './heat-run'
import { bodies, PLASTIC_C, RAMP_KS } from './set-up'
import type { HeatStep, SetUp } from './set-up'

/** What there is at the bench. */
export interface AtHand {
  readonly nozzlesMm: readonly number[]
  readonly mostAirC: number
  readonly flows: readonly number[]
  /** Most the preheater gives, W/m²; nought where there is none. */
  readonly mostPreheatWm2: number
}
export const benchAtHand: AtHand = {
  nozzlesMm: [3, 5, 7, 10, 14],
  mostAirC: 480,
  flows: [40, 80],
  mostPreheatWm2: 3000,
}

export interface Found {
  readonly setUp: SetUp
  readonly steps: readonly HeatStep[]
  readonly run: HeatRun
  /** How far everything stays from its limit, K; below nought where something is passed. */
  readonly spareK: number
}

/** Ways of working that are held against each other. */
export const schools = ['air only', 'preheated', 'small nozzle', 'large nozzle'] as const
export type School = (typeof schools)[number]

export interface Sought {
  /**
   * Null where nothing at hand melts the joint; where every recipe passes some limit, the one that passes it least, and its verdict
   * says what is wrong.
   */
  readonly best: Found | null
  /** The best of each way of working, on the coarse grid; null where it melts nothing, or where the bench has no such thing. */
  readonly schools: readonly { readonly school: School; readonly found: Found | null }[]
}

/** Preheat comes first, for so long; then the air comes up in so many steps of so long; then it may take so long, s. */
const SOAK_S = 180
const RAMP_STEPS = 8
const RAMP_STEP_S = 15
const AIR_S = 150
const FIRST_AIR_C = 120
const LEAST_AIR_C = 240

/** How far a run stays from what must not be passed, K: body, neighbours, and the ramp as K over three seconds. */
export function spareOf(setUp: SetUp, { verdict }: HeatRun): number {
  if (verdict.floatsAtS === null) return -Infinity
  return Math.min(
    PLASTIC_C - verdict.bodyMostC,
    ...setUp.spared.map(({ bearsC }, i) => bearsC - verdict.sparedMostC[i]!),
    (RAMP_KS - verdict.rampKs) * 3,
  )
}

const recipe = (preheatWm2: number, airC: number, flow: number): readonly HeatStep[] => [
  ...(preheatWm2 > 0 ? [{ seconds: SOAK_S, airC: null, flow: 0, preheatWm2 }] : []),
  ...Array.from({ length: RAMP_STEPS }, (_, i) => ({
    seconds: RAMP_STEP_S,
    airC: Math.round(FIRST_AIR_C + ((airC - FIRST_AIR_C) * i) / RAMP_STEPS),
    flow,
    preheatWm2,
  })),
  { seconds: AIR_S, airC, flow, preheatWm2 },
]

/** The steps of a recipe up to a moment. */
function until(steps: readonly HeatStep[], seconds: number): readonly HeatStep[] {
  const cut: HeatStep[] = []
  let left = Math.ceil(seconds)
  for (const step of steps) {
    if (left <= 0) break
    cut.push({ ...step, seconds: Math.min(step.seconds, left) })
    left -= step.seconds
  }
  return cut
}

/**
 * The recipe that melts the joint and keeps furthest from every limit: nozzles, flows and preheat are tried, the coolest air
 * that makes it float within its time is found by halving, coarse first, the best few checked fine. Goes on as a generator;
 * each yield is the share done.
 */
export function* searchHeat(setUp: SetUp, atHand: AtHand = benchAtHand): Generator<number, Sought> {
  const preheats =
    atHand.mostPreheatWm2 > 0 ? [0, 0.25, 0.5, 0.75, 1].map((share) => share * atHand.mostPreheatWm2) : [0]
  const ways = atHand.nozzlesMm.flatMap((nozzleMm) =>
    preheats.flatMap((preheat) => atHand.flows.map((flow) => ({ nozzleMm, preheat, flow }))),
  )
  const grid = { ...coarse, cellMm: Math.min(coarse.cellMm, Math.max(2, bodies[setUp.target].sideMm / 2)) }
  const tried: Found[] = []
  for (const [i, { nozzleMm, preheat, flow }] of ways.entries()) {
    yield (0.9 * i) / ways.length
    const own: SetUp = { ...setUp, nozzleMm }
    const at = (airC: number): Found => {
      const steps = recipe(preheat, airC, flow)
      const run = runHeat(own, steps, grid, true)
      return { setUp: own, steps, run, spareK: spareOf(own, run) }
    }
    const hottest = at(atHand.mostAirC)
    if (hottest.run.verdict.floatsAtS === null) continue
    let [cool, best] = [LEAST_AIR_C, hottest]
    let hot = atHand.mostAirC
    for (let k = 0; k < 4; k++) {
      const middle = (cool + hot) / 2
      const is = at(middle)
      if (is.run.verdict.floatsAtS === null) cool = middle
      else {
        hot = middle
        if (is.spareK > best.spareK) best = is
      }
    }
    tried.push(best)
  }
  tried.sort((a, b) => b.spareK - a.spareK)
  let found: Found | null = null
  for (const [i, one] of tried.slice(0, 3).entries()) {
    yield 0.9 + 0.03 * i
    // What floats on the coarse grid must float on the fine one, or a little more air makes it.
    for (const more of [0, 10, 20, 40]) {
      const { preheatWm2, airC, flow } = one.steps.at(-1)!
      const steps = recipe(preheatWm2, Math.min(atHand.mostAirC, airC! + more), flow)
      const run = runHeat(one.setUp, steps, fine, true)
      const spareK = spareOf(one.setUp, run)
      if (spareK === -Infinity) continue
      // Pulled when it floats: the recipe ends there.
      if (!found || spareK > found.spareK)
        found = { setUp: one.setUp, steps: until(steps, run.verdict.floatsAtS!), run, spareK }
      break
    }
  }
  const [small, large] = [Math.min(...atHand.nozzlesMm), Math.max(...atHand.nozzlesMm)]
  const belongs: Readonly<Record<School, (of: Found) => boolean>> = {
    'air only': ({ steps }) => steps.every((s) => s.preheatWm2 === 0),
    preheated: ({ steps }) => steps.some((s) => s.preheatWm2 > 0),
    'small nozzle': (of) => small < large && of.setUp.nozzleMm === small,
    'large nozzle': (of) => small < large && of.setUp.nozzleMm === large,
  }
  return {
    best: found,
    schools: schools.map((school) => ({ school, found: tried.find(belongs[school]) ?? null })),
  }
}

import { normalDraw, seeded } from '../../maths/seeded'
import { coarse, runHeat } from './heat-run'
import type { HeatRun } from './heat-run'
import { liquidusC, OVER_S, solders } from './set-up'
import type { HeatStep, SetUp, Target } from './set-up'

/** A board to practise hot air on: what is told of it, and how it really takes the heat. */
export interface HeatPractice {
  readonly seed: number
  /** All but nozzle and distance; air and preheater are taken as reckoned. */
  readonly told: Omit<SetUp, 'nozzleMm' | 'distanceMm'>
  /** How much more of air and preheater this board really takes, and how many layers of copper it has. */
  readonly truly: Pick<SetUp, 'air' | 'preheater'> & { readonly layers: number }
}

/** What the hand does: where the nozzle is, and what was blown for how long. */
export interface HeatHand {
  readonly nozzleMm: number
  readonly distanceMm: number
  readonly steps: readonly HeatStep[]
}

export const practiceTargets = [
  'firmware chip',
  'small part',
  'single contact',
] as const satisfies readonly Target[]

/** A thermocouple’s noise, K (standard deviation), and how far boards differ (standard deviation of the logarithm, bench default). */
const READS_K = 1.5
const DIFFER = 0.25

export function drawHeatPractice(seed: number, target: (typeof practiceTargets)[number]): HeatPractice {
  const draw = seeded(seed * 7 + 3)
  const differs = () => Math.exp(DIFFER * Math.max(-1.6, Math.min(1.6, normalDraw(draw))))
  const solder = draw() < 0.8 ? solders[0] : solders[1]
  const atMm = 10 + Math.round(draw() * 12)
  return {
    seed,
    told: {
      board: { wideMm: 170, highMm: 170 },
      target,
      solder,
      roomC: 23,
      spared: [{ what: 'the slot beside it', atMm, bearsC: 220 }],
      air: 1,
      preheater: 1,
    },
    truly: { air: differs(), preheater: differs(), layers: [4, 6, 8][Math.floor(draw() * 3)]! },
  }
}

const heated = ({ told }: HeatPractice, hand: HeatHand, as: Partial<SetUp>): HeatRun | null =>
  hand.steps.length === 0
    ? null
    : runHeat({ ...told, nozzleMm: hand.nozzleMm, distanceMm: hand.distanceMm, ...as }, hand.steps, coarse)

/** How the board really took it until now; null before it began. */
export function trulyHeated(practice: HeatPractice, hand: HeatHand): HeatRun | null {
  const { layers, ...truly } = practice.truly
  return heated(practice, hand, { ...truly, board: { ...practice.told.board, layers } })
}

/** How it would be, were the board as it is told. */
export const reckonedHeat = (practice: HeatPractice, hand: HeatHand): HeatRun | null =>
  heated(practice, hand, {})

export const secondsOf = ({ steps }: HeatHand): number => steps.reduce((sum, s) => sum + s.seconds, 0)

/** The thermocouple on the board beside the joint, every five seconds: the board, and the noise of the instrument. */
export function readsBeside({ seed }: HeatPractice, run: HeatRun | null): { s: number; c: number }[] {
  if (run === null) return []
  const reads: { s: number; c: number }[] = []
  let next = 0
  run.s.forEach((s, i) => {
    if (s < next - 1e-6) return
    next += 5
    reads.push({ s, c: Math.round(run.boardC[i]! + READS_K * normalDraw(seeded(seed * 1009 + next))) })
  })
  return reads
}

/** What a light touch with the tweezers tells of the joint. */
export type Touch = 'stands firm' | 'gives a little' | 'floats'

/** Seconds that the joint has been liquid without a break, to the end. */
function liquidFor({ s, jointC }: HeatRun, solder: SetUp['solder']): number {
  let i = jointC.length - 1
  while (i > 0 && jointC[i]! >= liquidusC[solder]) i--
  return s.at(-1)! - s[i]!
}

export function touch({ told }: HeatPractice, run: HeatRun | null): Touch {
  if (run === null) return 'stands firm'
  const liquid = liquidFor(run, told.solder)
  return liquid >= OVER_S ? 'floats' : liquid > 0 ? 'gives a little' : 'stands firm'
}

export interface HeatPracticeResult {
  /** How it was lifted. */
  readonly lifted: Touch
  readonly score: number
  /** What went wrong, surest first; empty when nothing did. */
  readonly wrong: readonly string[]
}

/** Seconds beyond the least that a joint may be kept liquid before it costs anything. */
const PATIENCE_S = 15

/**
 * Lifted now: off its pads with them where it was firm, clean where it floated; what was harmed on the way; touched too
 * often before it was liquid; kept liquid for longer than it needed. 100 points, nothing for a torn pad.
 */
export function liftNow(
  practice: HeatPractice,
  run: HeatRun | null,
  touchedFirm: number,
): HeatPracticeResult {
  const lifted = touch(practice, run)
  const harms = run?.verdict.harms ?? []
  const longer = run ? Math.max(0, liquidFor(run, practice.told.solder) - OVER_S - PATIENCE_S) : 0
  const wrong = [
    ...(lifted === 'stands firm'
      ? ['it was pulled while the solder was solid: its pads came with it']
      : lifted === 'gives a little'
        ? ['it was pulled before all of its joints were liquid: a pad may come with it']
        : []),
    ...harms,
    ...(longer > 0 ? [`the joint was kept liquid ${Math.round(longer)} s longer than it needed`] : []),
    ...(touchedFirm > 2 ? [`it was touched ${touchedFirm} times while it stood firm`] : []),
  ]
  const kept = { 'stands firm': 0, 'gives a little': 45, floats: 100 }[lifted]
  const costs = 25 * harms.length + Math.min(20, longer / 2) + 4 * Math.max(0, touchedFirm - 2)
  return { lifted, score: Math.round(Math.max(0, kept - costs)), wrong }
}

import { sayOutcome } from './outcome-words'
import type { Baseline } from '../../board/baseline'

/** How a board starts; each stage waits for the one before it. */
export const stages = [
  'standby',
  'power-on request',
  'rails',
  'power-good',
  'reset released',
  'first fetch',
  'CPU and chipset',
  'memory training',
  'graphics',
  'boot device',
  'running',
] as const
export type Stage = (typeof stages)[number]

/** The stage a board stops in, with odds over all of them. */
export interface StageReached {
  readonly odds: readonly { readonly stage: Stage; readonly odds: number }[]
  readonly likeliest: Stage
  /** Chance of the likeliest. */
  readonly sure: number
  /** The stage it stops in; null when it runs. */
  readonly stopsAt: Exclude<Stage, 'running'> | null
  /** “stops at first fetch”, or “runs”. */
  readonly say: string
  /** Observations in the order of how much they told, bits. */
  readonly told: readonly { readonly what: string; readonly bits: number }[]
}

type Table = Readonly<Record<string, readonly number[]>>

/**
 * P(observation | the board comes as far as stage i and stops in it), in the order of `stages` (bench default).
 * Each table's values at one stage sum to 1. “Stops at standby” means nothing comes after standby, if that is there.
 */
const tables: Readonly<Record<'fans' | 'current' | 'lamp' | 'cpuHeat' | 'picture' | 'codes', Table>> = {
  //            stby  req   rails pgood reset fetch cpu   mem   gfx   boot  run
  fans: {
    off: [0.95, 0.7, 0.25, 0.05, 0.03, 0.02, 0.02, 0.01, 0.01, 0.01, 0.01],
    twitch: [0.04, 0.27, 0.5, 0.2, 0.07, 0.03, 0.03, 0.03, 0.02, 0.01, 0.01],
    on: [0.01, 0.03, 0.25, 0.75, 0.9, 0.95, 0.95, 0.96, 0.97, 0.98, 0.98],
  },
  current: {
    none: [0.35, 0.13, 0.02, 0.01, 0.01, 0.01, 0.005, 0.005, 0.005, 0.005, 0.005],
    standby: [0.58, 0.8, 0.13, 0.02, 0.02, 0.02, 0.005, 0.005, 0.005, 0.005, 0.005],
    steady: [0.04, 0.04, 0.15, 0.72, 0.72, 0.72, 0.62, 0.62, 0.94, 0.94, 0.94],
    cycling: [0.01, 0.01, 0.15, 0.19, 0.19, 0.19, 0.36, 0.36, 0.04, 0.04, 0.04],
    trips: [0.02, 0.02, 0.55, 0.06, 0.06, 0.06, 0.01, 0.01, 0.01, 0.01, 0.01],
  },
  lamp: {
    none: [0.96, 0.94, 0.8, 0.55, 0.3, 0.2, 0.08, 0.06, 0.06, 0.08, 0.9],
    cpu: [0.01, 0.03, 0.15, 0.4, 0.65, 0.72, 0.72, 0.06, 0.03, 0.02, 0.02],
    memory: [0.01, 0.01, 0.02, 0.02, 0.02, 0.05, 0.16, 0.84, 0.05, 0.03, 0.02],
    graphics: [0.01, 0.01, 0.02, 0.02, 0.02, 0.02, 0.03, 0.03, 0.83, 0.05, 0.03],
    boot: [0.01, 0.01, 0.01, 0.01, 0.01, 0.01, 0.01, 0.01, 0.03, 0.82, 0.03],
  },
  cpuHeat: {
    cold: [0.98, 0.97, 0.9, 0.7, 0.55, 0.4, 0.12, 0.06, 0.04, 0.03, 0.02],
    warm: [0.01, 0.02, 0.07, 0.27, 0.42, 0.56, 0.83, 0.9, 0.92, 0.93, 0.94],
    hot: [0.01, 0.01, 0.03, 0.03, 0.03, 0.04, 0.05, 0.04, 0.04, 0.04, 0.04],
  },
  picture: {
    none: [0.998, 0.998, 0.998, 0.998, 0.998, 0.998, 0.99, 0.98, 0.9, 0.1, 0.04],
    'maker screen': [0.001, 0.001, 0.001, 0.001, 0.001, 0.001, 0.009, 0.018, 0.09, 0.88, 0.06],
    'system loads': [0.001, 0.001, 0.001, 0.001, 0.001, 0.001, 0.001, 0.002, 0.01, 0.02, 0.9],
  },
  codes: {
    none: [0.97, 0.96, 0.93, 0.9, 0.85, 0.8, 0.15, 0.05, 0.04, 0.04, 0.05],
    some: [0.03, 0.04, 0.07, 0.1, 0.15, 0.2, 0.85, 0.95, 0.96, 0.96, 0.95],
  },
}

/** What is noted beside those, against how often it is seen at the other stages (bench default). */
const noted: Table = {
  //                stby  req   rails pgood reset fetch cpu   mem   gfx   boot  run
  restarts: [0.01, 0.03, 0.1, 0.12, 0.08, 0.1, 0.2, 0.25, 0.04, 0.02, 0.01],
  'in turn': [0.002, 0.002, 0.002, 0.005, 0.01, 0.02, 0.06, 0.12, 0.12, 0.12, 0.1],
  'settings screen': [0.001, 0.001, 0.001, 0.001, 0.001, 0.001, 0.002, 0.004, 0.02, 0.5, 0.4],
  'full speed': [0.02, 0.05, 0.25, 0.5, 0.6, 0.6, 0.55, 0.15, 0.1, 0.08, 0.06],
  settle: [0.03, 0.05, 0.2, 0.38, 0.38, 0.38, 0.42, 0.82, 0.88, 0.9, 0.92],
}

const lampWord: Readonly<Record<Baseline['lamp'], string>> = {
  none: 'no debug LED lit',
  cpu: 'the CPU LED',
  memory: 'the memory LED',
  graphics: 'the graphics LED',
  boot: 'the boot LED',
  'in turn': 'the LEDs in turn',
  flashing: 'an LED flashing',
  'not noted': 'lamps not noted',
}

/** How a shop's dead boards fall over the stages before anything is seen (bench default). */
const prior = [0.08, 0.07, 0.08, 0.08, 0.08, 0.16, 0.13, 0.18, 0.06, 0.04, 0.04]

/**
 * Furthest stage reached, by Bayes from one baseline; observations are independent given the stage.
 * What was not noted tells nothing. Limits: one furthest stage, no intermittence; the full model with faults
 * builds on the same stages.
 */
export function stageReached(baseline: Baseline): StageReached {
  let log = prior.map(Math.log)
  const told: { what: string; bits: number }[] = []
  const see = (what: string, row: readonly number[] | undefined) => {
    if (!row) return
    const before = normalised(log)
    log = log.map((value, i) => value + Math.log(row[i]!))
    const after = normalised(log)
    told.push({
      what,
      bits: after.reduce((sum, p, i) => sum + (p > 0 ? p * Math.log2(p / before[i]!) : 0), 0),
    })
  }
  see(`fans ${baseline.fans}`, tables.fans[baseline.fans] ?? noted[baseline.fans])
  if (baseline.fanSpeed) see(`fans ${baseline.fanSpeed}`, noted[baseline.fanSpeed])
  see(`current ${baseline.current}`, tables.current[baseline.current])
  see(lampWord[baseline.lamp], tables.lamp[baseline.lamp] ?? noted[baseline.lamp])
  see(`CPU ${baseline.cpuHeat}`, tables.cpuHeat[baseline.cpuHeat])
  see(`picture ${sayOutcome(baseline.picture)}`, tables.picture[baseline.picture] ?? noted[baseline.picture])
  if (baseline.codes.length > 0) see(`codes ${baseline.codes.join(' ')}`, tables.codes.some)
  const p = normalised(log)
  const best = p.indexOf(Math.max(...p))
  const stage = stages[best]!
  const stopsAt = stage === 'running' ? null : stage
  return {
    odds: stages.map((stage, i) => ({ stage, odds: p[i]! })),
    likeliest: stage,
    sure: p[best]!,
    stopsAt,
    say: stopsAt ? `stops at ${stopsAt}` : 'runs',
    told: told.sort((a, b) => b.bits - a.bits),
  }
}

function normalised(log: readonly number[]): number[] {
  const top = Math.max(...log)
  const raw = log.map((v) => Math.exp(v - top))
  const sum = raw.reduce((a, b) => a + b, 0)
  return raw.map((v) => v / sum)
}

/** The tables by sense: what a start that stops in each stage looks like. */
export const startTables = tables

/** The first cheap look when a board stops in a stage, until there is evidence to choose by (bench default). */
export const firstLook: Readonly<Record<Exclude<Stage, 'running'>, string>> = {
  standby: 'Check the mains strip, the supply and its cable; then measure standby',
  'power-on request': 'Bridge the power-on pins; check the wiring of the front button',
  rails: 'Measure the volts of each rail, under the limit',
  'power-good': 'Measure power-good at the main plug',
  'reset released': 'Look whether reset is released or toggles',
  'first fetch': 'Look round the firmware chip for missing parts, then read its marking',
  'CPU and chipset': 'Look over the socket again, then try a known-good CPU if the gate allows',
  'memory training': 'Try one known-good module, each slot in turn; wait for training before you judge',
  graphics: 'Try a card instead of the CPU’s own graphics',
  'boot device': 'Look at the drive, its cable and the boot order',
}

export interface BaselineChange {
  readonly what: string
  readonly before: string
  readonly after: string
}

/** What changed from one baseline to the next, so that progress shows even without POST. */
export function baselineChanges(before: Baseline, after: Baseline): BaselineChange[] {
  const changes: BaselineChange[] = []
  const compare = (what: string, a: string, b: string) => {
    if (a !== b && a !== 'not noted' && b !== 'not noted') changes.push({ what, before: a, after: b })
  }
  compare('fans', before.fans, after.fans)
  compare('current', before.current, after.current)
  compare('debug LED', before.lamp, after.lamp)
  compare('beeps', before.beeps || 'none', after.beeps || 'none')
  compare('CPU', before.cpuHeat, after.cpuHeat)
  compare('codes', before.codes.join(' ') || 'none', after.codes.join(' ') || 'none')
  compare('picture', sayOutcome(before.picture), sayOutcome(after.picture))
  const reached = [stageReached(before), stageReached(after)] as const
  compare('stage', reached[0].say, reached[1].say)
  return changes
}

/** What a coin-cell reading says (bench default limits). */
export function cellState(volts: number): { readonly state: 'good' | 'weak' | 'dead'; readonly say: string } {
  if (volts >= 2.8) return { state: 'good', say: 'good' }
  if (volts >= 2.5) return { state: 'weak', say: 'weak: settings may be lost; change it while you are here' }
  return { state: 'dead', say: 'dead: change it before any conclusion about settings' }
}

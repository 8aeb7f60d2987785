import { functionGroups } from '../../board/function-group'
import type { FunctionGroup } from '../../board/function-group'

/** What losing contacts of a group does. */
export interface FunctionLaw {
  /** parallel: n siblings share the current; single: each one is needed; none: no effect known. */
  readonly kind: 'parallel' | 'single' | 'none'
  /** What is gone when the group fails: the start itself, a function, or width only. */
  readonly effect: 'dead' | 'danger' | 'function' | 'width' | 'nothing'
  readonly symptom: string
  /** Parallel only: usual current per contact and the most one may carry, A (bench default). */
  readonly usualA?: number
  readonly limitA?: number
}

export const functionLaw: Readonly<Record<FunctionGroup, FunctionLaw>> = {
  'core power': {
    kind: 'parallel',
    effect: 'dead',
    symptom: 'unstable under load, heat at the socket',
    usualA: 0.55,
    limitA: 1.0,
  },
  'memory power': {
    kind: 'parallel',
    effect: 'dead',
    symptom: 'memory trains and fails',
    usualA: 0.45,
    limitA: 1.0,
  },
  'io power': {
    kind: 'parallel',
    effect: 'dead',
    symptom: 'no start, or card and display drop out',
    usualA: 0.4,
    limitA: 1.0,
  },
  ground: { kind: 'parallel', effect: 'dead', symptom: 'unstable under load', usualA: 0.5, limitA: 1.0 },
  'memory A': {
    kind: 'single',
    effect: 'function',
    symptom: 'channel A dead: a memory code, or half the memory seen',
  },
  'memory B': { kind: 'single', effect: 'function', symptom: 'channel B dead: half the memory seen' },
  'card lanes': { kind: 'single', effect: 'width', symptom: 'card runs at reduced width' },
  'storage lanes': { kind: 'single', effect: 'function', symptom: 'a drive port is not seen' },
  display: { kind: 'single', effect: 'function', symptom: 'no picture from the CPU’s own graphics' },
  clock: { kind: 'single', effect: 'dead', symptom: 'no start: fans run, no code' },
  reset: { kind: 'single', effect: 'dead', symptom: 'no start: held in reset' },
  sense: { kind: 'single', effect: 'danger', symptom: 'core voltage unguarded: can over-volt the CPU' },
  control: { kind: 'single', effect: 'dead', symptom: 'no start, or a wrong setting at start' },
  reserved: { kind: 'none', effect: 'nothing', symptom: 'nothing expected' },
  unknown: { kind: 'none', effect: 'nothing', symptom: 'unknown: no table for this contact' },
}

/**
 * Does a group of n parallel contacts still carry its current with k lost?
 * Current per remaining contact rises by n/(n−k).
 */
export function parallelState(law: FunctionLaw, of: number, lost: number): 'whole' | 'strained' | 'failed' {
  if (law.kind !== 'parallel' || lost === 0) return 'whole'
  if (lost >= of) return 'failed'
  const perContact = ((law.usualA ?? 0.5) * of) / (of - lost)
  const limit = law.limitA ?? 1
  return perContact > limit ? 'failed' : perContact > 0.8 * limit ? 'strained' : 'whole'
}

/** How a group stands with some of its contacts lost. */
export function groupState(group: FunctionGroup, of: number, lost: number): 'whole' | 'strained' | 'failed' {
  const law = functionLaw[group]
  if (lost === 0 || law.kind === 'none') return 'whole'
  return law.kind === 'single' ? 'failed' : parallelState(law, of, lost)
}

const memory = (['memory A', 'memory B'] as const).map((group) => functionGroups.indexOf(group))

/**
 * Whether a board starts with this many contacts lost in each group, both in the order of `functionGroups`:
 * nothing deadly or dangerous failed, and one memory channel left.
 */
export function starts(lost: ArrayLike<number>, of: ArrayLike<number>): boolean {
  for (let g = 0; g < functionGroups.length; g++) {
    const { effect } = functionLaw[functionGroups[g]!]
    if (
      lost[g]! > 0 &&
      (effect === 'dead' || effect === 'danger') &&
      groupState(functionGroups[g]!, of[g]!, lost[g]!) === 'failed'
    )
      return false
  }
  return memory.some((g) => lost[g] === 0)
}

/** A rail or ground, as against a signal. */
export const isRail = (group: FunctionGroup): boolean => group === 'ground' || group.endsWith('power')

export type ShortGrade = 'gravest' | 'grave' | 'signal' | 'harmless' | 'unknown'

/** How bad a join of two contacts is, by what they carry. Same net is harmless. */
export function shortGrade(
  a: { group: FunctionGroup; net: string },
  b: { group: FunctionGroup; net: string },
): ShortGrade {
  if (a.net === b.net) return 'harmless'
  if (a.group === 'unknown' || b.group === 'unknown') return 'unknown'
  const rails = Number(isRail(a.group)) + Number(isRail(b.group))
  if (rails === 2) return 'gravest'
  if (rails === 1) return a.group === 'reserved' || b.group === 'reserved' ? 'signal' : 'grave'
  return 'signal'
}

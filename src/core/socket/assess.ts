import { wilson } from '../normal'
import { normalDraw, seeded } from '../seeded'
import { benchBeam, contactVerdict, stiffness } from './contact-force'
import type { Beam, ContactVerdict } from './contact-force'
import { functionLaw, parallelState } from './function-law'
import { isDamage, isGone, usualHeightMm, usualLeanMm } from './mark'
import type { Marks } from './mark'
import { shorts } from './short'
import type { Short } from './short'
import { functionGroups, trustOdds } from './socket'
import type { FunctionGroup, Socket } from './socket'

export interface AssessOptions {
  readonly beam?: Beam
  readonly draws?: number
  readonly seed?: number
  /** Contacts looked at in this pass; the rest may hide damage. Omit when all were seen. */
  readonly looked?: ReadonlySet<string>
  /** Chance that a contact nobody looked at is damaged (bench default). */
  readonly unseenRate?: number
  /** Chance, by contact, that it will be lost all the same (a stroke still to come may snap it). */
  readonly mayBeGone?: Readonly<Record<string, number>>
}

export interface DamagedContact extends ContactVerdict {
  readonly name: string
  readonly group: FunctionGroup
  readonly net: string
  readonly trust: string
}

/** What becomes of one function group. */
export interface GroupVerdict {
  readonly group: FunctionGroup
  readonly damaged: number
  readonly of: number
  /** Chance that the function is lost (single) or can not carry its current (parallel). */
  readonly lost: number
  readonly strained: number
  readonly effect: string
  readonly symptom: string
}

export interface Assessment {
  readonly contacts: readonly DamagedContact[]
  readonly shorts: readonly Short[]
  readonly groups: readonly GroupVerdict[]
  /** Odds that the board starts as it stands, with a 95 % interval of the sampling. */
  readonly runs: number
  readonly runsLow: number
  readonly runsHigh: number
  /** Odds that nothing at all is lost. */
  readonly whole: number
  /** How far the odds would move if the function table were taken as true. */
  readonly tableDoubt: number
  readonly symptom: string
  readonly looked: number
  readonly of: number
}

/**
 * What the damage does: sampled rather than multiplied, since all contacts share one shift of the CPU.
 *
 * Each draw: one rigid shift; for each damaged contact the eye's error in lean and height, whether it lands with
 * enough force, what it really carries (the table is wrong with 1 − trust, then the function is drawn from the
 * mix of the contacts within three pitches); whether each possible short is one; whether an unseen contact is damaged.
 * Then each group's law. A board starts when nothing deadly is lost, no rail is shorted and one memory channel is left.
 * Assumes one CPU fitted in the socket and memory moved to the channel that works.
 */
export function assess(socket: Socket, marks: Marks, options: AssessOptions = {}): Assessment {
  const beam = options.beam ?? benchBeam
  const draws = options.draws ?? 2000
  const uniform = seeded(options.seed ?? 1)
  const damaged = socket.contacts.filter((c) => isDamage(marks[c.name]))
  const atRisk = socket.contacts.filter((c) => isDamage(marks[c.name]) || (options.mayBeGone?.[c.name] ?? 0) > 0)
  const joined = shorts(socket, marks, beam)
  const totals = new Map<FunctionGroup, number>()
  for (const c of socket.contacts) totals.set(c.group, (totals.get(c.group) ?? 0) + 1)
  const unseen = new Map<FunctionGroup, number>()
  if (options.looked) for (const c of socket.contacts) if (!options.looked.has(c.name) && !isDamage(marks[c.name])) unseen.set(c.group, (unseen.get(c.group) ?? 0) + 1)
  const rate = options.unseenRate ?? 0.0005

  const k = stiffness(beam)
  const landRadius = beam.landDiameterMm / 2
  const readied = atRisk.map((c) => {
    const mark = marks[c.name] ?? { kind: 'intact' as const }
    const [dx, dy] = usualLeanMm(mark)
    const nearby = mixAround(socket, c.xMm, c.yMm)
    return { mark, dx, dy, leans: dx !== 0 || dy !== 0, height: usualHeightMm(mark), gone: isGone(mark), risk: options.mayBeGone?.[c.name] ?? 0, group: c.group, wrong: 1 - trustOdds[c.trust], nearby, clean: mark.kind === 'paste' ? 0.7 : mark.kind === 'lodged' ? 0.3 : 1 }
  })
  const lostCount = new Map<FunctionGroup, number>()
  const strainedCount = new Map<FunctionGroup, number>()
  let runs = 0
  let runsByTable = 0
  let whole = 0
  const bump = (map: Map<FunctionGroup, number>, group: FunctionGroup) => map.set(group, (map.get(group) ?? 0) + 1)

  for (let draw = 0; draw < draws; draw++) {
    const sx = normalDraw(uniform) * beam.placementSigmaMm
    const sy = normalDraw(uniform) * beam.placementSigmaMm
    const lost = new Map<FunctionGroup, number>()
    const lostByTable = new Map<FunctionGroup, number>()
    for (const c of readied) {
      const ex = c.leans ? normalDraw(uniform) * beam.eyeSigmaMm : 0
      const ey = c.leans ? normalDraw(uniform) * beam.eyeSigmaMm : 0
      const eh = c.leans || c.height !== 0 ? normalDraw(uniform) * beam.eyeSigmaMm : 0
      const lands = Math.hypot(c.dx + ex + sx, c.dy + ey + sy) <= landRadius
      const forceN = k * (beam.workingDeflectionMm + c.height + eh)
      const snapped = c.risk > 0 && uniform() < c.risk
      const contactMade = !c.gone && !snapped && lands && forceN >= beam.leastForceN && (c.clean === 1 || uniform() < c.clean)
      const really = c.wrong > 0 && uniform() < c.wrong ? c.nearby[Math.floor(uniform() * c.nearby.length)]! : c.group
      if (contactMade) continue
      bump(lost, really)
      bump(lostByTable, c.group)
    }
    for (const [group, n] of unseen) {
      if (functionLaw[group].kind === 'single' && uniform() < 1 - (1 - rate) ** n) {
        bump(lost, group)
        bump(lostByTable, group)
      }
    }
    let deadShort = false
    let anyShort = false
    for (const short of joined) {
      if (short.grade === 'harmless' || (short.odds < 1 && uniform() >= short.odds)) continue
      anyShort = true
      if (short.grade !== 'signal' || uniform() < 0.5) deadShort = true
    }
    let nothingLost = !anyShort
    for (const [group, n] of lost) {
      const law = functionLaw[group]
      const state = law.kind === 'single' ? 'failed' : parallelState(law, totals.get(group) ?? n, n)
      if (state === 'failed') bump(lostCount, group)
      if (state === 'strained') bump(strainedCount, group)
      if (state !== 'whole' && law.kind !== 'none') nothingLost = false
    }
    if (!deadShort && starts(lost, totals)) runs++
    if (!deadShort && starts(lostByTable, totals)) runsByTable++
    if (nothingLost) whole++
  }

  const touched = new Map<FunctionGroup, number>()
  for (const c of damaged) touched.set(c.group, (touched.get(c.group) ?? 0) + 1)
  const groups = functionGroups
    .filter((group) => (touched.get(group) ?? 0) > 0 || (lostCount.get(group) ?? 0) > draws * 0.01)
    .map((group) => ({
      group,
      damaged: touched.get(group) ?? 0,
      of: totals.get(group) ?? 0,
      lost: (lostCount.get(group) ?? 0) / draws,
      strained: (strainedCount.get(group) ?? 0) / draws,
      effect: functionLaw[group].effect,
      symptom: functionLaw[group].symptom,
    }))
    .sort((a, b) => b.lost - a.lost || b.damaged - a.damaged)
  const p = runs / draws
  const interval = wilson(p, draws)
  return {
    contacts: damaged.map((c) => ({ name: c.name, group: c.group, net: c.net, trust: c.trust, ...contactVerdict(marks[c.name]!, beam) })),
    shorts: joined,
    groups,
    runs: p,
    runsLow: interval.low,
    runsHigh: interval.high,
    whole: whole / draws,
    tableDoubt: Math.abs(p - runsByTable / draws),
    symptom: symptomOf(groups, joined),
    looked: options.looked ? socket.contacts.filter((c) => options.looked!.has(c.name) || isDamage(marks[c.name])).length : socket.contacts.length,
    of: socket.contacts.length,
  }
}

/** The functions of the contacts within three pitches: what this one is likely to be when the table is wrong. */
function mixAround(socket: Socket, xMm: number, yMm: number): FunctionGroup[] {
  const reach = socket.pitchMm * 3.2
  return socket.contacts.filter((c) => Math.abs(c.xMm - xMm) < reach && Math.abs(c.yMm - yMm) < reach).map((c) => c.group)
}

/** Whether a board starts with this many contacts lost in each group. */
export function starts(lost: ReadonlyMap<FunctionGroup, number>, totals: ReadonlyMap<FunctionGroup, number>): boolean {
  for (const [group, n] of lost) {
    const law = functionLaw[group]
    if (law.kind === 'single' && (law.effect === 'dead' || law.effect === 'danger') && n > 0) return false
    if (law.kind === 'parallel' && parallelState(law, totals.get(group) ?? n, n) === 'failed') return false
  }
  const memoryLost = (['memory A', 'memory B'] as const).filter((group) => totals.has(group))
  return memoryLost.length === 0 || memoryLost.some((group) => (lost.get(group) ?? 0) === 0)
}

function symptomOf(groups: readonly GroupVerdict[], joined: readonly Short[]): string {
  const worst = joined.find((s) => s.odds > 0.5 && s.grade !== 'harmless')
  if (worst) return worst.grade === 'gravest' ? 'supply trips or the rail is pulled to ground' : 'no start, or wrong behaviour where two contacts join'
  const order = ['danger', 'dead', 'function', 'width', 'nothing']
  const likely = groups.filter((g) => g.lost > 0.5).sort((a, b) => order.indexOf(a.effect) - order.indexOf(b.effect))
  return likely[0]?.symptom ?? 'nothing expected'
}

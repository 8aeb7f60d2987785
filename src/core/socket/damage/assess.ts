import { wilson } from '../../maths/normal'
import { normalDraw, seeded } from '../../maths/seeded'
import { benchBeam, cleanOdds, contactVerdict, stiffness, twistOdds } from '../contact/contact-force'
import type { Beam, ContactVerdict } from '../contact/contact-force'
import { functionLaw, groupState, starts } from '../contact/function-law'
import { isDamage, isGone, leanSizeMm, usualHeightMm, usualLeanMm } from './mark'
import type { Marks } from './mark'
import { shorts } from './short'
import type { Short } from './short'
import { fieldOf, trustOdds } from '../model/socket'
import { functionGroups } from '../../board/function-group'
import type { Contact, Socket } from '../model/socket'
import type { FunctionGroup } from '../../board/function-group'

export interface AssessOptions {
  readonly beam?: Beam
  readonly draws?: number
  readonly seed?: number
  /** Contacts looked at in this pass; the rest may hide damage. Omit when all were seen and nothing was missed. */
  readonly looked?: ReadonlySet<string>
  /** How many times the field was looked over; each time misses its share of the damaged. */
  readonly looks?: number
  /** Contacts that were straightened here and noted as there. */
  readonly straightened?: readonly string[]
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
  /** Enough of the field was looked at for the odds to mean anything; otherwise they are not known. */
  readonly known: boolean
  /** Odds that the board starts as it stands, with a 95 % interval of the sampling. */
  readonly runs: number
  readonly runsLow: number
  readonly runsHigh: number
  /** Odds that nothing at all is lost. */
  readonly whole: number
  /** Odds that the CPU falls into place; always 1 for a land grid. */
  readonly seats: number
  /** How far the odds would move if the function table were taken as true. */
  readonly tableDoubt: number
  readonly symptom: string
  readonly looked: number
  readonly of: number
}

/** What a contact without a table is, over all sockets (bench default); a region or a table says better. */
const unknownMix: readonly FunctionGroup[] = [
  ...Array<FunctionGroup>(8).fill('ground'),
  ...Array<FunctionGroup>(5).fill('core power'),
  ...Array<FunctionGroup>(2).fill('memory A'),
  ...Array<FunctionGroup>(2).fill('card lanes'),
  ...Array<FunctionGroup>(2).fill('reserved'),
  'control',
]
/** Share of damaged contacts that the eye misses in one pass over them (bench default; 5 to 8 in 100 are told). */
export const EYE_MISSES = 0.065
/** Chance that a contact straightened and noted as there is still off, and that one nobody saw or missed is lost (bench default). */
const STAYS_OFF = 0.02
const UNSEEN_IS_LOST = 0.4
/** Share looked at from which the odds are said at all (bench default). */
const ENOUGH_LOOKED = 0.5
/** Damage comes in patches: a contact elsewhere is less likely hurt than those looked at (bench default). */
const ELSEWHERE = 0.3
/** Chance that a mark somebody was not sure of is real (bench default). */
const UNSURE_IS_REAL = 0.6
/** Siblings a rail is taken to have when the table does not say (bench default). */
const UNKNOWN_SIBLINGS = 40

const code = new Map(functionGroups.map((group, i) => [group, i]))

/**
 * What the damage does: sampled rather than multiplied, since all contacts share one shift of the CPU.
 *
 * Each draw: one rigid shift; for each damaged contact whether an unsure mark is real, the eye's error in lean and height, whether it lands with
 * enough force, what it really carries (the table is wrong with 1 − trust, then the function is drawn from the
 * mix of the contacts within three pitches); whether each possible short is one; whether an unseen contact is damaged.
 * Then each group's law. A board starts when nothing deadly is lost, no rail is shorted and one memory channel is left;
 * a pin that misses its hole keeps the CPU out altogether.
 * Assumes one CPU fitted in the socket and memory moved to the channel that works.
 */
export function assess(socket: Socket, marks: Marks, options: AssessOptions = {}): Assessment {
  const draws = options.draws ?? 2000
  const { totals } = fieldOf(socket)
  const damaged = socket.contacts.filter((c) => isDamage(marks[c.name]))
  const timesLost = new Float64Array(functionGroups.length)
  const timesStrained = new Float64Array(functionGroups.length)
  let runs = 0
  let runsByTable = 0
  let whole = 0
  let seats = 0
  const joined = sample(socket, marks, options, (drawn) => {
    const { lost, seated, deadShort } = drawn
    for (let g = 0; g < lost.length; g++) {
      if (lost[g] === 0) continue
      const state = groupState(functionGroups[g]!, drawn.totalOf[g]!, lost[g]!)
      if (state === 'failed') timesLost[g]!++
      if (state === 'strained') timesStrained[g]!++
    }
    if (seated) seats++
    if (seated && !deadShort && starts(lost, drawn.totalOf)) runs++
    if (seated && !deadShort && starts(drawn.lostByTable, drawn.totalOf)) runsByTable++
    if (isWhole(drawn)) whole++
  })

  const touched = new Map<FunctionGroup, number>()
  for (const c of damaged) touched.set(c.group, (touched.get(c.group) ?? 0) + 1)
  const groups = functionGroups
    .map((group, g) => ({
      group,
      damaged: touched.get(group) ?? 0,
      of: totals.get(group) ?? 0,
      lost: timesLost[g]! / draws,
      strained: timesStrained[g]! / draws,
      effect: functionLaw[group].effect,
      symptom: functionLaw[group].symptom,
    }))
    .filter((g) => g.damaged > 0 || g.lost > 0.01)
    .sort((a, b) => b.lost - a.lost || b.damaged - a.damaged)
  const p = runs / draws
  const interval = wilson(p, draws)
  const looked = options.looked
  const seen = looked
    ? socket.contacts.filter((c) => looked.has(c.name) || isDamage(marks[c.name])).length
    : socket.contacts.length
  return {
    contacts: damaged.map((c) => ({
      name: c.name,
      group: c.group,
      net: c.net,
      trust: c.trust,
      ...contactVerdict(marks[c.name]!, socket.kind, options.beam),
    })),
    shorts: joined,
    groups,
    known: seen >= ENOUGH_LOOKED * socket.contacts.length,
    runs: p,
    runsLow: interval.low,
    runsHigh: interval.high,
    whole: whole / draws,
    seats: seats / draws,
    tableDoubt: Math.abs(p - runsByTable / draws),
    symptom: symptomOf(groups, joined, seats / draws),
    looked: seen,
    of: socket.contacts.length,
  }
}

/** One draw of what the damage does; the buffers are the same ones at every draw. */
export interface Drawn {
  /** How many of each function group are lost, as they really are and as the table says. */
  readonly lost: Int32Array
  readonly lostByTable: Int32Array
  readonly totalOf: Int32Array
  /** What each contact at risk really carries, and whether it is lost. */
  readonly really: Int32Array
  readonly isLost: Uint8Array
  seated: boolean
  deadShort: boolean
  anyShort: boolean
}

/** Nothing at all is lost. */
export function isWhole({ seated, anyShort, lost, totalOf }: Drawn): boolean {
  if (!seated || anyShort) return false
  for (let g = 0; g < lost.length; g++)
    if (lost[g]! > 0 && groupState(functionGroups[g]!, totalOf[g]!, lost[g]!) !== 'whole') return false
  return true
}

/**
 * Draws the fate of a field, as `assess` tells.
 * @param visit is shown each draw, and the contacts at risk in the order of `really` and `isLost`
 * @returns the possible shorts
 */
export function sample(
  socket: Socket,
  marks: Marks,
  options: AssessOptions,
  visit: (drawn: Drawn, atRisk: readonly string[]) => void,
): readonly Short[] {
  const beam = options.beam ?? benchBeam
  const draws = options.draws ?? 2000
  const uniform = seeded(options.seed ?? 1)
  const { totals } = fieldOf(socket)
  const risks: Record<string, number> = Object.fromEntries(
    (options.straightened ?? []).map((name) => [name, STAYS_OFF]),
  )
  for (const [name, odds] of Object.entries(options.mayBeGone ?? {}))
    risks[name] = 1 - (1 - odds) * (1 - STAYS_OFF)
  const readied = socket.contacts
    .filter((c) => isDamage(marks[c.name]) || (risks[c.name] ?? 0) > 0)
    .map((c) => ready(socket, c, marks, risks[c.name] ?? 0))
  const atRisk = readied.map((c) => c.name)
  const joined = shorts(socket, marks, beam)
  const risky = joined.filter((s) => s.grade !== 'harmless')
  const totalOf = Int32Array.from(functionGroups, (g) => totals.get(g) ?? UNKNOWN_SIBLINGS)
  const unseen = unseenOdds(socket, marks, options)

  const pins = socket.kind === 'pin-grid'
  const k = stiffness(beam)
  const catchMm = pins ? beam.holeCatchMm : beam.landDiameterMm / 2
  const drawn: Drawn = {
    lost: new Int32Array(functionGroups.length),
    lostByTable: new Int32Array(functionGroups.length),
    totalOf,
    really: new Int32Array(readied.length),
    isLost: new Uint8Array(readied.length),
    seated: true,
    deadShort: false,
    anyShort: false,
  }
  const { lost, lostByTable, isLost } = drawn

  for (let draw = 0; draw < draws; draw++) {
    const sx = pins ? 0 : normalDraw(uniform) * beam.placementSigmaMm
    const sy = pins ? 0 : normalDraw(uniform) * beam.placementSigmaMm
    lost.fill(0)
    lostByTable.fill(0)
    isLost.fill(0)
    drawn.seated = true
    drawn.deadShort = drawn.anyShort = false
    for (let i = 0; i < readied.length; i++) {
      const c = readied[i]!
      drawn.really[i] = c.group
      if (c.unsure && uniform() >= UNSURE_IS_REAL) continue
      const ex = c.leans ? normalDraw(uniform) * beam.eyeSigmaMm : 0
      const ey = c.leans ? normalDraw(uniform) * beam.eyeSigmaMm : 0
      const eh = c.leans || c.heightMm !== 0 ? normalDraw(uniform) * beam.eyeSigmaMm : 0
      const lands = Math.hypot(c.dx + ex + sx, c.dy + ey + sy) <= catchMm
      const pressed = pins || k * (beam.workingDeflectionMm + c.heightMm + eh) >= beam.leastForceN
      const snapped = c.gone || (c.risk > 0 && uniform() < c.risk)
      const really =
        c.wrong > 0 && uniform() < c.wrong ? c.around[Math.floor(uniform() * c.around.length)]! : c.group
      drawn.really[i] = really
      if (pins && !snapped && !lands) drawn.seated = false
      if (pins && c.flat) drawn.seated = false
      if (!snapped && lands && pressed && (c.clean === 1 || uniform() < c.clean)) continue
      isLost[i] = 1
      lost[really]!++
      lostByTable[c.group]!++
    }
    for (const [group, odds] of unseen) {
      if (uniform() >= odds) continue
      lost[group]!++
      lostByTable[group]!++
    }
    for (const short of risky) {
      if (short.odds < 1 && uniform() >= short.odds) continue
      drawn.anyShort = true
      if (short.grade !== 'signal' || uniform() < 0.5) drawn.deadShort = true
    }
    visit(drawn, atRisk)
  }
  return joined
}

function ready(socket: Socket, c: Contact, marks: Marks, risk: number) {
  const mark = marks[c.name] ?? { kind: 'intact' as const }
  const usual = usualLeanMm(mark)
  const [dx, dy] = mark.kind === 'touching' && !mark.leanMm ? [leanSizeMm(mark), 0] : usual
  const group = code.get(c.group)!
  const around = around3(socket, c).filter((g) => g !== 'unknown')
  return {
    name: c.name,
    dx,
    dy,
    leans: dx !== 0 || dy !== 0,
    heightMm: usualHeightMm(mark),
    gone: isGone(mark),
    flat: mark.kind === 'folded',
    unsure: mark.unsure === true,
    clean: cleanOdds(mark) * twistOdds(mark),
    risk,
    group,
    wrong: c.group === 'unknown' ? 1 : 1 - trustOdds[c.trust],
    around: Uint8Array.from(around.length >= 6 ? around : unknownMix, (g) => code.get(g)!),
  }
}

/** The functions of the contacts within three pitches: what this one is likely to be when the table is wrong. */
function around3(socket: Socket, c: Contact): FunctionGroup[] {
  return fieldOf(socket)
    .near.within(c.xMm, c.yMm, socket.pitchMm * 3.2)
    .map((i) => socket.contacts[i]!.group)
}

/**
 * Chance, by group of single contacts, that one which is not marked is lost all the same: not looked at, or looked at
 * and missed. Of d damaged contacts the eye finds d·(1 − mᵏ) in k looks with m missed in each, so d·mᵏ/(1 − mᵏ) are
 * still there, among those close to the damage that was found; with none found, half a one anywhere.
 */
function unseenOdds(socket: Socket, marks: Marks, options: AssessOptions): [number, number][] {
  const { looked } = options
  if (!looked) return []
  const found =
    socket.contacts.filter((c) => isDamage(marks[c.name])).length + (options.straightened?.length ?? 0)
  const missed = EYE_MISSES ** Math.max(1, options.looks ?? 1)
  const stillThere = ((found + 0.5) * missed) / (1 - missed)
  const near = found > 0 ? closeTo(socket, marks, options.straightened ?? []) : null
  const sound = socket.contacts.filter((c) => looked.has(c.name) && !isDamage(marks[c.name]))
  const suspects = near ? sound.filter((c) => near.has(c.name)) : sound
  const rateSeen = suspects.length === 0 ? 0 : Math.min(1, stillThere / suspects.length) * UNSEEN_IS_LOST
  const rateUnseen = Math.min(1, (ELSEWHERE * (found + 0.5)) / (sound.length + found + 1)) * UNSEEN_IS_LOST
  const survives = new Map<FunctionGroup, number>()
  const spoil = (contacts: readonly Contact[], rate: number) => {
    for (const c of contacts)
      if (functionLaw[c.group].kind === 'single')
        survives.set(c.group, (survives.get(c.group) ?? 1) * (1 - rate))
  }
  spoil(suspects, rateSeen)
  spoil(
    socket.contacts.filter((c) => !looked.has(c.name) && !isDamage(marks[c.name])),
    rateUnseen,
  )
  return [...survives].map(([group, p]) => [code.get(group)!, 1 - p])
}

/** Contacts within three pitches of what is damaged or was. */
function closeTo(socket: Socket, marks: Marks, straightened: readonly string[]): ReadonlySet<string> {
  const { named, near } = fieldOf(socket)
  const close = new Set<string>()
  const hurt = [...Object.keys(marks).filter((name) => isDamage(marks[name])), ...straightened]
  for (const name of hurt) {
    const c = named.get(name)
    if (!c) continue
    for (const i of near.within(c.xMm, c.yMm, socket.pitchMm * 3.2)) close.add(socket.contacts[i]!.name)
  }
  return close
}

function symptomOf(groups: readonly GroupVerdict[], joined: readonly Short[], seats: number): string {
  if (seats < 0.5) return 'the CPU does not drop into place'
  const worst = joined.find((s) => s.odds > 0.5 && s.grade !== 'harmless')
  if (worst)
    return worst.grade === 'gravest'
      ? 'supply trips or the rail is pulled to ground'
      : 'no start, or wrong behaviour where two contacts join'
  const surely = (group: FunctionGroup) => (groups.find((g) => g.group === group)?.lost ?? 0) > 0.5
  const deadly = groups.some((g) => g.lost > 0.5 && (g.effect === 'danger' || g.effect === 'dead'))
  if (!deadly && surely('memory A') !== surely('memory B')) {
    const [dead, left] = surely('memory A') ? ['A', 'B'] : ['B', 'A']
    return `starts, with memory in ${left} only: channel ${dead} is dead`
  }
  const order = ['danger', 'dead', 'function', 'width', 'nothing']
  const likely = groups
    .filter((g) => g.lost > 0.5)
    .sort((a, b) => order.indexOf(a.effect) - order.indexOf(b.effect))
  return likely[0]?.symptom ?? 'nothing expected'
}

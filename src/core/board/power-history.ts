import type { Line } from '../tape/line'
import type { BoardChange } from '../tape/slice'
import { nothingNoted } from './baseline'
import { hasPicture, isPicture } from './baseline'
import type { Baseline } from './baseline'
import type { BoardBodies } from './bodies'
import { placeOf } from './hazard'
import type { LookHazard } from './hazard'
import { isUsual, sayRail } from './rail'
import type { OwnRail, Rail, UsualRail } from './rail'

/** Volts a rail may show under power before it counts as too high or too low (bench default). */
export const voltLimits: Readonly<Record<UsualRail, { readonly leastV: number; readonly mostV: number }>> = {
  '12v': { leastV: 10.8, mostV: 13.2 },
  '5v': { leastV: 4.5, mostV: 5.5 },
  '3v3': { leastV: 3, mostV: 3.63 },
  standby: { leastV: 4.5, mostV: 5.5 },
  vcore: { leastV: 0.6, mostV: 1.55 },
  vmem: { leastV: 1, mostV: 1.5 },
  vsys: { leastV: 0.7, mostV: 1.35 },
}
/** How far the volts of a rail of the board’s own may be from a good board’s (bench default). */
const OWN_VOLTS = 0.1
/** Volts a rail may show, and whether it is below ground; null of one of which nobody knows what it should. */
function voltsOf(
  rail: Rail,
  own: readonly OwnRail[],
): { readonly leastV: number; readonly mostV: number; readonly sign: number } | null {
  if (isUsual(rail)) return { ...voltLimits[rail], sign: 1 }
  const volts = own.find((r) => r.rail === rail)?.volts ?? null
  if (volts === null) return null
  const [size, sign] = [Math.abs(volts), Math.sign(volts) || 1]
  return { leastV: size * (1 - OWN_VOLTS), mostV: size * (1 + OWN_VOLTS), sign }
}
/** Below this share of the least a rail is off rather than low. */
const OFF_SHARE = 0.3

/** The largest limit that still is one at a first power, A (bench default). */
export const FIRST_POWER_MOST_A = 5
/** More than a fresh coin cell of 3 V gives, V (bench default). */
const CELL_MOST_V = 3.6
/** Share of its limit at which a supply counts as running into it. */
const AT_LIMIT = 0.9

export type CpuState = 'in' | 'out'

/** A rail under power that was out of range, or read the wrong way round. */
export interface OddVolts {
  readonly rail: Rail
  readonly volts: number
  readonly cpu: CpuState | null
  readonly seq: number
}

/** What the tape has said that bears on power. Hazards stand here until a reading of the same thing clears them. */
export interface PowerHistory {
  /** By what was fitted, seated or read; null while nobody has said. */
  readonly cpu: CpuState | null
  /** Marking of the firmware chip, as last noted. */
  readonly chip: string | null
  /** Line since which every rail is owed again, and why. */
  readonly railsOwedSince: number
  readonly railsOwedWhy: string
  readonly tripped: number
  /** Line of the last change after which first power is owed, and what it was. */
  readonly changed: number
  readonly changedWhat: string
  /** Line of the last change that could have put a rail to ground: any but another cell, module or card. */
  readonly reworked: number
  /** Line of the last change that could have taken a rail’s short away. */
  readonly shortLifted: number
  /** Line of the last repair, or of another supply: only that can have put right what was too high. */
  readonly putRight: number
  /** Line of the last start that proved something, and why the last one proved nothing. */
  readonly proved: number
  readonly provedNothing: string
  /** How the CPU last went in, while that speaks against power. */
  readonly seat: { readonly drop: string; readonly turned: boolean; readonly uneven: boolean } | null
  /** What was found by looking, by place. */
  readonly found: Readonly<Record<string, { readonly hazard: LookHazard | 'not told'; readonly say: string }>>
  readonly lookedOutside: boolean
  /** A look at the socket, said in the words of a test, that found contacts touching or voltage sense off. */
  readonly socketFound: string
  readonly standbyHot: boolean
  /** What the coin cell read, V, while that is more than a cell gives: the board feeds it, or it is no such cell. */
  readonly cellOver: number | null
  /** Rails a test said were at ground or low, in words without ohms, or first one and then good: the line that said so. */
  readonly railsSaid: Readonly<Partial<Record<Rail, { readonly is: string; readonly seq: number }>>>
  readonly over: Readonly<Record<string, OddVolts>>
  readonly under: Readonly<Record<string, OddVolts>>
  readonly reversed: Readonly<Record<string, OddVolts>>
  readonly damagedParts: Readonly<Record<string, string>>
  /** It was seen with a picture here. */
  readonly ranHere: boolean
}

type Own<T> =
  T extends Readonly<Record<string, infer V>> ? (string extends keyof T ? Record<string, V> : T) : T
/** The fold's private draft: lines are heard into it, not copied. */
export type PowerDraft = { -readonly [K in keyof PowerHistory]: Own<PowerHistory[K]> }

export const noPower = (): PowerDraft => ({
  cpu: null,
  chip: null,
  railsOwedSince: 0,
  railsOwedWhy: '',
  tripped: 0,
  changed: 0,
  changedWhat: '',
  reworked: 0,
  shortLifted: 0,
  putRight: 0,
  proved: 0,
  provedNothing: '',
  seat: null,
  found: {},
  lookedOutside: false,
  socketFound: '',
  standbyHot: false,
  cellOver: null,
  railsSaid: {},
  over: {},
  under: {},
  reversed: {},
  damagedParts: {},
  ranHere: false,
})

/** What is fitted and set, as it stood before the line that is heard. */
export interface Before {
  readonly fitted: {
    readonly cpu: string | null
    readonly modules: readonly string[]
    readonly card: string | null
  }
  readonly supplyLimitA: number | null
  readonly ownRails: readonly OwnRail[]
}

/** What went wrong in a start; empty when nothing did that was noted. It takes back what an earlier start proved. */
export function wentWrong(b: Baseline, limitA: number | null): string {
  if (b.current === 'trips') return 'the supply tripped'
  if (b.current === 'cycling') return 'it cycled'
  if (b.current === 'none' || (b.amps !== null && b.amps <= 0)) return 'it drew nothing'
  if (b.amps !== null && limitA !== null && b.amps > limitA * 1.05)
    return `${b.amps} A cannot be under a limit of ${limitA} A`
  if (b.amps !== null && limitA !== null && b.amps >= limitA * AT_LIMIT)
    return `it ran at its limit of ${limitA} A`
  if (b.fans === 'off' || b.fans === 'twitch') return 'the fans stood still'
  if (b.fans === 'restarts') return 'it restarted by itself'
  if (b.cpuHeat === 'hot') return 'the CPU got hot'
  return ''
}

/**
 * Why a start under a limit proved nothing; empty when it did. What was not noted proves nothing: it may have run
 * into its limit, cycled or stood dark.
 */
export function provesNothing(b: Baseline, limitA: number | null, cpu: CpuState | null): string {
  if (limitA === null) return 'no limit was set'
  if (limitA > FIRST_POWER_MOST_A) return `${limitA} A is no limit for a first power`
  const wrong = wentWrong(b, limitA)
  if (wrong) return wrong
  if (b.current === 'not noted') return 'the current was not noted'
  if (b.current === 'standby') return 'it drew standby current only'
  if (b.amps === null) return 'the amperes were not noted'
  if (b.fans === 'not noted') return 'the fans were not noted'
  if (cpu === 'in' && b.cpuHeat === 'not noted') return 'nobody felt the CPU'
  if (cpu === 'out' && (b.cpuHeat === 'warm' || hasPicture(b)))
    return 'it did what takes a CPU, and none is noted as fitted'
  return ''
}

/** Lines of other slices that bear on power, as far as they are read here. */
export interface HeardForPower {
  ticket: { readonly set: { readonly rails?: readonly OwnRail[] } }
  seat: {
    readonly cpu: string
    readonly drop: string
    readonly heatsink?: boolean
    readonly corner?: string
    readonly turned?: boolean
  }
  trial: { readonly test: string; readonly outcome: string }
  firmware: { readonly chip?: string; readonly did?: string; readonly programmerVolts?: number }
  written: object
  part: { readonly ref: string; readonly did: string; readonly text?: string }
  proof: { readonly test: string; readonly result: string }
  pass: object
  looked: { readonly contacts: readonly string[] | 'all' }
}
type Heard = BoardBodies & HeardForPower
type HeardLine = { [K in keyof Heard]: Line<K, Heard[K]> }[keyof Heard]

/** Hears what a line does to the board. */
export function hearChange(
  next: PowerDraft,
  seq: number,
  { what, heat, putsRight, sparesRails, liftsNoShort }: BoardChange,
): void {
  if (what) {
    next.changed = seq
    next.changedWhat = what
    if (!sparesRails) next.reworked = seq
    if (!liftsNoShort) next.shortLifted = seq
  }
  if (heat) {
    next.railsOwedSince = seq
    next.railsOwedWhy = `after ${what}`
  }
  if (putsRight) next.putRight = seq
}

/** Hears one line that counts. */
export function hearPower(next: PowerDraft, line: Line, before: Before): void {
  const entry = line as HeardLine
  const { seq } = entry
  const changed = (what: string) => hearChange(next, seq, { what })
  const swapped = (what: string) => hearChange(next, seq, { what, sparesRails: true })
  const railsOwed = (why: string) => {
    next.railsOwedSince = seq
    next.railsOwedWhy = why
  }
  const unproved = (why: string) => {
    next.proved = 0
    next.provedNothing = why
  }
  const went = (start: Baseline) => {
    const wrong = wentWrong(start, before.supplyLimitA)
    if (wrong) unproved(wrong)
  }
  const trips = () => {
    next.tripped = seq
    hearChange(next, seq, { what: 'the supply tripped', liftsNoShort: true })
    railsOwed('the supply tripped')
  }
  switch (entry.kind) {
    case 'rail':
      if (entry.body.ohms !== null) next.cpu ??= entry.body.cpu
      else if (entry.body.is !== undefined && entry.body.is !== 'good')
        next.railsSaid = { ...next.railsSaid, [entry.body.rail]: { is: entry.body.is, seq } }
      break
    case 'volts': {
      const { rail, volts } = entry.body
      if (volts !== null && hearVolts(next, { rail, volts, cpu: next.cpu, seq }, before.ownRails))
        railsOwed(`${sayRail(rail)} was at ${volts} V`)
      break
    }
    case 'fitted': {
      const { cpu, modules, card } = entry.body
      const { fitted } = before
      if (cpu !== undefined) {
        const now = cpu === null ? 'out' : 'in'
        if (cpu !== fitted.cpu || next.cpu !== now) changed(cpu === null ? 'the CPU out' : `${cpu} fitted`)
        next.cpu = now
      }
      if (modules && [...modules].sort().join('\n') !== [...fitted.modules].sort().join('\n'))
        swapped('memory changed')
      if (card !== undefined && card !== fitted.card) swapped('the card changed')
      break
    }
    case 'seat': {
      const { drop, turned, corner } = entry.body
      next.cpu = 'in'
      next.seat =
        drop === 'flat' && !turned && !corner
          ? null
          : { drop, turned: turned === true, uneven: corner !== undefined }
      break
    }
    case 'baseline': {
      const b = entry.body
      if (b.current === 'trips') trips()
      if (hasPicture(b)) next.ranHere = true
      next.provedNothing = provesNothing(b, before.supplyLimitA, next.cpu)
      if (next.provedNothing === '') next.proved = seq
      else if (wentWrong(b, before.supplyLimitA)) next.proved = 0
      break
    }
    case 'current': {
      const { pattern, plateauA } = entry.body
      if (pattern === 'trips') trips()
      else went({ ...nothingNoted, current: pattern, amps: plateauA })
      break
    }
    case 'look': {
      const { what, seen, clear, hazard } = entry.body
      const place = placeOf(what)
      const told = hazard ?? (clear ? 'harmless' : 'not told')
      next.found[place] = { hazard: told, say: `${what}: ${seen}` }
      if (place === 'outside of the board') next.lookedOutside = true
      break
    }
    case 'trial':
      hearTest(next, entry, { trips, went })
      break
    case 'cell':
      if (entry.body.volts !== null) next.cellOver = entry.body.volts > CELL_MOST_V ? entry.body.volts : null
      break
    case 'part': {
      const { ref, did, text } = entry.body
      if (did === 'found damaged') next.damagedParts[ref] = text ?? ''
      else if (did === 'taken off' || did === 'fitted') delete next.damagedParts[ref]
      break
    }
    case 'proof':
      if (entry.body.test === 'temperature' && entry.body.result === 'fail')
        unproved('it failed the test of its temperature')
      break
    case 'pass':
      next.socketFound = ''
      break
    case 'looked':
      if (entry.body.contacts === 'all') next.socketFound = ''
      break
  }
}

/** Out of range stands until the same rail reads in range with the CPU as it was then. True when it was too high. */
function hearVolts(next: PowerDraft, read: OddVolts, own: readonly OwnRail[]): boolean {
  const limits = voltsOf(read.rail, own)
  if (!limits) return false
  const { leastV, mostV, sign } = limits
  const volts = sign * read.volts
  const key = `${read.rail} ${read.cpu}`
  const size = Math.abs(volts)
  if (size > mostV) next.over[key] = read
  if (size < leastV && size > OFF_SHARE * leastV) next.under[key] = read
  if (volts < -OFF_SHARE * leastV) next.reversed[read.rail] = read
  else if (volts >= leastV && volts <= mostV) {
    for (const known of [key, `${read.rail} null`]) {
      delete next.over[known]
      delete next.under[known]
    }
    delete next.reversed[read.rail]
  }
  return size > mostV
}

/** A test carried out: what it saw, what it changed on the board, whether the supply tripped. */
function hearTest(
  next: PowerDraft,
  { seq, body: { test, outcome } }: Line<'trial', HeardForPower['trial']>,
  say: { readonly trips: () => void; readonly went: (start: Baseline) => void },
): void {
  if (outcome === 'trips') say.trips()
  else if (test === 'current' && outcome === 'cycling') say.went({ ...nothingNoted, current: 'cycling' })
  else if (test === 'current' && outcome === 'nothing') say.went({ ...nothingNoted, current: 'none' })
  if (outcome === 'restarts') say.went({ ...nothingNoted, fans: 'restarts' })
  if (isPicture(outcome)) next.ranHere = true
  if (test === 'socket' || test === 'swept')
    next.socketFound = /touch|sense/.test(outcome) ? outcome : outcome === 'clear' ? '' : next.socketFound
  if ((test === 'CPU proud' || test === 'seat gauged') && outcome === 'proud')
    next.seat = { drop: 'proud', turned: false, uneven: true }
  if (test === 'ohms other') {
    const { other: before, ...said } = next.railsSaid
    // Good after a short that nothing done since could have mended: one of the two was a slip, and a third reading settles it.
    const open = before?.is === 'short' && before.seq > next.shortLifted
    next.railsSaid =
      outcome !== 'good'
        ? { ...said, other: { is: outcome, seq } }
        : open
          ? { ...said, other: { is: 'short, then good', seq } }
          : said
  }
  if (test === 'standby heat') next.standbyHot = outcome === 'too high'
}

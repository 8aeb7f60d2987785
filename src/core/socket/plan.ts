import { straightening } from './bend'
import { functionLaw, parallelState } from './function-law'
import { damageWords, isDamage, isGone, usualHeightMm, usualLeanMm } from './mark'
import type { Mark, Marks } from './mark'
import { byName, contactCapsule, segmentDistance } from './short'
import { Neighbourhood } from './socket'
import type { Contact, FunctionGroup, Socket } from './socket'

/** School A: easy ones first, the worst last. School B: the worst while the eye is fresh. */
export type School = 'A' | 'B'

export type Technique = 'lift' | 'push' | 'part' | 'untwist' | 'unfold' | 'press' | 'blade' | 'tube' | 'clear' | 'clean' | 'replace' | 'leave' | 'look'

/** One thing to do at one contact. */
export interface Step {
  readonly contact: string
  readonly technique: Technique
  readonly tool: string
  /** Where the tool comes from, seen from above with the far edge north; null where there is no side to choose. */
  readonly from: Compass | null
  readonly say: string
  readonly overTravelMm: number
  readonly strokes: number
  readonly snaps: number
  /** Contacts that must be done before this one because they lie across it. */
  readonly after: readonly string[]
  readonly minutes: number
}

export const compass = ['east', 'north-east', 'north', 'north-west', 'west', 'south-west', 'south', 'south-east'] as const
export type Compass = (typeof compass)[number]

const unit = (direction: number): readonly [number, number] => [Math.cos((direction * Math.PI) / 4), Math.sin((direction * Math.PI) / 4)]

/** Width of a needle's corridor and how far out it needs room, mm (bench default). */
const TOOL_RADIUS_MM = 0.15
const TOOL_REACH_MM = 1.6

export interface Plan {
  readonly steps: readonly Step[]
  readonly minutes: number
  /** Chance that at least one contact snaps on the way. */
  readonly anySnaps: number
}

/**
 * An order of straightening.
 *
 * Precedence first: whoever lies across another goes before it (cycles are cut at the least severe). Within what is
 * free, school A takes the least snap odds first, school B the most; near neighbours are taken together to save
 * moving the microscope. Each contact gets a technique by its damage and the side that is open: of eight directions the
 * one nearest to the wanted push whose corridor meets no other contact that stands in the way.
 */
export function plan(socket: Socket, marks: Marks, school: School = 'A', left: Readonly<Record<string, string>> = {}, strokesBefore: Readonly<Record<string, number>> = {}): Plan {
  const named = byName(socket)
  const near = new Neighbourhood(socket.contacts, socket.pitchMm)
  const todo = socket.contacts.filter((c) => isDamage(marks[c.name]) && marks[c.name]!.kind !== 'scuffed')
  const across = liesAcross(socket, marks, near)
  const lostPerGroup = new Map<FunctionGroup, number>()
  const totals = new Map<FunctionGroup, number>()
  for (const c of socket.contacts) totals.set(c.group, (totals.get(c.group) ?? 0) + 1)
  for (const c of todo) if (isGone(marks[c.name]!)) lostPerGroup.set(c.group, (lostPerGroup.get(c.group) ?? 0) + 1)
  const blockers = new Map<string, string[]>()
  for (const [over, unders] of across) for (const under of unders) blockers.set(under, [...(blockers.get(under) ?? []), over])

  const steps = new Map(
    todo.map((c) => {
      const mark = marks[c.name]!
      const step = stepFor(socket, c, mark, marks, near, named, strokesBefore[c.name] ?? 0)
      const reason = left[c.name] ?? leaveReason(c, mark, lostPerGroup, totals)
      const settled: Step = reason ? { ...step, technique: 'leave', tool: 'nothing', from: null, say: `leave: ${reason}`, strokes: 0, snaps: 0, overTravelMm: 0, minutes: 0 } : step
      return [c.name, { ...settled, after: blockers.get(c.name) ?? [] }] as const
    }),
  )

  const open = new Set(steps.keys())
  const order: Step[] = []
  let at: Contact | null = null
  while (open.size > 0) {
    const free = [...open].filter((name) => !steps.get(name)!.after.some((over) => open.has(over)))
    const pool = free.length > 0 ? free : [...open]
    let best: string | null = null
    let bestCost = Infinity
    for (const name of pool) {
      const step = steps.get(name)!
      const contact = named.get(name)!
      const risk = step.snaps * (school === 'A' ? 1 : -1)
      const travel: number = at ? Math.hypot(at.xMm - contact.xMm, at.yMm - contact.yMm) : 0
      const frees = across.get(name)?.length ? -2 : 0
      const late = step.technique === 'leave' ? 100 : step.technique === 'replace' ? 50 : 0
      const cost = late + frees + Math.round(risk * 40) + travel * 0.05 + (order.at(-1)?.tool === step.tool ? 0 : 0.2)
      if (cost < bestCost || (cost === bestCost && name < best!)) {
        best = name
        bestCost = cost
      }
    }
    const step = steps.get(best!)!
    order.push(step)
    open.delete(best!)
    if (step.technique !== 'leave') at = named.get(best!)!
  }
  const minutes = order.reduce((sum, step) => sum + step.minutes, 0)
  return { steps: order, minutes, anySnaps: 1 - order.reduce((all, step) => all * (1 - step.snaps), 1) }
}

/** Who lies across whom: from a contact to those it must be freed from before they can be reached. */
export function liesAcross(socket: Socket, marks: Marks, near = new Neighbourhood(socket.contacts, socket.pitchMm)): Map<string, string[]> {
  const named = byName(socket)
  const found = new Map<string, string[]>()
  for (const contact of socket.contacts) {
    const mark = marks[contact.name]
    if (!mark || !isDamage(mark)) continue
    const capsule = contactCapsule(contact, mark, mark.touches ? named.get(mark.touches) : undefined)
    if (!capsule) continue
    const under: string[] = []
    for (const i of near.within(contact.xMm, contact.yMm, socket.pitchMm * 2.2)) {
      const other = socket.contacts[i]!
      if (other.name === contact.name || !isDamage(marks[other.name])) continue
      const seen = mark.touches === other.name && (mark.kind === 'folded' || mark.kind === 'touching')
      const flat = segmentDistance([capsule.from[0], capsule.from[1], 0], [capsule.to[0], capsule.to[1], 0], [other.xMm, other.yMm, 0], [other.xMm, other.yMm, 0])
      if (seen || flat < socket.pitchMm * 0.3) under.push(other.name)
    }
    if (under.length > 0) found.set(contact.name, under)
  }
  // Two that lie across each other: the one with more of it displaced goes first.
  for (const [name, unders] of found) {
    found.set(name, unders.filter((under) => !found.get(under)?.includes(name) || severity(marks[name]!) > severity(marks[under]!) || (severity(marks[name]!) === severity(marks[under]!) && name < under)))
  }
  return found
}

const severity = (mark: Mark) => (mark.kind === 'folded' ? 10 : mark.kind === 'touching' ? 5 : 0) + Math.hypot(...usualLeanMm(mark)) + Math.abs(usualHeightMm(mark))

/** Why a contact may be left as it is, or null. */
function leaveReason(contact: Contact, mark: Mark, lost: ReadonlyMap<FunctionGroup, number>, totals: ReadonlyMap<FunctionGroup, number>): string | null {
  if (!isGone(mark) || mark.kind === 'folded') return null
  const law = functionLaw[contact.group]
  const of = totals.get(contact.group) ?? 0
  if (law.kind === 'parallel' && parallelState(law, of, lost.get(contact.group) ?? 0) === 'whole') return `one of ${of} ${contact.group === 'ground' ? 'grounds' : `${contact.group} contacts`}`
  if (contact.group === 'reserved' && contact.trust !== 'none') return `listed as reserved (${contact.trust} table)`
  return null
}

function stepFor(socket: Socket, contact: Contact, mark: Mark, marks: Marks, near: Neighbourhood, named: ReadonlyMap<string, Contact>, strokesBefore: number): Step {
  const lean = usualLeanMm(mark)
  const height = usualHeightMm(mark)
  const offset = Math.max(0.03, Math.hypot(...lean), Math.abs(height))
  const base = { contact: contact.name, after: [] as readonly string[] }
  const bare = { ...base, overTravelMm: 0, strokes: 0, snaps: 0 }
  if (mark.unsure) return { ...bare, technique: 'look', tool: 'lens', from: null, say: `look again from the side: ${damageWords[mark.kind].word} or not?`, minutes: 1 }
  if (mark.kind === 'lodged') return { ...bare, technique: 'clear', tool: 'wooden stick', from: openSide(socket, contact, [0, 0], marks, near), say: 'take out what is lodged there; keep it and log it', minutes: 2 }
  if (mark.kind === 'paste') return { ...bare, technique: 'clean', tool: 'damp swab', from: null, say: 'lift the paste off with a barely damp swab tip, never wipe', minutes: 3 }
  if (mark.kind === 'snapped' || mark.kind === 'tip gone') {
    const stub = mark.kind === 'tip gone'
    return { ...bare, technique: 'replace', tool: stub ? 'two fine tweezers' : 'hot air', from: null, say: stub ? 'raise the stub, or transplant from a donor' : 'transplant from a donor, or replace the socket', minutes: stub ? 10 : 25, snaps: 0 }
  }
  const folded = mark.kind === 'folded'
  const bend = straightening(folded ? socket.pitchMm * 0.8 : offset, folded, strokesBefore)
  const touched = mark.touches ? named.get(mark.touches) : undefined
  const away: readonly [number, number] = touched ? [contact.xMm - touched.xMm, contact.yMm - touched.yMm] : [-lean[0], -lean[1]]
  // The tool pushes towards `away`, so it comes from the other side.
  const side = openSide(socket, contact, away, marks, near)
  const past = `${bend.overTravelMm.toFixed(2)} mm past level`
  const numbers = { overTravelMm: bend.overTravelMm, strokes: bend.strokes, snaps: bend.snaps, from: side }
  if (socket.kind === 'pin-grid') {
    const row = rowNeighbours(contact, marks, socket, near)
    if (folded) return { ...base, ...numbers, technique: 'tube', tool: 'hollow tube', say: `raise it with the tube from the ${side}, in ${bend.strokes} small steps`, minutes: 5 }
    if (row >= 2) return { ...base, ...numbers, technique: 'blade', tool: 'thin blunt blade', say: `run the blade along the row from the ${side}; blade away from the hand`, minutes: 0.6 }
    return { ...base, ...numbers, technique: 'tube', tool: 'hollow tube', say: `tube over the pin, ease it from the ${side}, ${past}`, minutes: 1.5 }
  }
  if (folded) return { ...base, ...numbers, technique: 'unfold', tool: 'sewing needle', say: `lift it back over from the ${side} in ${bend.strokes} small steps`, minutes: 6 }
  if (touched) return { ...base, ...numbers, technique: 'part', tool: 'two fine tweezers', say: `part from ${touched.name}, from the ${side}`, minutes: 2.5 }
  if (mark.kind === 'twisted') return { ...base, ...numbers, technique: 'untwist', tool: 'two fine tweezers', say: `untwist in small steps, holding the beam from the ${side}`, minutes: 3 }
  if (mark.kind === 'high') return { ...base, ...numbers, technique: 'press', tool: 'sewing needle', say: `press down from the ${side}, ${past}`, minutes: 1 }
  if (mark.kind === 'low' || Math.abs(height) > Math.hypot(...lean)) return { ...base, ...numbers, technique: 'lift', tool: 'sewing needle', say: `lift from under, needle from the ${side}, ${past}`, minutes: 1 }
  return { ...base, ...numbers, technique: 'push', tool: 'sewing needle', say: `push from the ${side}, ${past}`, minutes: 1 }
}

/** How many of the two neighbours along the row lean the same way. */
function rowNeighbours(contact: Contact, marks: Marks, socket: Socket, near: Neighbourhood): number {
  const lean = usualLeanMm(marks[contact.name]!)
  return near.within(contact.xMm, contact.yMm, socket.pitchMm * 2.1).filter((i) => {
    const other = socket.contacts[i]!
    const mark = marks[other.name]
    if (other.name === contact.name || !mark || mark.kind !== 'lean') return false
    const theirs = usualLeanMm(mark)
    return Math.abs(other.yMm - contact.yMm) < 0.01 && lean[0] * theirs[0] + lean[1] * theirs[1] > 0
  }).length
}

/**
 * The side a tool should come from to push towards `away`.
 * Cost of a side: angle from the ideal one, plus what stands in its corridor (high and folded contacts count double).
 */
export function openSide(socket: Socket, contact: Contact, away: readonly [number, number], marks: Marks, near: Neighbourhood): Compass {
  const size = Math.hypot(...away)
  const beam = (contact.beamDeg * Math.PI) / 180
  // With no lean to undo, the needle goes under the arch from the side the tip points to.
  const ideal: readonly [number, number] = size > 0.004 ? [-away[0] / size, -away[1] / size] : [Math.cos(beam), Math.sin(beam)]
  const around = near.within(contact.xMm, contact.yMm, TOOL_REACH_MM + socket.pitchMm).map((i) => socket.contacts[i]!)
  let best = 0
  let bestCost = Infinity
  for (let direction = 0; direction < 8; direction++) {
    const [ux, uy] = unit(direction)
    const out = [contact.xMm + ux * TOOL_REACH_MM, contact.yMm + uy * TOOL_REACH_MM, 0] as const
    let cost = 1 - (ux * ideal[0] + uy * ideal[1])
    for (const other of around) {
      if (other.name === contact.name) continue
      const mark = marks[other.name]
      if (mark?.kind === 'snapped') continue
      const lean = mark ? usualLeanMm(mark) : [0, 0]
      const at = [other.xMm + lean[0]!, other.yMm + lean[1]!, 0] as const
      const gap = segmentDistance([contact.xMm, contact.yMm, 0], out, at, at) - TOOL_RADIUS_MM - 0.1
      if (gap < 0) cost += mark?.kind === 'high' || mark?.kind === 'folded' ? 0.9 : 0.35
    }
    if (cost < bestCost - 1e-9) {
      best = direction
      bestCost = cost
    }
  }
  return compass[best]!
}

/** How the field stands when the plan went through, and the chance for each contact that it snapped on the way. */
export function afterPlan(planned: Plan, marks: Marks): { readonly marks: Marks; readonly mayBeGone: Readonly<Record<string, number>> } {
  const after: Record<string, Mark> = { ...marks }
  const mayBeGone: Record<string, number> = {}
  for (const step of planned.steps) {
    if (step.technique === 'leave' || step.technique === 'look' || step.technique === 'replace') continue
    after[step.contact] = { kind: 'intact' }
    if (step.snaps > 0) mayBeGone[step.contact] = step.snaps
  }
  return { marks: after, mayBeGone }
}

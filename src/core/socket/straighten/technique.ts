import { straightening } from '../contact/bend'
import { damageWords, leanSizeMm, usualHeightMm, usualLeanMm, usualTwistDeg } from '../damage/mark'
import type { DamageKind, Mark, Marks } from '../damage/mark'
import { openSide } from '../damage/open-side'
import type { Compass } from '../damage/open-side'
import { fieldOf } from '../model/socket'
import type { Contact, Socket } from '../model/socket'

export const techniques = [
  'lift',
  'push',
  'press',
  'part',
  'untwist',
  'unfold',
  'blade',
  'tube',
  'clear',
  'clean',
  'replace',
  'leave',
  'look',
] as const
export type Technique = (typeof techniques)[number]

/** The record as factors on the predicted odds, by technique and by technique and damage. */
export type SnapFactors = Readonly<Partial<Record<Technique | `${Technique} ${DamageKind}`, number>>>

/** The factor for one technique on one kind of damage: its own, else the technique's, else 1. */
export const snapFactor = (factors: SnapFactors, technique: Technique, damage: DamageKind): number =>
  factors[`${technique} ${damage}`] ?? factors[technique] ?? 1

/** Chance that one contact is lost to a slip of the hand, metal apart, by technique (bench default until the record says). */
export const slipOdds: Readonly<Record<Technique, number>> = {
  lift: 0.012,
  push: 0.01,
  press: 0.008,
  part: 0.05,
  untwist: 0.035,
  unfold: 0.08,
  blade: 0.006,
  tube: 0.015,
  clear: 0.005,
  clean: 0.004,
  replace: 0,
  leave: 0,
  look: 0,
}

/**
 * Chance that a contact is lost while it is untwisted, hand and metal together, by its angle: about 5 in 100 at 20°,
 * 15 at 45°, 50 at 90° (bench default), straight in between.
 */
export function untwistOdds(deg: number): number {
  const known = [
    [0, 0.035],
    [20, 0.05],
    [45, 0.15],
    [90, 0.5],
    [180, 0.9],
  ] as const
  const i = known.findIndex(([at]) => deg <= at)
  if (i <= 0) return known[i === 0 ? 0 : known.length - 1]![1]
  const [[a, pa], [b, pb]] = [known[i - 1]!, known[i]!]
  return pa + ((deg - a) / (b - a)) * (pb - pa)
}

/** A contact folded back flat is so many pitches from its place (bench default). */
export const FOLD_PITCHES = 0.8

/** How one contact is dealt with. */
export interface Handling {
  readonly contact: string
  readonly technique: Technique
  readonly tool: string
  /** Where the tool comes from; null where there is no side to choose. */
  readonly from: Compass | null
  readonly say: string
  readonly overTravelMm: number
  readonly strokes: number
  /** Odds that the contact is lost on the way: metal and hand together. */
  readonly snaps: number
  /** What the shop's own record made of those odds: they are the model's times this. */
  readonly snapFactor: number
  readonly minutes: number
  /** Raised contacts in the tool's corridor. */
  readonly blockedBy: readonly string[]
}

interface Way {
  readonly technique: Technique
  readonly tool: string
  readonly say: string
  readonly minutes: number
}

const needle = 'sewing needle'
const tweezers = 'two fine tweezers'

/**
 * Technique, tool, direction, over-bend, strokes and snap odds for one damaged contact.
 * @param factors on the odds of losing it, from the shop's own record
 */
export function handlingOf(
  socket: Socket,
  contact: Contact,
  mark: Mark,
  marks: Marks,
  strokesBefore = 0,
  factors: SnapFactors = {},
): Handling {
  const still = (way: Way, from: Compass | null = null): Handling => ({
    contact: contact.name,
    ...way,
    from,
    overTravelMm: 0,
    strokes: 0,
    snaps: slipOdds[way.technique],
    snapFactor: 1,
    blockedBy: [],
  })
  if (mark.unsure) {
    const say = `look again from the side, ${damageWords[mark.kind].word} or not`
    return still({ technique: 'look', tool: 'lens', say, minutes: 1 })
  }
  switch (mark.kind) {
    case 'lodged': {
      const say = 'take out what is lodged there; keep it and log it'
      const { side } = openSide(socket, contact, [0, 0], marks)
      return still({ technique: 'clear', tool: 'wooden stick', say, minutes: 2 }, side)
    }
    case 'paste': {
      const say = 'lift the paste off with a barely damp swab tip, never wipe'
      return still({ technique: 'clean', tool: 'damp swab', say, minutes: 3 })
    }
    case 'tip gone': {
      const say = 'raise the stub, or transplant from a donor'
      return still({ technique: 'replace', tool: tweezers, say, minutes: 10 })
    }
    case 'snapped': {
      const say = 'transplant from a donor, or replace the socket'
      return still({ technique: 'replace', tool: 'hot air', say, minutes: 25 })
    }
  }
  const lean = usualLeanMm(mark)
  const offset = Math.max(0.03, leanSizeMm(mark), Math.abs(usualHeightMm(mark)))
  const folded = mark.kind === 'folded'
  const bend = straightening(folded ? socket.pitchMm * FOLD_PITCHES : offset, folded, strokesBefore)
  const touched = mark.touches ? fieldOf(socket).named.get(mark.touches) : undefined
  const away: readonly [number, number] = touched
    ? [contact.xMm - touched.xMm, contact.yMm - touched.yMm]
    : [-lean[0], -lean[1]]
  const { side, blockedBy } = openSide(socket, contact, away, marks)
  const way =
    socket.kind === 'pin-grid'
      ? pinWay(socket, contact, marks, side, folded, bend.strokes)
      : landWay(mark, touched, side, bend.strokes)
  const factor = snapFactor(factors, way.technique, mark.kind)
  return {
    contact: contact.name,
    ...way,
    from: side,
    overTravelMm: bend.overTravelMm,
    strokes: bend.strokes,
    snaps: Math.min(0.99, (1 - (1 - bend.snaps) * (1 - handOdds(way.technique, mark))) * factor),
    snapFactor: factor,
    blockedBy,
  }
}

/** Chance that the hand loses it: by the technique, and untwisting by the angle. */
export const handOdds = (technique: Technique, mark: Mark): number =>
  technique === 'untwist' ? untwistOdds(usualTwistDeg(mark)) : slipOdds[technique]

function landWay(mark: Mark, touched: Contact | undefined, side: Compass, strokes: number): Way {
  const leans = Math.hypot(...usualLeanMm(mark))
  const height = usualHeightMm(mark)
  if (mark.kind === 'folded')
    return {
      technique: 'unfold',
      tool: needle,
      say: `lift it back over from the ${side} in ${strokes} small steps`,
      minutes: 6,
    }
  if (touched || mark.kind === 'touching')
    return {
      technique: 'part',
      tool: tweezers,
      say: touched
        ? `separate from ${touched.name}, from the ${side}`
        : 'see which neighbour it touches, and separate them',
      minutes: 2.5,
    }
  if (mark.kind === 'twisted')
    return {
      technique: 'untwist',
      tool: tweezers,
      say: `untwist in small steps, holding the beam from the ${side}`,
      minutes: 3,
    }
  if (mark.kind === 'high' || (height > 0 && height > leans))
    return { technique: 'press', tool: needle, say: `press down from the ${side}`, minutes: 1 }
  if (mark.kind === 'low' || -height > leans)
    return {
      technique: 'lift',
      tool: needle,
      say: `lift from under, needle from the ${side}`,
      minutes: 1,
    }
  return { technique: 'push', tool: needle, say: `push from the ${side}`, minutes: 1 }
}

function pinWay(
  socket: Socket,
  contact: Contact,
  marks: Marks,
  side: Compass,
  folded: boolean,
  strokes: number,
): Way {
  const tube = 'hollow tube'
  if (folded)
    return {
      technique: 'tube',
      tool: tube,
      say: `raise it with the tube from the ${side}, in ${strokes} small steps`,
      minutes: 5,
    }
  if (rowNeighbours(socket, contact, marks) >= 2)
    return {
      technique: 'blade',
      tool: 'thin blunt blade',
      say: `run the blade along the row from the ${side}; blade away from the hand`,
      minutes: 0.6,
    }
  return {
    technique: 'tube',
    tool: tube,
    say: `tube over the pin, ease it from the ${side}`,
    minutes: 1.5,
  }
}

/** How many neighbours along the row, two each way, lean the same way. */
function rowNeighbours(socket: Socket, contact: Contact, marks: Marks): number {
  const lean = usualLeanMm(marks[contact.name]!)
  const around = fieldOf(socket).near.within(contact.xMm, contact.yMm, socket.pitchMm * 2.1)
  return around.filter((i) => {
    const other = socket.contacts[i]!
    const mark = marks[other.name]
    if (other === contact || mark?.kind !== 'lean' || Math.abs(other.yMm - contact.yMm) > 0.01) return false
    const theirs = usualLeanMm(mark)
    return lean[0] * theirs[0] + lean[1] * theirs[1] > 0
  }).length
}

import { assign } from './assign'
import { sample } from '../../photo/grey-image'
import { DISPLACED_MM, onPhoto, onPlane } from './work'
import type { TipSeen } from './work'
import { stripSeen } from './peaks'
import { project, scaleAt, unproject } from '../../photo/projection'
import type { Point } from '../../photo/projection'
import { AT_HOME_MM, feetOf, footOf, healthyStrips, liesOver, overItsStrip } from './strip'
import type { ToClaim } from './strip'
import { COVER_MM, likeATip, LIKE_A_TIP, meanRound, usualRound } from './usual-look'
import type { Usual } from './usual-look'

/** A tip at home and this bright against its neighbours is taken at once. */
const AT_HOME_SHINE = 0.5
/** What it costs to say that a tip lies over its own foot: it would have been folded, and the next one's tip may. */
const AT_FOOT = 0.5

/** What it costs to say that a tip is missing; a pair that costs more is not made. */
const MISSING = 1.9
/** Farthest that a tip is looked for, pitches. */
const FARTHEST = 1.35
/** The same in a photo from the side, where the lean is known and only the height shifts a tip. */
const BY_HEIGHT = 0.4
/** A spot fainter than this may be a broken end, or the back of a tip. */
const FAINT = 0.5
/** One fainter than this, off its place, is a tip only if the strip ends near it, mm. */
const DIM = 0.65
const PAST_MM = 0.25
/** A spot as bright as this is a tip and not dirt: it belongs to somebody. */
const BRIGHT = 0.7
/** Share of pure white round a place from which on a tip cannot be seen there; with a spot just where it should be, more. */
const WHITE = 0.2
const WHITE_AT_HOME = 0.7
/** Share of what tip and strip add to the housing's brightness from which on a place is covered. */
const COVERED = 0.55
/** Spots weaker than this share of a neighbour's tip are dirt. */
const FAINTEST = 0.28

/** Cost of a contact claiming a spot: how far it is, how faint, and how little of a strip leads there. */
const costOf = (pitches: number, shine: number, strip: number) =>
  Math.min(pitches * pitches, 0.5 + 0.35 * pitches) +
  0.8 * (1 - Math.min(1, shine)) +
  1.6 * (1 - Math.min(1, Math.max(0, strip))) -
  (shine > BRIGHT ? 0.3 : 0)

/**
 * Who is whose: every contact claims one spot at most and no spot is claimed twice. Spots at home first; the rest by
 * least total cost over groups of contacts and spots that could belong together.
 */
export function claimTips(asked: ToClaim): TipSeen[] {
  const { socket, projection, shift, grid, factor, plane } = asked
  const { peaks } = grid
  const n = socket.contacts.length
  const { known } = asked
  const home = socket.contacts.map((c, i): Point => {
    const [sx, sy] = shift([c.xMm, c.yMm], c.beamDeg)
    const [dx, dy] = known?.[i] ?? [0, 0]
    return onPlane(asked, project(projection, c.xMm + sx + dx, c.yMm + sy + dy))
  })
  const scale = Float64Array.from(socket.contacts, (c) => scaleAt(projection, c.xMm, c.yMm) / factor)
  const edge = 0.35 * socket.pitchMm
  const inside = home.map(([x, y], i) => {
    const m = edge * scale[i]!
    return x >= m && y >= m && x < plane.widthPx - m && y < plane.heightPx - m
  })
  const claimed = new Int32Array(n).fill(-1)
  const taken = new Uint8Array(peaks.x.length)
  const cost = new Float64Array(n).fill(MISSING)
  const other = new Float64Array(n).fill(MISSING + 1)
  home.forEach(([x, y], i) => {
    if (!inside[i]) return
    const peak = grid.nearest(x, y, AT_HOME_MM * scale[i]!)
    if (peak < 0 || peaks.strength[peak]! < 0.25 * asked.strong) return
    claimed[i] = peak
  })
  const work = { ...asked, feetMm: feetOf(asked) }
  const usual = usualRound(work, home, claimed, scale)
  const { gain } = usual
  // From the side a foot is not where it is from above, so a strip says nothing there.
  const strips = known ? 0 : healthyStrips(work, home, claimed, scale)
  for (let i = 0; i < n; i++) {
    const peak = claimed[i]!
    if (peak < 0) continue
    if (peaks.strength[peak]! < AT_HOME_SHINE * gain[i]! || taken[peak]) claimed[i] = -1
    else {
      taken[peak] = 1
      cost[i] = 0
    }
  }
  // A strip out of its pocket lies over the housing and stands out less from it.
  const plain = Float64Array.from(gain, (g, i) =>
    Math.max(0, Math.min(strips * g, usual.strip[i]! - usual.ground[i]!)),
  )
  const groups = pairUp(work, home, scale, inside, claimed, taken, usual, plain)
  for (const group of groups) settle(group, claimed, cost, other)
  const covered = (i: number) =>
    meanRound(work, home[i]!, COVER_MM * scale[i]!) - usual.ground[i]! >
    COVERED * (usual.round[i]! - usual.ground[i]!)
  return socket.contacts.map((c, i): TipSeen => {
    const peak = claimed[i]!
    const none = { name: c.name, px: onPhoto(work, home[i]!), offsetMm: null, shine: 0 }
    if (!inside[i]) return { ...none, as: 'not seen', confidence: 1, why: 'outside the picture' }
    const away = shift([c.xMm, c.yMm], c.beamDeg)
    const offsetOf = (at: Point): Point => {
      const px = onPhoto(work, at)
      const mm = unproject(projection, px[0], px[1])
      return [mm[0] - c.xMm - away[0], mm[1] - c.yMm - away[1]]
    }
    const spot = peak < 0 ? null : ([peaks.x[peak]!, peaks.y[peak]!] as const)
    const shine = spot ? peaks.strength[peak]! / gain[i]! : 0
    const offsetMm = spot && offsetOf(spot)
    // A spot at the edge of a patch of glare is no tip: where the place itself is white, nothing is taken for one.
    const hidden = hiddenBy(
      work,
      home[i]!,
      scale[i]!,
      gain[i]!,
      spot !== null && cost[i] === 0 ? WHITE_AT_HOME : WHITE,
    )
    if (hidden) return { ...none, as: 'not seen', confidence: 1, why: hidden }
    const weak = !spot || shine < FAINT
    const dim = weak || (shine < DIM && Math.hypot(...offsetMm!) >= DISPLACED_MM)
    const strip = dim && !covered(i) ? liesOver(work, i, claimed, scale[i]!, plain[i]!) : null
    const stripMm = strip && offsetOf(strip.at)
    // A dim spot that the strip runs to is its tip; one it runs past is not.
    const past =
      weak || (stripMm && Math.hypot(stripMm[0] - offsetMm![0], stripMm[1] - offsetMm![1]) > PAST_MM)
    const over = past ? strip : null
    if (over && stripMm && !over.contact && alongItsBeam(stripMm, c.beamDeg))
      return { ...none, as: 'ambiguous', confidence: 0.5, why: 'its strip stands, its tip is not to be seen' }
    if (over && stripMm && Math.hypot(...stripMm) >= DISPLACED_MM)
      return {
        ...none,
        as: 'displaced',
        px: onPhoto(work, over.at),
        confidence: 0.8,
        why: over.contact
          ? `seems to lie over ${over.contact}`
          : 'its strip runs there, its tip is not to be seen',
        ...(over.contact ? { over: over.contact } : {}),
      }
    if (!spot || !offsetMm || brokenEnd(offsetMm, shine, c.beamDeg) || (weak && covered(i))) {
      if (covered(i)) return { ...none, as: 'ambiguous', confidence: 0.5, why: 'something covers it' }
      const doubtful = !spot && other[i]! < MISSING + 0.15
      return {
        ...none,
        as: doubtful ? 'ambiguous' : 'missing',
        confidence: odds(other[i]! - MISSING + 0.4),
        ...(doubtful ? { why: 'a faint spot near it could be its tip' } : {}),
      }
    }
    const displaced = Math.hypot(...offsetMm) >= DISPLACED_MM
    const margin = Math.min(other[i]!, MISSING) - cost[i]!
    const doubtful = displaced && margin < 0.1 && shine < BRIGHT
    return {
      name: c.name,
      as: doubtful ? 'ambiguous' : displaced ? 'displaced' : 'in place',
      offsetMm,
      confidence: odds(margin),
      shine,
      px: onPhoto(work, spot),
      ...(doubtful ? { why: 'two spots could be its tip, or one that is dirt' } : {}),
    }
  })
}

/** Whether a strip ends where a beam that stands as it should ends, more or less. */
function alongItsBeam([dx, dy]: Point, beamDeg: number): boolean {
  const angle = (beamDeg * Math.PI) / 180
  const on = dx * Math.cos(angle) + dy * Math.sin(angle)
  return Math.abs(on) < 0.3 && Math.abs(dx * Math.sin(angle) - dy * Math.cos(angle)) < 0.12
}

/**
 * Whether a spot is the broken end of a beam: fainter than half a tip, and drawn back along the beam, where no tip can
 * be pushed without folding.
 */
function brokenEnd([dx, dy]: Point, shine: number, beamDeg: number): boolean {
  const angle = (beamDeg * Math.PI) / 180
  const back = -(dx * Math.cos(angle) + dy * Math.sin(angle))
  const beside = Math.abs(dx * Math.sin(angle) - dy * Math.cos(angle))
  return shine < FAINT && back > 0.08 && beside < 0.12
}

/** Odds from a margin of cost (bench default: a margin of 0.5 is nine in ten). */
const odds = (margin: number) => 1 / (1 + Math.exp(-4.4 * margin))

interface Option {
  readonly contact: number
  readonly peak: number
  readonly cost: number
}

/** Contacts without a tip and spots without a contact, in groups that touch one another. */
function pairUp(
  work: ToClaim,
  home: readonly Point[],
  scale: Float64Array,
  inside: readonly boolean[],
  claimed: Int32Array,
  taken: Uint8Array,
  usual: Usual,
  plain: Float64Array,
): readonly (readonly Option[])[] {
  const { socket, grid, plane, known } = work
  const { peaks } = grid
  const options: Option[] = []
  const parent = new Map<string, string>()
  const root = (key: string): string => {
    const up = parent.get(key) ?? key
    if (up === key) return key
    const top = root(up)
    parent.set(key, top)
    return top
  }
  for (let i = 0; i < home.length; i++) {
    if (!inside[i] || claimed[i]! >= 0) continue
    const [x, y] = home[i]!
    const foot = footOf(work, i)
    for (const peak of grid.within(x, y, (work.known ? BY_HEIGHT : FARTHEST) * socket.pitchMm * scale[i]!)) {
      const shine = peaks.strength[peak]! / usual.gain[i]!
      if (taken[peak] || shine < FAINTEST) continue
      const at: Point = [peaks.x[peak]!, peaks.y[peak]!]
      const over = known ? null : overItsStrip([x, y], foot, at, scale[i]!)
      if (over && likeATip(work, i, at, scale[i]!, usual) < LIKE_A_TIP[over]) continue
      const pitches = Math.hypot(at[0] - x, at[1] - y) / (socket.pitchMm * scale[i]!)
      const strip = plain[i]! > 0 ? stripSeen(plane, foot, at, 0.2 * scale[i]!) / plain[i]! : 1
      // At home a spot needs no strip to be believed.
      const atHome = pitches * socket.pitchMm < AT_HOME_MM
      const cost =
        costOf(pitches, shine, atHome ? Math.max(strip, 0.6) : strip) + (over === 'foot' ? AT_FOOT : 0)
      if (cost > MISSING + 0.6) continue
      options.push({ contact: i, peak, cost })
      parent.set(root(`p${peak}`), root(`c${i}`))
    }
  }
  const groups = new Map<string, Option[]>()
  for (const option of options) {
    const key = root(`c${option.contact}`)
    groups.set(key, [...(groups.get(key) ?? []), option])
  }
  return [...groups.values()]
}

/** Settles one group: least total cost, each contact having the choice to be missing its tip. */
function settle(
  group: readonly Option[],
  claimed: Int32Array,
  cost: Float64Array,
  other: Float64Array,
): void {
  const contacts = [...new Set(group.map((o) => o.contact))]
  const spots = [...new Set(group.map((o) => o.peak))]
  const table = contacts.map((contact, row) => {
    const costs = new Float64Array(spots.length + contacts.length).fill(Infinity)
    for (const o of group) if (o.contact === contact) costs[spots.indexOf(o.peak)] = o.cost
    costs[spots.length + row] = MISSING
    return costs
  })
  const columnOf = assign(table)
  const free = new Set(spots)
  columnOf.forEach((column) => free.delete(spots[column] ?? -1))
  contacts.forEach((contact, row) => {
    const column = columnOf[row]!
    if (column < spots.length) {
      claimed[contact] = spots[column]!
      cost[contact] = table[row]![column]!
    }
    // The best it could have had instead without taking anything from another.
    for (const o of group)
      if (o.contact === contact && free.has(o.peak)) other[contact] = Math.min(other[contact]!, o.cost)
    if (column >= spots.length) {
      const offered = group.filter((o) => o.contact === contact && free.has(o.peak)).map((o) => o.cost)
      other[contact] = Math.min(...offered, MISSING + 1)
    }
  })
}

/** What keeps a tip from being seen here if it were there, or null: pure white all round, or too dark or unsharp. */
function hiddenBy(work: ToClaim, [x, y]: Point, scale: number, gain: number, most: number): string | null {
  let white = 0
  let n = 0
  const r = 0.3 * scale
  for (let dy = -r; dy <= r; dy += r / 4)
    for (let dx = -r; dx <= r; dx += r / 4) {
      n++
      if (sample(work.plane, x + dx, y + dy) > 246) white++
    }
  if (white / n > most) return 'glare'
  return gain < 0.22 * work.strong ? 'too dark or unsharp there' : null
}

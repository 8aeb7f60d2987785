/**
 * A board with one small part gone, and a meter that slips. Written from the physics of a board: nodes with resistances to
 * ground and to supplies, junctions, parts between them. Nothing of the reasoner’s tables is used.
 */
import type { MissingPart, Role } from '@/core/parts/missing/infer'
import type { Ohms, PadKind, PadSeen, PinReading } from '@/core/parts/missing/pad'
import { seeded } from '@/core/maths/seeded'

type Draw = () => number
const between = (draw: Draw, least: number, most: number) => least * (most / least) ** draw()
const oneOf = <T>(draw: Draw, of: readonly T[]): T => of[Math.floor(draw() * of.length)]!

/** A node of a board: what stands between it and ground and its supply, and its junction. */
interface Node {
  readonly is: PadKind
  readonly rail: string | null
  readonly groundOhm: number
  readonly railOhm: number
  readonly junctionV: number
}

const supplies = ['3v3', '1v8', 'vcore', '5v'] as const

/** A supply’s load: the more it feeds, the lower it reads. */
const supply = (draw: Draw): Node => {
  const rail = oneOf(draw, supplies)
  const load = rail === 'vcore' ? between(draw, 3, 40) : between(draw, 40, 2000)
  return {
    is: 'supply',
    rail,
    groundOhm: load,
    railOhm: 0.2,
    junctionV: rail === 'vcore' ? between(draw, 0.02, 0.2) : between(draw, 0.2, 0.5),
  }
}
const ground: Node = { is: 'ground', rail: null, groundOhm: 0.2, railOhm: 400, junctionV: 0.001 }

/** A line between chips: leakage, or a pull somewhere on it, and the protection diodes of what it meets. */
function signal(draw: Draw, is: PadKind): Node {
  const pulled = draw() < (is === 'control' || is === 'strap' ? 0.6 : 0.35)
  const pull = between(draw, 2.2e3, 4.7e4)
  const leaks = between(draw, 1e5, 1e7)
  const up = pulled && draw() < 0.7
  return {
    is,
    rail: null,
    groundOhm: pulled ? (up ? pull + between(draw, 40, 2000) : pull) : leaks,
    railOhm: pulled && up ? pull : leaks * 1.2,
    junctionV: between(draw, 0.35, 0.75),
  }
}
/** The middle of a divider: its lower resistor, its upper one and the load of the supply behind it. */
function feedback(draw: Draw, upperGone: boolean): Node {
  const [upper, lower] = [between(draw, 1e3, 5e4), between(draw, 1e3, 5e4)]
  const chip = between(draw, 2e5, 5e6)
  const through = upperGone ? Infinity : upper + between(draw, 10, 500)
  const down = upperGone ? lower : Infinity
  const groundOhm = 1 / (1 / chip + 1 / through + (Number.isFinite(down) ? 1 / down : 0))
  return {
    is: 'feedback',
    rail: null,
    groundOhm,
    railOhm: upperGone ? lower + 200 : upper,
    junctionV: between(draw, 0.45, 0.8),
  }
}

/** A sense line with its resistor off: the controller’s input, and at times a small capacitor that says nothing. */
const sense = (draw: Draw): Node => ({
  is: 'sense',
  rail: null,
  groundOhm: between(draw, 5e3, 2e6),
  railOhm: between(draw, 5e3, 2e6),
  junctionV: between(draw, 0.3, 0.75),
})

const kinds: readonly (readonly [Role, number, (draw: Draw) => readonly [Node, Node]])[] = [
  ['series', 18, (d) => [signal(d, 'data'), signal(d, 'data')]],
  ['series', 3, (d) => [signal(d, 'clock'), signal(d, 'clock')]],
  ['pull-up', 10, (d) => [supply(d), signal(d, 'data')]],
  ['pull-up', 4, (d) => [supply(d), signal(d, 'control')]],
  ['pull-down', 6, (d) => [ground, signal(d, 'data')]],
  ['strap', 6, (d) => [d() < 0.5 ? ground : supply(d), signal(d, 'strap')]],
  ['decoupling', 25, (d) => [supply(d), ground]],
  ['bulk', 5, (d) => [supply(d), ground]],
  ['coupling', 6, (d) => [signal(d, 'lane'), signal(d, 'lane')]],
  ['feedback', 8, (d) => (d() < 0.5 ? [supply(d), feedback(d, true)] : [ground, feedback(d, false)])],
  ['sense', 5, (d) => [supply(d), sense(d)]],
  ['clock load', 3, (d) => [ground, signal(d, 'clock')]],
  ['bead', 5, (d) => [supply(d), supply(d)]],
]

/** How often the meter, or who reads it, shows something else. */
const SLIPS = 0.05

class Meter {
  constructor(
    private readonly draw: Draw,
    private readonly slips: number,
  ) {}
  /** A reading with its noise; a slip is a reading somewhere else on the board. */
  ohms(value: number): Ohms {
    const shown =
      this.draw() < this.slips ? between(this.draw, 0.1, 1e7) : value * (1 + 0.04 * (this.draw() - 0.5))
    return shown > 2e7 ? 'open' : Number(shown.toPrecision(3))
  }
  diode(value: number): Ohms {
    const shown = this.draw() < this.slips ? this.draw() * 2 : value + 0.01 * (this.draw() - 0.5)
    return shown > 1.8 ? 'open' : Math.max(0, Number(shown.toFixed(3)))
  }
}

/** The pins round a place: one of each kind; a line beeps to a pin of its own, seen from either of two ends. */
function beeped(draw: Draw, meter: Meter, node: Node): PinReading[] {
  if (node.is === 'ground' || node.is === 'supply') return []
  const others: readonly PadKind[] = ['data', 'lane', 'clock', 'control', 'strap', 'feedback', 'sense']
  const own = [0, 1].map((i): PinReading => ({ pin: `U1.${i}`, does: node.is, ohms: meter.ohms(0.3) }))
  const wrong = oneOf(
    draw,
    others.filter((k) => k !== node.is),
  )
  return [...own, { pin: 'U1.9', does: wrong, ohms: meter.ohms(between(draw, 5e3, 5e6)) }]
}

const padOf = (draw: Draw, meter: Meter, node: Node, whole: boolean): PadSeen => ({
  groundOhm: meter.ohms(node.groundOhm),
  diodeV: meter.diode(node.junctionV),
  rails: Object.fromEntries(
    supplies.map((rail) => [
      rail,
      meter.ohms(node.rail === rail ? 0.2 : node.rail ? node.groundOhm + 300 : node.railOhm + 50),
    ]),
  ),
  pins: whole ? beeped(draw, meter, node) : [],
})

/** What was there, whether nobody may guess its value, its value where it may be, Ω, and what is read of its pads. */
export interface Gone {
  readonly role: Role
  readonly never: boolean
  readonly ohm: number | null
  readonly part: MissingPart
}

/** Values that stand in rows of data lines and on pulls, Ω. */
const stand: Readonly<Partial<Record<Role, readonly number[]>>> = {
  series: [22, 33, 33, 47],
  'pull-up': [2200, 4700, 4700, 10_000],
  'pull-down': [4700, 10_000, 10_000, 47_000],
}

/** A board with one part gone, and what is read of its two pads. */
export function boardWithPartGone(seed: number, whole = true, slips = SLIPS): Gone {
  const draw = seeded(seed)
  const meter = new Meter(draw, slips)
  const all = kinds.reduce((sum, [, share]) => sum + share, 0)
  let at = draw() * all
  const [role, , make] = kinds.find(([, share]) => (at -= share) <= 0)!
  const nodes = make(draw)
  const [a, b] = draw() < 0.5 ? nodes : [nodes[1], nodes[0]]
  const never =
    !(['series', 'pull-up', 'pull-down'] as Role[]).includes(role) ||
    [a, b].some((n) => ['lane', 'clock', 'control', 'strap', 'feedback', 'sense'].includes(n.is))
  const padsMm = role === 'bulk' ? oneOf(draw, [1.9, 3.1]) : oneOf(draw, [1.0, 1.0, 1.6])
  return {
    role,
    never,
    ohm: never ? null : oneOf(seeded(seed * 31 + 7), stand[role]!),
    part: { a: padOf(draw, meter, a, whole), b: padOf(draw, meter, b, whole), padsMm, supplyV: 3.3 },
  }
}

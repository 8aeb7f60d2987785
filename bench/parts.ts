/**
 * Missing parts of generated circuits, read with a meter that slips. Written from the physics of a board: nodes with
 * resistances to ground and to supplies, junctions, parts between them. Nothing of the reasoner’s tables is used.
 */
import { inferMissing } from '@/core/parts/missing/infer'
import type { MissingPart, Role } from '@/core/parts/missing/infer'
import type { Ohms, PadKind, PadSeen, PinReading } from '@/core/parts/missing/pad'
import { seeded } from '@/core/maths/seeded'
import { indexMap, near } from '@/core/parts/board-map/board-map'
import { readNetlist } from '@/core/parts/board-map/netlist'
import { line, percent, timed } from './figure'
import type { Figure } from './figure'

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

export interface Trial {
  readonly role: Role
  readonly never: boolean
  readonly part: MissingPart
}

/** A board with one part gone, and what was read of its two pads. */
export function drawn(seed: number, whole = true, slips = SLIPS): Trial {
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
    part: { a: padOf(draw, meter, a, whole), b: padOf(draw, meter, b, whole), padsMm, supplyV: 3.3 },
  }
}

/** Right roles, and values tried where none may be, over circuits of seeds of their own. */
export function missingFigures(count: number, from = 7_000_000, whole = true) {
  let right = 0
  let guessed = 0
  let wrongly = 0
  let mayBe = 0
  const missed = new Map<string, number>()
  for (let i = 0; i < count; i++) {
    const { role, never, part } = drawn(from + i, whole)
    const found = inferMissing(part)
    if (found.roles[0]!.role === role) right++
    else {
      const key = `${role} taken for ${found.roles[0]!.role}`
      missed.set(key, (missed.get(key) ?? 0) + 1)
    }
    if (!never) mayBe++
    if (found.value) {
      guessed++
      if (never) wrongly++
    }
  }
  return {
    right: right / count,
    guessed: guessed / mayBe,
    wrongly,
    missed: [...missed].sort((a, b) => b[1] - a[1]),
  }
}

/** A netlist of so many records, made by hand: parts of two to forty pins on a grid. */
function netlist(records: number): string {
  const lines = ['P  UNITS CUST 1']
  for (let i = 0; i < records; i++) {
    const net = `NET${String(i % 9000).padStart(5, '0')}`.padEnd(17)
    const ref = `U${Math.floor(i / 20)}`.padEnd(6)
    const at = (mm: number) => `+${String(mm).padStart(6, '0')}`
    lines.push(
      `327${net}${ref}-${String(i % 20).padEnd(4)}       A0${1 + (i % 2)}X${at((i % 600) * 500)}Y${at(Math.floor(i / 600) * 500)}X0300Y0400R000`,
    )
  }
  return [...lines, '999'].join('\n')
}

export function mapFigures(): Figure[] {
  const text = netlist(100_000)
  const { map } = readNetlist(text)
  const of = indexMap(map!)
  return [
    timed('netlist of 100,000 records read', 1500, () => readNetlist(text), 8),
    timed('  and its parts and nets gathered', 1500, () => indexMap(map!), 8),
    timed('  parts within 20 mm of one', null, () => near(of, 'U2500', 20), 8),
  ]
}

export function partsFigures(count = 5000): void {
  const { right, guessed, wrongly } = missingFigures(count)
  line(`right role of a missing part, ${count} circuits, 5 % slips`, percent(right), '≥ 95 %')
  line('  values tried on power, feedback, sense, straps, resets, clocks', String(wrongly), '0')
  line('  values tried where they may be', percent(guessed))
}

import { normalise } from '../../maths/normalise'
import { sayOhms } from '../../maths/units'

/** What a pad may be on. What is never guessed at stands apart: fast lanes, clocks, resets and enables, straps, feedback, sense. */
export const padKinds = [
  'ground',
  'supply',
  'data',
  'lane',
  'clock',
  'control',
  'strap',
  'feedback',
  'sense',
] as const
export type PadKind = (typeof padKinds)[number]

export const neverGuessed: ReadonlySet<PadKind> = new Set<PadKind>([
  'lane',
  'clock',
  'control',
  'strap',
  'feedback',
  'sense',
])

/** A pad read off a named pin of a chip or a header: what that pin does, and what the meter shows between them. */
export interface PinReading {
  readonly pin: string
  readonly does: PadKind
  readonly ohms: Ohms
}

/** Ohms, or a meter that shows nothing. */
export type Ohms = number | 'open'

/** All that was read of one pad, board unplugged, part off. */
export interface PadSeen {
  readonly groundOhm?: Ohms
  /** Drop of the meter’s diode range, red probe on ground, V. */
  readonly diodeV?: Ohms
  /** Ohms to supplies, by name. */
  readonly rails?: Readonly<Record<string, Ohms>>
  readonly pins?: readonly PinReading[]
  /** Its net, off a board map or a drawing. */
  readonly net?: string
}

/** How often a reading is another than it should be: a probe beside the pad, a figure misread (bench default). */
export const SLIP = 0.05

/** A range of the meter: up to where each step goes, and the chance of each, by what the pad is on. */
interface Meter {
  readonly upTo: readonly number[]
  readonly chance: readonly (readonly number[])[]
}

/**
 * What a reading comes to, in steps of the meter, and the chance of each step by what the pad is on (bench default). Rows in
 * the order of `padKinds`; each sums to one.
 */
const ground: Meter = {
  upTo: [2, 60, 3e3, 2e5],
  //        ≤2    ≤60   ≤3k   ≤200k more
  chance: [
    [0.97, 0.02, 0.005, 0.003, 0.002],
    [0.01, 0.25, 0.6, 0.12, 0.02],
    [0.004, 0.006, 0.04, 0.33, 0.62],
    [0.004, 0.02, 0.06, 0.35, 0.566],
    [0.004, 0.02, 0.06, 0.35, 0.566],
    [0.004, 0.006, 0.07, 0.5, 0.42],
    [0.004, 0.006, 0.07, 0.5, 0.42],
    [0.004, 0.02, 0.2, 0.7, 0.076],
    [0.01, 0.15, 0.2, 0.3, 0.34],
  ],
}
const diode: Meter = {
  upTo: [0.03, 0.25, 0.45, 0.9],
  chance: [
    [0.97, 0.015, 0.005, 0.005, 0.005],
    [0.03, 0.35, 0.45, 0.15, 0.02],
    [0.005, 0.02, 0.25, 0.62, 0.105],
    [0.005, 0.02, 0.25, 0.6, 0.125],
    [0.005, 0.02, 0.25, 0.6, 0.125],
    [0.005, 0.03, 0.25, 0.6, 0.115],
    [0.005, 0.03, 0.25, 0.6, 0.115],
    [0.01, 0.05, 0.27, 0.6, 0.07],
    [0.02, 0.15, 0.25, 0.5, 0.08],
  ],
}
const supply: Meter = {
  upTo: [2, 400, 2e5],
  chance: [
    [0.01, 0.24, 0.68, 0.07],
    [0.3, 0.2, 0.47, 0.03],
    [0.003, 0.007, 0.44, 0.55],
    [0.003, 0.01, 0.437, 0.55],
    [0.003, 0.01, 0.437, 0.55],
    [0.003, 0.012, 0.585, 0.4],
    [0.003, 0.012, 0.585, 0.4],
    [0.003, 0.02, 0.777, 0.2],
    [0.02, 0.13, 0.5, 0.35],
  ],
}
/** To a pin that does the same as the pad, and to one that does something else. */
const pinSteps = {
  upTo: [2, 400],
  plane: [0.75, 0.1, 0.15],
  same: [0.4, 0.1, 0.5],
  other: [0.002, 0.03, 0.968],
  /** A probe beside its place seldom beeps all the same. */
  slip: [0.1, 0.1, 0.8],
} as const
/** Grounds and supplies are one net with many pins; of others a pin that does the same is not often the one. */
const isPlane = (kind: PadKind) => kind === 'ground' || kind === 'supply'

/** What a net’s name says it is, the first that fits. What sets a voltage or a current counts as feedback. */
const named: readonly (readonly [PadKind, RegExp])[] = [
  ['ground', /^(a|d|p|s)?(gnd|vss|0v)/i],
  [
    'feedback',
    /(^|_)(v?fb\d*|feedback|comp\d*)(_|$)|bias|rset|iset|vset|rext|rcomp|rref|calib|(^|_)(zq|ilim|ocset|ref)\d*(_|$)/i,
  ],
  ['sense', /sense|(^|_)([vi]sen|isns|vsns|csp|csn)\d*(_|$)/i],
  [
    'control',
    /rst|reset|pwr_?(ok|gd|good)|power_?good|(^|_)(en|enable|pgood|pg|pson|ps_on|sleep|slp)\w*(_|$|#)/i,
  ],
  ['clock', /clk|clock|xtal|(^|_)(osc|sck|sclk|scl|xi|xo)\d*(_|$)/i],
  ['strap', /strap|(^|_)(cfg|conf|boot_?sel|mode|id)\d*(_|$)/i],
  [
    'supply',
    /^[+]|^p?\d+v\d*|^v(cc|dd|bat|core|mem|sys|tt|ref|in|out)|(vcc|vdd|_\d+v\d*)(_|$)|^(stby|standby|vsb)/i,
  ],
  [
    'lane',
    /sata|pcie|peg|dmi|usb|hdmi|displayport|edp|lvds|mdi|lane|serdes|(^|_)(dp|dq|dqs|ma|mb)\d*(_|$)|(tx|rx|[_a-z]d)[pn]\d*(_|$)|[+-]$|_[pn]\d*$/i,
  ],
  ['data', /miso|mosi|spi|sda|smb|i2c|lpc|hda|uart|(^|_)(io\d|si|so|sio\d|cs\d?|lad\d|txd|rxd)\d*(#|_|$)/i],
]

/** Null where the name says nothing, and of a pad that is connected to nothing. */
export const kindOfNet = (net: string): PadKind | null => {
  const text = net.trim()
  return /^(n\/?c|)$/i.test(text) ? null : (named.find(([, fits]) => fits.test(text))?.[0] ?? null)
}

const stepOf = (upTo: readonly number[], value: Ohms): number => {
  const at = value === 'open' ? -1 : upTo.findIndex((most) => value <= most)
  return at < 0 ? upTo.length : at
}

/** One reading: its words, the chance of what it shows by what the pad is on, and the share of that which is a slip. */
export interface Reading {
  readonly what: string
  readonly chance: Float64Array
  readonly slip: number
}

const withSlip = (p: number, steps: number) => (1 - SLIP) * p + SLIP / steps
const atStep = ({ chance }: Meter, step: number): Float64Array =>
  Float64Array.from(padKinds, (_, k) => withSlip(chance[k]![step]!, chance[k]!.length))
const pinChance = (does: PadKind, step: number): Float64Array =>
  Float64Array.from(padKinds, (kind) => {
    const row = kind !== does ? 'other' : isPlane(kind) ? 'plane' : 'same'
    return (1 - SLIP) * pinSteps[row][step]! + SLIP * pinSteps.slip[step]!
  })
const netChance = (is: PadKind): Float64Array =>
  Float64Array.from(padKinds, (kind) => withSlip(kind === is ? 1 : 0, padKinds.length))

const shows = (value: Ohms, say: (value: number) => string) => (value === 'open' ? 'open' : say(value))

/** Everything that was read of a pad, as likelihoods. */
export function readingsOf({ groundOhm, diodeV, rails = {}, pins = [], net }: PadSeen): readonly Reading[] {
  const is = net === undefined ? null : kindOfNet(net)
  const read = (meter: Meter, value: Ohms | undefined, what: string): readonly Reading[] =>
    value === undefined
      ? []
      : [{ what, chance: atStep(meter, stepOf(meter.upTo, value)), slip: SLIP / (meter.upTo.length + 1) }]
  return [
    ...read(ground, groundOhm, `${shows(groundOhm ?? 'open', sayOhms)} to ground`),
    ...read(diode, diodeV, `${shows(diodeV ?? 'open', (v) => `${v} V`)} diode drop`),
    ...Object.entries(rails).flatMap(([rail, ohms]) =>
      read(supply, ohms, `${shows(ohms, sayOhms)} to ${rail}`),
    ),
    ...pins.map(({ pin, does, ohms }) => {
      const step = stepOf(pinSteps.upTo, ohms)
      return {
        what: `${shows(ohms, sayOhms)} to ${pin} (${does})`,
        chance: pinChance(does, step),
        slip: SLIP * pinSteps.slip[step]!,
      }
    }),
    ...(is === null ? [] : [{ what: `net ${net}`, chance: netChance(is), slip: SLIP / padKinds.length }]),
  ]
}

/** Readings that could still be made of a pad, with the chance of each step they could show. */
export function toRead(
  seen: PadSeen,
  rail: string,
): readonly { what: string; steps: readonly Float64Array[] }[] {
  const open = (meter: Meter, value: Ohms | undefined, what: string) =>
    value === undefined ? [{ what, steps: meter.chance[0]!.map((_, step) => atStep(meter, step)) }] : []
  return [
    ...open(ground, seen.groundOhm, 'ohms to ground'),
    ...open(diode, seen.diodeV, 'diode drop to ground'),
    ...open(supply, seen.rails?.[rail], `ohms to ${rail}`),
    // Which pin it beeps to says what it is, at one blow: where it is found.
    { what: 'beep it out to the pins near it', steps: padKinds.map(netChance) },
  ]
}

/** Chance of all that was read of a pad, by what it is on. */
export const chanceOfPad = (readings: readonly Reading[]): Float64Array =>
  readings.reduce(
    (all, { chance }) => all.map((p, k) => p * chance[k]!),
    new Float64Array(padKinds.length).fill(1),
  )

/** The reading that the others speak against most, where one does: how likely it is a slip, given the rest. */
export function slipAmong(
  readings: readonly Reading[],
  prior: Float64Array,
): { what: string; odds: number } | null {
  const all = readings.map((reading, i) => {
    const rest = normalise(chanceOfPad(readings.filter((_, k) => k !== i)).map((p, k) => p * prior[k]!))
    const shown = rest.reduce((sum, p, k) => sum + p * reading.chance[k]!, 0)
    return { what: reading.what, odds: reading.slip / shown }
  })
  const worst = all.sort((a, b) => b.odds - a.odds)[0]
  return worst && worst.odds >= 0.5 ? worst : null
}

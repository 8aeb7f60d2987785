import { decade, seriesOf } from './e-series'
import type { PartKind } from './quantity'

/** One thing a marking may say. */
export interface MarkingReading {
  readonly kind: Exclude<PartKind, 'bead'>
  /** Ω or F. */
  readonly value: number
  /** As it is usual for the code, or as its letter says; null where the code says nothing of it. */
  readonly tolerance: number | null
  /** What the code says of the voltage, V. */
  readonly volts: number | null
  readonly code:
    | 'three figures'
    | 'four figures'
    | 'a letter for the point'
    | 'EIA-96'
    | 'jumper'
    | 'EIA-198 letter and figure'
    | 'tantalum, with its volts'
  /** The value is in no series of preferred values: read it again. */
  readonly odd: boolean
}

/** Multipliers of EIA-96, by letter. */
const eia96: Readonly<Record<string, number>> = {
  Z: 1e-3,
  Y: 1e-2,
  R: 1e-2,
  X: 1e-1,
  S: 1e-1,
  A: 1,
  B: 10,
  H: 10,
  C: 1e2,
  D: 1e3,
  E: 1e4,
  F: 1e5,
}

/** Figures of EIA-198 on small ceramics: capitals are E24, small letters stand between. */
const eia198: Readonly<Record<string, number>> = {
  ...Object.fromEntries([...'ABCDEFGHJKLMNPQRSTUVWXYZ'].map((letter, i) => [letter, decade(24)[i]!])),
  a: 2.5,
  b: 3.5,
  d: 4,
  e: 4.5,
  f: 5,
  m: 6,
  n: 7,
  t: 8,
  y: 9,
}

/** Tolerance letters, IEC 60062, as a share. */
const toleranceOf: Readonly<Record<string, number>> = {
  B: 0.001,
  C: 0.0025,
  D: 0.005,
  F: 0.01,
  G: 0.02,
  J: 0.05,
  K: 0.1,
  M: 0.2,
  Z: 0.8,
}

/** Volts that one letter says on a tantalum part. */
const tantalumVolts: Readonly<Record<string, number>> = {
  G: 4,
  J: 6.3,
  A: 10,
  C: 16,
  D: 20,
  E: 25,
  V: 35,
  T: 50,
}

/** More than any small part has, Ω and F: a code that says more says something else. */
const LARGEST = { resistor: 1e8, capacitor: 1e-2 } as const

const figures = (text: string) => Number(text.slice(0, -1)) * 10 ** Number(text.slice(-1))

/**
 * Everything a marking may say, likeliest first: the same figures stand on resistors and capacitors, and an EIA-96 code can
 * look like a tolerance letter. Sources: IEC 60062 (figures and letters), EIA-96, EIA-198. Empty for what is no marking.
 * Limits: most ceramic capacitors carry none; a bar under figures, and the colours of a body, say nothing here.
 */
export function readMarking(text: string): readonly MarkingReading[] {
  const written = text.trim()
  const upper = written.toUpperCase()
  const found: MarkingReading[] = []
  const put = (
    kind: MarkingReading['kind'],
    code: MarkingReading['code'],
    value: number,
    tolerance: number | null,
    volts: number | null = null,
  ) => {
    const clean = Number(value.toPrecision(9))
    if (clean > LARGEST[kind]) return
    const most = code === 'four figures' || code === 'a letter for the point' ? 192 : 96
    const finest = code === 'three figures' || kind === 'capacitor' ? 24 : most
    const odd = clean > 0 && (seriesOf(clean) ?? Infinity) > finest
    found.push({ kind, code, value: clean, tolerance, volts, odd })
  }
  if (/^0+$/.test(written)) put('resistor', 'jumper', 0, null)
  else if (/^\d{3}$/.test(written)) {
    put('resistor', 'three figures', figures(written), 0.05)
    // Nine as a multiplier means a tenth on capacitors.
    const power = written.endsWith('9') ? -1 : written.endsWith('8') ? -2 : Number(written.slice(-1))
    put('capacitor', 'three figures', Number(written.slice(0, 2)) * 10 ** power * 1e-12, null)
  } else if (/^\d{4}$/.test(written)) put('resistor', 'four figures', figures(written), 0.01)
  else if (/^(\d*R\d+|\d+R)$/.test(upper)) {
    const value = Number(upper.replace('R', '.'))
    put('resistor', 'a letter for the point', value, upper.length > 3 ? 0.01 : 0.05)
  }
  const short = /^(\d\d)([A-Z])$/.exec(upper)
  const place = short && Number(short[1])
  if (short && place! >= 1 && place! <= 96 && eia96[short[2]!] !== undefined)
    put('resistor', 'EIA-96', decade(96)[place! - 1]! * 100 * eia96[short[2]!]!, 0.01)
  const lettered = /^(\d{3})([A-Z])$/.exec(upper)
  if (lettered) {
    const pF = figures(lettered[1]!) * 1e-12
    const [, , letter] = lettered
    if (toleranceOf[letter!] !== undefined) put('capacitor', 'three figures', pF, toleranceOf[letter!]!)
    if (tantalumVolts[letter!] !== undefined)
      put('capacitor', 'tantalum, with its volts', pF, null, tantalumVolts[letter!]!)
  }
  if (/^\d*[KM]\d*$/.test(upper) && /\d/.test(upper)) {
    const value = Number(upper.replace(/[KM]/, '.')) * (upper.includes('K') ? 1e3 : 1e6)
    put('resistor', 'a letter for the point', value, null)
  }
  const volted = /^([A-Z])(\d{3})$/.exec(upper)
  if (volted && tantalumVolts[volted[1]!] !== undefined)
    put(
      'capacitor',
      'tantalum, with its volts',
      figures(volted[2]!) * 1e-12,
      null,
      tantalumVolts[volted[1]!]!,
    )
  // A maker’s letter may stand before it.
  const tiny = /^[A-Za-z]?([A-Za-z])(\d)$/.exec(written)
  if (tiny && eia198[tiny[1]!] !== undefined)
    put(
      'capacitor',
      'EIA-198 letter and figure',
      eia198[tiny[1]!]! * 10 ** (tiny[2] === '9' ? -1 : Number(tiny[2])) * 1e-12,
      null,
    )
  return found.sort((a, b) => Number(a.odd) - Number(b.odd))
}

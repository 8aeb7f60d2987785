import { median } from '../../maths/median'
import type { ColourPlanes } from './differences'

/**
 * From one field whose light is told to the next, half the side of a field its gain and its veil are told by, and every how many
 * pixels it is read, which is a share of all of them; working px. Glare bends within millimetres, and needs the smaller fields.
 */
const STEP = 16
const GAIN_REACH = 32
const VEIL_REACH = 20
const EVERY = 4
/** Half the side of the square round a place that it is told apart from, working px: glare changes little over it. */
const ROUND = 15
/** Spread of what is read where nothing differs, levels: light is not told by less. */
const GRAIN = 8
/** How far light is believed to differ. */
const MOST_GAIN = 3
/** Fewer readings than these tell no light. */
const FEW = 20

/**
 * Brings the light of one photo to that of the other, colour by colour, field by field: b ≈ gain·a + veil over all that both
 * show, what differs weighed down (biweight), so that neither glare nor shade is taken for a difference. The gain is told by how
 * far places stand out from what is round them: by all that a field spreads over, glare on one photo would count as contrast,
 * and all under it be made flat, or blacker than black.
 */
export function evened(from: ColourPlanes, to: ColourPlanes): ColourPlanes {
  const { widthPx: w, heightPx: h } = from
  const one = (a: Float32Array, b: Float32Array): Float32Array => {
    const [own, other] = [readingsOf(a, b, w, h), readingsOf(b, a, w, h)]
    const gain = overAll(own, w, h, GAIN_REACH, 1, (places) => gainOf(own.apart, other.apart, places))
    const lit = own.values.map((v, k) => v * gain[placeOf(k, own, w)]!)
    const veil = overAll(own, w, h, VEIL_REACH, 0, (places) => middleOf(other.values, lit, places))
    const out = new Float32Array(w * h)
    for (let at = 0; at < out.length; at++) out[at] = a[at]! * gain[at]! + veil[at]!
    return out
  }
  return {
    ...from,
    red: one(from.red, to.red),
    green: one(from.green, to.green),
    blue: one(from.blue, to.blue),
  }
}

/** What is read of a photo, every few pixels. */
interface Readings {
  readonly columns: number
  readonly rows: number
  /** Levels; not a number where one of the photos shows nothing. */
  readonly values: Float32Array
  /** How far that is from the mean of the square round it, of what both show, levels. */
  readonly apart: Float32Array
}
/** A reading’s place on the photo. */
const placeOf = (k: number, { columns }: Readings, w: number): number =>
  EVERY * (Math.floor(k / columns) * w + (k % columns))

function readingsOf(of: Float32Array, other: Float32Array, w: number, h: number): Readings {
  const [columns, rows] = [Math.ceil(w / EVERY), Math.ceil(h / EVERY)]
  const values = new Float32Array(columns * rows).fill(NaN)
  const apart = Float32Array.from(values)
  // What each column of the square’s rows adds up to, and of how many: rows come in below and leave above.
  const [sums, many] = [new Float64Array(w), new Int32Array(w)]
  const row = (y: number, sign: 1 | -1) => {
    for (let x = 0, at = y * w; x < w; x++, at++) {
      if (Number.isNaN(of[at]! + other[at]!)) continue
      sums[x]! += sign * of[at]!
      many[x]! += sign
    }
  }
  let [below, above] = [0, 0]
  for (let y = 0, k = 0; y < h; y += EVERY) {
    while (below < Math.min(h, y + ROUND + 1)) row(below++, 1)
    while (above < y - ROUND) row(above++, -1)
    let [sum, n, right, left] = [0, 0, 0, 0]
    for (let x = 0; x < w; x += EVERY, k++) {
      for (; right < Math.min(w, x + ROUND + 1); right++) {
        sum += sums[right]!
        n += many[right]!
      }
      for (; left < x - ROUND; left++) {
        sum -= sums[left]!
        n -= many[left]!
      }
      const v = of[y * w + x]!
      if (Number.isNaN(v + other[y * w + x]!)) continue
      values[k] = v
      apart[k] = v - sum / n
    }
  }
  return { columns, rows, values, apart }
}

/** Something told field by field from what is read of it, and between the fields’ middles by what it is at four of them. */
function overAll(
  { columns: wide, rows: high, values: read }: Readings,
  w: number,
  h: number,
  reachPx: number,
  usual: number,
  told: (places: Int32Array) => number,
): Float32Array {
  const [columns, rows] = [Math.ceil(w / STEP) + 1, Math.ceil(h / STEP) + 1]
  const [step, reach] = [STEP / EVERY, reachPx / EVERY]
  const values = new Float32Array(columns * rows).fill(usual)
  const places = new Int32Array((2 * reach) ** 2)
  for (let k = 0; k < values.length; k++) {
    const [cx, cy] = [(k % columns) * step, Math.floor(k / columns) * step]
    let n = 0
    for (let y = Math.max(0, cy - reach); y < Math.min(high, cy + reach); y++)
      for (let x = Math.max(0, cx - reach); x < Math.min(wide, cx + reach); x++)
        if (!Number.isNaN(read[y * wide + x]!)) places[n++] = y * wide + x
    if (n >= FEW) values[k] = told(places.subarray(0, n))
  }
  const out = new Float32Array(w * h)
  for (let y = 0, at = 0; y < h; y++) {
    const row = Math.floor(y / STEP)
    const v = y / STEP - row
    for (let x = 0; x < w; x++, at++) {
      const column = Math.floor(x / STEP)
      const u = x / STEP - column
      const k = row * columns + column
      out[at] =
        (1 - v) * ((1 - u) * values[k]! + u * values[k + 1]!) +
        v * ((1 - u) * values[k + columns]! + u * values[k + columns + 1]!)
    }
  }
  return out
}

/** Weight of what is so far off, in spreads of what is not. */
const biweight = (off: number): number => (off * off < 1 ? (1 - off * off) ** 2 : 0)
/** From how far off on nothing counts, by the mean distance. */
const farOff = (mean: number): number => 3 * Math.max(GRAIN / 2, 1.25 * mean)

/** How much more b stands out than a: of the two spreads, as both have their noise; a regression of one on the other would flatten it. */
function gainOf(ofA: Float32Array, ofB: Float32Array, places: Int32Array): number {
  const n = places.length
  const [a, b, weights] = [new Float64Array(n), new Float64Array(n), new Float64Array(n).fill(1)]
  for (let i = 0; i < n; i++) {
    a[i] = ofA[places[i]!]!
    b[i] = ofB[places[i]!]!
  }
  let gain = 1
  for (let round = 0; ; round++) {
    let [sum, da, db] = [0, 0, 0]
    for (let i = 0; i < n; i++) {
      sum += weights[i]!
      da += weights[i]! * a[i]! * a[i]!
      db += weights[i]! * b[i]! * b[i]!
    }
    const grain = sum * GRAIN * GRAIN * 0.25
    gain = Math.min(MOST_GAIN, Math.max(1 / MOST_GAIN, Math.sqrt((db + grain) / (da + grain))))
    if (round === 3) return gain
    let off = 0
    for (let i = 0; i < n; i++) off += weights[i]! * Math.abs(b[i]! - gain * a[i]!)
    const far = farOff(off / (sum || 1))
    for (let i = 0; i < n; i++) weights[i] = biweight((b[i]! - gain * a[i]!) / far)
  }
}

/** By what b mostly is beyond a, what is far off it weighed down. */
function middleOf(b: Float32Array, a: Float32Array, places: Int32Array): number {
  const readings = new Float64Array(places.length)
  for (let i = 0; i < places.length; i++) readings[i] = b[places[i]!]! - a[places[i]!]!
  let middle = median(readings.filter((_, i) => i % 3 === 0))
  for (let round = 0; round < 2; round++) {
    let off = 0
    for (const v of readings) off += Math.abs(v - middle)
    const far = farOff(off / readings.length)
    let [sum, weights] = [0, 0]
    for (const v of readings) {
      const weight = biweight((v - middle) / far)
      sum += weight * v
      weights += weight
    }
    middle = sum / (weights || 1)
  }
  return middle
}

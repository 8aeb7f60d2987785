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
  const { widthPx, heightPx } = from
  const one = (a: Float32Array, b: Float32Array): Float32Array => {
    const [own, other] = standingOut(a, b, widthPx)
    const fields = (reach: number, usual: number, told: (places: Int32Array) => number) =>
      overAll(a, widthPx, heightPx, reach, usual, told)
    const gain = fields(GAIN_REACH, 1, (places) => gainOf(own, other, places))
    const lit = a.map((v, at) => v * gain[at]!)
    const veil = fields(VEIL_REACH, 0, (places) => middleOf(b, lit, places))
    return lit.map((v, at) => v + veil[at]!)
  }
  return {
    ...from,
    red: one(from.red, to.red),
    green: one(from.green, to.green),
    blue: one(from.blue, to.blue),
  }
}

/** Something told field by field from the places both show, and between their middles by what it is at four of them. */
function overAll(
  seen: Float32Array,
  w: number,
  h: number,
  reach: number,
  usual: number,
  told: (places: Int32Array) => number,
): Float32Array {
  const [columns, rows] = [Math.ceil(w / STEP) + 1, Math.ceil(h / STEP) + 1]
  const values = new Float32Array(columns * rows).fill(usual)
  const places = new Int32Array((Math.ceil((2 * reach) / EVERY) + 1) ** 2)
  for (let k = 0; k < values.length; k++) {
    const [cx, cy] = [(k % columns) * STEP, Math.floor(k / columns) * STEP]
    let n = 0
    for (let y = Math.max(0, cy - reach); y < Math.min(h, cy + reach); y += EVERY)
      for (let x = Math.max(0, cx - reach); x < Math.min(w, cx + reach); x += EVERY) {
        const at = y * w + x
        if (!Number.isNaN(seen[at]!)) places[n++] = at
      }
    if (n >= FEW) values[k] = told(places.subarray(0, n))
  }
  const out = new Float32Array(w * h)
  for (let y = 0; y < h; y++) {
    const row = Math.floor(y / STEP)
    const v = y / STEP - row
    for (let x = 0; x < w; x++) {
      const column = Math.floor(x / STEP)
      const u = x / STEP - column
      const k = row * columns + column
      out[y * w + x] =
        (1 - v) * ((1 - u) * values[k]! + u * values[k + 1]!) +
        v * ((1 - u) * values[k + columns]! + u * values[k + columns + 1]!)
    }
  }
  return out
}

/** How far each place that is read is from the mean of the square round it, on both photos, of what both show. */
function standingOut(a: Float32Array, b: Float32Array, w: number): readonly [Float32Array, Float32Array] {
  const h = a.length / w
  const wide = w + 1
  const sums = [0, 1, 2].map(() => new Float64Array(wide * (h + 1)))
  const [ofA, ofB, many] = sums as [Float64Array, Float64Array, Float64Array]
  for (let y = 0; y < h; y++) {
    let [rowA, rowB, n] = [0, 0, 0]
    for (let x = 0; x < w; x++) {
      const at = y * w + x
      if (!Number.isNaN(a[at]!)) {
        rowA += a[at]!
        rowB += b[at]!
        n++
      }
      const to = (y + 1) * wide + x + 1
      ofA[to] = ofA[to - wide]! + rowA
      ofB[to] = ofB[to - wide]! + rowB
      many[to] = many[to - wide]! + n
    }
  }
  const [own, other] = [new Float32Array(a.length).fill(NaN), new Float32Array(a.length).fill(NaN)]
  for (let y = 0; y < h; y += EVERY) {
    const [up, down] = [Math.max(0, y - ROUND) * wide, Math.min(h, y + ROUND + 1) * wide]
    for (let x = 0; x < w; x += EVERY) {
      const at = y * w + x
      if (Number.isNaN(a[at]!)) continue
      const [left, right] = [Math.max(0, x - ROUND), Math.min(w, x + ROUND + 1)]
      const [p, q, r, s] = [down + right, down + left, up + right, up + left]
      const n = many[p]! - many[q]! - many[r]! + many[s]!
      own[at] = a[at]! - (ofA[p]! - ofA[q]! - ofA[r]! + ofA[s]!) / n
      other[at] = b[at]! - (ofB[p]! - ofB[q]! - ofB[r]! + ofB[s]!) / n
    }
  }
  return [own, other]
}

/** Weight of what is so far off, in spreads of what is not. */
const biweight = (off: number): number => (off * off < 1 ? (1 - off * off) ** 2 : 0)
/** From how far off on nothing counts, by the mean distance. */
const farOff = (mean: number): number => 3 * Math.max(GRAIN / 2, 1.25 * mean)

/** How much more b stands out than a: of the two spreads, as both have their noise; a regression of one on the other would flatten it. */
function gainOf(a: Float32Array, b: Float32Array, places: Int32Array): number {
  const weights = new Float64Array(places.length).fill(1)
  let gain = 1
  for (let round = 0; round < 4; round++) {
    let [sum, da, db] = [0, 0, 0]
    for (let i = 0; i < places.length; i++) {
      const at = places[i]!
      sum += weights[i]!
      da += weights[i]! * a[at]! * a[at]!
      db += weights[i]! * b[at]! * b[at]!
    }
    const grain = sum * GRAIN * GRAIN * 0.25
    gain = Math.min(MOST_GAIN, Math.max(1 / MOST_GAIN, Math.sqrt((db + grain) / (da + grain))))
    let off = 0
    for (let i = 0; i < places.length; i++)
      off += weights[i]! * Math.abs(b[places[i]!]! - gain * a[places[i]!]!)
    const far = farOff(off / (sum || 1))
    for (let i = 0; i < places.length; i++)
      weights[i] = biweight((b[places[i]!]! - gain * a[places[i]!]!) / far)
  }
  return gain
}

/** By what b mostly is beyond a, what is far off it weighed down. */
function middleOf(b: Float32Array, a: Float32Array, places: Int32Array): number {
  const readings = new Float64Array(places.length)
  for (let i = 0; i < places.length; i++) readings[i] = b[places[i]!]! - a[places[i]!]!
  let middle = median(readings)
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

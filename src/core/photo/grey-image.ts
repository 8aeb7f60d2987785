/** A picture in one channel, row by row from the upper left, 0 (black) to 255. */
export interface GreyImage {
  readonly widthPx: number
  readonly heightPx: number
  readonly grey: Uint8Array
}

/** Largest picture taken, pixels. */
export const MOST_PIXELS = 24_500_000

/**
 * Luma of RGBA pixels: 0.299 R + 0.587 G + 0.114 B.
 * Source: ITU-R BT.601.
 * @throws RangeError if the bytes are not width × height × 4
 */
export function greyOf(rgba: Uint8ClampedArray | Uint8Array, widthPx: number, heightPx: number): GreyImage {
  const n = widthPx * heightPx
  if (rgba.length !== n * 4) throw new RangeError(`${rgba.length} bytes are not ${widthPx} × ${heightPx} × 4`)
  const grey = new Uint8Array(n)
  for (let i = 0, k = 0; i < n; i++, k += 4)
    grey[i] = (77 * rgba[k]! + 150 * rgba[k + 1]! + 29 * rgba[k + 2]! + 128) >> 8
  return { widthPx, heightPx, grey }
}

/** A picture in working precision. */
export interface Plane {
  readonly widthPx: number
  readonly heightPx: number
  readonly values: Float32Array
}

/** A part of a picture, px. */
export interface Cut {
  readonly leftPx: number
  readonly topPx: number
  readonly widthPx: number
  readonly heightPx: number
}

/**
 * Shrinks a part of a picture by a whole factor, each new pixel being the mean of factor² old ones; what is left over at
 * the edge is dropped.
 */
export function shrink(
  image: GreyImage,
  factor: number,
  cut: Cut = { leftPx: 0, topPx: 0, ...image },
): Plane {
  const widthPx = Math.floor(cut.widthPx / factor)
  const heightPx = Math.floor(cut.heightPx / factor)
  const values = new Float32Array(widthPx * heightPx)
  const sum = new Uint32Array(widthPx)
  for (let y = 0; y < heightPx; y++) {
    sum.fill(0)
    for (let fy = 0; fy < factor; fy++) {
      let at = (cut.topPx + y * factor + fy) * image.widthPx + cut.leftPx
      for (let x = 0; x < widthPx; x++) for (let fx = 0; fx < factor; fx++) sum[x]! += image.grey[at++]!
    }
    for (let x = 0; x < widthPx; x++) values[y * widthPx + x] = sum[x]! / (factor * factor)
  }
  return { widthPx, heightPx, values }
}

/** Gaussian weights out to 2.6 σ, one half with the middle first; they add up to 1 over the whole. */
function gaussian(sigmaPx: number): Float32Array {
  const reach = Math.max(1, Math.ceil(2.6 * sigmaPx))
  const half = Float32Array.from({ length: reach + 1 }, (_, i) =>
    Math.exp((-i * i) / (2 * sigmaPx * sigmaPx)),
  )
  const sum = half.reduce((a, b, i) => a + (i === 0 ? b : 2 * b), 0)
  return half.map((w) => w / sum)
}

/** Gaussian blur, along rows and then along columns; beyond the edge the edge pixel is repeated. */
export function blur({ widthPx: w, heightPx: h, values }: Plane, sigmaPx: number): Plane {
  const weights = gaussian(sigmaPx)
  const reach = weights.length - 1
  const along = new Float32Array(w * h)
  const out = new Float32Array(w * h)
  const line = new Float32Array(w + 2 * reach)
  for (let y = 0, row = 0; y < h; y++, row += w) {
    line.set(values.subarray(row, row + w), reach)
    line.fill(values[row]!, 0, reach).fill(values[row + w - 1]!, w + reach)
    weigh(line, (k) => reach + k, weights, along.subarray(row, row + w))
  }
  for (let y = 0, row = 0; y < h; y++, row += w)
    weigh(along, (k) => Math.min(h - 1, Math.max(0, y + k)) * w, weights, out.subarray(row, row + w))
  return { widthPx: w, heightPx: h, values: out }
}

/** Weighs lines that begin at `start(k)`, k from none to as far as weights reach both ways, into one; two weights at a time. */
function weigh(
  from: Float32Array,
  start: (k: number) => number,
  weights: Float32Array,
  into: Float32Array,
): void {
  const [middle, middleStart] = [weights[0]!, start(0)]
  for (let x = 0; x < into.length; x++) into[x] = middle * from[middleStart + x]!
  for (let k = 1; k < weights.length; k += 2) {
    const [near, far] = [weights[k]!, weights[k + 1] ?? 0]
    const [a, b, c, d] = [start(-k), start(k), start(-k - 1), start(k + 1)]
    if (far === 0) for (let x = 0; x < into.length; x++) into[x]! += near * (from[a + x]! + from[b + x]!)
    else
      for (let x = 0; x < into.length; x++)
        into[x]! += near * (from[a + x]! + from[b + x]!) + far * (from[c + x]! + from[d + x]!)
  }
}

/** Value between pixels (bilinear); outside it is that of the nearest edge. */
export function sample({ widthPx: w, heightPx: h, values }: Plane, x: number, y: number): number {
  const cx = Math.min(w - 1.001, Math.max(0, x))
  const cy = Math.min(h - 1.001, Math.max(0, y))
  const [ix, iy] = [Math.floor(cx), Math.floor(cy)]
  const [fx, fy] = [cx - ix, cy - iy]
  const at = iy * w + ix
  return (
    (values[at]! * (1 - fx) + values[at + 1]! * fx) * (1 - fy) +
    (values[at + w]! * (1 - fx) + values[at + w + 1]! * fx) * fy
  )
}

import type { BoardSide, IndexedMap } from './board-map'

/** A map as it is drawn: flat arrays, so that a hundred thousand places cross from a worker at once. */
export interface MapDrawing {
  /** Of each place: its middle, its width and height, mm. */
  readonly points: Float32Array
  /** Of each place: its part and its net by number; −1 for none. */
  readonly of: Int32Array
  /** Of each place: 0 top, 1 bottom, 2 both. */
  readonly side: Uint8Array
  /** Of each place: 1 where it is a hole through the board. */
  readonly round: Uint8Array
  readonly parts: readonly string[]
  readonly partSide: readonly BoardSide[]
  readonly nets: readonly string[]
  /** Of each part: left, low, right, high, mm. */
  readonly boxes: Float32Array
  /** All of it: left, low, right, high, mm. */
  readonly box: readonly [number, number, number, number]
}

/** How large a place is drawn whose size the file does not say, mm. */
const USUAL_MM = 0.5
/** What stands beyond the pads of a part, mm. */
const BODY_MM = 0.3

export function drawingOf({ map, parts, nets }: IndexedMap): MapDrawing {
  const n = map.points.length
  const points = new Float32Array(4 * n)
  const of = new Int32Array(2 * n)
  const [side, round] = [new Uint8Array(n), new Uint8Array(n)]
  const names = [...parts.keys()]
  const netNames = [...nets.keys()]
  const numbers = (all: readonly string[]) => new Map(all.map((name, i) => [name, i]))
  const [partNo, netNo] = [numbers(names), numbers(netNames)]
  const boxes = new Float32Array(4 * names.length)
  for (let p = 0; p < names.length; p++) boxes.set([Infinity, Infinity, -Infinity, -Infinity], 4 * p)
  const all: [number, number, number, number] = [Infinity, Infinity, -Infinity, -Infinity]
  const widen = (box: Float32Array | number[], at: number, x: number, y: number, w: number, h: number) => {
    box[at] = Math.min(box[at]!, x - w / 2)
    box[at + 1] = Math.min(box[at + 1]!, y - h / 2)
    box[at + 2] = Math.max(box[at + 2]!, x + w / 2)
    box[at + 3] = Math.max(box[at + 3]!, y + h / 2)
  }
  map.points.forEach(({ xMm, yMm, wMm, hMm, drillMm, ref, net, side: on, kind }, i) => {
    const w = wMm || drillMm || USUAL_MM
    const h = hMm || wMm || drillMm || USUAL_MM
    points.set([xMm, yMm, w, h], 4 * i)
    const part = partNo.get(ref) ?? -1
    of.set([part, netNo.get(net) ?? -1], 2 * i)
    side[i] = on === 'both' ? 2 : on === 'bottom' ? 1 : 0
    round[i] = kind === 'pad' ? 0 : 1
    if (part >= 0) widen(boxes, 4 * part, xMm, yMm, w + BODY_MM, h + BODY_MM)
    widen(all, 0, xMm, yMm, w, h)
  })
  // Parts of a placement list that have no pin stand at their place.
  names.forEach((name, p) => {
    const { xMm, yMm, pins } = parts.get(name)!
    if (pins.length > 0) return
    widen(boxes, 4 * p, xMm, yMm, 1, 1)
    widen(all, 0, xMm, yMm, 1, 1)
  })
  return {
    points,
    of,
    side,
    round,
    parts: names,
    partSide: names.map((name) => parts.get(name)!.side),
    nets: netNames,
    boxes,
    box: n + names.length === 0 ? [0, 0, 1, 1] : all,
  }
}

/** The part at a place, on a side or through the board: of several the smallest. Null where there is none. */
export function partAt(
  { boxes, partSide, parts }: MapDrawing,
  xMm: number,
  yMm: number,
  side: BoardSide,
  withinMm: number,
): string | null {
  let best: { readonly name: string; readonly size: number } | null = null
  for (let p = 0; p < parts.length; p++) {
    const [left, low, right, high] = boxes.subarray(4 * p, 4 * p + 4) as unknown as [
      number,
      number,
      number,
      number,
    ]
    if (partSide[p] !== side) continue
    const off = Math.hypot(Math.max(0, left - xMm, xMm - right), Math.max(0, low - yMm, yMm - high))
    if (off > withinMm) continue
    // What the point is in comes before what it is beside.
    const size = (right - left) * (high - low) + 1e4 * off
    if (best === null || size < best.size) best = { name: parts[p]!, size }
  }
  return best?.name ?? null
}

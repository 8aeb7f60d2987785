import type { Cluster } from './clusters'
import type { Unlike } from './blocks'
import { MetalSeen, meanColour, middleOf } from './ends'
import { movedPx, nearestColour } from './nearby'
import { colourDifference, differenceOf, greyPlane, groundOf } from './pair'
import type { Colour, PhotoPair } from './pair'

/** What is told of a cluster: whether it is a part that is gone, changed or moved, or light, print or what stands up. */
export interface Told {
  readonly cluster: Cluster
  /** Mean difference of its blocks, levels. */
  readonly by: number
  /** Its core: the square of four pixels that differs most at the best fit; mean difference there, levels. */
  readonly core: number
  /** The difference that all of such a square has at least, levels: a line of misfit has none, a part has. */
  readonly least: number
  /** How far the core’s colour is from that of the bare board round it on the other photo, levels. */
  readonly otherBare: number
  /** How surely the core lies between two ends of bare metal, on this photo and on the other, 0 to 1. */
  readonly ends: number
  readonly otherEnds: number
  /** What lies between two bare ends of this photo: how much it differs, and how far it is from the bare board, levels. */
  readonly middle: number
  readonly middleBare: number
  /** How far the other photo is moved for the best fit, mm: what stands up is seen shifted. */
  readonly shiftMm: number
  /** How far from the colour of the other photo’s core is the nearest that this one has close by, levels: what is gone is nowhere. */
  readonly nowhere: number
  /** How far off the square round the core looks most alike, mm: what is gone leaves its pads where they were. */
  readonly movedMm: number
  readonly longMm: number
  /** Bare metal that only this photo shows, and only the other one, mm². */
  readonly metalMm2: number
  readonly otherMetalMm2: number
  /** How much brighter or darker all of it is, levels: light rather than a part. */
  readonly lighter: number
  /** Whether the board has no colour of its own: black parts differ little from it. */
  readonly colourless: boolean
}

/** What is taken along round a cluster, working px; and how far its best fit is looked for. */
const MARGIN = 4
const FIT = 4
/** Side of the core, working px. */
const CORE = 4
/** Most that the colours of a board without one differ by, levels. */
const COLOURLESS = 18
/** A difference larger than this counts no more, levels. */
const FAR = 80

/** Looks closely at clusters of one pair of photos. */
export class CloseLook {
  private readonly seen: MetalSeen
  private readonly otherSeen: MetalSeen
  private readonly ground: (x: number, y: number) => Colour
  private readonly otherGround: (x: number, y: number) => Colour
  private readonly colourless: boolean
  private readonly grey: Float32Array
  private readonly otherGrey: Float32Array

  /** @param pxPerMm of the pictures as they are compared */
  constructor(
    private readonly pair: PhotoPair,
    private readonly unlike: Unlike,
    private readonly pxPerMm: number,
  ) {
    const { photo, other, metal, otherMetal } = pair
    this.seen = new MetalSeen(metal, photo.widthPx, photo.heightPx, pxPerMm)
    this.otherSeen = new MetalSeen(otherMetal, photo.widthPx, photo.heightPx, pxPerMm)
    this.grey = greyPlane(photo)
    this.otherGrey = greyPlane(other)
    this.ground = groundOf(photo)
    this.otherGround = groundOf(other)
    this.colourless = hasNoColour(this.ground, photo.widthPx, photo.heightPx)
  }

  at(cluster: Cluster): Told {
    const { pair, unlike, pxPerMm } = this
    const { photo, other, metal, otherMetal } = pair
    const { widthPx: w, heightPx: h } = photo
    const within = (v: number, most: number) => Math.max(FIT + 2, Math.min(most - FIT - CORE, v))
    const [x0, x1] = [within(cluster.x0 - MARGIN, w), within(cluster.x1 + MARGIN, w)]
    const [y0, y1] = [within(cluster.y0 - MARGIN, h), within(cluster.y1 + MARGIN, h)]
    const [wide, high] = [x1 - x0 + 1, y1 - y0 + 1]
    const { fit, shift } = this.bestFit(x0, y0, wide, high)
    const { core, least, cx, cy } = coreOf(fit, wide, high)
    const [mx, my] = [x0 + cx + 1, y0 + cy + 1]
    let [here, there, lighter] = [0, 0, 0]
    for (let y = y0; y <= y1; y++)
      for (let x = x0, at = y * w + x0; x <= x1; x++, at++) {
        const q = at + shift[1] * w + shift[0]
        if (metal[at]! && !otherMetal[q]!) here++
        if (!metal[at]! && otherMetal[q]!) there++
        const by = photo.red[at]! + photo.green[at]! + photo.blue[at]! - other.red[at]! - other.green[at]! - other.blue[at]! // prettier-ignore
        if (by === by) lighter += by / 3
      }
    const middle = middleOf(pair, this.seen, this.ground, { x0, y0, x1, y1, shift })
    const otherColour = meanColour(other, mx - 1 + shift[0], my - 1 + shift[1], CORE)
    return {
      cluster,
      by: cluster.blocks.reduce((sum, k) => sum + unlike.by[k]!, 0) / cluster.blocks.length,
      core,
      least,
      otherBare: colourDifference(otherColour, this.otherGround(mx, my)),
      ends: this.seen.betweenEnds(mx, my),
      otherEnds: this.otherSeen.betweenEnds(mx + shift[0], my + shift[1]),
      middle: middle.differs,
      middleBare: middle.bare,
      shiftMm: Math.hypot(...shift) / pxPerMm,
      nowhere: nearestColour(photo, meanColour(other, mx - 1 + shift[0], my - 1 + shift[1], 3), mx, my),
      movedMm: movedPx(this.grey, this.otherGrey, w, h, mx, my) / pxPerMm,
      longMm: (Math.max(cluster.x1 - cluster.x0, cluster.y1 - cluster.y0) + unlike.stepPx) / pxPerMm,
      metalMm2: here / pxPerMm ** 2,
      otherMetalMm2: there / pxPerMm ** 2,
      lighter: Math.abs(lighter) / (wide * high),
      colourless: this.colourless,
    }
  }

  /** Differences over a field where the other photo fits best nearby, and how far it was moved for it; what is not seen is none. */
  private bestFit(x0: number, y0: number, wide: number, high: number) {
    const { pair } = this
    const { widthPx: w } = pair.photo
    const difference = differenceOf
    let least = Infinity
    let [fit, by] = [new Float32Array(wide * high), new Float32Array(wide * high)]
    let shift: readonly [dx: number, dy: number] = [0, 0]
    for (let sy = -FIT; sy <= FIT; sy++)
      for (let sx = -FIT; sx <= FIT; sx++) {
        if (sx * sx + sy * sy > FIT * FIT + 1) continue
        let sum = 0
        for (let y = 0; y < high && sum < least; y++)
          for (let x = 0; x < wide; x++) {
            const at = (y + y0) * w + x + x0
            const d = Math.min(FAR, difference(pair, at, at + sy * w + sx)) || 0
            by[y * wide + x] = d
            sum += d
          }
        if (sum < least) [least, shift, fit, by] = [sum, [sx, sy], by, fit]
      }
    return { fit, shift }
  }
}

/** Whether most of a board’s ground has no colour; of many fields, as one can lie on a large chip. */
function hasNoColour(ground: (x: number, y: number) => Colour, widthPx: number, heightPx: number): boolean {
  const fields = Array.from({ length: 25 }, (_, k) =>
    ground((((k % 5) + 0.5) * widthPx) / 5, ((Math.floor(k / 5) + 0.5) * heightPx) / 5),
  )
  return fields.filter((of) => Math.max(...of) - Math.min(...of) < COLOURLESS).length > fields.length / 2
}

/** The square that differs most in the mean, its corner; and the largest least difference of a square, not of the same one. */
function coreOf(fit: Float32Array, wide: number, high: number) {
  let best = { core: -1, cx: 0, cy: 0 }
  let most = 0
  for (let cy = 0; cy + CORE <= high; cy++)
    for (let cx = 0; cx + CORE <= wide; cx++) {
      let [sum, least] = [0, Infinity]
      for (let y = cy; y < cy + CORE; y++)
        for (let x = cx; x < cx + CORE; x++) {
          const d = fit[y * wide + x]!
          sum += d
          if (d < least) least = d
        }
      most = Math.max(most, least)
      if (sum / CORE ** 2 > best.core) best = { core: sum / CORE ** 2, cx, cy }
    }
  return { ...best, least: most }
}

import type { Cluster } from './clusters'
import { differenceAt } from './differences'
import type { ColourPlanes, Unlike } from './differences'
import { elsewhere } from './elsewhere'

/** What is told of a cluster: whether it is a part that is gone, changed or moved, or light, print or what stands up. */
export interface Told {
  readonly cluster: Cluster
  /** Least difference over a square of three and of four pixels, the largest such, where not both photos show metal, levels. */
  readonly core3: number
  readonly core4: number
  /** Mean difference of its blocks, levels. */
  readonly by: number
  /** The least difference anywhere nearby, over that: what is seen there in both photos stands up, or was moved. */
  readonly nearby: number
  readonly longPx: number
  /** Bare metal of this photo there, px. */
  readonly metalPx: number
  /** How much brighter or darker all of it is, levels: light rather than a part. */
  readonly lighter: number
}

/** Both photos as they are compared: in even light, by the logarithm of what is seen; and plain, for what is metal. */
export interface Pair {
  readonly photo: ColourPlanes
  readonly other: ColourPlanes
  readonly plainPhoto: ColourPlanes
  readonly plainOther: ColourPlanes
  /** Brightness of the brightest metal, levels. */
  readonly brightest: number
}

/** What is taken along round a cluster, working px; and how far its best fit is looked for. */
const MARGIN = 4
const FIT = 4
/** Bare metal is bright and has no colour: shares of the brightest, and of its own brightness. */
const METAL_BRIGHT = 0.5
const METAL_COLOUR = 0.3
/** How far what stands up is seen shifted at most, working px. */
const REACH = 40

const isMetal = ({ red, green, blue }: ColourPlanes, at: number, brightest: number): boolean => {
  const [r, g, b] = [red[at]!, green[at]!, blue[at]!]
  const least = Math.min(r, g, b)
  return least > METAL_BRIGHT * brightest && Math.max(r, g, b) - least < METAL_COLOUR * g
}

/** Looks closely at a cluster. */
export function lookAt(cluster: Cluster, pair: Pair, unlike: Unlike): Told {
  const { photo, other, plainPhoto, plainOther, brightest } = pair
  const { widthPx: w, heightPx: h } = photo
  const within = (v: number, most: number) => Math.max(FIT + 2, Math.min(most - FIT - 3, v))
  const [x0, x1] = [within(cluster.x0 - MARGIN, w), within(cluster.x1 + MARGIN, w)]
  const [y0, y1] = [within(cluster.y0 - MARGIN, h), within(cluster.y1 + MARGIN, h)]
  const [wide, high] = [x1 - x0 + 1, y1 - y0 + 1]
  let least = Infinity
  let fit = new Float32Array(wide * high)
  let shift: readonly [number, number] = [0, 0]
  for (let sy = -FIT; sy <= FIT; sy++)
    for (let sx = -FIT; sx <= FIT; sx++) {
      if (sx * sx + sy * sy > FIT * FIT + 1) continue
      const by = new Float32Array(wide * high)
      let sum = 0
      for (let y = 0; y < high && sum < least; y++)
        for (let x = 0; x < wide; x++) {
          const at = (y + y0) * w + x + x0
          const d = differenceAt(photo, at, other, at + sy * w + sx)
          by[y * wide + x] = d
          sum += d < FAR ? d : FAR
        }
      if (sum < least) [least, fit, shift] = [sum, by, [sx, sy]]
    }
  let [metalPx, lighter] = [0, 0]
  for (let y = 0; y < high; y++)
    for (let x = 0; x < wide; x++) {
      const at = (y + y0) * w + x + x0
      const metal = isMetal(plainPhoto, at, brightest)
      if (metal) metalPx++
      if (metal && isMetal(plainOther, at + shift[1] * w + shift[0], brightest)) fit[y * wide + x] = 0
      const grey = (of: ColourPlanes) => of.red[at]! + of.green[at]! + of.blue[at]!
      lighter += (grey(photo) - grey(other)) / 3
    }
  const core = (side: number): number => {
    let most = 0
    for (let y = 0; y + side <= high; y++)
      for (let x = 0; x + side <= wide; x++) {
        let lowest = Infinity
        for (let v = 0; v < side; v++)
          for (let u = 0; u < side; u++) lowest = Math.min(lowest, fit[(y + v) * wide + x + u]!)
        most = Math.max(most, lowest)
      }
    return most
  }
  const by = cluster.blocks.reduce((sum, k) => sum + unlike.by[k]!, 0) / cluster.blocks.length
  const nearest = Math.min(
    elsewhere(photo, other, cluster, REACH)?.by ?? FAR,
    elsewhere(other, photo, cluster, REACH)?.by ?? FAR,
  )
  return {
    cluster,
    core3: core(3),
    core4: core(4),
    by,
    nearby: nearest / by,
    longPx: Math.max(cluster.x1 - cluster.x0, cluster.y1 - cluster.y0) + unlike.stepPx,
    metalPx,
    lighter: Math.abs(lighter) / (wide * high) || 0,
  }
}
/** A difference larger than this counts no more in the choice of a fit, levels. */
const FAR = 80

/** Blocks from which on something seen elsewhere is large; and how near beside it things are hidden, working px. */
const LARGE = 20
const SEEN_ELSEWHERE = 0.5
const BESIDE_PX = 12

/** Whether it lies beside something large that is seen shifted: what stands up hides other things from each side. */
export const isBesideTall = (of: Told, all: readonly Told[]): boolean =>
  all.some(({ cluster: c, nearby }) => {
    const { cluster } = of
    return (
      c !== cluster &&
      c.blocks.length > LARGE &&
      nearby < SEEN_ELSEWHERE &&
      Math.max(0, c.x0 - cluster.x1, cluster.x0 - c.x1) < BESIDE_PX &&
      Math.max(0, c.y0 - cluster.y1, cluster.y0 - c.y1) < BESIDE_PX
    )
  })

/** Longest part that is small, working px; metal from which on there are bare pads. */
const SMALL_PX = 22
const PADS_PX = 40

/**
 * Chance that a cluster is a part that is gone, changed or moved: a logistic regression on what is told of it.
 * Figures from 26 drawn pairs of boards (two lights, tilts up to 8°, three colours of mask), 1,900 clusters; those it is
 * judged by in the bench were drawn by other seeds and settings.
 */
export function oddsOfPart(told: Told, besideTall: boolean): number {
  const { cluster } = told
  const score =
    -24.1 +
    1.98 * Math.log(told.core3 + 5) +
    1.47 * Math.log(told.core4 + 5) +
    0.86 * Math.log(cluster.beyond) +
    2.31 * Math.log(told.by) +
    1.28 * Math.log(cluster.blocks.length) -
    3.34 * Math.log(told.longPx) -
    5.76 * Math.max(0, Math.log(told.longPx / SMALL_PX)) +
    7.8 * Math.min(1, told.metalPx / PADS_PX) -
    3.25 * (told.lighter / 20) -
    (besideTall ? 3.31 : 0)
  return 1 / (1 + Math.exp(-score))
}

import { greyOf } from '../../photo/grey-image'
import { findOverlay, lay, refineOverlay, worked } from '../../photo/overlay'
import type { Overlay } from '../../photo/overlay'
import type { Point } from '../../photo/projection'
import { beyondUsual, clustersOf } from './clusters'
import { unlike } from './blocks'
import { coloursOf, laidOver, softened } from './differences'
import type { ColourPlanes } from './differences'
import { evened } from './light'
import { CloseLook } from './mark'
import type { Told } from './mark'
import { oddsOfPart } from './odds'
import { pairOf } from './pair'
import { asSharp } from './sharpness'

/** A photo of a board: red, green, blue, alpha, row by row. */
export interface BoardPicture {
  readonly widthPx: number
  readonly heightPx: number
  readonly rgba: Uint8Array | Uint8ClampedArray
}

/** A place where the photos differ as they do where a part is gone, another one, or beside its pads. */
export interface Mark {
  /** Its middle and size on the photo, and its middle on the other one, px. */
  readonly px: Point
  readonly sizePx: Point
  readonly otherPx: Point
  /** Chance that it is a part and not light, print or what stands up. */
  readonly odds: number
}

export interface Compared {
  /** Surest first. */
  readonly marks: readonly Mark[]
  /** How the photo lies over the other one. */
  readonly overlay: Overlay
  /** Share of the photo that the other one shows. */
  readonly share: number
  /** How well the board’s plane fits, px of the photo: the middle of what fields of it are off. */
  readonly fitPx: number
}

/** Why two photos cannot be compared: the field it is about, what is wrong, the mend. */
export interface CompareFault {
  readonly field: 'photo' | 'other' | 'pxPerMm'
  readonly text: string
}
export type CompareAnswer =
  | { readonly compared: Compared; readonly fault: null }
  | { readonly compared: null; readonly fault: CompareFault }

/** Pixels per mm that photos are compared at: an 0402 is ten by five. */
const WORK_PX_PER_MM = 10.5
/** Least pixels per mm at which an 0402 can be told. */
export const LEAST_PX_PER_MM = 14
/** Side of a block, from one to the next, how far its fit is looked for, and what a difference of none may be, levels. */
const BLOCKS = { sidePx: 7, stepPx: 3, reachPx: 3, flat: 6 } as const
const SOFT_PX = 0.8
/** Where a cluster begins and what it goes on over, in spreads of the usual; and least contrast, levels. */
const CLUSTER = { high: 4, low: 3.5, contrast: 6 } as const
/** What differs over a greater length is no small part: something tall that is seen from another side, mm. */
const MOST_LONG_MM = 5.5
/** Least odds to be shown. */
export const WORTH_A_LOOK = 0.13
/** Least share of a photo that the other has to show; and most that the plane may be off, working px. */
const LEAST_SHARE = 0.15
const MOST_OFF_PX = 2.5
/** Two photos laid over one another, in working size and in the same light. */
export interface LaidAlike {
  readonly photo: ColourPlanes
  readonly other: ColourPlanes
  readonly overlay: Overlay
  readonly share: number
  readonly fitPx: number
}

/**
 * Lays one photo over the other by what is seen in both, and makes their light alike. Yields the share of it that is done.
 * @param factor pixels of the photo to one of the working size, each way
 */
export function* laidAlike(
  photo: BoardPicture,
  other: BoardPicture,
  factor: number,
): Generator<number, LaidAlike | { readonly wrong: string }> {
  const grey = greyOf(photo.rgba, photo.widthPx, photo.heightPx)
  const otherGrey = greyOf(other.rgba, other.widthPx, other.heightPx)
  yield 0.04
  const found = findOverlay(grey, otherGrey)
  if (!found)
    return {
      wrong:
        'the two photos do not lie over one another: not the same side of the same board, one of them mirrored, or too little of it in both',
    }
  yield 0.55
  const grows = stretchOf(found, photo)
  const otherFactor = Math.max(1, Math.round(factor * grows))
  const [mine, theirs] = [worked(grey, factor), worked(otherGrey, otherFactor)]
  const near = refineOverlay(found, mine, theirs, { reach: 5, step: 70 })
  const { overlay, spreadPx } = refineOverlay(near.overlay, mine, theirs, { reach: 3, step: 40 })
  if (!(spreadPx / otherFactor < MOST_OFF_PX))
    return {
      wrong:
        'the two photos lie over one another only roughly: one is out of focus, taken from far aside, or shows another revision of the board',
    }
  yield 0.7
  const plain = softened(coloursOf(photo.rgba, photo.widthPx, photo.heightPx, factor), SOFT_PX)
  const laid = laidOver(
    plain,
    softened(coloursOf(other.rgba, other.widthPx, other.heightPx, otherFactor), SOFT_PX),
    overlay,
  )
  const share = shareSeen(laid)
  if (share < LEAST_SHARE)
    return {
      wrong: `only ${Math.round(100 * share)} % of the photo is on the other one too; take more of the board`,
    }
  yield 0.8
  const [own, others] = asSharp(plain, laid)
  yield 0.9
  return { photo: own, other: evened(others, own), overlay, share, fitPx: spreadPx / grows }
}

/**
 * Where two photos in even light differ more than they do everywhere else, and what is told of each such place.
 * Yields the share of it that is done.
 * @param pxPerMm of the working size
 */
export function* differingPlaces(
  photo: ColourPlanes,
  other: ColourPlanes,
  pxPerMm: number,
): Generator<number, readonly Told[]> {
  const pair = pairOf(photo, other)
  yield 0.1
  const differ = unlike(pair, BLOCKS)
  yield 0.5
  const clusters = clustersOf(differ, beyondUsual(differ), CLUSTER).filter(
    (c) => c.blocks.length > 1 && Math.max(c.x1 - c.x0, c.y1 - c.y0) < MOST_LONG_MM * pxPerMm,
  )
  const look = new CloseLook(pair, differ, pxPerMm)
  const told: Told[] = []
  for (const [i, cluster] of clusters.entries()) {
    told.push(look.at(cluster))
    if (i % 8 === 7) yield 0.5 + (0.5 * i) / clusters.length
  }
  return told
}

/**
 * Compares a photo with another of the same side of the same board model (a good one, or this board before): lays one over
 * the other, and marks where they differ as they do where a part is gone, another one or beside its pads.
 * Yields the share that is done.
 * @param pxPerMm of the photo
 */
export function* compareBoards(
  photo: BoardPicture,
  other: BoardPicture,
  pxPerMm: number,
): Generator<number, CompareAnswer> {
  if (!(pxPerMm >= LEAST_PX_PER_MM))
    return {
      compared: null,
      fault: {
        field: 'pxPerMm',
        text: `${Math.round(pxPerMm * 10) / 10} pixels to a millimetre do not show small parts; take it nearer, ${LEAST_PX_PER_MM} at least, 20 are better`,
      },
    }
  const factor = Math.max(1, Math.round(pxPerMm / WORK_PX_PER_MM))
  const laid = yield* part(laidAlike(photo, other, factor), 0, LAID)
  if ('wrong' in laid) return { compared: null, fault: { field: 'other', text: laid.wrong } }
  const told = yield* part(differingPlaces(laid.photo, laid.other, pxPerMm / factor), LAID, 1)
  const full = (px: number) => (px + 0.5) * factor - 0.5
  const marks = told
    .map((t): Mark => {
      const { x0, x1, y0, y1 } = t.cluster
      const px: Point = [full((x0 + x1) / 2), full((y0 + y1) / 2)]
      return {
        px,
        sizePx: [(x1 - x0 + BLOCKS.sidePx) * factor, (y1 - y0 + BLOCKS.sidePx) * factor],
        otherPx: lay(laid.overlay, px[0], px[1]),
        odds: oddsOfPart(t),
      }
    })
    .filter((m) => m.odds >= WORTH_A_LOOK)
    .sort((a, b) => b.odds - a.odds)
  const { overlay, share, fitPx } = laid
  return { compared: { marks, overlay, share, fitPx }, fault: null }
}

/** Share of the work that laying them over one another is. */
const LAID = 0.65
/** A part of some work, as a stretch of the whole. */
function* part<T>(work: Generator<number, T>, from: number, to: number): Generator<number, T> {
  for (;;) {
    const step = work.next()
    if (step.done) return step.value
    yield from + (to - from) * step.value
  }
}

/** Pixels of the other photo to one of the photo, at its middle. */
function stretchOf(overlay: Overlay, { widthPx, heightPx }: BoardPicture): number {
  const [x, y] = [widthPx / 2, heightPx / 2]
  const [at, right, down] = [lay(overlay, x, y), lay(overlay, x + 10, y), lay(overlay, x, y + 10)]
  const area = (right[0] - at[0]) * (down[1] - at[1]) - (right[1] - at[1]) * (down[0] - at[0])
  return Math.sqrt(Math.abs(area)) / 10
}

const shareSeen = ({ green }: ColourPlanes): number =>
  green.reduce((n, v) => n + (Number.isNaN(v) ? 0 : 1), 0) / green.length

import type { Socket } from '../model/socket'
import type { Plane } from '../../photo/grey-image'
import type { Point } from '../../photo/projection'

/** What a photo says of one contact. What cannot be seen is not looked at; it is never fine. */
export type SeenAs = 'in place' | 'displaced' | 'missing' | 'ambiguous' | 'not seen'

export interface TipSeen {
  readonly name: string
  readonly as: SeenAs
  /** The neighbour it seems to lie over. */
  readonly over?: string
  /** What makes it doubtful, in a few words. */
  readonly why?: string
  /** Off its place, light and lens taken out, mm; null where no tip was found, or only the strip that leads to it. */
  readonly offsetMm: Point | null
  /** Odds that it is as said. */
  readonly confidence: number
  /** Brightness of its spot over that of its neighbours; 0 where none was found. */
  readonly shine: number
  /** Where it was found, or where it should be, px. */
  readonly px: Point
}

/** Tips are called displaced from here on, mm (between what must be found and what does not count). */
export const DISPLACED_MM = 0.12

/** Photo, field and the scale of the working picture. */
export interface Work {
  readonly socket: Socket
  readonly plane: Plane
  /** Photo pixels in one working pixel, and the photo's pixel it begins at. */
  readonly factor: number
  readonly leftPx: number
  readonly topPx: number
  readonly widthPx: number
  readonly heightPx: number
}

/** A place of the photo in the working picture. */
export const onPlane = ({ factor, leftPx, topPx }: Work, [x, y]: Point): Point => [
  (x - leftPx + 0.5) / factor - 0.5,
  (y - topPx + 0.5) / factor - 0.5,
]
/** And back. */
export const onPhoto = ({ factor, leftPx, topPx }: Work, [x, y]: Point): Point => [
  (x + 0.5) * factor - 0.5 + leftPx,
  (y + 0.5) * factor - 0.5 + topPx,
]

import type { Uniform } from '@/core/maths/seeded'
import type { Point } from '@/core/photo/projection'

/** How a photo is taken. */
export interface CameraShot {
  readonly widthPx: number
  readonly heightPx: number
  /** At the middle of the picture. */
  readonly pxPerMm: number
  /** What the middle of the picture is turned to, mm. */
  readonly centreMm: Point
  /** Away from straight above, and the side the camera leans to, degrees anticlockwise from +x. */
  readonly tiltDeg: number
  readonly tiltTowardsDeg: number
  readonly turnDeg: number
  /** Radial lens term at half the diagonal. */
  readonly lens: number
  readonly blurPx: number
  /** Share of full scale. */
  readonly noise: number
  /** Share by which the light falls off from one side to the other, either way. */
  readonly gradient: number
  readonly lightDeg: number
  /** Number and strength (share of full scale at their middle) of patches of glare. */
  readonly glare: number
  readonly glareStrength: number
  readonly seed: number
}

export type Point3 = readonly [number, number, number]

const dot = (a: Point3, b: Point3) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]

/** A pinhole that looks at the middle of its picture, from a distance, mm; without its turn and its lens. */
export class Pinhole {
  readonly to: Point3
  readonly across: Point3
  readonly down: Point3
  readonly at: Point3
  private readonly far: number

  /** @param heightMm of what the middle of the picture is turned to */
  constructor(shot: CameraShot, distanceMm: number, heightMm: number) {
    const tilt = (shot.tiltDeg * Math.PI) / 180
    const towards = (shot.tiltTowardsDeg * Math.PI) / 180
    const [s, c] = [Math.sin(tilt), Math.cos(tilt)]
    const to: Point3 = [-s * Math.cos(towards), -s * Math.sin(towards), -c]
    const length = Math.hypot(to[2], to[0])
    const across: Point3 = [-to[2] / length, 0, to[0] / length]
    this.down = [
      to[1] * across[2] - to[2] * across[1],
      to[2] * across[0] - to[0] * across[2],
      to[0] * across[1] - to[1] * across[0],
    ]
    this.at = [
      shot.centreMm[0] - distanceMm * to[0],
      shot.centreMm[1] - distanceMm * to[1],
      heightMm - distanceMm * to[2],
    ]
    this.far = shot.pxPerMm * distanceMm
    ;[this.to, this.across] = [to, across]
  }

  /** Where a place is seen, px to the right and down from the middle. */
  see(place: Point3): Point {
    const from: Point3 = [place[0] - this.at[0], place[1] - this.at[1], place[2] - this.at[2]]
    const far = this.far / dot(from, this.to)
    return [dot(from, this.across) * far, dot(from, this.down) * far]
  }

  /** The place at height nought that is seen there, mm. */
  behind(rightPx: number, downPx: number): Point {
    const [u, v] = [rightPx / this.far, downPx / this.far]
    const ray = ([0, 1, 2] as const).map((i) => this.to[i] + u * this.across[i] + v * this.down[i])
    const t = -this.at[2] / ray[2]!
    return [this.at[0] + t * ray[0]!, this.at[1] + t * ray[1]!]
  }
}

/** A place of the picture turned about its middle. */
export function turnedBy(deg: number, [u, v]: Point): Point {
  const turn = (deg * Math.PI) / 180
  return [u * Math.cos(turn) - v * Math.sin(turn), u * Math.sin(turn) + v * Math.cos(turn)]
}

/** What a sensor adds to each value of a picture: normal, with a spread that is asked for. */
export function sensorNoise(draw: Uniform): (spread: number) => number {
  let state = Math.floor(draw() * 0xffffffff) | 1
  const next = () => {
    state ^= state << 13
    state ^= state >>> 17
    state ^= state << 5
    return state >>> 0
  }
  return (spread) => {
    // Four uniform bytes make a draw that is normal enough, with variance 4 · 256² / 12.
    const bits = next()
    const sum = (bits & 255) + ((bits >>> 8) & 255) + ((bits >>> 16) & 255) + (bits >>> 24) - 510
    return (spread * sum) / 147.8
  }
}

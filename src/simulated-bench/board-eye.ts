import type { Point } from '@/core/photo/projection'

/** How a photo of a board is taken. */
export interface BoardShot {
  readonly widthPx: number
  readonly heightPx: number
  /** At the middle of the picture. */
  readonly pxPerMm: number
  /** What the middle of the picture is turned to, mm on the board. */
  readonly centreMm: Point
  readonly tiltDeg: number
  readonly tiltTowardsDeg: number
  readonly turnDeg: number
  readonly lens: number
  readonly blurPx: number
  /** Share of full scale. */
  readonly noise: number
  readonly gradient: number
  readonly lightDeg: number
  readonly glare: number
  readonly glareStrength: number
  readonly seed: number
}

export const plainBoardShot: BoardShot = {
  widthPx: 2400,
  heightPx: 1800,
  pxPerMm: 24,
  centreMm: [50, 37],
  tiltDeg: 2,
  tiltTowardsDeg: 200,
  turnDeg: 1,
  lens: 0.008,
  blurPx: 1.1,
  noise: 0.025,
  gradient: 0.15,
  lightDeg: 60,
  glare: 1,
  glareStrength: 0.3,
  seed: 1,
}

const EYE_MM = 260
type Point3 = readonly [number, number, number]

/** A pinhole over the board: where a place is seen, and what of the board is seen at a pixel. */
export class Eye {
  private readonly to: Point3
  private readonly across: Point3
  private readonly down: Point3
  readonly at: Point3
  private readonly half: number

  constructor(private readonly shot: BoardShot) {
    const tilt = (shot.tiltDeg * Math.PI) / 180
    const towards = (shot.tiltTowardsDeg * Math.PI) / 180
    const [s, c] = [Math.sin(tilt), Math.cos(tilt)]
    this.to = [-s * Math.cos(towards), -s * Math.sin(towards), -c]
    const length = Math.hypot(this.to[2], this.to[0])
    this.across = [-this.to[2] / length, 0, this.to[0] / length]
    this.down = cross(this.to, this.across)
    this.at = [
      shot.centreMm[0] - EYE_MM * this.to[0],
      shot.centreMm[1] - EYE_MM * this.to[1],
      -EYE_MM * this.to[2],
    ]
    this.half = Math.hypot(shot.widthPx, shot.heightPx) / 2
  }

  see(place: Point3): Point {
    const { shot } = this
    const from: Point3 = [place[0] - this.at[0], place[1] - this.at[1], place[2] - this.at[2]]
    const far = (shot.pxPerMm * EYE_MM) / dot(from, this.to)
    const [u, v] = [dot(from, this.across) * far, dot(from, this.down) * far]
    const turn = (shot.turnDeg * Math.PI) / 180
    const x = u * Math.cos(turn) - v * Math.sin(turn)
    const y = u * Math.sin(turn) + v * Math.cos(turn)
    const lens = 1 + shot.lens * ((x * x + y * y) / (this.half * this.half))
    return [shot.widthPx / 2 + x * lens, shot.heightPx / 2 + y * lens]
  }

  /** The place of the board plane behind a pixel, mm. */
  behind(px: number, py: number): Point {
    const { shot } = this
    let [x, y] = [px - shot.widthPx / 2, py - shot.heightPx / 2]
    const [x0, y0] = [x, y]
    for (let i = 0; i < 3; i++) {
      const lens = 1 + shot.lens * ((x * x + y * y) / (this.half * this.half))
      ;[x, y] = [x0 / lens, y0 / lens]
    }
    const turn = (shot.turnDeg * Math.PI) / 180
    const u = (x * Math.cos(turn) + y * Math.sin(turn)) / (shot.pxPerMm * EYE_MM)
    const v = (-x * Math.sin(turn) + y * Math.cos(turn)) / (shot.pxPerMm * EYE_MM)
    const ray = ([0, 1, 2] as const).map((i) => this.to[i] + u * this.across[i] + v * this.down[i])
    const t = -this.at[2] / ray[2]!
    return [this.at[0] + t * ray[0]!, this.at[1] + t * ray[1]!]
  }
}
const dot = (a: Point3, b: Point3) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2]
const cross = (a: Point3, b: Point3): Point3 => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
]

import type { Point } from '@/core/photo/projection'
import { Pinhole, turnedBy } from './camera-shot'
import type { CameraShot, Point3 } from './camera-shot'

export const plainBoardShot: CameraShot = {
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

/** The camera over a board: where a place is seen, and what of the board is seen at a pixel. */
export class Eye {
  private readonly pinhole: Pinhole
  private readonly half: number

  constructor(private readonly shot: CameraShot) {
    this.pinhole = new Pinhole(shot, EYE_MM, 0)
    this.half = Math.hypot(shot.widthPx, shot.heightPx) / 2
  }

  get at(): Point3 {
    return this.pinhole.at
  }

  private lens(x: number, y: number): number {
    return 1 + this.shot.lens * ((x * x + y * y) / (this.half * this.half))
  }

  see(place: Point3): Point {
    const { shot } = this
    const [x, y] = turnedBy(shot.turnDeg, this.pinhole.see(place))
    const lens = this.lens(x, y)
    return [shot.widthPx / 2 + x * lens, shot.heightPx / 2 + y * lens]
  }

  /** The place of the board plane behind a pixel, mm. */
  behind(px: number, py: number): Point {
    const { shot } = this
    const [x0, y0] = [px - shot.widthPx / 2, py - shot.heightPx / 2]
    let [x, y] = [x0, y0]
    for (let i = 0; i < 3; i++) {
      const lens = this.lens(x, y)
      ;[x, y] = [x0 / lens, y0 / lens]
    }
    return this.pinhole.behind(...turnedBy(-shot.turnDeg, [x, y]))
  }
}

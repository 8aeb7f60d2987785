import type { Point } from '@/core/photo/projection'

/** Red, green, blue, each 0 to 1. */
export type Colour = readonly [red: number, green: number, blue: number]

/** Three planes of a picture in the making, 0 to 1. */
export class PaintedSheet {
  readonly planes: readonly [Float32Array, Float32Array, Float32Array]
  constructor(
    readonly widthPx: number,
    readonly heightPx: number,
  ) {
    const plane = () => new Float32Array(widthPx * heightPx)
    this.planes = [plane(), plane(), plane()]
  }

  private lay(at: number, colour: Colour, share: number): void {
    for (let c = 0; c < 3; c++) this.planes[c]![at]! += share * (colour[c]! - this.planes[c]![at]!)
  }

  /** Fills a convex outline; what is nearer than half a pixel to its edge is mixed. */
  fill(corners: readonly Point[], colour: Colour, cover = 1): void {
    const [x0, x1] = [Math.min(...corners.map((p) => p[0])), Math.max(...corners.map((p) => p[0]))]
    const [y0, y1] = [Math.min(...corners.map((p) => p[1])), Math.max(...corners.map((p) => p[1]))]
    let area = 0
    corners.forEach((p, i) => {
      const q = corners[(i + 1) % corners.length]!
      area += p[0] * q[1] - q[0] * p[1]
    })
    const sign = area > 0 ? 1 : -1
    const edges = corners.map((p, i) => {
      const q = corners[(i + 1) % corners.length]!
      const length = Math.hypot(q[0] - p[0], q[1] - p[1]) || 1
      const [nx, ny] = [(-sign * (q[1] - p[1])) / length, (sign * (q[0] - p[0])) / length]
      return [nx, ny, -(nx * p[0] + ny * p[1])] as const
    })
    for (let y = Math.max(0, Math.floor(y0)); y <= Math.min(this.heightPx - 1, Math.ceil(y1)); y++)
      for (let x = Math.max(0, Math.floor(x0)); x <= Math.min(this.widthPx - 1, Math.ceil(x1)); x++) {
        let inside = Infinity
        for (const [nx, ny, d] of edges) inside = Math.min(inside, nx * x + ny * y + d)
        if (inside > -0.5) this.lay(y * this.widthPx + x, colour, Math.min(1, inside + 0.5) * cover)
      }
  }

  disc([cx, cy]: Point, r: number, colour: Colour, cover = 1): void {
    for (let y = Math.max(0, Math.floor(cy - r - 1)); y <= Math.min(this.heightPx - 1, cy + r + 1); y++)
      for (let x = Math.max(0, Math.floor(cx - r - 1)); x <= Math.min(this.widthPx - 1, cx + r + 1); x++) {
        const inside = r - Math.hypot(x - cx, y - cy) + 0.5
        if (inside > 0) this.lay(y * this.widthPx + x, colour, Math.min(1, inside) * cover)
      }
  }

  line(a: Point, b: Point, wide: number, colour: Colour, cover = 1): void {
    const [dx, dy] = [b[0] - a[0], b[1] - a[1]]
    const length = Math.hypot(dx, dy) || 1
    const [nx, ny] = [(-dy / length) * (wide / 2), (dx / length) * (wide / 2)]
    this.fill(
      [
        [a[0] + nx, a[1] + ny],
        [b[0] + nx, b[1] + ny],
        [b[0] - nx, b[1] - ny],
        [a[0] - nx, a[1] - ny],
      ],
      colour,
      cover,
    )
  }

  glow([cx, cy]: Point, sigmaPx: number, strength: number): void {
    const reach = 3 * sigmaPx
    for (let y = Math.max(0, Math.floor(cy - reach)); y <= Math.min(this.heightPx - 1, cy + reach); y++)
      for (let x = Math.max(0, Math.floor(cx - reach)); x <= Math.min(this.widthPx - 1, cx + reach); x++) {
        const d2 = (x - cx) ** 2 + (y - cy) ** 2
        const light = strength * Math.exp(-d2 / (2 * sigmaPx * sigmaPx))
        for (const plane of this.planes) plane[y * this.widthPx + x]! += light
      }
  }
}

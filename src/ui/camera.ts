/** Where a map’s millimetres are on the screen. */
export interface Camera {
  readonly pxPerMm: number
  readonly xPx: number
  readonly yPx: number
}

/** The camera that has a box of the view (left, top, width, height, mm) in sight as large as there is room. */
export function fitting(
  [left, top, wide, high]: readonly [number, number, number, number],
  width: number,
  height: number,
): Camera {
  const pxPerMm = Math.min(width / wide, height / high)
  return {
    pxPerMm,
    xPx: (width - wide * pxPerMm) / 2 - left * pxPerMm,
    yPx: (height - high * pxPerMm) / 2 - top * pxPerMm,
  }
}

/** Nearer or farther by a factor, round a place of the screen that stays where it is; never much farther than all of it. */
export function zoomed(
  camera: Camera,
  fitted: Camera,
  mostPxPerMm: number,
  x: number,
  y: number,
  factor: number,
): Camera {
  const pxPerMm = Math.min(mostPxPerMm, Math.max(fitted.pxPerMm * 0.8, camera.pxPerMm * factor))
  const by = pxPerMm / camera.pxPerMm
  return { pxPerMm, xPx: x - (x - camera.xPx) * by, yPx: y - (y - camera.yPx) * by }
}

/** How much nearer one turn of a wheel is. */
export const wheelFactor = (deltaY: number): number => Math.exp(-deltaY * 0.0016)

import Joi from 'joi'
import type { Socket } from '@/core/socket/model/socket'
import { plainShot } from '@/simulated-bench/microscope-camera'
import type { Shot } from '@/simulated-bench/microscope-camera'
import { cameraViews, SIDE_TILT } from './camera-views'
import type { CameraView } from './camera-views'

export interface CameraRequest {
  readonly view: CameraView
}
export const cameraRequest = Joi.object({ view: Joi.valid(...cameraViews).required() })

/** A usual bench picture: 72 px per mm, the light from one side, hand-held within a few degrees. */
export function shotOf(socket: Socket, { view }: CameraRequest, line: number): Shot {
  const wide = 2 * Math.max(...socket.contacts.map((c) => Math.abs(c.xMm)))
  const high = 2 * Math.max(...socket.contacts.map((c) => Math.abs(c.yMm)))
  const pxPerMm = 72
  const side = view === 'near side'
  const quarter = view !== 'above' && !side
  const across = view.endsWith('left') ? -1 : 1
  const away = view.startsWith('far') ? 1 : -1
  const part = quarter ? 0.56 : 1
  const even = (px: number) => 2 * Math.round(px / 2)
  return {
    ...plainShot,
    // From the side the near rows come closer to the eye and need more of the picture.
    pxPerMm: side ? 0.84 * pxPerMm : pxPerMm,
    widthPx: Math.min(4200, even((wide * part + 2.4) * pxPerMm)),
    heightPx: Math.min(4200, even((high * part + 2.4) * pxPerMm)),
    centreMm: quarter ? [(across * wide) / 4, (away * high) / 4] : [0, 0],
    ...(side ? { tiltDeg: SIDE_TILT.tiltDeg, tiltTowardsDeg: SIDE_TILT.towardsDeg } : {}),
    seed: line * 16 + cameraViews.indexOf(view),
  }
}

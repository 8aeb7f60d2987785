import { project } from '../../photo/projection'
import type { Located } from './locate'
import type { Socket } from '../model/socket'

/** How many times longer than it is a displacement is drawn. */
export const DRAWN_TIMES = 4

/**
 * The displacement field over the photo, as one SVG path in its pixels: from where each tip should be to where it is,
 * drawn four times as long. Light and lens are taken out, so a sound field is a sea of dots.
 */
export function displacementPath(socket: Socket, { projection, tips }: Located): string {
  const at = (x: number, y: number) =>
    project(projection, x, y)
      .map((v) => v.toFixed(1))
      .join(' ')
  return tips
    .map(({ offsetMm }, i) => {
      if (!offsetMm) return ''
      const { xMm, yMm } = socket.contacts[i]!
      const [dx, dy] = offsetMm
      return `M${at(xMm, yMm)}L${at(xMm + DRAWN_TIMES * dx, yMm + DRAWN_TIMES * dy)}`
    })
    .join('')
}

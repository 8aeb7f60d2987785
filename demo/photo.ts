import sharp from 'sharp'
import { seeded } from '@/core/maths/seeded'
import { usualHeightMm, usualLeanMm } from '@/core/socket/damage/mark'
import type { Marks } from '@/core/socket/damage/mark'
import type { Socket } from '@/core/socket/model/socket'

const PX_PER_MM = 40
const MARGIN_MM = 2

/** A made-up microscope picture of a field: dark housing, a lit spot on each tip; low ones are dull. */
export function fieldPhoto(socket: Socket, marks: Marks, seed: number): Promise<Uint8Array> {
  const draw = seeded(seed)
  const half = Math.max(...socket.contacts.map((c) => Math.max(Math.abs(c.xMm), Math.abs(c.yMm)))) + MARGIN_MM
  const tips = socket.contacts.map((c) => {
    const mark = marks[c.name]
    const [dx, dy] = mark ? usualLeanMm(mark) : [0, 0]
    const low = mark ? usualHeightMm(mark) : 0
    const x = (c.xMm + dx + half + 0.01 * (draw() - 0.5)) * PX_PER_MM
    const y = (half - c.yMm - dy + 0.01 * (draw() - 0.5)) * PX_PER_MM
    const light = Math.max(0.25, 1 + low * 3 - 0.1 * draw())
    const r = socket.kind === 'pin-grid' ? 6.5 : 5
    return `<ellipse cx="${x.toFixed(1)}" cy="${y.toFixed(1)}" rx="${r * 1.5}" ry="${r}" fill="#8d6b2c" opacity="${(light * 0.9).toFixed(2)}" transform="rotate(${-c.beamDeg} ${x.toFixed(1)} ${y.toFixed(1)})"/><circle cx="${(x - 1.4).toFixed(1)}" cy="${(y - 1.6).toFixed(1)}" r="${r * 0.45}" fill="#fff2cf" opacity="${light.toFixed(2)}"/>`
  })
  const size = Math.round(2 * half * PX_PER_MM)
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="${size}" height="${size}"><rect width="${size}" height="${size}" fill="#22211e"/>${tips.join('')}</svg>`
  return sharp(Buffer.from(svg)).blur(0.8).png({ compressionLevel: 9 }).toBuffer()
}

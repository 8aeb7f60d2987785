// Photos from the camera stand-in, read back: what was found of what is really there.
import { seeded } from '@/core/seeded'
import { locate } from '@/core/socket/photo/locate'
import type { Anchor } from '@/core/socket/photo/anchors'
import type { LocateAnswer } from '@/core/socket/photo/locate'
import type { Marks } from '@/core/socket/mark'
import type { Socket } from '@/core/socket/socket'
import { drawDamage, usualDamage } from '@/stand-ins/drawn-damage'
import type { DamageDrawn } from '@/stand-ins/drawn-damage'
import { plainShot, takePhoto } from '@/stand-ins/microscope-camera'
import type { Photo, Shot } from '@/stand-ins/microscope-camera'
import { demoSockets } from '../demo/sockets'
import { line } from './figure'

/** Runs a computation that yields its progress to its end. */
export function runOut<T>(work: Generator<number, T>): T {
  for (;;) {
    const { done, value } = work.next()
    if (done) return value
  }
}

export interface Setting {
  readonly shot: Shot
  readonly damage: DamageDrawn
  readonly clickPx: number
  readonly seed: number
}

/** Settings for measuring: a stated range of tilt, light, blur, noise, glare; seeds from 700,000, which tuned nothing. */
export function drawSetting(seed: number): Setting {
  const draw = seeded(seed)
  const between = (low: number, high: number) => low + (high - low) * draw()
  return {
    seed,
    clickPx: 4,
    damage: { ...usualDamage, swaths: Math.floor(3 * draw()), mostMm: between(0.3, 0.5) },
    shot: {
      ...plainShot,
      pxPerMm: between(70, 77),
      tiltDeg: between(0, 8),
      tiltTowardsDeg: between(0, 360),
      turnDeg: between(-4, 4),
      lens: between(-0.02, 0.02),
      blurPx: between(0.6, 1.2),
      noise: between(0.01, 0.04),
      gradient: between(0, 0.25),
      lightDeg: between(0, 360),
      glare: Math.floor(4 * draw()),
      glareStrength: between(0.2, 0.6),
      seed: seed + 1,
    },
  }
}

/** Four clicks near the corners of the field, each off by up to so many pixels in any direction. */
export function clicksOn(socket: Socket, photo: Photo, marks: Marks, offPx: number, seed: number): Anchor[] {
  const draw = seeded(seed)
  const far = Math.max(...socket.contacts.map((c) => c.xMm + c.yMm))
  return [
    [-1, 1],
    [1, 1],
    [1, -1],
    [-1, -1],
  ].map(([sx, sy]) => {
    const standing = photo.tips
      .map((tip, i) => ({ tip, c: socket.contacts[i]! }))
      .filter(({ tip }) => tip.inside && !tip.gone && !marks[tip.name])
    const at = standing.reduce((best, one) =>
      sx! * one.c.xMm + sy! * one.c.yMm > sx! * best.c.xMm + sy! * best.c.yMm ? one : best,
    )
    void far
    const angle = draw() * 2 * Math.PI
    const r = offPx * Math.sqrt(draw())
    return {
      contact: at.tip.name,
      px: [at.tip.px[0] + r * Math.cos(angle), at.tip.px[1] + r * Math.sin(angle)],
    }
  })
}

export interface Counted {
  displaced: number
  found: number
  said: number
  right: number
  gone: number
  goneFound: number
  goneSaid: number
  goneRight: number
  ambiguous: number
  contacts: number
  square: number
  measured: number
}
export const nothingCounted = (): Counted => ({
  displaced: 0,
  found: 0,
  said: 0,
  right: 0,
  gone: 0,
  goneFound: 0,
  goneSaid: 0,
  goneRight: 0,
  ambiguous: 0,
  contacts: 0,
  square: 0,
  measured: 0,
})

/** Counts what was said against what is; 0.09 to 0.15 mm counts neither way; ambiguous counts as not found. */
export function count(
  into: Counted,
  photo: Photo,
  answer: LocateAnswer,
  of: (i: number) => boolean = () => true,
): void {
  const { located } = answer
  photo.tips.forEach((truth, i) => {
    if (!truth.inside || !of(i)) return
    const seen = located?.tips[i]
    const off = Math.hypot(...truth.offsetMm)
    const isOff = !truth.gone && off >= 0.15
    const between = !truth.gone && off > 0.09 && off < 0.15
    into.contacts++
    if (seen?.as === 'ambiguous') into.ambiguous++
    if (truth.gone) {
      into.gone++
      if (seen?.as === 'missing') into.goneFound++
    }
    if (seen?.as === 'missing') {
      into.goneSaid++
      if (truth.gone) into.goneRight++
    }
    if (isOff) {
      into.displaced++
      if (seen?.as === 'displaced') {
        into.found++
        into.measured++
        into.square +=
          (seen.offsetMm![0] - truth.offsetMm[0]) ** 2 + (seen.offsetMm![1] - truth.offsetMm[1]) ** 2
      }
    }
    if (seen?.as === 'displaced' && !between) {
      into.said++
      if (isOff) into.right++
    }
  })
}

import { seeded } from '@/core/maths/seeded'
import type { Mark, Marks } from '@/core/socket/damage/mark'
import { fieldOf } from '@/core/socket/model/socket'
import type { Contact, Socket } from '@/core/socket/model/socket'
import { neighboursOf } from '@/core/socket/model/walk'

/** How much of which damage, as numbers of contacts; a swath takes 6 to 30 at once. */
export interface DamageDrawn {
  readonly leaning: number
  readonly swaths: number
  readonly heights: number
  readonly twisted: number
  readonly touching: number
  readonly folded: number
  readonly gone: number
  readonly snapped: number
  readonly dirty: number
  /** Largest lean, mm. */
  readonly mostMm: number
}

export const usualDamage: DamageDrawn = {
  leaning: 18,
  swaths: 1,
  heights: 8,
  twisted: 4,
  touching: 3,
  folded: 1,
  gone: 4,
  snapped: 5,
  dirty: 3,
  mostMm: 0.42,
}

/** Whether a beam can be bent that far: sideways or back it can, but it cannot be stretched along itself. */
function reaches(socket: Socket, c: Contact, name: string): boolean {
  const to = fieldOf(socket).named.get(name)!
  const angle = (c.beamDeg * Math.PI) / 180
  const [dx, dy] = [to.xMm - c.xMm, to.yMm - c.yMm]
  return dx * Math.cos(angle) + dy * Math.sin(angle) < 0.75 * Math.hypot(dx, dy)
}

/** A field as accidents leave it, drawn with a seed: strays, swaths dragged alike, a crater, some gone. */
export function drawDamage(socket: Socket, seed: number, of: DamageDrawn = usualDamage): Marks {
  const draw = seeded(seed)
  const marks: Record<string, Mark> = {}
  const { contacts } = socket
  const free = (): Contact => {
    for (;;) {
      const c = contacts[Math.floor(draw() * contacts.length)]!
      if (!marks[c.name]) return c
    }
  }
  const between = (low: number, high: number) => low + (high - low) * draw()
  const lean = (least = 0.06): readonly [number, number] => {
    const [angle, size] = [draw() * 2 * Math.PI, between(least, of.mostMm)]
    return [size * Math.cos(angle), size * Math.sin(angle)]
  }
  const many = (n: number, put: (c: Contact) => Mark) => {
    for (let i = 0; i < n; i++) {
      const c = free()
      marks[c.name] = put(c)
    }
  }
  for (let s = 0; s < of.swaths; s++) {
    const start = free()
    const leanMm = lean(0.2)
    const [long, wide] = [between(2, 5) * socket.pitchMm, between(0.6, 1.8) * socket.pitchMm]
    const [ux, uy] = [leanMm[0] / Math.hypot(...leanMm), leanMm[1] / Math.hypot(...leanMm)]
    for (const k of fieldOf(socket).near.within(start.xMm, start.yMm, long)) {
      const c = contacts[k]!
      const beside = Math.abs((c.xMm - start.xMm) * uy - (c.yMm - start.yMm) * ux)
      if (beside > wide || marks[c.name]) continue
      const share = between(0.85, 1.1)
      marks[c.name] = { kind: 'lean', leanMm: [leanMm[0] * share, leanMm[1] * share] }
    }
  }
  many(of.leaning, () => ({ kind: 'lean', leanMm: lean() }))
  many(of.heights, () => {
    const heightMm = draw() < 0.75 ? -between(0.05, 0.25) : between(0.05, 0.2)
    return { kind: heightMm < 0 ? 'low' : 'high', heightMm }
  })
  many(of.twisted, () => ({ kind: 'twisted' }))
  for (const [kind, n] of [
    ['touching', of.touching],
    ['folded', of.folded],
  ] as const)
    many(n, (c) => {
      const around = neighboursOf(socket, c.name).filter((name) => !marks[name] && reaches(socket, c, name))
      return around.length > 0
        ? { kind, touches: around[Math.floor(draw() * around.length)]! }
        : { kind: 'snapped' }
    })
  many(of.gone, () => ({ kind: 'tip gone' }))
  many(of.snapped, () => ({ kind: 'snapped' }))
  many(of.dirty, () => ({ kind: draw() < 0.5 ? 'paste' : 'lodged' }))
  return marks
}

import { isDamage, isGone, usualLeanMm } from '../damage/mark'
import type { Marks } from '../damage/mark'
import type { Socket } from '../model/socket'

/** A row or a column of pins whose tips are out of line. */
export interface PinLine {
  readonly along: 'row' | 'column'
  /** Its place across, mm. */
  readonly atMm: number
  readonly pins: readonly string[]
  /** Spread of the tips across the line, σ, mm, and the worst of them. */
  readonly sigmaMm: number
  readonly worst: string
}

/** A channel between two lines that a blade can be run along, and what it puts straight. */
export interface BladeChannel {
  readonly along: 'row' | 'column'
  readonly betweenMm: readonly [number, number]
  /** The side its pins are pushed to, seen from above. */
  readonly push: 'left' | 'right' | 'away' | 'nearer'
  readonly pins: readonly string[]
  /** Pins that lie flat across it and have to be raised first. */
  readonly blockedBy: readonly string[]
}

/** Leans below this are within what a pin is made to, mm (bench default). */
const OUT_OF_LINE_MM = 0.05

/** Rows and columns that are out of line, worst first: what one sees holding the CPU up and looking along it. */
export function pinLines(socket: Socket, marks: Marks): PinLine[] {
  const lines = new Map<
    string,
    { along: PinLine['along']; atMm: number; off: { name: string; mm: number }[] }
  >()
  for (const c of socket.contacts) {
    const mark = marks[c.name]
    if (mark && isGone(mark)) continue
    const [dx, dy] = mark && isDamage(mark) ? usualLeanMm(mark) : [0, 0]
    for (const [along, atMm, mm] of [
      ['row', c.yMm, dy],
      ['column', c.xMm, dx],
    ] as const) {
      const key = `${along} ${atMm.toFixed(2)}`
      const line = lines.get(key) ?? { along, atMm, off: [] }
      line.off.push({ name: c.name, mm })
      lines.set(key, line)
    }
  }
  return [...lines.values()]
    .map(({ along, atMm, off }): PinLine => {
      const worst = off.reduce((a, b) => (Math.abs(b.mm) > Math.abs(a.mm) ? b : a))
      return {
        along,
        atMm,
        pins: off.filter((o) => Math.abs(o.mm) > OUT_OF_LINE_MM).map((o) => o.name),
        sigmaMm: Math.sqrt(off.reduce((s, o) => s + o.mm * o.mm, 0) / off.length),
        worst: worst.name,
      }
    })
    .filter((l) => l.pins.length > 0)
    .sort((a, b) => b.sigmaMm - a.sigmaMm)
}

/**
 * Channels to run a blade along, the one that rights most first: pins that lean across a channel are pushed back by a
 * blade run along it from the side they lean to. A pin is put straight by one channel for each direction it leans in;
 * channels with a flat pin across them come after those without.
 */
export function bladeChannels(socket: Socket, marks: Marks): BladeChannel[] {
  const half = socket.pitchMm / 2
  const found = new Map<
    string,
    { along: BladeChannel['along']; at: number; push: BladeChannel['push']; pins: string[] }
  >()
  const flat: { x: number; y: number; name: string }[] = []
  for (const c of socket.contacts) {
    const mark = marks[c.name]
    if (!mark || !isDamage(mark)) continue
    if (mark.kind === 'folded') flat.push({ x: c.xMm, y: c.yMm, name: c.name })
    if (isGone(mark)) continue
    const [dx, dy] = usualLeanMm(mark)
    for (const [along, lean, at, push] of [
      ['row', dy, c.yMm, dy > 0 ? 'nearer' : 'away'],
      ['column', dx, c.xMm, dx > 0 ? 'left' : 'right'],
    ] as const) {
      if (Math.abs(lean) <= OUT_OF_LINE_MM) continue
      const middle = at + Math.sign(lean) * half
      const key = `${along} ${middle.toFixed(2)} ${push}`
      const channel = found.get(key) ?? { along, at: middle, push, pins: [] }
      channel.pins.push(c.name)
      found.set(key, channel)
    }
  }
  return [...found.values()]
    .map(({ along, at, push, pins }): BladeChannel => ({
      along,
      betweenMm: [at - half, at + half],
      push,
      pins,
      blockedBy: flat
        .filter((f) => Math.abs((along === 'row' ? f.y : f.x) - at) < 1.5 * socket.pitchMm)
        .map((f) => f.name),
    }))
    .sort(
      (a, b) =>
        Number(a.blockedBy.length > 0) - Number(b.blockedBy.length > 0) || b.pins.length - a.pins.length,
    )
}

import type { StrokeDone } from '@/core/socket/slice'
import { normalDraw, seeded } from '@/core/maths/seeded'
import { afterStroke, isDamage, usualHeightMm } from '@/core/socket/damage/mark'
import type { Mark, Marks } from '@/core/socket/damage/mark'
import type { Socket } from '@/core/socket/model/socket'
import { drawDamage } from './drawn-damage'

/** Contacts of a board that nobody has seen yet: a stray lean or two, one that is low. */
const unseen = {
  leaning: 2,
  swaths: 0,
  heights: 1,
  twisted: 0,
  touching: 0,
  folded: 0,
  gone: 0,
  snapped: 0,
  dirty: 0,
  mostMm: 0.35,
}

/**
 * What contacts are really like that a person has marked: measured where only the kind was noted, what was not sure
 * settled one way or the other, and a few that the person has missed.
 */
export function trulyMarked(socket: Socket, marked: Marks, seed: number): Marks {
  const draw = seeded(seed)
  const truth: Record<string, Mark> = {}
  for (const [name, mark] of Object.entries(marked)) {
    if (!isDamage(mark) || (mark.unsure && draw() < 0.3)) continue
    const { unsure: _, maybe, ...sure } = mark
    const kind = maybe && draw() < 0.4 ? maybe : sure.kind
    const lean =
      sure.leanMm ??
      (kind === 'lean' || kind === 'low' ? [0.06 * normalDraw(draw), 0.06 * normalDraw(draw)] : undefined)
    truth[name] = {
      ...sure,
      kind,
      ...(lean ? { leanMm: [lean[0]!, lean[1]!] as const } : {}),
      ...(kind === 'low' || kind === 'high'
        ? { heightMm: usualHeightMm(sure) + 0.02 * normalDraw(draw) }
        : {}),
    }
  }
  const missed = drawDamage(socket, seed + 1, unseen)
  return { ...missed, ...truth }
}

/** The same after the strokes on the tape. */
export function afterStrokes(
  truth: Marks,
  strokes: readonly Pick<StrokeDone, 'contact' | 'result' | 'touches'>[],
): Marks {
  const now: Record<string, Mark> = { ...truth }
  for (const stroke of strokes) {
    const left = afterStroke(now[stroke.contact], stroke)
    if (left) now[stroke.contact] = left
    else delete now[stroke.contact]
  }
  return now
}

import { micrometre } from '../../maths/units'
import { fieldOf } from '../model/socket'
import type { Socket } from '../model/socket'
import { isDamage, isGone } from '../damage/mark'
import type { Mark } from '../damage/mark'
import type { Merged, MergedTip } from './merge'

/** A contact that breaks the pattern, for a person to look at, and what it would be marked as. */
export interface Suspect extends MergedTip {
  readonly mark: Mark
  /** In a sentence: what was seen, and why it is asked about. */
  readonly say: string
}

/** A spot this much fainter or brighter than its neighbours’ catches the light differently. */
const FAINT = 0.72
const BRIGHT = 1.45
/** Heights from here on are worth a look, mm (a good tilted photo tells 0.02). */
const OFF_LEVEL_MM = 0.07
/** Two tips this near one another touch, mm: twice the radius and what the eye misjudges. */
const TOUCH_MM = 0.24

/** The neighbour whose tip this one's tip rests against. */
function against(socket: Socket, tip: MergedTip, byName: ReadonlyMap<string, MergedTip>): string | null {
  const c = fieldOf(socket).named.get(tip.name)
  if (!c || !tip.offsetMm) return null
  const [x, y] = [c.xMm + tip.offsetMm[0], c.yMm + tip.offsetMm[1]]
  let best: string | null = null
  let least = TOUCH_MM
  for (const k of fieldOf(socket).near.within(x, y, socket.pitchMm)) {
    const other = socket.contacts[k]!
    const off = byName.get(other.name)?.offsetMm
    if (other === c || !off) continue
    const gap = Math.hypot(other.xMm + off[0] - x, other.yMm + off[1] - y)
    if (gap < least) [best, least] = [other.name, gap]
  }
  return best
}

/** What a tip would be marked as, or null when there is nothing to ask about. */
export function markOf(socket: Socket, tip: MergedTip, byName: ReadonlyMap<string, MergedTip>): Mark | null {
  const height =
    tip.heightMm !== null && Math.abs(tip.heightMm) >= OFF_LEVEL_MM ? micrometre(tip.heightMm) : undefined
  const lean =
    tip.offsetMm && tip.as === 'displaced'
      ? ([micrometre(tip.offsetMm[0]), micrometre(tip.offsetMm[1])] as const)
      : undefined
  const measures = {
    ...(lean ? { leanMm: lean } : {}),
    ...(height === undefined ? {} : { heightMm: height }),
  }
  if (tip.as === 'not seen') return null
  // From straight above a contact that lies flat under a neighbour looks like one that is gone.
  if (tip.as === 'missing') return { kind: 'snapped', maybe: 'folded', unsure: true }
  if (tip.as === 'ambiguous') {
    if (tip.why === 'something covers it') return { kind: 'paste', maybe: 'lodged', unsure: true }
    return { kind: 'lean', ...measures, unsure: true }
  }
  // Only the strip was seen: which way it lies is known, where its tip is is not.
  if (tip.as === 'displaced' && !tip.offsetMm)
    return { kind: 'folded', unsure: true, ...(tip.over ? { touches: tip.over } : {}) }
  if (lean) {
    const touches = against(socket, tip, byName)
    return touches ? { kind: 'touching', touches, ...measures } : { kind: 'lean', ...measures }
  }
  if (height !== undefined) return { kind: height < 0 ? 'low' : 'high', heightMm: height }
  if (tip.shine < FAINT) return { kind: 'twisted', maybe: 'low', unsure: true }
  return tip.shine > BRIGHT ? { kind: 'high', maybe: 'lodged', unsure: true } : null
}

/**
 * What a photo shows of a contact that is marked already: what a person said it is stays, unless the photo shows that it
 * is otherwise; measures are the photo's.
 */
export function together(before: Mark | undefined, seen: Mark): Mark {
  if (!before || !isDamage(before)) return seen
  const gone = isGone(before)
  if (gone !== isGone(seen)) return seen
  if (gone) return before
  const { leanMm, heightMm } = seen
  const kept = seen.unsure ? before : { ...before, kind: before.kind === 'lean' ? seen.kind : before.kind }
  return {
    ...kept,
    ...(leanMm ? { leanMm } : {}),
    ...(heightMm === undefined ? {} : { heightMm }),
    ...(kept.kind === 'touching' && seen.touches ? { touches: seen.touches } : {}),
  }
}

/** What is asked about each, worst first within a row of the field, rows from the far side. */
export function suspects(socket: Socket, merged: Merged): Suspect[] {
  const byName = new Map(merged.tips.map((t) => [t.name, t]))
  return merged.tips
    .flatMap((tip): Suspect[] => {
      const mark = markOf(socket, tip, byName)
      return mark ? [{ ...tip, mark, say: saySuspect(tip) }] : []
    })
    .sort((a, b) => place(socket, b.name) - place(socket, a.name))
}

/** Far rows first, in each from the left. */
const place = (socket: Socket, name: string) => {
  const c = fieldOf(socket).named.get(name)!
  return c.yMm * 1000 - c.xMm
}

function saySuspect(tip: MergedTip): string {
  if (tip.as === 'missing') return 'no tip where it should be'
  if (tip.as === 'ambiguous') return tip.why ?? 'cannot be told'
  if (tip.over) return `a strip runs from it to ${tip.over}`
  if (tip.as === 'displaced') return tip.why ?? `tip ${Math.hypot(...tip.offsetMm!).toFixed(2)} mm off`
  if (tip.heightMm !== null && Math.abs(tip.heightMm) >= OFF_LEVEL_MM)
    return `${tip.heightMm < 0 ? 'low' : 'high'} by ${Math.abs(tip.heightMm).toFixed(2)} mm`
  return tip.shine < FAINT
    ? 'catches the light less than its neighbours'
    : 'catches the light more than its neighbours'
}

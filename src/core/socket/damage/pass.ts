import { isDamage, sayMark } from './mark'
import type { Marks } from './mark'

/** One look over the whole field. Marks are carried over from the pass before; what was looked at is not. */
export interface Pass {
  readonly name: string
  readonly at: string
  /** How the field stands now: strokes that went well take a mark off. */
  readonly marks: Marks
  /** What was seen in this look, strokes apart. */
  readonly found: Marks
  readonly looked: Readonly<Record<string, true>>
}

/** The marks a pass stands for: as found for an earlier one, as they are now for the pass in hand. */
export const passMarks = (passes: readonly Pass[], i: number): Marks =>
  (i === passes.length - 1 ? passes[i]?.marks : passes[i]?.found) ?? {}

export interface PassChange {
  readonly contact: string
  readonly change: 'new' | 'mended' | 'other' | 'same'
  readonly before: string
  readonly after: string
}

/** What changed between two passes, by contact; damage that stayed alike is listed too. */
export function comparePasses(before: Marks, after: Marks): PassChange[] {
  const names = [...new Set([...Object.keys(before), ...Object.keys(after)])].sort((a, b) =>
    a.localeCompare(b, 'en', { numeric: true }),
  )
  const changes: PassChange[] = []
  for (const contact of names) {
    const was = before[contact]
    const is = after[contact]
    if (!isDamage(was) && !isDamage(is)) continue
    const saidBefore = was ? sayMark(was) : 'intact'
    const saidAfter = is ? sayMark(is) : 'intact'
    const change = !isDamage(was)
      ? 'new'
      : !isDamage(is)
        ? 'mended'
        : saidBefore === saidAfter
          ? 'same'
          : 'other'
    changes.push({ contact, change, before: saidBefore, after: saidAfter })
  }
  return changes
}

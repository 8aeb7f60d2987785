import { percent } from '../maths/percent'
import { harms, weighShorts } from '../socket/damage/closing-shorts'
import type { PossibleShort } from '../socket/damage/closing-shorts'
import type { Say } from './gate-say'

/** A possible short and what it would join, in words. */
export interface NamedShort extends PossibleShort {
  readonly nets: string
}

/** Odds from which a possible short is said by itself. */
const SAID = 0.15

/** Each possible short by itself, then any of those that alone would not close the gate. */
export function shortReasons(possible: readonly NamedShort[], say: Say): void {
  const { alone, together } = weighShorts(possible)
  const closing = new Set(alone)
  for (const s of possible) {
    if (s.grade === 'harmless' || (!closing.has(s) && s.odds < SAID)) continue
    say(
      closing.has(s) ? 'closed' : 'limit',
      'short',
      `${s.a} ${s.odds >= 0.999 ? 'touches' : 'may touch'} ${s.b}: ${s.nets}`,
      'socket',
      s.a,
      `Separate ${s.a} from ${s.b}`,
    )
  }
  for (const harm of harms) {
    const { pairs, any, level } = together[harm]
    if (level === 'nothing') continue
    const first = pairs.reduce((a, b) => (b.odds > a.odds ? b : a))
    if (level === 'limit' && first.odds >= SAID) continue // it is said by itself
    say(
      level,
      'any short',
      pairs.length === 1
        ? `${first.a} may touch ${first.b} (${percent(first.odds)}): ${first.nets}`
        : `${percent(any)} that any of ${pairs.length} close pairs touches; closest ${first.a} to ${first.b}: ${first.nets}`,
      'socket',
      first.a,
      `Look closer, ${first.a} first, and part what is close`,
    )
  }
}

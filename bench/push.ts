// Stop or push: the programme on its grid against every sequence of outcomes.
import { seeded } from '@/core/maths/seeded'
import { benchBeam } from '@/core/socket/contact/contact-force'
import { pushAdvice } from '@/core/socket/straighten/push'
import { exhaustive, stakes } from '@/core/socket/straighten/push.testing'
import type { PushQuestion } from '@/core/socket/straighten/push'
import { line, percent } from './figure'

const AHEAD = 5

/** Questions from a seed of their own, drawn evenly. */
function questions(n: number): PushQuestion[] {
  const draw = seeded(550_000)
  const between = (low: number, high: number) => low + (high - low) * draw()
  return Array.from({ length: n }, () => ({
    kind: draw() < 0.8 ? ('land-grid' as const) : ('pin-grid' as const),
    technique: (['push', 'lift', 'unfold', 'part', 'untwist'] as const)[Math.floor(draw() * 5)]!,
    residualMm: between(0.02, 0.6),
    isHeight: draw() < 0.4,
    lifeUsed: between(0, 1.2),
    runsGood: between(0.5, 1),
    runsLost: between(0, 0.5),
    worthMinor: between(20_000, 300_000),
    strokeMinor: between(200, 3000),
    lossMinor: between(0, 60_000),
    snapFactor: between(0.5, 2.5),
  }))
}

/** How often programme and exhaustive search advise alike, and what following the programme costs where they do not. */
export function pushFigures(n: number): void {
  let alike = 0
  let regret = 0
  let farthest = 0
  for (const q of questions(n)) {
    const [found, best] = [pushAdvice(q, benchBeam, AHEAD).gainMinor, exhaustive(q, AHEAD)]
    farthest = Math.max(farthest, Math.abs(found - best) / stakes(q))
    if (found > 0 === best > 0) alike++
    else regret += Math.abs(best) / stakes(q)
  }
  line(`stop or push, ${n} questions, ${AHEAD} strokes ahead: advised as by all outcomes`, percent(alike / n))
  line(
    '  lost by following it, of what is at stake, mean',
    percent(regret / n),
    `≤ 0.1 %: ${regret / n <= 0.001 ? 'met' : 'MISSED'}`,
  )
  line('  worth of the next stroke apart, of what is at stake, most', percent(farthest))
}

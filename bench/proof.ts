// The order of a proof: beside the best of all orders, and beside the order of the list.
import { functionGroups } from '@/core/board/function-group'
import { harmMinutes } from '@/core/board/proved'
import type { Proved } from '@/core/board/proved'
import { untouched } from '@/core/board/station-says'
import { seeded } from '@/core/maths/seeded'
import { doubtsOf, inOrder } from '@/core/proof/doubt'
import type { Doubts, Placed } from '@/core/proof/doubt'
import { proofPlan } from '@/core/proof/plan'
import { line, mean, percent } from './figure'

/** Minutes of harm, each for the time until a test shows it, or until the end: counted from what is said, not by the model. */
function cost(order: readonly Placed[], doubts: Doubts): number {
  let sum = 0
  for (const [what, p] of doubts) {
    let [minutes, hidden] = [0, p]
    for (const test of order) {
      minutes += test.minutes
      const q = test.shows[what] ?? 0
      sum += hidden * q * harmMinutes(what) * minutes
      hidden *= 1 - q
    }
    sum += hidden * harmMinutes(what) * minutes
  }
  return sum
}

function everyOrder<T>(of: readonly T[]): T[][] {
  if (of.length === 0) return [[]]
  return of.flatMap((one, i) =>
    everyOrder([...of.slice(0, i), ...of.slice(i + 1)]).map((rest) => [one, ...rest]),
  )
}

export function proofFigures(plans = 300, seed = 515_151): void {
  const draw = seeded(seed)
  const things: readonly Proved[] = ['starts', 'cooling', 'memory A', 'card lanes', 'sense', 'version']
  const over: number[] = []
  for (let i = 0; i < plans; i++) {
    const doubts = new Map(things.map((what) => [what, 0.1 * draw()]))
    const tests = Array.from({ length: 6 }, (_, k): Placed => ({
      id: String(k),
      minutes: 1 + Math.floor(30 * draw()),
      shows: Object.fromEntries(things.filter(() => draw() < 0.4).map((what) => [what, draw()])),
    }))
    const best = Math.min(...everyOrder(tests).map((order) => cost(order, doubts)))
    over.push(best > 0 ? cost(inOrder(tests, doubts), doubts) / best : 1)
  }
  line(`order of a proof over the best of 720, ${plans} drawn`, `× ${mean(over).toFixed(4)}`)
  line('  the worst of them', `× ${Math.max(...over).toFixed(3)}`)
  const saved: number[] = []
  for (let i = 0; i < plans; i++) {
    const t = {
      ...untouched,
      groups: functionGroups.filter(() => draw() < 0.2),
      firmware: draw() < 0.3,
      parts: draw() < 0.3,
      rails: draw() < 0.3 ? ['vmem'] : [],
    }
    const plan = proofPlan(t)
    const doubts = doubtsOf(t)
    const listed = [...plan].sort((a, b) => (a.id < b.id ? -1 : 1))
    saved.push(1 - cost(plan, doubts) / cost(listed, doubts))
  }
  line('  harm-weighted minutes until found, less than in the order of the alphabet', percent(mean(saved)))
}

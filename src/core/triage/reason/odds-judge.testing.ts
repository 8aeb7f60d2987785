import type { FaultId } from '../model/faults'
import { chanceToTake } from '../model/repair'
import type { Change } from '../model/repair'
import { stages } from '../model/stage'
import { hypotheses, testOf, WIDTH } from './hypotheses'
import { likelihood, stopsOf } from './likelihood'
import type { Evidence } from './likelihood'

const places = new Map(hypotheses.map((ids, h) => [[...ids].sort().join(), h]))

/** The same by brute force: every set of faults, every way the changes went, each followed through as a set. */
export function tried(
  prior: Float64Array,
  evidence: readonly Evidence[],
  changes: readonly Change[],
): Float64Array {
  const now = new Float64Array(WIDTH)
  for (let h = 0; h < WIDTH; h++)
    for (let way = 0; way < 2 << changes.length; way++) {
      const [took, lampsLie] = [way >> 1, (way & 1) === 1]
      const known = hypotheses[h]
      const set = new Set<FaultId>(known)
      let p = prior[h]! * (lampsLie ? 0.08 : 0.92)
      const see = (after: number) => {
        const at = known ? places.get([...set].sort().join())! : h
        const now = evidence.filter((e) => (e.after ?? 0) === after)
        const lamps = ['CPU lamp', 'memory lamp', 'graphics lamp', 'boot lamp']
        const among = (o: string) => (lampsLie && lamps.includes(o) ? lamps : [o])
        const noted = (is: string, as: string, n: number) => (is === as ? 0.95 : 0.05 / (n - 1))
        const readings = (e: Evidence) => [...(e.earlier ?? []), e.outcome]
        // Anew: whatever each reading truly was, it may have been noted as this.
        const anew = (e: Evidence) => {
          const { outcomes } = testOf(e.test)
          const rows = likelihood(testOf(e.test), testOf(e.of ?? e.test).setup)
          const chance = (o: string) => rows[outcomes.indexOf(o)]![at]!
          const comesTo = (o: string) => among(o).reduce((all, l) => all + chance(l) / among(o).length, 0)
          return readings(e).reduce(
            (all, as) =>
              all * outcomes.reduce((w, is) => w + comesTo(is) * noted(is, as, outcomes.length), 0),
            1,
          )
        }
        // Once: one stage for all starts of a set-up, and one outcome for all readings of a test.
        const once = (together: readonly Evidence[]) =>
          stages.reduce((all, _, stage) => {
            const stops = stopsOf(testOf(together[0]!.of ?? together[0]!.test).setup)[
              at * stages.length + stage
            ]!
            return (
              all +
              together.reduce((w, e) => {
                const { outcomes, byStage } = testOf(e.test)
                const shows = (o: string) =>
                  among(o).reduce((m, l) => m + byStage![outcomes.indexOf(l)]![stage]! / among(o).length, 0)
                return (
                  w *
                  outcomes.reduce(
                    (m, is) =>
                      m + shows(is) * readings(e).reduce((k, as) => k * noted(is, as, outcomes.length), 1),
                    0,
                  )
                )
              }, stops)
            )
          }, 0)
        const setup = (e: Evidence) => JSON.stringify(testOf(e.of ?? e.test).setup)
        for (const e of now) if (!testOf(e.test).byStage) p *= anew(e)
        const starts = now.filter((e) => testOf(e.test).byStage)
        for (const key of new Set(starts.map(setup))) {
          const together = starts.filter((e) => setup(e) === key)
          p *= (together.reduce((all, e) => all * anew(e), 1) + once(together)) / 2
        }
        return at
      }
      let at = see(0)
      changes.forEach((change, i) => {
        const takes = (took & (1 << i)) !== 0
        p *= takes ? chanceToTake(change) : 1 - chanceToTake(change)
        const brought = change.is === 'made' || change.is === 'left'
        if (takes && !brought) set.delete(change.fault)
        if (takes && brought && set.size < 2) set.add(change.fault)
        at = see(i + 1)
      })
      now[at]! += p
    }
  const all = now.reduce((a, b) => a + b, 0)
  return now.map((p) => p / all)
}

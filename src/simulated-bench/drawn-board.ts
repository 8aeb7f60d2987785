import type { Uniform } from '@/core/maths/seeded'
import type { BenchTest } from '@/core/triage/model/bench-test'
import type { FaultId } from '@/core/triage/model/faults'
import { chanceToTake } from '@/core/triage/model/repair'
import { hypotheses, UNKNOWN } from '@/core/triage/reason/odds'

function pick(odds: ArrayLike<number>, draw: Uniform): number {
  let sum = 0
  for (let i = 0; i < odds.length; i++) sum += odds[i]!
  let u = draw() * sum
  let i = 0
  while (i < odds.length - 1 && (u -= odds[i]!) > 0) i++
  return i
}

/** A board with hidden faults, drawn from the prior unless they are given; every figure's log-odds are off by up to 30 %, its own way. */
export class DrawnBoard {
  readonly truth: readonly FaultId[]
  private readonly off = new Map<string, number[]>()
  constructor(
    prior: Float64Array,
    private readonly draw: Uniform,
    truth?: readonly FaultId[],
  ) {
    this.truth = truth ?? hypotheses[pick(prior.subarray(0, UNKNOWN), draw)]!
  }
  /** Whether a repair takes this time. */
  takes(fault: FaultId): boolean {
    return this.draw() < chanceToTake({ is: 'mended', fault })
  }
  see(test: BenchTest, mended: readonly FaultId[]): string {
    let off = this.off.get(test.id)
    if (!off) this.off.set(test.id, (off = test.outcomes.map(() => 0.7 + 0.6 * this.draw())))
    const odds = test.odds(this.truth.filter((id) => !mended.includes(id)))
    const bent = Array.from(odds, (p, o) => {
      const safe = Math.min(1 - 1e-9, Math.max(1e-9, p))
      return 1 / (1 + Math.exp(-Math.log(safe / (1 - safe)) * off[o]!))
    })
    return test.outcomes[pick(bent, this.draw)]!
  }
}

import { pick } from '@/core/maths/pick'
import type { Uniform } from '@/core/maths/seeded'
import type { BenchTest } from '@/core/triage/model/bench-test'
import type { FaultId } from '@/core/triage/model/faults'
import { chanceToTake } from '@/core/triage/model/repair'
import { ModelBoard } from '@/core/triage/reason/board-on-bench'
import { hypotheses, UNKNOWN } from '@/core/triage/reason/hypotheses'

/**
 * A board with hidden faults, drawn from the prior unless they are given; every figure's log-odds are off by up to 30 %,
 * its own way, and a repair takes with its chance.
 */
export class DrawnBoard extends ModelBoard {
  readonly truth: readonly FaultId[]
  private readonly off = new Map<string, number[]>()

  constructor(prior: Float64Array, draw: Uniform, truth?: readonly FaultId[]) {
    const faults = truth ?? hypotheses[pick(prior.subarray(0, UNKNOWN), draw)]!
    super(faults, draw)
    this.truth = faults
  }

  protected override takes(fault: FaultId): boolean {
    return this.draw() < chanceToTake({ is: 'mended', fault })
  }

  protected override chances(test: BenchTest): ArrayLike<number> {
    let off = this.off.get(test.id)
    if (!off) this.off.set(test.id, (off = test.outcomes.map(() => 0.7 + 0.6 * this.draw())))
    return Array.from(super.chances(test), (p, o) => {
      const safe = Math.min(1 - 1e-9, Math.max(1e-9, p))
      return 1 / (1 + Math.exp(-Math.log(safe / (1 - safe)) * off[o]!))
    })
  }
}

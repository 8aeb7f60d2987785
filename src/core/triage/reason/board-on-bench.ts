import { pick } from '../../maths/pick'
import type { Uniform } from '../../maths/seeded'
import type { BenchTest } from '../model/bench-test'
import type { FaultId } from '../model/faults'
import { curedBy } from '../model/repair'

/** A board that is worked to a verdict: what it shows, and what becomes of what is done to it. */
export interface BoardOnBench {
  /** What is wrong with it now, and has a name. */
  readonly wrong: readonly FaultId[]
  /** Something is wrong with it that is in no list. */
  readonly unlisted: boolean
  /** Carries a test out; what the test puts right for good is right from then on. */
  see(test: BenchTest): string
  /** Tries to put a fault right. Whether it had been there, be it that a test had put it right meanwhile. */
  mend(fault: FaultId): boolean
}

/** A board that follows the model to the letter; every repair of what is there takes. */
export class ModelBoard implements BoardOnBench {
  readonly wrong: FaultId[]
  readonly unlisted = false
  private readonly putRight = new Set<FaultId>()

  constructor(
    truth: readonly FaultId[],
    protected readonly draw: Uniform,
  ) {
    this.wrong = [...truth]
  }

  see(test: BenchTest): string {
    const outcome = test.outcomes[pick(this.chances(test), this.draw)]!
    for (const fault of curedBy(test.id)) this.gone(fault)
    return outcome
  }

  mend(fault: FaultId): boolean {
    const there = this.wrong.includes(fault) || this.putRight.has(fault)
    if (this.takes(fault)) this.gone(fault)
    return there
  }

  /** Chance of each outcome of a test as the board stands. */
  protected chances(test: BenchTest): ArrayLike<number> {
    return test.odds(this.wrong)
  }

  protected takes(_: FaultId): boolean {
    return true
  }

  private gone(fault: FaultId): void {
    const at = this.wrong.indexOf(fault)
    if (at < 0) return
    this.wrong.splice(at, 1)
    this.putRight.add(fault)
  }
}

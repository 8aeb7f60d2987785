import 'server-only'
import type { Factor } from '@/core/record/factor'
import type { Hours } from '@/core/shop/promise'
import { learnedNow } from '@/data/job-records'
import { putFirst } from '@/data/put-first'
import { shopHours } from '@/data/shop-hours'

/** What dates are reckoned by: how long jobs take against what is agreed, by the record, when the bench is worked, and in which order. */
export interface BenchPace {
  readonly agreed: Factor
  readonly hours: Hours
  /** Jobs that somebody has put first, in their order. */
  readonly byHand: readonly string[]
}

export async function benchPace(): Promise<BenchPace> {
  const [{ agreed }, hours, byHand] = await Promise.all([learnedNow(), shopHours(), putFirst()])
  return { agreed, hours, byHand }
}

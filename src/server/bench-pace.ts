import 'server-only'
import type { Factor } from '@/core/record/factor'
import type { Hours } from '@/core/shop/promise'
import { learnedNow } from '@/data/job-records'
import { shopHours } from '@/data/shop-hours'

/** What dates are reckoned by: how long jobs take against what is agreed, by the record, and when the bench is worked. */
export interface BenchPace {
  readonly agreed: Factor
  readonly hours: Hours
}

export async function benchPace(): Promise<BenchPace> {
  const [{ agreed }, hours] = await Promise.all([learnedNow(), shopHours()])
  return { agreed, hours }
}

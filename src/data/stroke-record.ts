import 'server-only'
import type { SnapTally } from '@/core/socket/straighten/snap-record'
import { pool } from './pool'

/**
 * Attempts of the whole shop by technique, damage, light and magnification: what the model
 * predicted, without what the record had made of it by then (else it would unlearn what it knows), and what snapped. One attempt is all the
 * strokes of one line; struck lines do not count, nor does practice. Summed over the jobs' own tallies, which stand
 * beside their states.
 */
export async function strokeRecord(): Promise<SnapTally[]> {
  const { rows } = await pool().query<SnapTally>(
    `select technique, damage, light, magnification, sum(tried)::int as tried, sum(snapped)::int as snapped,
            sum(predicted) as predicted
     from stroke_tally t join job j on j.id = t.job_id and not j.practice
     group by 1, 2, 3, 4 order by 1, 2, 3, 4`,
  )
  return rows
}

import 'server-only'
import type { SnapTally } from '@/core/socket/snap-record'
import { pool } from './pool'

/**
 * Attempts of the whole shop by technique, damage, light and magnification: what the model
 * predicted, without what the record had made of it by then (else it would unlearn what it knows), and what snapped. One attempt is all the
 * strokes of one line; struck lines do not count, nor does practice.
 */
export async function strokeRecord(): Promise<SnapTally[]> {
  const { rows } = await pool().query<SnapTally>(
    `select t.body ->> 'technique' as technique,
            t.body ->> 'damage' as damage,
            t.body ->> 'light' as light,
            t.body ->> 'magnification' as magnification,
            count(*)::int as tried,
            count(*) filter (where t.body ->> 'result' = 'snapped')::int as snapped,
            sum((t.body ->> 'predictedSnaps')::float8 / coalesce((t.body ->> 'snapFactor')::float8, 1)) as predicted
     from tape_entry t join job j on j.id = t.job_id and not j.practice
     where t.kind = 'stroke' and t.body ->> 'predictedSnaps' is not null
       and not exists (select 1 from tape_entry s where s.job_id = t.job_id and s.strikes = t.seq)
     group by 1, 2, 3, 4 order by 1, 2, 3, 4`,
  )
  return rows
}

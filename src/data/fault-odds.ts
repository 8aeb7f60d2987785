import 'server-only'
import type { FaultOdds } from '@/core/triage/model/fault-table'
import { pool, transaction } from './pool'
import { settingsChanged } from './settings-revision'

/** The shop's own odds of faults; faults that are not in it keep the bench default. */
export async function ownFaultOdds(): Promise<FaultOdds> {
  const { rows } = await pool().query<{ fault: string; odds: number }>('select fault, odds from fault_odds')
  return Object.fromEntries(rows.map((r) => [r.fault, r.odds]))
}

/** Keeps a shop's odds in place of those it had; none goes back to the bench defaults. */
export async function keepFaultOdds(odds: FaultOdds): Promise<void> {
  await transaction(async (db) => {
    await db.query('delete from fault_odds')
    await db.query(
      'insert into fault_odds (fault, odds) select key, value::double precision from jsonb_each_text($1::jsonb)',
      [JSON.stringify(odds)],
    )
    await settingsChanged(db)
  })
}

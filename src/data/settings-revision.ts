import 'server-only'
import type { Queryable } from './pool'

const NAME = 'settings revision'

/** As a column of a query: how often shelf, odds, figures or references were changed. */
export const settingsRevision = `coalesce((select value::int from shop_setting where name = '${NAME}'), 0)`

/** Said in the transaction of a change of what every advice follows from beside the tape: kept advice is older from then on. */
export async function settingsChanged(db: Queryable): Promise<void> {
  await db.query(
    `insert into shop_setting (name, value) values ($1, '1')
     on conflict (name) do update set value = (shop_setting.value::int + 1)::text`,
    [NAME],
  )
}

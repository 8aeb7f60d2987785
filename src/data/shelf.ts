import 'server-only'
import { shelfItems } from '@/core/triage/model/bench-test'
import type { ShelfItem } from '@/core/triage/model/bench-test'
import { pool, transaction } from './pool'
import { settingsChanged } from './settings-revision'

/** What the shop has at hand of what triage's tests need. */
export async function shelf(): Promise<ShelfItem[]> {
  const { rows } = await pool().query<{ item: string }>('select item from shelf_missing')
  const missing = new Set(rows.map((r) => r.item))
  return shelfItems.filter((item) => !missing.has(item))
}

export async function putOnShelf(item: ShelfItem, there: boolean): Promise<void> {
  await transaction(async (db) => {
    await db.query(
      there
        ? 'delete from shelf_missing where item = $1'
        : 'insert into shelf_missing (item) values ($1) on conflict do nothing',
      [item],
    )
    await settingsChanged(db)
  })
}

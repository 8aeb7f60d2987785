import 'server-only'
import type { ShelfItem } from '@/core/board/shelf-items'
import { atHandFor } from '@/core/parts/stock/at-hand'
import type { AtHand } from '@/core/parts/stock/at-hand'
import { pool, transaction } from './pool'
import { settingsChanged } from './settings-revision'
import { stock } from './stock'

/** What of the tests' needs is at hand, for one job or for any, and what stands behind it. */
export async function testShelf(tag?: string): Promise<readonly AtHand[]> {
  const [away, counted] = await Promise.all([
    pool().query<{ item: ShelfItem }>('select item from shelf_missing'),
    stock(true),
  ])
  return atHandFor(
    away.rows.map((r) => r.item),
    counted,
    tag,
  )
}

/** What a job may reckon with of what tests need. */
export async function shelf(tag?: string): Promise<ShelfItem[]> {
  return (await testShelf(tag)).filter(({ there }) => there).map(({ item }) => item)
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

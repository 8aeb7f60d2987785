import 'server-only'
import type { AtHandItem, StockItem } from '@/core/parts/stock/stock-item'
import { pool, transaction } from './pool'

/** Everything on the shelf: what was used since it was counted, and what open jobs hold of it, by their tapes. */
export async function stock(): Promise<AtHandItem[]> {
  const { rows } = await pool().query<{
    body: StockItem
    used: number
    held: { tag: string; count: number }[] | null
  }>(
    `with moves as materialized (
       select t.job_id, t.seq, t.recorded_at, coalesce(t.body ->> 'stock', t.body ->> 'item') as item,
              case when t.kind = 'part' then 'used' else t.body ->> 'did' end as did
       from tape_standing t
       where t.kind = 'stock' or (t.kind = 'part' and t.body ? 'stock' and t.body ->> 'did' = 'fitted')
     ), sums as (
       select m.item, j.tag, m.seq,
              sum(case m.did when 'reserved' then 1 else -1 end)
                over (partition by m.item, m.job_id order by m.seq) as sum
       from moves m join job j on j.id = m.job_id
       where j.closed_at is null
     ), holds as (
       -- A piece that goes was held, where any was: never fewer than none on the way.
       select item, tag, ((array_agg(sum order by seq desc))[1] - least(0, min(sum)))::int as count
       from sums group by item, tag
     )
     select i.body,
            (select count(*)::int from moves m
             where m.item = i.item and m.did = 'used' and m.recorded_at > i.counted_at) as used,
            (select json_agg(json_build_object('tag', h.tag, 'count', h.count) order by h.tag)
             from holds h where h.item = i.item and h.count > 0) as held
     from stock_item i order by i.place_in_table, i.item`,
  )
  return rows.map(({ body, used, held }) => ({
    ...body,
    left: Math.max(0, body.count - used),
    held: held ?? [],
  }))
}

/** Takes a table of the shelf as it was counted just now: what is not in it has gone. */
export async function keepStock(items: readonly StockItem[]): Promise<void> {
  await transaction(async (db) => {
    await db.query('delete from stock_item')
    for (const [i, item] of items.entries())
      await db.query('insert into stock_item (item, body, place_in_table) values ($1, $2, $3)', [
        item.item,
        JSON.stringify(item),
        i,
      ])
  })
}

import 'server-only'
import type { AtHandItem, StockItem } from '@/core/parts/stock/stock-item'
import type { Entry } from '@/core/job/job-state'
import { pool, transaction } from './pool'
import type { Queryable } from './pool'
import { settingsChanged } from './settings-revision'

/**
 * Everything on the shelf, the bench's CPUs included: what was used since it was counted, and what open jobs hold of it,
 * by their tapes.
 * @param forTests only what tests need
 */
export async function stock(forTests = false): Promise<AtHandItem[]> {
  const { rows } = await pool().query<{
    body: StockItem
    used: number
    held: { tag: string; count: number }[] | null
    ofKit: boolean
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
     ), all_items as (
       select item, body, counted_at, place_in_table, false as of_kit from stock_item
       union all
       -- A CPU of the kit is one piece, owned until the kit says that it is not.
       select cpu, jsonb_build_object('item', cpu, 'kind', 'CPU', 'value', null, 'place', 'the kit', 'count', 1,
                'low', -1, 'serves', 'known-good CPU'), 'infinity', null, true
       from bench_cpu where owned and not exists (select 1 from stock_item s where s.item = cpu)
     )
     select i.body, i.of_kit as "ofKit",
            (select count(*)::int from moves m
             where m.item = i.item and m.did = 'used' and m.recorded_at > i.counted_at) as used,
            (select json_agg(json_build_object('tag', h.tag, 'count', h.count) order by h.tag)
             from holds h where h.item = i.item and h.count > 0) as held
     from all_items i where not $1 or i.body ? 'serves'
     order by i.place_in_table nulls last, i.item`,
    [forTests],
  )
  return rows.map(({ body, used, held, ofKit }) => ({
    ...body,
    ofKit,
    left: Math.max(0, body.count - used),
    held: held ?? [],
  }))
}

/** Whether a line, once it stands, changes what tests find at hand. */
export async function movesTestShelf(jobId: string, entry: Entry, db: Queryable): Promise<boolean> {
  const own = entry.kind === 'stock' ? entry.body.item : entry.kind === 'part' ? entry.body.stock : undefined
  if (own === undefined && entry.kind !== 'hand-back' && entry.strikes === null) return false
  const { rowCount } = await db.query(
    `select 1 from (
       select item from stock_item where body ? 'serves' union all select cpu from bench_cpu where owned
     ) serving
     where item = $2 or ($2::text is null and item in (
       select coalesce(body ->> 'stock', body ->> 'item') from tape_entry
       where job_id = $1 and (kind = 'stock' or (kind = 'part' and body ? 'stock'))))
     limit 1`,
    [jobId, own ?? null],
  )
  return rowCount !== 0
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
    await settingsChanged(db)
  })
}

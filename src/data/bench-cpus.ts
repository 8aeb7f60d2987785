import 'server-only'
import type { SupportTable } from '@/core/firmware/route/support-table'
import { pool, transaction } from './pool'
import type { Queryable } from './pool'
import { settingsChanged } from './settings-revision'

/** A CPU of the shop's bench, or what one would cost; null is not known. */
export interface BenchCpu {
  readonly cpu: string
  readonly owned: boolean
  readonly priceMinor: number | null
}

export async function benchCpus(db: Queryable = pool()): Promise<BenchCpu[]> {
  const { rows } = await db.query<BenchCpu>(
    'select cpu, owned, price_minor as "priceMinor" from bench_cpu order by cpu',
  )
  return rows
}

export async function keepBenchCpu({ cpu, owned, priceMinor }: BenchCpu): Promise<void> {
  await transaction(async (db) => {
    await db.query(
      `insert into bench_cpu (cpu, owned, price_minor) values ($1, $2, $3)
       on conflict (cpu) do update set owned = $2, price_minor = $3`,
      [cpu, owned, priceMinor],
    )
    await settingsChanged(db)
  })
}

/** Boards whose releases and CPUs are known. */
export async function boardsWithSupport(): Promise<{ id: string; board: string; table: SupportTable }[]> {
  const { rows } = await pool().query<{
    id: string
    board: string
    releases: Pick<SupportTable, 'releases'>
    cpus: Pick<SupportTable, 'support'>
  }>(
    `select b.id, concat_ws(' ', b.maker, b.name, case when b.revision <> '' then 'rev ' || b.revision end) as board,
       r.body as releases, c.body as cpus
     from board_model b
     join board_reference r on r.board_model_id = b.id and r.kind = 'releases'
     join board_reference c on c.board_model_id = b.id and c.kind = 'cpus'
     order by 2`,
  )
  return rows.map(({ id, board, releases, cpus }) => ({
    id,
    board,
    table: { releases: releases.releases, support: cpus.support },
  }))
}

import 'server-only'
import { figureNames } from '@/core/socket/straighten/bench-figures'
import type { FigureName } from '@/core/socket/straighten/bench-figures'
import { pool, transaction } from './pool'
import { settingsChanged } from './settings-revision'

/** Figures the shop has set for itself; the others are bench defaults. */
export async function ownFigures(): Promise<Partial<Record<FigureName, number>>> {
  const { rows } = await pool().query<{ name: string; value: number }>('select name, value from bench_figure')
  const own = new Map(rows.map((r) => [r.name, r.value]))
  return Object.fromEntries(figureNames.flatMap((name) => (own.has(name) ? [[name, own.get(name)!]] : [])))
}

/** Keeps figures in place of those the shop had; what is not among them goes back to the bench default. */
export async function keepFigures(figures: Readonly<Partial<Record<FigureName, number>>>): Promise<void> {
  await transaction(async (db) => {
    await db.query('delete from bench_figure')
    await db.query(
      'insert into bench_figure (name, value) select key, value::double precision from jsonb_each_text($1::jsonb)',
      [JSON.stringify(figures)],
    )
    await settingsChanged(db)
  })
}

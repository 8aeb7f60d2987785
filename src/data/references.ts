import 'server-only'
import { noReferences } from '@/core/job/references'
import type { ReferenceKind, References } from '@/core/job/references'
import type { BoardModel } from './boards'
import { pool, transaction } from './pool'
import type { Queryable } from './pool'
import { settingsChanged } from './settings-revision'

export async function referencesOf(boardModelId: string | null, db: Queryable = pool()): Promise<References> {
  if (boardModelId === null) return noReferences
  const { rows } = await db.query<{ kind: ReferenceKind; body: never }>(
    'select kind, body from board_reference where board_model_id = $1',
    [boardModelId],
  )
  return { ...noReferences, ...Object.fromEntries(rows.map((r) => [r.kind, r.body])) }
}

/** A board model whose codes are known, if the library has one. */
export async function boardWithCodes(): Promise<Pick<
  BoardModel,
  'id' | 'maker' | 'name' | 'revision'
> | null> {
  const { rows } = await pool().query<Pick<BoardModel, 'id' | 'maker' | 'name' | 'revision'>>(
    `select b.id, b.maker, b.name, b.revision from board_model b
     join board_reference r on r.board_model_id = b.id and r.kind = 'codes'
     order by b.maker, b.name, b.revision limit 1`,
  )
  return rows[0] ?? null
}

/** Keeps a reference; the one of its kind that was there gives way. */
export async function keepReference<K extends ReferenceKind>(
  boardModelId: string,
  kind: K,
  body: NonNullable<References[K]>,
): Promise<void> {
  await transaction(async (db) => {
    await db.query(
      `insert into board_reference (board_model_id, kind, name, body) values ($1, $2, $3, $4)
       on conflict (board_model_id, kind) do update set name = $3, body = $4, created_at = now()`,
      [boardModelId, kind, body.name, JSON.stringify(body)],
    )
    await settingsChanged(db)
  })
}

export async function dropReference(boardModelId: string, kind: ReferenceKind): Promise<void> {
  await transaction(async (db) => {
    await db.query('delete from board_reference where board_model_id = $1 and kind = $2', [
      boardModelId,
      kind,
    ])
    await settingsChanged(db)
  })
}

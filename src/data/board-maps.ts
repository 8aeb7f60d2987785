import 'server-only'
import { gzip } from 'node:zlib'
import { promisify } from 'node:util'
import type { MapFile } from '@/core/parts/board-map/map-files'
import { pool } from './pool'
import type { Queryable } from './pool'

const pack = promisify(gzip)

/** What is kept of a board’s map, said in a line; null where nothing is. */
export async function keptMapOf(boardModelId: string): Promise<Readonly<Record<MapFile, string | null>>> {
  const { rows } = await pool().query<{ kind: MapFile; name: string; say: string }>(
    'select kind, name, say from board_map where board_model_id = $1',
    [boardModelId],
  )
  const said = (kind: MapFile) => {
    const kept = rows.find((r) => r.kind === kind)
    return kept ? [kept.name, kept.say].filter(Boolean).join(': ') : null
  }
  return { netlist: said('netlist'), placements: said('placements') }
}

/** A file of a board’s map as it came, packed with gzip; null where none is kept. */
export async function mapFileOf(
  boardModelId: string,
  kind: MapFile,
): Promise<{ readonly name: string; readonly gzip: Uint8Array } | null> {
  const { rows } = await pool().query<{ name: string; gzip: Buffer }>(
    'select name, gzip from board_map where board_model_id = $1 and kind = $2',
    [boardModelId, kind],
  )
  return rows[0] ?? null
}

/** Keeps a file; the one of its kind that was there gives way. */
export async function keepMapFile(
  boardModelId: string,
  kind: MapFile,
  { name, say, text }: { readonly name: string; readonly say: string; readonly text: string },
  db: Queryable = pool(),
): Promise<void> {
  await db.query(
    `insert into board_map (board_model_id, kind, name, say, gzip) values ($1, $2, $3, $4, $5)
     on conflict (board_model_id, kind) do update set name = $3, say = $4, gzip = $5, created_at = now()`,
    [boardModelId, kind, name, say, await pack(text)],
  )
}

export async function dropMapFile(boardModelId: string, kind: MapFile): Promise<void> {
  await pool().query('delete from board_map where board_model_id = $1 and kind = $2', [boardModelId, kind])
}

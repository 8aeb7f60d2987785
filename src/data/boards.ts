import 'server-only'
import { randomUUID } from 'node:crypto'
import type { OwnRail } from '@/core/board/rail'
import { unknownBuild } from '@/core/shop/build'
import type { Build } from '@/core/shop/build'
import { ownRailsOf } from '@/core/triage/instruments/rail-table'
import type { RailReference } from '@/core/triage/instruments/rail-table'
import { oddText } from '@/core/tables/plain-text'
import { pool } from './pool'
import type { Queryable } from './pool'

export interface BoardModel {
  readonly id: string
  readonly maker: string
  readonly name: string
  readonly revision: string
  readonly socketId: string | null
  readonly socketName: string | null
  readonly notes: string
  /** Rails it has beyond the usual ones. */
  readonly rails: readonly OwnRail[]
  readonly build: Build
}

export interface Landmark {
  readonly id: string
  readonly what: string
  readonly place: string
  readonly blockedBy: string
  readonly photoSha256: string | null
}

const columns = `b.id, b.maker, b.name, b.revision, b.socket_id as "socketId", s.name as "socketName", b.notes, b.build, r.body as reference`

const withRails = `left join board_reference r on r.board_model_id = b.id and r.kind = 'rails'`

type Row = Omit<BoardModel, 'rails'> & { readonly reference: RailReference | null }
const modelOf = <R extends Row>({
  reference,
  ...model
}: R): Omit<R, 'reference'> & Pick<BoardModel, 'rails'> => ({
  ...model,
  build: { ...unknownBuild, ...model.build },
  rails: ownRailsOf(reference),
})

export async function listBoards(): Promise<(BoardModel & { landmarks: number })[]> {
  const { rows } = await pool().query<Row & { landmarks: number }>(
    `select ${columns}, (select count(*)::int from landmark l where l.board_model_id = b.id) as landmarks
     from board_model b left join socket s on s.id = b.socket_id ${withRails} order by b.maker, b.name, b.revision`,
  )
  return rows.map(modelOf)
}

export async function boardById(id: string): Promise<BoardModel | null> {
  if (oddText(id) !== null) return null
  const { rows } = await pool().query<Row>(
    `select ${columns} from board_model b left join socket s on s.id = b.socket_id ${withRails} where b.id = $1`,
    [id],
  )
  return rows[0] ? modelOf(rows[0]) : null
}

/** @throws Error with code 23505 when maker, name and revision are there already */
export async function addBoard(
  board: Omit<BoardModel, 'socketName' | 'rails' | 'build'> & { readonly build?: Build },
  db: Queryable = pool(),
): Promise<void> {
  await db.query(
    'insert into board_model (id, maker, name, revision, socket_id, notes, build) values ($1, $2, $3, $4, $5, $6, $7)',
    [board.id, board.maker, board.name, board.revision, board.socketId, board.notes, board.build ?? {}],
  )
}

export async function keepBuild(boardModelId: string, build: Build): Promise<void> {
  await pool().query('update board_model set build = $2 where id = $1', [boardModelId, build])
}

export async function landmarksOf(boardModelId: string | null): Promise<Landmark[]> {
  if (boardModelId === null) return []
  const { rows } = await pool().query<Landmark>(
    `select id, what, place, blocked_by as "blockedBy", photo_sha256 as "photoSha256" from landmark where board_model_id = $1 order by what, created_at`,
    [boardModelId],
  )
  return rows
}

export async function addLandmark(
  boardModelId: string,
  what: string,
  place: string,
  blockedBy: string,
  photoSha256: string | null,
  db: Queryable = pool(),
): Promise<void> {
  await db.query(
    'insert into landmark (id, board_model_id, what, place, blocked_by, photo_sha256) values ($1, $2, $3, $4, $5, $6)',
    [randomUUID(), boardModelId, what, place, blockedBy, photoSha256],
  )
}

export async function removeLandmark(boardModelId: string, id: string): Promise<void> {
  await pool().query('delete from landmark where id = $1 and board_model_id = $2', [id, boardModelId])
}

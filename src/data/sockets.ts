import 'server-only'
import { oddText } from '@/core/tables/plain-text'
import type { Contact, Socket, SocketKind } from '@/core/socket/model/socket'
import { pool } from './pool'
import type { Queryable } from './pool'

export interface SocketSummary {
  readonly id: string
  readonly name: string
  readonly kind: SocketKind
  readonly pitchMm: number
  readonly contactCount: number
  readonly source: string
  readonly boards: number
}

// A socket never changes once it is in the library, so a process may keep what it has read; what a transaction reads may
// yet be rolled back and is not kept.
const kept = new Map<string, Socket>()

export async function socketById(id: string | null, db: Queryable = pool()): Promise<Socket | null> {
  if (id === null || oddText(id) !== null) return null
  const known = kept.get(id)
  if (known) return known
  const { rows } = await db.query<{
    id: string
    name: string
    kind: SocketKind
    pitch_mm: string
    contacts: Contact[]
  }>('select id, name, kind, pitch_mm, contacts from socket where id = $1', [id])
  const row = rows[0]
  if (!row) return null
  const socket: Socket = {
    id: row.id,
    name: row.name,
    kind: row.kind,
    pitchMm: Number(row.pitch_mm),
    contacts: row.contacts,
  }
  if (db !== pool()) return socket
  if (kept.size > 40) kept.clear()
  kept.set(id, socket)
  return socket
}

export async function listSockets(db: Queryable = pool()): Promise<SocketSummary[]> {
  const { rows } = await db.query<SocketSummary>(
    `select s.id, s.name, s.kind, s.pitch_mm::float8 as "pitchMm", s.contact_count as "contactCount", s.source,
            (select count(*)::int from board_model b where b.socket_id = s.id) as boards
     from socket s order by s.name`,
  )
  return rows
}

/** @throws Error with code 23505 when the name is taken */
export async function addSocket(socket: Socket, source: string, db: Queryable = pool()): Promise<void> {
  await db.query(
    'insert into socket (id, name, kind, pitch_mm, contact_count, contacts, source) values ($1, $2, $3, $4, $5, $6, $7)',
    [
      socket.id,
      socket.name,
      socket.kind,
      socket.pitchMm,
      socket.contacts.length,
      JSON.stringify(socket.contacts),
      source,
    ],
  )
}

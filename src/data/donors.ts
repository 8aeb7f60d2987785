import 'server-only'
import { pool } from './pool'

/** A socket kept for its contacts, and how many are left on it. */
export interface Donor {
  readonly name: string
  readonly socketId: string
  readonly socketName: string
  readonly left: number
}

/** Every donor, or those of one kind of socket. Each transplant and each practice pull on a tape has used one contact, whether it held or not. */
export async function donors(socketId: string | null = null): Promise<Donor[]> {
  const { rows } = await pool().query<Donor>(
    `select d.name, d.socket_id as "socketId", s.name as "socketName",
            greatest(0, d.contacts - (
              select count(*) from tape_standing t
              where t.kind in ('pull', 'replaced') and t.body ->> 'donor' = d.name
                and (t.kind = 'pull' or (t.kind = 'replaced' and t.body ->> 'how' = 'transplant'))
            ))::int as left
     from donor_socket d join socket s on s.id = d.socket_id
     where $1::text is null or d.socket_id = $1
     order by d.name`,
    [socketId],
  )
  return rows
}

/** Puts a donor on the shelf, or counts one anew. */
export async function keepDonor(name: string, socketId: string, contacts: number): Promise<void> {
  await pool().query(
    `insert into donor_socket (name, socket_id, contacts) values ($1, $2, $3)
     on conflict (name) do update set socket_id = excluded.socket_id, contacts = excluded.contacts`,
    [name, socketId, contacts],
  )
}

export async function dropDonor(name: string): Promise<void> {
  await pool().query('delete from donor_socket where name = $1', [name])
}

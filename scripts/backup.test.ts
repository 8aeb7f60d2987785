import { createHash, randomBytes } from 'node:crypto'
import { existsSync, mkdtempSync, readFileSync, rmSync, truncateSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import pg from 'pg'
import { checkBackup, restoreBackup, writeBackup } from './backup-file.mjs'
import { startCluster, ensureDatabase } from './cluster.mjs'

let cluster: Awaited<ReturnType<typeof startCluster>>
let folder: string
beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'needle-backup-'))
  cluster = await startCluster({ throwaway: true })
}, 120_000)
afterAll(async () => {
  await cluster.stop()
  rmSync(folder, { recursive: true, force: true })
})

async function ask<T extends pg.QueryResultRow>(
  url: string,
  text: string,
  values: unknown[] = [],
): Promise<T[]> {
  const client = new pg.Client({ connectionString: url })
  await client.connect()
  try {
    return (await client.query<T>(text, values)).rows
  } finally {
    await client.end()
  }
}
const picture = randomBytes(700_000)
const hash = createHash('sha256').update(picture).digest('hex')

/** A database as the application has it, as far as a backup looks: people, a tape, a file in pieces. */
async function shop(name: string, lines: number): Promise<string> {
  const { owner } = await ensureDatabase(cluster, name)
  await ask(
    owner,
    `create table account (id int primary key, name text);
     create table job (id int primary key);
     create table tape_entry (job_id int references job (id), seq int, body jsonb, primary key (job_id, seq));
     create table file (id int primary key, sha256 text unique);
     create table file_chunk (file_id int references file (id), n int, data bytea, primary key (file_id, n));
     grant select, insert on tape_entry to needle_app`,
  )
  if (lines === 0) return owner
  await ask(owner, `insert into account values (1, 'Ines'); insert into job values (1)`)
  await ask(
    owner,
    `insert into tape_entry select 1, n, jsonb_build_object('text', 'line ' || n) from generate_series(1, $1::int) n`,
    [lines],
  )
  await ask(owner, 'insert into file values (1, $1), (2, null)', [hash])
  for (let n = 0; n * 262_144 < picture.length; n++)
    await ask(owner, 'insert into file_chunk values (1, $1, $2)', [
      n,
      picture.subarray(n * 262_144, (n + 1) * 262_144),
    ])
  return owner
}
const lines = (url: string) =>
  ask<{ n: number }>(url, 'select count(*)::int as n from tape_entry').then(([r]) => r!.n)
const databases = () =>
  ask<{ name: string }>(cluster.url('owner', 'postgres'), 'select datname as name from pg_database').then(
    (all) => all.map((d) => d.name),
  )
const at = (name: string) => join(folder, name)

describe('a shop in one file', () => {
  it('is written whole, checked, and restored as it was, with its files and what the application may do', async () => {
    const from = await shop('one', 500)
    const manifest = await writeBackup(from, at('one.zip'))
    expect(manifest.tables).toMatchObject({ account: 1, tape_entry: 500, file: 2, file_chunk: 3 })
    expect(await checkBackup(at('one.zip'))).toEqual(manifest)
    expect(existsSync(at('one.zip.part'))).toBe(false)
    const to = await shop('two', 0)
    const { aside } = await restoreBackup(to, at('one.zip'))
    expect(await lines(to)).toBe(500)
    const pieces = await ask<{ data: Buffer }>(to, 'select data from file_chunk order by n')
    expect(Buffer.concat(pieces.map((p) => p.data)).equals(picture)).toBe(true)
    expect(await ask(cluster.url('app', 'two'), 'select count(*)::int as n from tape_entry')).toEqual([
      { n: 500 },
    ])
    await expect(ask(cluster.url('app', 'two'), 'delete from tape_entry')).rejects.toThrow(
      'permission denied',
    )
    expect(await databases()).toContain(aside)
    expect(await databases()).not.toContain('two_restoring')
  }, 120_000)
  it('takes what stands at one moment, whatever is written meanwhile', async () => {
    const from = await shop('busy', 300)
    const writes = writeBackup(from, at('busy.zip'))
    await ask(from, `insert into tape_entry select 1, n, '{}' from generate_series(1001, 1400) n`)
    const { tables } = await writes
    expect([300, 700]).toContain(tables.tape_entry)
    const to = await shop('busy_too', 0)
    await restoreBackup(to, at('busy.zip'))
    expect(await lines(to)).toBe(tables.tape_entry)
  }, 120_000)
  it('does not take the place of another shop unless that is asked for, and then puts it aside', async () => {
    await writeBackup(await shop('small', 20), at('small.zip'))
    const here = await shop('here', 80)
    await expect(restoreBackup(here, at('small.zip'))).rejects.toThrow('there is a shop in here already')
    expect(await lines(here)).toBe(80)
    const { aside } = await restoreBackup(here, at('small.zip'), { over: true })
    expect(await lines(here)).toBe(20)
    expect(await lines(cluster.url('owner', aside))).toBe(80)
  }, 120_000)
  it('is not put in place while somebody is connected', async () => {
    await writeBackup(await shop('quiet', 5), at('quiet.zip'))
    const used = await shop('used', 0)
    const client = new pg.Client({ connectionString: used })
    await client.connect()
    await expect(restoreBackup(used, at('quiet.zip'))).rejects.toThrow(/in use by 1 connections/)
    await client.end()
    expect(await databases()).not.toContain('used_restoring')
  }, 120_000)
  it('that is damaged, cut off or something else is refused before anything is touched', async () => {
    await writeBackup(await shop('sound', 400), at('sound.zip'))
    const to = await shop('spared', 0)
    const sound = readFileSync(at('sound.zip'))
    const refused = async (bytes: Buffer, text: RegExp) => {
      writeFileSync(at('odd.zip'), bytes)
      await expect(checkBackup(at('odd.zip'))).rejects.toThrow(text)
      await expect(restoreBackup(to, at('odd.zip'))).rejects.toThrow(text)
    }
    const flipped = Buffer.from(sound)
    flipped[Math.floor(sound.length / 2)]! ^= 0x40
    await refused(flipped, /damaged/)
    await refused(Buffer.from('nothing of the kind'), /no backup/)
    writeFileSync(at('cut.zip'), sound)
    truncateSync(at('cut.zip'), sound.length - 200)
    await expect(checkBackup(at('cut.zip'))).rejects.toThrow(/no backup, or was cut off/)
    expect(await databases()).not.toContain('spared_restoring')
  }, 120_000)
  it('whose file is not what it was is not put in place', async () => {
    const from = await shop('bad_file', 3)
    await ask(from, `update file_chunk set data = 'other' where n = 1`)
    await writeBackup(from, at('bad.zip'))
    const to = await shop('bad_to', 0)
    await expect(restoreBackup(to, at('bad.zip'))).rejects.toThrow(
      /the file [0-9a-f]{12}… is not what it was/,
    )
    expect(await databases()).not.toContain('bad_to_restoring')
    expect(await ask(to, 'select * from account')).toEqual([])
  }, 120_000)
  it('leaves nothing behind where it cannot be written', async () => {
    const from = await shop('nowhere', 3)
    await expect(writeBackup(from, join(folder, 'no', 'such', 'folder.zip'))).rejects.toThrow(/ENOENT/)
    await expect(writeBackup(`${from}_gone`, at('gone.zip'))).rejects.toThrow(/does not exist/)
    expect(existsSync(at('gone.zip'))).toBe(false)
    expect(existsSync(at('gone.zip.part'))).toBe(false)
  }, 120_000)
})

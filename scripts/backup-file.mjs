// A shop in one file: the whole database as it stands at one moment, how many rows each table has, and the hash of it all.
import { spawn } from 'node:child_process'
import { createHash } from 'node:crypto'
import { createWriteStream } from 'node:fs'
import { rename, rm } from 'node:fs/promises'
import { join } from 'node:path'
import { Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import pg from 'pg'
import { openPromise } from 'yauzl'
import { ZipFile } from 'yazl'
import { binaries } from './cluster.mjs'

const FORMAT = 'arch-needle backup 1'
const DUMP = 'database.dump'
const MANIFEST = 'manifest.json'
/** A manifest is short: more of it is none. */
const MOST_MANIFEST_BYTES = 1024 * 1024

/** What is wrong with a backup, or with where it should go, said so that somebody can mend it. */
export class BackupFault extends Error {}

const named = (url, database) => Object.assign(new URL(url), { pathname: `/${database}` }).href
export const databaseOf = (url) => decodeURIComponent(new URL(url).pathname.slice(1))

/** The password goes by the environment: arguments can be read by everybody on the machine. */
function tool(name, url, args, stdio) {
  const { hostname, port, username, password } = new URL(url)
  const child = spawn(
    join(binaries(), name),
    ['-h', hostname, '-p', port || '5432', '-U', decodeURIComponent(username), ...args],
    {
      stdio,
      env: { ...process.env, PGPASSWORD: decodeURIComponent(password) },
    },
  )
  let said = ''
  child.stderr.on('data', (data) => (said = (said + data).slice(-2000)))
  const ended = new Promise((resolve, reject) => {
    child.on('error', reject)
    child.on('close', (code) =>
      code === 0 ? resolve() : reject(new BackupFault(`${name} failed: ${said.trim() || `exit ${code}`}`)),
    )
  })
  // Whoever waits for it hears it; until then nobody has to.
  ended.catch(() => undefined)
  return { child, ended }
}

async function connected(url, work) {
  const client = new pg.Client({ connectionString: url })
  await client.connect()
  try {
    return await work(client)
  } finally {
    await client.end()
  }
}

/** Rows of each table. */
async function counted(client) {
  const { rows } = await client.query(
    "select table_name as name from information_schema.tables where table_schema = 'public' and table_type = 'BASE TABLE' order by 1",
  )
  const counts = {}
  for (const { name } of rows) {
    const { rows: found } = await client.query(
      `select count(*)::int as n from ${client.escapeIdentifier(name)}`,
    )
    counts[name] = found[0].n
  }
  return counts
}

/** Counts and hashes what flows through. */
class Measure extends Transform {
  bytes = 0
  hash = createHash('sha256')
  constructor(onBytes = () => undefined) {
    super()
    this.onBytes = onBytes
  }
  _transform(chunk, _encoding, done) {
    this.bytes += chunk.length
    this.hash.update(chunk)
    this.onBytes(this.bytes)
    done(null, chunk)
  }
}

/**
 * Writes a backup. It is there whole, or not at all: until its end it has another name.
 * @returns its manifest
 */
export async function writeBackup(url, path, { onBytes, now = new Date() } = {}) {
  const part = `${path}.part`
  return connected(url, async (client) => {
    // Counts and dump see the shop at the same moment, whatever is written meanwhile.
    await client.query('begin isolation level repeatable read read only')
    const { rows } = await client.query('select pg_export_snapshot() as snapshot')
    const tables = await counted(client)
    const { child, ended } = tool(
      'pg_dump',
      url,
      ['-d', databaseOf(url), '-Fc', '--no-owner', `--snapshot=${rows[0].snapshot}`],
      ['ignore', 'pipe', 'pipe'],
    )
    const zip = new ZipFile()
    const measured = new Measure(onBytes)
    try {
      zip.addReadStream(child.stdout.pipe(measured), DUMP, {
        compress: false,
        forceZip64Format: true,
        mtime: now,
      })
      const written = pipeline(zip.outputStream, createWriteStream(part, { mode: 0o600 }))
      written.catch(() => undefined)
      await Promise.race([ended, written.then(() => ended)])
      if (!measured.readableEnded) await new Promise((resolve) => measured.once('end', resolve))
      const manifest = {
        format: FORMAT,
        takenAt: now.toISOString(),
        sha256: measured.hash.digest('hex'),
        bytes: measured.bytes,
        tables,
      }
      zip.addBuffer(Buffer.from(JSON.stringify(manifest, null, 1)), MANIFEST, { mtime: now })
      zip.end()
      await written
      await rename(part, path)
      return manifest
    } catch (error) {
      child.kill()
      await rm(part, { force: true })
      throw error
    }
  })
}

async function entriesOf(path) {
  let zip
  try {
    zip = await openPromise(path, { autoClose: false })
  } catch (error) {
    throw new BackupFault(`${path} is no backup, or was cut off: ${error.message}`)
  }
  const entries = new Map()
  for await (const entry of zip.eachEntry()) entries.set(entry.fileName, entry)
  return { zip, entries }
}

/** Reads a backup through, without touching any database: its manifest, and that every byte is as it was written. */
export async function checkBackup(path, { onBytes } = {}) {
  const { zip, entries } = await entriesOf(path)
  try {
    const [dump, about] = [entries.get(DUMP), entries.get(MANIFEST)]
    if (!dump || !about || about.uncompressedSize > MOST_MANIFEST_BYTES)
      throw new BackupFault(`${path} is no backup of a shop: it has no ${dump ? MANIFEST : DUMP}`)
    const pieces = []
    for await (const piece of await zip.openReadStreamPromise(about)) pieces.push(piece)
    let manifest
    try {
      manifest = JSON.parse(Buffer.concat(pieces).toString('utf8'))
    } catch {
      throw new BackupFault(`${path}: its ${MANIFEST} cannot be read`)
    }
    if (manifest.format !== FORMAT)
      throw new BackupFault(`${path} is of the kind “${manifest.format}”; this release reads “${FORMAT}”`)
    const measured = new Measure(onBytes)
    try {
      await pipeline(await zip.openReadStreamPromise(dump), measured.resume())
    } catch (error) {
      throw new BackupFault(`${path} is damaged: ${error.message}`)
    }
    if (measured.hash.digest('hex') !== manifest.sha256 || measured.bytes !== manifest.bytes)
      throw new BackupFault(`${path} is damaged: its contents are not those that were written`)
    return manifest
  } finally {
    zip.close()
  }
}

/** What a restored shop differs in from its manifest; empty when nothing does. */
async function differences(client, { tables }) {
  const now = await counted(client)
  const wrong = [...new Set([...Object.keys(tables), ...Object.keys(now)])]
    .filter((name) => tables[name] !== now[name])
    .map((name) => `${name} has ${now[name] ?? 'no'} rows, ${tables[name] ?? 'none'} were saved`)
  const { rows } = await client.query(
    `select f.sha256 from file f where f.sha256 <> coalesce((select encode(sha256(string_agg(c.data, ''::bytea order by c.n)), 'hex') from file_chunk c where c.file_id = f.id), '') limit 5`,
  )
  return [...wrong, ...rows.map((r) => `the file ${r.sha256.slice(0, 12)}… is not what it was`)]
}

const isEmpty = (url) =>
  connected(url, async (client) => {
    const { rows } = await client.query("select to_regclass('public.account') is null as none")
    if (rows[0].none) return true
    const { rows: found } = await client.query('select count(*)::int as n from account')
    return found[0].n === 0
  })

/**
 * Puts a backup in place of a database: checked through first, restored beside it, counted and hashed again, and only then
 * given its name. A shop that is there already is kept under another name, and only where that was asked for.
 */
export async function restoreBackup(url, path, { over = false, onBytes, now = new Date() } = {}) {
  const manifest = await checkBackup(path)
  const name = databaseOf(url)
  if (!over && !(await isEmpty(url)))
    throw new BackupFault(
      `there is a shop in ${name} already. Nothing was changed. With --over it is put aside and this one takes its place`,
    )
  const beside = `${name}_restoring`
  const admin = named(url, 'postgres')
  const id = pg.escapeIdentifier
  await connected(admin, async (client) => {
    await client.query(`drop database if exists ${id(beside)}`)
    await client.query(`create database ${id(beside)} template template0 encoding 'UTF8' locale 'C'`)
  })
  const { zip, entries } = await entriesOf(path)
  try {
    const { child, ended } = tool(
      'pg_restore',
      url,
      ['-d', beside, '--no-owner', '--exit-on-error', '--single-transaction'],
      ['pipe', 'ignore', 'pipe'],
    )
    await Promise.all([
      pipeline(await zip.openReadStreamPromise(entries.get(DUMP)), new Measure(onBytes), child.stdin),
      ended,
    ])
    const wrong = await connected(named(url, beside), (client) => differences(client, manifest))
    if (wrong.length > 0) throw new BackupFault(`restored, it is not what was saved: ${wrong.join('; ')}`)
    return await connected(admin, async (client) => {
      const aside = `${name}_before_${now.toISOString().replace(/\D/g, '').slice(0, 14)}`
      const { rows } = await client.query(
        'select count(*)::int as n from pg_stat_activity where datname = $1 and pid <> pg_backend_pid()',
        [name],
      )
      if (rows[0].n > 0)
        throw new BackupFault(
          `${name} is in use by ${rows[0].n} connections. Stop the application, then try again`,
        )
      await client.query('begin')
      await client.query(`alter database ${id(name)} rename to ${id(aside)}`)
      await client.query(`alter database ${id(beside)} rename to ${id(name)}`)
      await client.query('commit')
      return { manifest, aside }
    })
  } catch (error) {
    await connected(admin, (client) => client.query(`drop database if exists ${id(beside)}`)).catch(
      () => undefined,
    )
    throw error
  } finally {
    zip.close()
  }
}

import type { Entry } from '@/core/job/job-state'
import { createHash, randomUUID } from 'node:crypto'
import { createReadStream } from 'node:fs'
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import { buffer } from 'node:stream/consumers'
import { expect, it } from 'vitest'
import { tape } from '@/core/job/tape.testing'
import { smallField } from '@/core/socket/model/field.testing'
import { packJob, unpackJob } from '@/server/job-zip'
import { exportJob, importJob } from '@/server/transfer'
import { keepReference } from './references'
import { addBoard, addLandmark, boardById, landmarksOf, listBoards, removeLandmark } from './boards'
import { describeDatabase, lay, someJob, somebody } from './database.testing'
import { attachToJob, fileChunks, filesOfJob, findFile, storeBytes } from './files'
import {
  closedJobs,
  countOpen,
  createJob,
  customerOf,
  eraseCustomer,
  jobByTag,
  openJobs,
  saveCustomer,
} from './jobs'
import { pool, transaction } from './pool'
import { addSocket, listSockets, socketById } from './sockets'
import { readTape } from './read-tape'
import { layTape } from './tape'
import sharp from 'sharp'

const sha256 = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex')
/** The same job as another shop would send it: its lines have ids that are not here. */
async function anew(zip: Readable): Promise<Readable> {
  const folder = await mkdtemp(join(tmpdir(), 'needle-test-'))
  const { job, findings } = await unpackJob(await buffer(zip), folder)
  if (!job) throw new Error(JSON.stringify(findings))
  const entries = job.entries.map((e) => ({ ...e, id: randomUUID() }))
  const whole = await buffer(
    packJob({ ...job, entries }, ({ sha256: hash }) => createReadStream(join(folder, hash))),
  )
  await rm(folder, { recursive: true })
  return Readable.from([whole])
}
const read = async (zip: Readable) => (await unpackJob(await buffer(zip))).job!
const noPicture = () => Readable.from([])
const fileBytes = (id: string) => buffer(Readable.from(fileChunks(id)))

const finished = (use: string) =>
  tape()
    .put('ticket', { set: { board: 'TW-K61', use, complaint: '100 % dark_ness' } })
    .put('hand-back', { outcome: 'fixed', priceMinor: 1, text: '' })

describeDatabase('jobs', (owner) => {
  it('are made once for the same id, and tagged one after another', async () => {
    const maren = await somebody('Maren')
    const id = randomUUID()
    const tag = await createJob(id, maren.id)
    expect(await createJob(id, maren.id)).toBe(tag)
    expect(tag).toMatch(/^Q-\d{4}$/)
    expect(await createJob(randomUUID(), maren.id)).not.toBe(tag)
    expect((await jobByTag(tag.toLowerCase()))?.id).toBe(id)
    expect((await openJobs(500)).map((j) => j.id)).toContain(id)
  })

  it('that are finished come page by page, each once, the newest first, and are found by their words', async () => {
    const maren = await somebody('Maren')
    const use = `kiosk ${randomUUID()}`
    for (let i = 0; i < 7; i++) {
      const job = await someJob(maren)
      const entries = finished(use).entries.map((e) => ({ ...e, id: randomUUID() }))
      await transaction((db) => layTape(job.id, entries as typeof entries & never, maren.id, db))
    }
    const seen: string[] = []
    let after: { closedAt: string; id: string } | null = null
    for (;;) {
      const page = await closedJobs({ words: use, after, limit: 3 })
      seen.push(...page.map((j) => j.tag))
      const last = page.at(-1)
      if (!last) break
      after = { closedAt: last.closedAt!, id: last.id }
    }
    expect(seen).toHaveLength(7)
    expect(new Set(seen).size).toBe(7)
    expect(await closedJobs({ words: '100 % dark_ness' })).not.toEqual([])
    expect(await closedJobs({ words: 'dark%ness' })).toEqual([])
  })

  it('are listed by index, however many there are', async () => {
    const maren = await somebody('Maren')
    await owner().query(
      `insert into job (id, tag, created_by, closed_at, promised_at)
       select gen_random_uuid(), 'T-' || n || '-' || $2, $1, case when n % 20 > 0 then now() - n * interval '1 hour' end, now() + n * interval '1 hour'
       from generate_series(1, 6000) n`,
      [maren.id, randomUUID().slice(0, 8)],
    )
    await owner().query('analyze job')
    const plan = async (sql: string) =>
      (await owner().query(`explain ${sql}`)).rows.map((r) => r['QUERY PLAN']).join('\n')
    expect(
      await plan(
        'select id from job where closed_at is not null and not practice and (closed_at, id) < (now(), gen_random_uuid()) order by closed_at desc, id desc limit 40',
      ),
    ).toContain('job_closed')
    expect(
      await plan(
        'select id from job where closed_at is null and not practice order by promised_at nulls last, id limit 200',
      ),
    ).toContain('job_open')
    await owner().query("delete from job where tag like 'T-%'")
  })

  it('keep their owner outside the tape, and forget them on request with the signature', async () => {
    const maren = await somebody('Maren')
    const job = await someJob(maren)
    await saveCustomer(job.id, 'Ferry Office', 'quay 2')
    const png = await sharp({
      create: { width: 8, height: 8, channels: 3, background: `#${randomUUID().slice(0, 6)}` },
    })
      .png()
      .toBuffer()
    const file = await transaction(async (db) => {
      const stored = await storeBytes(db, png, 'image/png')
      await attachToJob(db, job.id, stored.sha256, 'signature')
      return stored
    })
    await lay(job, maren, 'consent', {
      risks: [],
      limitMinor: null,
      signature: file.sha256,
      how: 'signed here',
    })
    const customerId = (await jobByTag(job.tag))!.customerId
    expect(await customerOf(customerId)).toEqual({ name: 'Ferry Office', contact: 'quay 2', erased: false })
    await eraseCustomer(job.id)
    expect(await customerOf(customerId)).toEqual({ name: '', contact: '', erased: true })
    expect(await filesOfJob(job.id)).toEqual([])
    const left = await owner().query(
      'select count(*)::int as n from file_chunk c join file f on f.id = c.file_id where f.sha256 = $1',
      [file.sha256],
    )
    expect(left.rows[0].n).toBe(0)
    expect(await readTape(job.id)).toHaveLength(1)
  })

  it('go out as a ZIP and come back equal, as a job of their own', async () => {
    const maren = await somebody('Maren')
    const job = await someJob(maren)
    const socket = { ...smallField(), id: `small-${randomUUID().slice(0, 8)}`, name: `small ${randomUUID()}` }
    await addSocket(socket, 'test')
    await saveCustomer(job.id, 'Ferry Office', 'quay 2')
    await lay(job, maren, 'ticket', { set: { board: 'x', socketId: socket.id } })
    const png = await sharp({ create: { width: 30, height: 20, channels: 3, background: '#842' } })
      .png()
      .toBuffer()
    const file = await transaction(async (db) => {
      const stored = await storeBytes(db, png, 'image/png')
      await attachToJob(db, job.id, stored.sha256, 'photo')
      return stored
    })
    await lay(job, maren, 'photo', {
      file: file.sha256,
      name: 'a.png',
      type: file.type,
      bytes: file.bytes,
      caption: 'above',
    })
    await lay(job, maren, 'mark', { contacts: ['A1'], mark: { kind: 'low', heightMm: -0.12 } })

    const zip = await exportJob((await jobByTag(job.tag))!, true)
    const id = randomUUID()
    const done = await importJob(await anew(zip), id, maren)
    expect(done).toMatchObject({ ok: true, known: false })
    const back = (await jobByTag((done as { tag: string }).tag))!
    expect(back.tag).not.toBe(job.tag)
    const plain = async (of: string) => (await readTape(of)).map(({ id: _, ...entry }) => entry)
    expect(await plain(back.id)).toEqual(await plain(job.id))
    expect(await filesOfJob(back.id)).toEqual(await filesOfJob(job.id))
    expect(await customerOf(back.customerId)).toMatchObject({ name: 'Ferry Office' })
    expect(back.socketId).toBe(socket.id)

    const without = await exportJob((await jobByTag(job.tag))!, false)
    const other = await importJob(await anew(without), randomUUID(), maren)
    expect((await jobByTag((other as { tag: string }).tag))!.customerId).toBeNull()
    expect(await importJob(Readable.from([Buffer.from([1, 2, 3])]), randomUUID(), maren)).toMatchObject({
      ok: false,
    })
  })

  it('that are here already are recognised when they are read in, and never doubled', async () => {
    const maren = await somebody('Maren')
    const job = await someJob(maren)
    await lay(job, maren, 'note', { text: 'one' })
    const zip = await buffer(await exportJob(job, true))
    const id = randomUUID()
    expect(await importJob(Readable.from([zip]), id, maren)).toEqual({ ok: true, tag: job.tag, known: true })
    await lay(job, maren, 'note', { text: 'two' })
    expect(await importJob(Readable.from([zip]), id, maren)).toEqual({ ok: true, tag: job.tag, known: true })
    const { rows } = await pool().query('select 1 from job where id = $1', [id])
    expect(rows).toEqual([])
    // A ZIP that goes on where this one ends, or otherwise, is refused: which is true, nobody can say.
    const there = (await unpackJob(zip)).job!
    const more = [...there.entries, { ...there.entries[0]!, id: randomUUID(), seq: 2 }]
    const longer = packJob(
      { ...there, entries: [...more, { ...more[1]!, id: randomUUID(), seq: 3 }] },
      noPicture,
    )
    expect(await importJob(longer, randomUUID(), maren)).toMatchObject({
      ok: false,
      findings: [{ text: expect.stringMatching(/differ from line 2 on/) }],
    })
  })

  it('are refused without leaving a job or a socket behind', async () => {
    const maren = await somebody('Maren')
    const job = await someJob(maren)
    const socket = { ...smallField(), id: `small-${randomUUID().slice(0, 8)}`, name: `small ${randomUUID()}` }
    await addSocket(socket, 'test')
    await lay(job, maren, 'ticket', { set: { board: 'x', socketId: socket.id } })
    const there = await read(await exportJob((await jobByTag(job.tag))!, true))
    const clash = {
      ...there,
      socket: { ...there.socket!, pitchMm: 2, contacts: there.socket!.contacts.slice(1) },
    }
    const id = randomUUID()
    expect(await importJob(await anew(packJob(clash, noPicture)), id, maren)).toMatchObject({
      ok: false,
      findings: [{ path: 'socket.json' }],
    })
    expect((await pool().query('select 1 from job where id = $1', [id])).rows).toEqual([])
    // What a transaction reads and is rolled back is not kept in the process.
    const ghost = { ...socket, id: `ghost-${randomUUID().slice(0, 8)}`, name: `ghost ${randomUUID()}` }
    await transaction(async (db) => {
      await addSocket(ghost, 'test', db)
      expect(await socketById(ghost.id, db)).not.toBeNull()
      throw new Error('rolled back')
    }).catch(() => undefined)
    expect(await socketById(ghost.id)).toBeNull()
  })

  it('lose where their pictures were taken, and pictures that are none are refused', async () => {
    const maren = await somebody('Maren')
    const job = await someJob(maren)
    await lay(job, maren, 'note', { text: 'x' })
    const there = await read(await exportJob(job, true))
    const withPicture = (bytes: Uint8Array, type: string) => {
      const hash = sha256(bytes)
      const photo = {
        ...there.entries[0]!,
        seq: 2,
        id: randomUUID(),
        kind: 'photo',
        body: { file: hash, name: 'a', type, bytes: bytes.length, caption: '' },
      } as unknown as Entry
      return anew(
        packJob(
          {
            ...there,
            entries: [...there.entries, photo],
            files: [{ sha256: hash, type, purpose: 'photo', bytes: bytes.length }],
          },
          () => Readable.from([Buffer.from(bytes)]),
        ),
      )
    }
    const jpeg = await sharp({ create: { width: 30, height: 20, channels: 3, background: '#842' } })
      .jpeg()
      .withExif({ IFD3: { GPSLatitude: '59/1 12/1 0/1', GPSLatitudeRef: 'N' } })
      .toBuffer()
    const done = await importJob(await withPicture(new Uint8Array(jpeg), 'image/jpeg'), randomUUID(), maren)
    const back = (await jobByTag((done as { tag: string }).tag))!
    const [kept] = await filesOfJob(back.id)
    const bytes = await fileBytes((await findFile({ jobId: back.id }, kept!.sha256))!.id)
    expect((await sharp(bytes).metadata()).exif).toBeUndefined()
    expect((await readTape(back.id))[1]).toMatchObject({ body: { file: kept!.sha256, bytes: bytes.length } })
    const svg = new TextEncoder().encode('<svg xmlns="http://www.w3.org/2000/svg"/>')
    expect(await importJob(await withPicture(svg, 'image/png'), randomUUID(), maren)).toMatchObject({
      ok: false,
      findings: [{ text: expect.stringMatching(/not the image\/png/) }],
    })
  })

  it('that were begun by mistake leave the bench, and stand in no record', async () => {
    const maren = await somebody('Maren')
    const job = await someJob(maren)
    const use = `by mistake ${randomUUID()}`
    await lay(job, maren, 'ticket', { set: { use } })
    await lay(job, maren, 'hand-back', { outcome: 'withdrawn', priceMinor: null, text: '' })
    expect((await openJobs(500)).map((j) => j.id)).not.toContain(job.id)
    expect(await closedJobs({ words: use })).toEqual([])
    expect((await jobByTag(job.tag))?.outcome).toBe('withdrawn')
  })

  it('come page by page on the bench, each once, and are all counted', async () => {
    const maren = await somebody('Maren')
    const made: string[] = []
    for (let i = 0; i < 5; i++) {
      const job = await someJob(maren)
      made.push(job.id)
      if (i < 3) await lay(job, maren, 'ticket', { set: { promisedAt: `2026-12-0${i + 1}T09:00:00.000Z` } })
    }
    const seen: string[] = []
    let after: { promisedAt: string | null; id: string } | null = null
    for (;;) {
      const page = await openJobs(2, after)
      if (page.length === 0) break
      seen.push(...page.map((j) => j.id))
      after = { promisedAt: page.at(-1)!.promisedAt, id: page.at(-1)!.id }
    }
    expect(new Set(seen).size).toBe(seen.length)
    expect(await countOpen()).toBe(seen.length)
    for (const id of made) expect(seen).toContain(id)
  })
})

describeDatabase('the library', () => {
  it('keeps sockets as they were read in, by name once', async () => {
    const socket = { ...smallField(), id: randomUUID(), name: `S ${randomUUID()}` }
    await addSocket(socket, 'CSV')
    expect(await socketById(socket.id)).toEqual(socket)
    expect(await listSockets()).toContainEqual({
      id: socket.id,
      name: socket.name,
      kind: 'land-grid',
      pitchMm: 1,
      contactCount: 60,
      source: 'CSV',
      boards: 0,
    })
    await expect(addSocket({ ...socket, id: randomUUID() }, 'CSV')).rejects.toMatchObject({ code: '23505' })
    expect(await socketById('nothing')).toBeNull()
    expect(await socketById(null)).toBeNull()
  })
  it('keeps boards with where things are', async () => {
    const id = randomUUID()
    await addBoard({ id, maker: 'Tarnworks', name: id, revision: '', socketId: null, notes: 'n' })
    await addLandmark(id, 'coin cell', 'below the slot', 'a card', null)
    expect(await boardById(id)).toMatchObject({ name: id, socketName: null })
    expect((await listBoards()).find((b) => b.id === id)).toMatchObject({ landmarks: 1 })
    const rails = { chipset: { ohmsOut: 92, ohmsIn: null, volts: 1.05 } }
    await keepReference(id, 'rails', { name: 'a good one', rails })
    expect(await boardById(id)).toMatchObject({ rails: [{ rail: 'chipset', ohmsOut: 92 }] })
    expect((await listBoards()).find((b) => b.id === id)).not.toHaveProperty('reference')
    const [mark] = await landmarksOf(id)
    expect(mark).toMatchObject({ what: 'coin cell', blockedBy: 'a card' })
    await removeLandmark(randomUUID(), mark!.id)
    expect(await landmarksOf(id)).toHaveLength(1)
    await removeLandmark(id, mark!.id)
    expect(await landmarksOf(id)).toEqual([])
  })
})

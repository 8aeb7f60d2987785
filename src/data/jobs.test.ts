import { randomUUID } from 'node:crypto'
import { expect, it } from 'vitest'
import { tape } from '@/core/job/tape.testing'
import { smallField } from '@/core/socket/field.testing'
import { exportJob, importJob } from '@/stations/job/transfer'
import { addBoard, addLandmark, boardById, landmarksOf, listBoards, removeLandmark } from './boards'
import { describeDatabase, lay, someJob, somebody } from './database.testing'
import { attachToJob, filesOfJob, storePicture } from './files'
import { closedJobs, createJob, customerOf, eraseCustomer, jobByTag, openJobs, saveCustomer } from './jobs'
import { transaction } from './pool'
import { addSocket, listSockets, socketById } from './sockets'
import { layTape, readTape } from './tape'
import sharp from 'sharp'

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
    const file = await storePicture(new Blob([new Uint8Array(png)]).stream(), (db, f) =>
      attachToJob(db, job.id, f.sha256, 'signature'),
    )
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
    const file = await storePicture(new Blob([new Uint8Array(png)]).stream(), (db, f) =>
      attachToJob(db, job.id, f.sha256, 'photo'),
    )
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
    const done = await importJob(zip, id, maren)
    expect(done).toMatchObject({ ok: true })
    expect(await importJob(zip, id, maren)).toEqual(done)
    const back = (await jobByTag((done as { tag: string }).tag))!
    expect(back.tag).not.toBe(job.tag)
    expect(await readTape(back.id)).toEqual(await readTape(job.id))
    expect(await filesOfJob(back.id)).toEqual(await filesOfJob(job.id))
    expect(await customerOf(back.customerId)).toMatchObject({ name: 'Ferry Office' })
    expect(back.socketId).toBe(socket.id)

    const without = await importJob(await exportJob((await jobByTag(job.tag))!, false), randomUUID(), maren)
    expect((await jobByTag((without as { tag: string }).tag))!.customerId).toBeNull()
    expect(await importJob(new Uint8Array([1, 2, 3]), randomUUID(), maren)).toMatchObject({ ok: false })
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
    const [mark] = await landmarksOf(id)
    expect(mark).toMatchObject({ what: 'coin cell', blockedBy: 'a card' })
    await removeLandmark(randomUUID(), mark!.id)
    expect(await landmarksOf(id)).toHaveLength(1)
    await removeLandmark(id, mark!.id)
    expect(await landmarksOf(id)).toEqual([])
  })
})

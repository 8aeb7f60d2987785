import type { Bodies, Kind } from '@/core/slices'
import type { Outcome } from '@/core/hand-back/bodies'
import { struckBy } from '@/core/tape/line'
import { randomUUID } from 'node:crypto'
import { expect, it } from 'vitest'
import { smallField } from '@/core/socket/model/field.testing'
import { describeDatabase, lay, line, someJob, somebody, stateOf } from './database.testing'
import { jobRecords } from './job-records'
import { jobNow, keptState, SNAPSHOT_EVERY } from './job-now'
import { repairRecord } from './repair-record'
import { strokeRecord } from './stroke-record'
import { pool, transaction } from './pool'
import { addSocket } from './sockets'
import { readTape } from './read-tape'
import { appendEntry, layTape, refold } from './tape'
import { tape as writeTape } from '@/core/job/tape.testing'

const note = (text: string, basis = 0) => line('note', { text }, basis)

describeDatabase('the tape', (owner) => {
  it('numbers lines from one and keeps the state beside them', async () => {
    const maren = await somebody('Maren')
    const job = await someJob(maren)
    await lay(job, maren, 'ticket', {
      set: { board: 'TW-K61', revision: 'B', use: 'kiosk', complaint: 'dark' },
    })
    await lay(job, maren, 'cell', { volts: 3 })
    const tape = await readTape(job.id)
    expect(tape.map((e) => [e.seq, e.by, e.kind])).toEqual([
      [1, maren.name, 'ticket'],
      [2, maren.name, 'cell'],
    ])
    expect((await jobNow(job.id)).state).toEqual(await stateOf(job))
    const { rows } = await pool().query('select board, words, seq, bench from job where id = $1', [job.id])
    expect(rows[0]).toMatchObject({
      board: 'TW-K61 rev B',
      words: 'kiosk: dark',
      seq: 2,
      bench: { lamp: 'do not power' },
    })
  })

  it('cannot be changed, not even by its owner', async () => {
    const maren = await somebody('Maren')
    const job = await someJob(maren)
    await lay(job, maren, 'note', { text: 'as it was' })
    const refused = [
      ["update tape_entry set body = '{}' where job_id = $1", [job.id]],
      ['delete from tape_entry where job_id = $1', [job.id]],
      ['truncate tape_entry', []],
    ] as const
    for (const [sql, values] of refused) {
      await expect(owner().query(sql, [...values])).rejects.toThrow(/the tape is append-only/)
      await expect(pool().query(sql, [...values])).rejects.toThrow(/permission denied|must be owner/)
    }
    expect((await readTape(job.id))[0]).toMatchObject({ body: { text: 'as it was' } })
  })

  it('answers the same id once, and refuses it with other words', async () => {
    const maren = await somebody('Maren')
    const job = await someJob(maren)
    const first = note('once')
    expect(await appendEntry(job.id, maren, first)).toMatchObject({ result: 'saved' })
    expect(await appendEntry(job.id, maren, first)).toMatchObject({ result: 'saved' })
    expect(await appendEntry(job.id, maren, { ...first, body: { text: 'else' } })).toEqual({
      result: 'other body',
    })
    expect(await readTape(job.id)).toHaveLength(1)
  })

  it('numbers without a gap when many write at once', async () => {
    const maren = await somebody('Maren')
    const job = await someJob(maren)
    await Promise.all(Array.from({ length: 20 }, (_, i) => appendEntry(job.id, maren, note(`line ${i}`))))
    const tape = await readTape(job.id)
    expect(tape.map((e) => e.seq)).toEqual(Array.from({ length: 20 }, (_, i) => i + 1))
    expect((await jobNow(job.id)).state).toEqual(await stateOf(job))
  })

  it('takes a line that is sent many times at once just once', async () => {
    const maren = await somebody('Maren')
    const job = await someJob(maren)
    const first = note('once')
    const answers = await Promise.all(Array.from({ length: 10 }, () => appendEntry(job.id, maren, first)))
    expect(answers.map((a) => a.result)).toEqual(Array(10).fill('saved'))
    expect(await readTape(job.id)).toHaveLength(1)
  })

  it('refuses contacts the socket does not have, and times from the future', async () => {
    const maren = await somebody('Maren')
    const job = await someJob(maren)
    const socket = { ...smallField(), id: randomUUID(), name: `S ${randomUUID()}` }
    await addSocket(socket, 'test')
    await lay(job, maren, 'ticket', { set: { socketId: socket.id } })
    const mark = (name: string, touches?: string) =>
      line('mark', { contacts: [name], mark: { kind: 'touching', ...(touches ? { touches } : {}) } }, 1)
    expect(await appendEntry(job.id, maren, mark('S30'))).toMatchObject({
      result: 'refused',
      field: 'contact',
      text: expect.stringMatching(/has no contact S30/),
    })
    expect(await appendEntry(job.id, maren, mark('A1', 'Z9'))).toMatchObject({ result: 'refused' })
    const late = { ...note('tomorrow', 1), at: new Date(Date.now() + 86_400_000).toISOString() }
    await appendEntry(job.id, maren, late)
    const saved = (await readTape(job.id)).at(-1)!
    expect(Date.parse(saved.at)).toBeLessThan(Date.now() + 120_000)
  })

  it('a line of another job cannot be struck', async () => {
    const maren = await somebody('Maren')
    const [one, two] = [await someJob(maren), await someJob(maren)]
    await lay(one, maren, 'note', { text: 'one' })
    expect(await appendEntry(two.id, maren, line('strike', { why: 'x' }, 0, 1))).toMatchObject({
      result: 'refused',
    })
    expect(await appendEntry(randomUUID(), maren, note('nowhere'))).toMatchObject({
      result: 'refused',
      field: 'job',
    })
  })

  it('shows two people who write about the same contact to each other', async () => {
    const [maren, tolliver] = await Promise.all([somebody('Maren'), somebody('Tolliver')])
    const job = await someJob(maren)
    await lay(job, maren, 'note', { text: 'begun' })
    const mark = (kind: 'low' | 'high') => line('mark', { contacts: ['M31'], mark: { kind } }, 1)
    expect(await appendEntry(job.id, maren, mark('low'))).toMatchObject({ result: 'saved' })
    const late = mark('high')
    expect(await appendEntry(job.id, tolliver, late)).toMatchObject({
      result: 'conflict',
      with: { by: maren.name, seq: 2 },
    })
    expect(
      await appendEntry(job.id, tolliver, line('mark', { contacts: ['M30'], mark: { kind: 'low' } }, 1)),
    ).toMatchObject({ result: 'saved' })
    expect(await appendEntry(job.id, tolliver, { ...late, basis: 3 })).toMatchObject({ result: 'saved' })
    expect(await readTape(job.id)).toHaveLength(4)
  })

  it('refuses to strike what is not there and to hand back what is held', async () => {
    const maren = await somebody('Maren')
    const job = await someJob(maren)
    await lay(job, maren, 'note', { text: 'x' })
    expect(await appendEntry(job.id, maren, line('strike', { why: 'y' }, 1, 7))).toMatchObject({
      result: 'refused',
      field: 'strikes',
    })
    const handBack = (outcome: 'fixed' | 'parked') =>
      line('hand-back', { outcome, priceMinor: null, text: '' }, 9)
    expect(await appendEntry(job.id, maren, handBack('fixed'))).toMatchObject({
      result: 'refused',
      field: 'outcome',
      text: expect.stringMatching(/has not signed/),
    })
    expect(await appendEntry(job.id, maren, handBack('parked'))).toMatchObject({ result: 'saved' })
    const { rows } = await pool().query('select outcome, closed_at from job where id = $1', [job.id])
    expect(rows[0]).toEqual({ outcome: 'parked', closed_at: null })
  })

  it('keeps line and state together when the server dies in between', async () => {
    const maren = await somebody('Maren')
    const job = await someJob(maren)
    await lay(job, maren, 'cell', { volts: 3 })
    const dying = transaction(async (db) => {
      await layTape(
        job.id,
        writeTape().put('note', { text: 'x' }).put('cell', { volts: 1 }).entries.slice(1),
        maren.id,
        db,
      )
      const { rows } = await db.query('select pg_backend_pid() as pid')
      await owner().query('select pg_terminate_backend($1)', [rows[0].pid])
      await db.query('select 1')
    })
    await expect(dying).rejects.toThrow()
    expect(await readTape(job.id)).toHaveLength(1)
    expect((await jobNow(job.id)).state.board).toMatchObject({ cell: { volts: 3 } })
    await lay(job, maren, 'cell', { volts: 2 })
    expect((await jobNow(job.id)).state).toEqual(await stateOf(job))
  })

  it('rebuilds the state from the tape alone', async () => {
    const maren = await somebody('Maren')
    const job = await someJob(maren)
    const whole = writeTape()
      .put('ticket', { set: { board: 'x', limitMinor: 500 } })
      .put('mark', { contacts: ['A1', 'A2'], mark: { kind: 'low', heightMm: -0.1 } })
      .put('stroke', {
        contact: 'A1',
        technique: 'lift',
        tool: 'needle',
        from: null,
        strokes: 2,
        result: 'snapped',
        predictedSnaps: 0.1,
      })
      .put('strike', { why: 'wrong contact' }, 3)
    const laid = await transaction((db) => layTape(job.id, whole.entries, maren.id, db))
    await owner().query("update job set board = 'lost' where id = $1", [job.id])
    await owner().query("update job_snapshot set state = '{}' where job_id = $1", [job.id])
    const again = await transaction((db) => refold(job.id, db))
    expect(again).toEqual(laid)
    expect((await jobNow(job.id)).state).toEqual(await stateOf(job))
  })

  it('keeps a snapshot now and then, and folds the lines since on it', async () => {
    const maren = await somebody('Maren')
    const job = await someJob(maren)
    const snapshot = async () =>
      (await owner().query('select seq from job_snapshot where job_id = $1', [job.id])).rows[0]?.seq
    for (let i = 1; i < SNAPSHOT_EVERY; i++)
      await appendEntry(job.id, maren, line('cell', { volts: i / 100 }, i))
    expect(await snapshot()).toBeUndefined()
    await appendEntry(job.id, maren, note('due', SNAPSHOT_EVERY))
    expect(await snapshot()).toBe(SNAPSHOT_EVERY)
    await appendEntry(job.id, maren, line('claim', { text: 'worked yesterday' }, SNAPSHOT_EVERY))
    expect(await snapshot()).toBe(SNAPSHOT_EVERY)
    expect(await keptState(job.id)).toEqual(await stateOf(job))
    // A strike is a matter of the whole tape: what is kept then holds it.
    await appendEntry(job.id, maren, line('strike', { why: 'slipped' }, SNAPSHOT_EVERY + 1, 1))
    expect(await snapshot()).toBe(SNAPSHOT_EVERY + 2)
    expect(await keptState(job.id)).toEqual(await stateOf(job))
    expect((await jobNow(job.id)).state).toEqual(await stateOf(job))
  })

  it('remembers nothing that was not written', async () => {
    const maren = await somebody('Maren')
    const job = await someJob(maren)
    await lay(job, maren, 'cell', { volts: 3 })
    const failing = transaction(async (db) => {
      await layTape(
        job.id,
        writeTape().put('note', { text: 'x' }).put('cell', { volts: 1 }).entries.slice(1),
        maren.id,
        db,
      )
      await jobNow(job.id, db)
      throw new Error('after all not')
    })
    await expect(failing).rejects.toThrow('after all not')
    await lay(job, maren, 'note', { text: 'the second line' })
    expect((await jobNow(job.id)).state).toEqual(await stateOf(job))
    expect((await jobNow(job.id)).state.board.cell).toMatchObject({ volts: 3 })
  })

  it('numbers from the tape, whatever is kept beside it, while it is rebuilt by another', async () => {
    const maren = await somebody('Maren')
    const job = await someJob(maren)
    const rebuild = async () => {
      for (let i = 0; i < 12; i++) await transaction((db) => refold(job.id, db))
    }
    const write = Promise.all(Array.from({ length: 12 }, (_, i) => appendEntry(job.id, maren, note(`${i}`))))
    await Promise.all([rebuild(), write])
    await owner().query('update job set seq = 3 where id = $1', [job.id])
    expect(await appendEntry(job.id, maren, note('after'))).toMatchObject({ result: 'saved' })
    expect((await readTape(job.id)).map((e) => e.seq)).toEqual(Array.from({ length: 13 }, (_, i) => i + 1))
    expect((await jobNow(job.id)).state).toEqual(await stateOf(job))
  })

  it('counts a line again whose strike was struck, in SQL as in the core', async () => {
    const maren = await somebody('Maren')
    const job = await someJob(maren)
    const t = writeTape()
      .put('note', { text: 'a' })
      .put('strike', { why: 'undo' }, 1)
      .put('strike', { why: 'redo' }, 2)
      .put('note', { text: 'b' })
      .put('strike', { why: 'undo' }, 4)
      .put('strike', { why: 'again' }, 4)
      .put('strike', { why: 'redo' }, 5)
    await transaction((db) => layTape(job.id, t.entries, maren.id, db))
    const { rows } = await pool().query<{ seq: number }>(
      'select seq from tape_standing where job_id = $1 order by seq',
      [job.id],
    )
    const struck = struckBy(t.entries)
    expect(rows.map((r) => r.seq)).toEqual(t.entries.map((e) => e.seq).filter((seq) => !struck.has(seq)))
  })

  it('folds anew what was kept in another shape: it may lack what lines are added to now', async () => {
    const maren = await somebody('Maren')
    const job = await someJob(maren)
    await lay(job, maren, 'ticket', { set: { promisedAt: '2026-12-01T12:00:00.000Z' }, kept: 0.8 })
    await transaction((db) => refold(job.id, db))
    expect((await keptState(job.id))?.intake.promises).toHaveLength(1)
    await owner().query(
      `update job_snapshot set shape = shape + 1, state = state #- '{intake,promises}' where job_id = $1`,
      [job.id],
    )
    expect(await keptState(job.id)).toBeNull()
    await transaction((db) => refold(job.id, db))
    expect((await keptState(job.id))?.intake.promises).toHaveLength(1)
  })

  it('counts repairs that took and that had to be made again, of jobs that ended fixed', async () => {
    const maren = await somebody('Maren')
    const of = async (fault: string) =>
      (await repairRecord()).find((r) => r.fault === fault) ?? { tried: 0, took: 0 }
    const before = await of('cell holder')
    const ended = async (t: ReturnType<typeof writeTape>, outcome: Outcome) => {
      const job = await someJob(maren)
      t.put('hand-back', { outcome, priceMinor: null, text: '' })
      await transaction((db) => layTape(job.id, t.entries, maren.id, db))
    }
    const worked = async (outcome: Outcome, times: number) => {
      const t = writeTape()
      for (let i = 0; i < times; i++) t.put('mended', { fault: 'cell holder' })
      await ended(t, outcome)
    }
    // In SQL as in the core: what a job leaves for the record is counted by the same rule.
    const recorded = async () => {
      const odds = (await jobRecords(1000)).flatMap((r) => r.odds)
      const of = odds.filter((o) => o.of === 'repairs' && o.kind === 'cell holder')
      return { tried: of.length, took: of.filter((o) => o.came).length }
    }
    const gained = async () => {
      const now = await of('cell holder')
      expect(await recorded()).toEqual({ tried: now.tried, took: now.took })
      return [now.tried - before.tried, now.took - before.took]
    }
    await worked('fixed', 2)
    expect(await gained()).toEqual([2, 1])
    await worked('returned unrepaired', 1)
    expect(await gained()).toEqual([2, 1])
    await worked('returned unrepaired', 3)
    expect(await gained()).toEqual([4, 1])
    await worked('withdrawn', 3)
    expect(await gained()).toEqual([4, 1])
    await ended(
      writeTape().put('mended', { fault: 'cell holder' }).put('strike', { why: 'undo' }, 1),
      'fixed',
    )
    expect(await gained()).toEqual([4, 1])
  })

  it('keeps the tally of strokes beside the state, struck and struck again', async () => {
    const maren = await somebody('Maren')
    const job = await someJob(maren)
    const technique = `lift ${randomUUID().slice(0, 8)}`
    const tally = async () => (await strokeRecord()).find((t) => t.technique === technique)
    await lay(job, maren, 'stroke', {
      contact: 'A1',
      technique,
      tool: 'needle',
      from: null,
      strokes: 1,
      result: 'snapped',
      predictedSnaps: 0.1,
      snapFactor: 2,
    })
    expect(await tally()).toMatchObject({ tried: 1, snapped: 1, predicted: 0.05 })
    await appendEntry(job.id, maren, line('strike', { why: 'undo' }, 1, 1))
    expect(await tally()).toBeUndefined()
    await appendEntry(job.id, maren, line('strike', { why: 'redo' }, 2, 2))
    expect(await tally()).toMatchObject({ tried: 1 })
    await owner().query('delete from stroke_tally where job_id = $1', [job.id])
    await transaction((db) => refold(job.id, db))
    expect(await tally()).toMatchObject({ tried: 1 })
  })

  it('checks a line as an import does: what it answers, and what hangs on the job', async () => {
    const maren = await somebody('Maren')
    const job = await someJob(maren)
    await lay(job, maren, 'note', { text: 'x' })
    const refused = async <K extends Kind>(kind: K, body: Bodies[K]) =>
      (await appendEntry(job.id, maren, line(kind, body, 9))) as { result: string; field: string }
    expect(await refused('claim checked', { claim: 1, verdict: 'holds', how: '' })).toMatchObject({
      result: 'refused',
      field: 'claim',
    })
    expect(await refused('accounted', { item: '1/0', where: 'x' })).toMatchObject({ field: 'item' })
    expect(
      await refused('photo', { file: 'ab'.repeat(32), name: '', type: 'image/png', bytes: 1, caption: '' }),
    ).toMatchObject({ field: 'file' })
    await lay(job, maren, 'missing', { what: 'a screw', from: 'bench' })
    expect(await refused('accounted', { item: '2/1', where: 'x' })).toMatchObject({ field: 'item' })
    expect(await refused('accounted', { item: '2/0', where: 'x' })).toMatchObject({ result: 'saved' })
  })

  it('asks before a test passes that cannot have been run, and before a bill over what was agreed', async () => {
    const maren = await somebody('Maren')
    const job = await someJob(maren)
    await lay(job, maren, 'consent', { risks: [], limitMinor: 100, signature: null, how: 'by telephone' })
    const pass = { test: 'system', result: 'pass', reading: '' } as const
    expect(await appendEntry(job.id, maren, line('proof', pass, 9))).toMatchObject({
      result: 'refused',
      field: 'despite',
      text: expect.stringMatching(/may not be powered as it stands/),
    })
    expect(
      await appendEntry(
        job.id,
        maren,
        line('proof', { ...pass, despite: ['may not be powered as it stands'] }, 9),
      ),
    ).toMatchObject({ result: 'saved' })
    const sent = { outcome: 'sent out', priceMinor: 500, text: '' } as const
    expect(await appendEntry(job.id, maren, line('hand-back', sent, 9))).toMatchObject({
      result: 'refused',
      text: expect.stringMatching(/over what was agreed/),
    })
  })
})

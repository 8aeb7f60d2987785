import type { Entry } from '@/core/job/job-state'
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { noReferences } from '@/core/job/references'
import { usualFigures } from '@/core/socket/straighten/bench-figures'
import { smallField } from '@/core/socket/model/field.testing'
import { nothingLearned } from '@/core/record/learned'
import { createJobStore } from './job-store'
import type { Surroundings } from '@/server/surroundings'
import type { JobSeed } from './job-store'
import type { Unsent } from './outbox'

/** What the browser keeps of lines not saved yet. */
const kept = vi.hoisted(() => new Map<string, Unsent>())
vi.mock('./outbox', () => ({
  keepUnsent: async (u: Unsent) => void kept.set(u.id, u),
  dropUnsent: async (id: string) => void kept.delete(id),
  unsentOf: async () => [...kept.values()],
}))

const nothingRound: Surroundings = {
  socket: null,
  landmarks: [],
  setting: {
    references: noReferences,
    earlier: [],
    shelf: [],
    own: {},
    record: [],
    repairs: [],
    figures: usualFigures,
  },
  donors: [],
  benchCpus: [],
  learned: nothingLearned,
}
const seed: JobSeed = {
  tag: 'Q-0001',
  me: 'Maren',
  entries: [],
  ...nothingRound,
  simulated: 'no',
  nextStep: null,
  keptBelief: null,
  customer: null,
}

/** A server that keeps a tape, and can be told to be away, signed out, or of another mind. */
class Server {
  readonly tape: Entry[] = []
  mood: 'well' | 'away' | 'down' | 'signed out' | 'refuses' | 'conflict' | 'broken' = 'well'
  asked = 0
  round: Surroundings = nothingRound

  readonly fetch = async (url: string | URL | Request, init?: RequestInit): Promise<Response> => {
    this.asked++
    if (this.mood === 'away') throw new TypeError('fetch failed')
    if (this.mood === 'down')
      return Response.json({ error: { field: '', text: 'no database' } }, { status: 503 })
    if (this.mood === 'broken')
      return Response.json({ error: { field: '', text: 'a fault of ours' } }, { status: 500 })
    if (this.mood === 'signed out')
      return Response.json({ error: { field: '', text: 'who?' } }, { status: 401 })
    if (String(url).endsWith('/surroundings')) return Response.json(this.round)
    if (init?.method !== 'POST') {
      const after = Number(new URL(String(url), 'http://x').searchParams.get('after'))
      return Response.json({ entries: this.tape.filter((e) => e.seq > after) })
    }
    const sent = JSON.parse(String(init.body)) as Entry & { basis: number }
    if (this.mood === 'refuses')
      return Response.json({ error: { field: 'text', text: 'that makes no sense' } }, { status: 422 })
    if (this.mood === 'conflict')
      return Response.json(
        {
          error: { field: 'basis', text: 'Ines has just written about the same thing.' },
          entries: this.tape,
        },
        { status: 409 },
      )
    if (!this.tape.some((e) => e.id === sent.id)) this.add(sent)
    return Response.json({ entries: this.tape.filter((e) => e.seq > sent.basis) })
  }

  add(entry: Partial<Entry>): void {
    this.tape.push({
      at: '2026-11-24T09:00:00.000Z',
      by: 'Maren',
      v: 1,
      strikes: null,
      id: `other ${this.tape.length}`,
      ...entry,
      seq: this.tape.length + 1,
    } as Entry)
  }
}

let server: Server
beforeEach(() => {
  vi.useFakeTimers()
  kept.clear()
  server = new Server()
  vi.stubGlobal('fetch', server.fetch)
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})
const settle = (ms = 0) => vi.advanceTimersByTimeAsync(ms)
const mark = (heightMm: number) => ({ contacts: ['M31'], mark: { kind: 'low' as const, heightMm } })

describe('the job as one browser sees it', () => {
  it('shows a line at once and has it saved soon after', async () => {
    const job = createJobStore(seed)
    job.getState().append('cell', { volts: 3 })
    expect(job.getState().state.board.cell?.volts).toBe(3)
    expect(job.getState().lines).toHaveLength(1)
    await settle()
    expect(server.tape).toMatchObject([{ kind: 'cell', body: { volts: 3 } }])
    expect(job.getState()).toMatchObject({ unsent: [], line: 'open', entries: [{ seq: 1 }] })
  })

  it('sends a line with the odds that stood beside it', async () => {
    const repairs = [{ fault: 'slot B', tried: 20, took: 4 }]
    const job = createJobStore({ ...seed, setting: { ...seed.setting, repairs } })
    job.getState().append('mended', { fault: 'slot A' })
    await settle()
    expect(server.tape).toMatchObject([{ kind: 'mended', body: { fault: 'slot A', takes: 0.46 } }])
  })

  it.each(['away', 'down'] as const)(
    'keeps what was entered while the server is %s and sends it by itself, once, in order',
    async (mood) => {
      const job = createJobStore(seed)
      server.mood = mood
      job.getState().append('cell', { volts: 3 })
      job.getState().append('note', { text: 'later' })
      await settle(3500)
      expect(job.getState()).toMatchObject({ line: 'lost', entries: [] })
      expect(job.getState().lines).toHaveLength(2)
      server.mood = 'well'
      await settle(20_000)
      expect(server.tape.map((e) => e.kind)).toEqual(['cell', 'note'])
      expect(job.getState()).toMatchObject({ line: 'open', unsent: [] })
    },
  )

  it('waits with its lines while the sign-in has run out', async () => {
    const job = createJobStore(seed)
    server.mood = 'signed out'
    job.getState().append('note', { text: 'x' })
    await settle(60_000)
    expect(job.getState()).toMatchObject({ line: 'signed out', entries: [] })
    expect(job.getState().unsent).toHaveLength(1)
    server.mood = 'well'
    await job.getState().send()
    expect(server.tape).toHaveLength(1)
  })

  it('keeps a refused line in sight with its reason, out of the state, until it is dropped or insisted on', async () => {
    const job = createJobStore(seed)
    server.mood = 'refuses'
    const id = job.getState().append('cell', { volts: 3 })
    await settle()
    expect(job.getState().unsent[0]).toMatchObject({
      id,
      trouble: { kind: 'refused', say: 'that makes no sense' },
    })
    expect(job.getState().state.board.cell).toBeNull()
    server.mood = 'well'
    job.getState().retryAnyway(id)
    await settle()
    expect(job.getState().state.board.cell?.volts).toBe(3)
    server.mood = 'refuses'
    const other = job.getState().append('note', { text: 'x' })
    await settle()
    job.getState().discard(other)
    expect(job.getState().unsent).toEqual([])
  })

  it('shows a conflict with what the other wrote, and enters mine after it when told to', async () => {
    const job = createJobStore(seed)
    server.add({ kind: 'mark', body: mark(-0.2), by: 'Ines' })
    server.mood = 'conflict'
    const id = job.getState().append('mark', mark(-0.1))
    await settle()
    expect(job.getState().unsent[0]?.trouble).toMatchObject({
      kind: 'conflict',
      say: expect.stringMatching(/Ines/),
    })
    expect(job.getState().entries).toHaveLength(1)
    server.mood = 'well'
    job.getState().retryAnyway(id)
    await settle()
    expect(job.getState().state.socket.passes[0]!.marks.M31).toEqual({ kind: 'low', heightMm: -0.1 })
  })

  it('asks the server only once it knows what was entered, an amendable line included', async () => {
    const job = createJobStore(seed)
    job.getState().append('cell', { volts: 3 })
    job.getState().append('note', { text: 'x' })
    job.getState().appendAmendable('mark', mark(-0.1))
    let known: readonly string[] = []
    const { fetch } = server
    vi.stubGlobal('fetch', async (url: string, init?: RequestInit) => {
      if (!url.endsWith('/simulated')) return fetch(url, init)
      known = server.tape.map((e) => e.kind)
      return Response.json({ entries: [] })
    })
    const asking = job.getState().ask('simulated', { method: 'POST' })
    await settle(0)
    expect((await asking).ok).toBe(true)
    expect(known).toEqual(['cell', 'note', 'mark'])
  })

  it.each([
    ['away', /not saved yet/],
    ['signed out', /Sign in/],
    ['conflict', /waits for your word/],
  ] as const)('%s: what stands between the server and what was entered is the answer', async (mood, say) => {
    const job = createJobStore(seed)
    server.mood = mood
    job.getState().append('mark', mark(-0.1))
    const asking = job.getState().ask('simulated', { method: 'POST' })
    await settle(0)
    const answer = await asking
    expect(answer.status).toBe(409)
    expect(((await answer.json()) as { error: { text: string } }).error.text).toMatch(say)
  })

  it('undo takes a line in trouble out of hand, and strikes nothing that was never written', async () => {
    const job = createJobStore(seed)
    server.add({ kind: 'mark', body: mark(-0.2), by: 'Ines' })
    server.mood = 'conflict'
    job.getState().append('mark', mark(-0.1))
    await settle()
    expect(job.getState().undo()).toBe('mark')
    expect(job.getState().unsent).toEqual([])
    server.mood = 'well'
    await settle(60_000)
    expect(server.tape.map((e) => e.kind)).toEqual(['mark'])
  })

  it('a line that a fault of the server holds back is told, and never blocks those behind it', async () => {
    const job = createJobStore(seed)
    server.mood = 'broken'
    const stuck = job.getState().append('note', { text: 'stuck' })
    await settle()
    server.mood = 'well'
    job.getState().append('cell', { volts: 3 })
    await settle(60_000)
    expect(server.tape.map((e) => e.kind)).toEqual(['cell'])
    expect(job.getState().unsent).toMatchObject([{ id: stuck, trouble: { kind: 'refused' } }])
    job.getState().discard(stuck)
    expect(job.getState().unsent).toEqual([])
  })

  it('makes one line of several presses, and a new one after a pause', async () => {
    const job = createJobStore(seed)
    const id = job.getState().appendAmendable('mark', mark(-0.05))
    expect(job.getState().amend(id, mark(-0.1))).toBe(true)
    expect(job.getState().amend(id, mark(-0.15))).toBe(true)
    expect(job.getState().state.socket.passes[0]!.marks.M31).toEqual({ kind: 'low', heightMm: -0.15 })
    expect(server.asked).toBe(0)
    await settle(800)
    expect(server.tape).toMatchObject([{ body: mark(-0.15) }])
    expect(job.getState().amend(id, mark(-0.2))).toBe(false)
  })

  it('sends a amendable line before what comes after it', async () => {
    const job = createJobStore(seed)
    job.getState().appendAmendable('mark', mark(-0.05))
    job.getState().append('note', { text: 'done' })
    await settle()
    expect(server.tape.map((e) => e.kind)).toEqual(['mark', 'note'])
  })

  it('undoes and redoes mine, also before it is saved, never what another wrote or what is signed', async () => {
    const job = createJobStore(seed)
    server.mood = 'away'
    job.getState().append('cell', { volts: 3 })
    job.getState().append('cell', { volts: 2 })
    expect(job.getState().undo()).toBe('cell')
    expect(job.getState().state.board.cell?.volts).toBe(3)
    expect(job.getState().undo()).toBe('cell')
    expect(job.getState().state.board.cell).toBeNull()
    expect(job.getState().undo()).toBeNull()
    expect(job.getState().redo()).toBe('strike')
    expect(job.getState().state.board.cell?.volts).toBe(3)
    server.mood = 'well'
    await settle(20_000)
    expect(server.tape).toHaveLength(5)
    expect(job.getState().state.board.cell?.volts).toBe(3)
    server.add({ kind: 'note', body: { text: 'by Ines' }, by: 'Ines' })
    job.getState().append('consent', { risks: [], limitMinor: null, signature: null, how: '' })
    await settle()
    expect(job.getState().undo()).toBe('cell')
  })

  it('does not change a line that may have gone out, though no answer has come', async () => {
    const job = createJobStore(seed)
    server.mood = 'away'
    const id = job.getState().appendAmendable('mark', mark(-0.05))
    await settle(800)
    expect(job.getState().amend(id, mark(-0.1))).toBe(false)
    expect(job.getState().unsent[0]?.body).toEqual(mark(-0.05))
  })

  it('takes in a line once, though two answers bring it', async () => {
    const job = createJobStore(seed)
    server.add({ kind: 'note', body: { text: 'by Ines' }, by: 'Ines' })
    await Promise.all([job.getState().poll(), job.getState().poll()])
    expect(job.getState().lines.map((e) => e.seq)).toEqual([1])
    expect(job.getState().state.work.notes.map((n) => n.text)).toEqual(['by Ines'])
  })

  it('misses no line: one that was saved while the page was being sent again comes with the next answer', async () => {
    // The page before it saw line 2 saved and took it out of hand; the new one was read before that.
    server.add({ kind: 'note', body: { text: 'one' } })
    const read = [...server.tape]
    server.add({ kind: 'note', body: { text: 'two' } })
    const unsent = { tag: seed.tag, order: 1, kind: 'note', body: { text: 'three' }, strikesId: null, at: '' }
    kept.set('u', { ...unsent, id: 'u', basis: 2, trouble: null } as Unsent)
    const job = createJobStore({ ...seed, entries: read })
    await job.getState().restore()
    await settle()
    expect(job.getState().entries.map((e) => e.seq)).toEqual([1, 2, 3])
  })
  it('keeps what strikes a line that the page before this one saw saved', async () => {
    server.add({ kind: 'note', body: { text: 'one' }, id: 'one' })
    const unsent = {
      tag: seed.tag,
      order: 1,
      kind: 'strike',
      body: { why: 'undo' },
      strikesId: 'one',
      at: '',
    }
    kept.set('u', { ...unsent, id: 'u', basis: 1, trouble: null } as Unsent)
    const job = createJobStore(seed)
    await job.getState().restore()
    await settle()
    expect(job.getState().unsent).toHaveLength(1)
    await job.getState().poll()
    await job.getState().poll()
    expect(server.tape[1]).toMatchObject({ kind: 'strike', strikes: 1 })
    expect(job.getState().unsent).toEqual([])
  })
  it('drops what strikes a line that is nowhere, once the server was heard, and not before', async () => {
    const unsent = {
      tag: seed.tag,
      order: 1,
      kind: 'strike',
      body: { why: 'undo' },
      strikesId: 'gone',
      at: '',
    }
    kept.set('u', { ...unsent, id: 'u', basis: 1, trouble: null } as Unsent)
    server.mood = 'away'
    const job = createJobStore(seed)
    await job.getState().restore()
    await job.getState().poll()
    expect(job.getState().unsent).toHaveLength(1)
    server.mood = 'well'
    await job.getState().poll()
    expect(job.getState().unsent).toEqual([])
  })
  it('asks for what is missing between the lines it has', async () => {
    for (const text of ['one', 'two', 'three']) server.add({ kind: 'note', body: { text } })
    const job = createJobStore({ ...seed, entries: [server.tape[0]!, server.tape[2]!] })
    await job.getState().poll()
    expect(job.getState().entries.map((e) => e.seq)).toEqual([1, 2, 3])
  })
  it('asks for the socket once a board is chosen, until the server gives it', async () => {
    const job = createJobStore(seed)
    server.round = { ...nothingRound, socket: smallField() }
    job.getState().append('cell', { volts: 3 })
    await settle()
    expect(job.getState().socket).toBeNull()
    job.getState().append('ticket', { set: { socketId: 'small' } })
    server.mood = 'away'
    await settle()
    expect(job.getState().socket).toBeNull()
    server.mood = 'well'
    await job.getState().poll()
    await settle()
    expect(job.getState().socket?.id).toBe('small')
    const asked = server.asked
    await job.getState().refreshContext()
    expect(server.asked).toBe(asked)
  })

  it('takes in what others wrote when it asks', async () => {
    const job = createJobStore(seed)
    server.add({ kind: 'cell', body: { volts: 2.9 }, by: 'Ines' })
    await job.getState().poll()
    expect(job.getState().state.board.cell?.volts).toBe(2.9)
    server.mood = 'away'
    await job.getState().poll()
    expect(job.getState().line).toBe('lost')
  })
})

import type { Belief } from '@/core/triage/reason/belief'
import { asSaid } from '@/core/job/as-said'
import { foldOn, jobState } from '@/core/job/job-state'
import type { Entry, JobState } from '@/core/job/job-state'
import type { Bodies, Kind } from '@/core/slices'
import { createStore } from 'zustand/vanilla'
import { gateOf } from '@/core/job/gate'
import type { PowerGate } from '@/core/board/gate-reason'
import type { Surroundings } from '@/server/surroundings'
import type { KeptStep } from '@/data/jobs'
import type { Socket } from '@/core/socket/model/socket'
import { dropUnsent, keepUnsent, unsentOf } from './outbox'
import type { Unsent } from './outbox'
import { redoable, undoable } from './undo'

/** Whose board it is; kept outside the tape. */
export interface Customer {
  readonly name: string
  readonly contact: string
  readonly erased: boolean
}

export interface JobSeed extends Surroundings {
  readonly tag: string
  readonly me: string
  readonly entries: readonly Entry[]
  /** The simulated bench has this board; a practice board is worked to learn. */
  readonly simulated: 'no' | 'demo' | 'practice'
  readonly customer: Customer | null
  /** What to do next as it was kept with the tape, until it is computed here. */
  readonly nextStep: KeptStep | null
  /** The odds kept with it, as long as they follow from the tape as it was sent. */
  readonly keptBelief: Belief | null
}

type Line = 'open' | 'lost' | 'signed out'

export interface JobStore extends JobSeed {
  readonly unsent: readonly Unsent[]
  /** Saved and unsent lines together, as they will stand. */
  readonly lines: readonly Entry[]
  readonly state: JobState
  readonly gate: PowerGate
  readonly line: Line
  readonly append: <K extends Kind>(kind: K, body: Bodies[K], strikes?: number | null, id?: string) => string
  /** Like `append`, but the line may still be changed for a moment: for moves made of several presses. */
  readonly appendAmendable: <K extends Kind>(kind: K, body: Bodies[K]) => string
  /** Changes a amendable line that has not gone out; false when it has. */
  readonly amend: (id: string, body: Bodies[Kind]) => boolean
  readonly undo: () => string | null
  readonly redo: () => string | null
  /** What the server holds outside the tape, the socket and where things are on the board: given, or asked for. */
  readonly refreshContext: (given?: Surroundings) => Promise<void>
  readonly keepCustomer: (customer: Customer) => void
  /** What is typed of the owner and not kept by the server yet; it outlasts the station. */
  readonly ownerDraft: { readonly name: string; readonly contact: string } | null
  readonly draftOwner: (draft: JobStore['ownerDraft']) => void
  readonly send: () => Promise<void>
  /** Asks the server about this job, once it knows all that was entered here; what stands in the way is its answer. */
  readonly ask: (path: string, init?: RequestInit) => Promise<Response>
  readonly poll: () => Promise<void>
  readonly restore: () => Promise<void>
  readonly discard: (id: string) => void
  readonly retryAnyway: (id: string) => void
}

/** Folds saved lines, those that are new on what was folded before. */
function savedFold() {
  let before: { entries: readonly Entry[]; socket: Socket | null; state: JobState } | null = null
  return (entries: readonly Entry[], socket: Socket | null): JobState => {
    const names = socket?.contacts.map((c) => c.name)
    const known = before?.entries.length ?? 0
    const goesOn = before?.socket === socket && known > 0 && entries[known - 1] === before?.entries[known - 1]
    const state =
      (goesOn && before && foldOn(before.state, entries.slice(known), names)) || jobState(entries, names)
    before = { entries, socket, state }
    return state
  }
}

/** The last line up to which none is missing: lines are numbered from 1. */
function knownTo(entries: readonly Entry[]): number {
  if (entries.at(-1)?.seq === entries.length) return entries.length
  const gap = entries.findIndex((e, i) => e.seq !== i + 1)
  return gap < 0 ? entries.length : gap
}

/** Saved and unsent lines together, and what they say. */
function derive(
  seed: Pick<JobSeed, 'entries' | 'me' | 'socket'>,
  unsent: readonly Unsent[],
  fold: ReturnType<typeof savedFold>,
) {
  const last = seed.entries.at(-1)?.seq ?? 0
  const saved = new Map(seed.entries.map((e) => [e.id, e.seq]))
  const waiting = unsent.filter((u) => !saved.has(u.id) && u.trouble?.kind !== 'refused')
  waiting.forEach((u, i) => saved.set(u.id, last + i + 1))
  const overlay = waiting.map(
    (u) =>
      ({
        id: u.id,
        seq: saved.get(u.id)!,
        at: u.at,
        by: seed.me,
        kind: u.kind,
        v: 1,
        body: u.body,
        strikes: u.strikesId === null ? null : (saved.get(u.strikesId) ?? null),
      }) as unknown as Entry,
  )
  const lines = [...seed.entries, ...overlay]
  const names = seed.socket?.contacts.map((c) => c.name)
  const state = foldOn(fold(seed.entries, seed.socket), overlay, names) ?? jobState(lines, names)
  return { lines, state, gate: gateOf(state, seed.socket) }
}

const surroundingsIn = ({
  socket,
  landmarks,
  setting,
  donors,
  benchCpus,
  learned,
}: Surroundings): Surroundings => ({ socket, landmarks, setting, donors, benchCpus, learned })
/** A socket is told by its id, which is made of what it is. */
const sameAs = (round: Surroundings) => JSON.stringify({ ...round, socket: round.socket?.id })

/** What decides the socket, the landmarks and what is at hand; when it changes they are asked for again. */
const contextKey = ({ intake: { ticket }, parts: { stock } }: JobState) =>
  `${ticket.socketId} ${ticket.boardModelId} ${ticket.serial} ${JSON.stringify(stock)}`

/** How long a amendable line may still be changed. */
const AMENDABLE_MS = 700
/** Characters that are 64 KiB at most, however they are written. */
const KEPT_ALIVE = 20_000
const RETRY_MS = [1000, 2000, 4000, 8000, 15000]

/** The job as one browser sees it: what is saved, what waits to be, and what both say together. */
export function createJobStore(seed: JobSeed) {
  let sending = false
  let round: Promise<void> = Promise.resolve()
  let failures = 0
  let timer: ReturnType<typeof setTimeout> | null = null
  const fold = savedFold()
  let contextFor = contextKey(jobState(seed.entries))
  let amendable: { id: string; timer: ReturnType<typeof setTimeout> } | null = null

  return createStore<JobStore>((set, get) => {
    const show = (unsent: readonly Unsent[], entries = get().entries) =>
      set({ unsent, entries, ...derive({ ...get(), entries }, unsent, fold) })
    const merged = (fresh: readonly Entry[]) => {
      const known = new Set(get().entries.map((e) => e.seq))
      return [...get().entries, ...fresh.filter((e) => !known.has(e.seq))].sort((a, b) => a.seq - b.seq)
    }
    const change = (id: string, next: Unsent | null, entries = get().entries) => {
      void (next ? keepUnsent(next) : dropUnsent(id))
      show(
        next ? get().unsent.map((u) => (u.id === id ? next : u)) : get().unsent.filter((u) => u.id !== id),
        entries,
      )
    }
    const later = () => {
      if (timer) return
      timer = setTimeout(
        () => {
          timer = null
          void get().send()
        },
        RETRY_MS[Math.min(failures++, RETRY_MS.length - 1)],
      )
    }

    const release = () => {
      if (amendable) clearTimeout(amendable.timer)
      amendable = null
    }
    const hold = (id: string) => {
      release()
      const goOn = () => {
        amendable = null
        void get().send()
      }
      amendable = { id, timer: setTimeout(goOn, AMENDABLE_MS) }
    }
    const add = (
      kind: Kind,
      body: Bodies[Kind],
      strikes: number | null,
      id: string = crypto.randomUUID(),
    ): string => {
      const { lines, unsent, entries, tag } = get()
      const target = strikes === null ? null : (lines.find((e) => e.seq === strikes)?.id ?? null)
      const u: Unsent = {
        id,
        tag,
        order: (unsent.at(-1)?.order ?? 0) + 1,
        kind,
        body,
        strikesId: target,
        at: new Date().toISOString(),
        basis: entries.at(-1)?.seq ?? 0,
        trouble: null,
      }
      void keepUnsent(u)
      show([...unsent, u])
      return u.id
    }

    /** Strikes of lines that are neither in hand nor anywhere on the tape, all of which is here, strike nothing and are dropped. */
    const dropOrphans = () => {
      const there = new Set([...get().entries.map((e) => e.id), ...get().unsent.map((u) => u.id)])
      for (const u of get().unsent) if (u.strikesId !== null && !there.has(u.strikesId)) change(u.id, null)
    }
    /** It strikes a line that is still in hand, or was saved by the page before this one and is not here yet. */
    const waitsForOther = (u: Unsent) =>
      u.strikesId !== null && !get().entries.some((e) => e.id === u.strikesId)

    /** One line to the server; true when the next may follow. */
    async function post(u: Unsent): Promise<boolean> {
      const entry = {
        id: u.id,
        kind: u.kind,
        body: u.body,
        strikes: u.strikesId === null ? null : (get().entries.find((e) => e.id === u.strikesId)?.seq ?? null),
        at: u.at,
        // What the page before this one had seen may be missing here: the answer brings it.
        basis: Math.min(u.basis, knownTo(get().entries)),
      }
      const body = JSON.stringify(entry)
      let answer: Response
      try {
        answer = await fetch(`/api/jobs/${get().tag}/tape`, {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body,
          // It arrives although the page is left meanwhile; browsers take no long ones so.
          keepalive: body.length < KEPT_ALIVE,
        })
      } catch {
        set({ line: 'lost' })
        later()
        return false
      }
      const reply = (await answer.json().catch(() => null)) as {
        entries?: Entry[]
        error?: { field: string; text: string }
      } | null
      if (answer.ok && reply?.entries) {
        failures = 0
        set({ line: 'open' })
        change(u.id, null, merged(reply.entries))
        void get().refreshContext()
        return true
      }
      if (answer.status === 401) {
        set({ line: 'signed out' })
        return false
      }
      if (answer.status === 409 && reply?.entries) {
        change(
          u.id,
          {
            ...u,
            trouble: {
              kind: 'conflict',
              say: reply.error?.text ?? 'Somebody else wrote about the same thing.',
            },
          },
          merged(reply.entries),
        )
        return true
      }
      // No word of ours, or one that was cut off on the way: it is not known what became of it.
      const unheard = reply === null && (answer.ok || answer.status === 500)
      if (unheard || answer.status > 500 || answer.status === 408 || answer.status === 429) {
        set({ line: 'lost' })
        later()
        return false
      }
      change(u.id, {
        ...u,
        trouble: {
          kind: 'refused',
          say: reply?.error ? `${reply.error.text}` : `The server refused it (${answer.status}).`,
        },
      })
      return true
    }

    async function sendAll(): Promise<void> {
      sending = true
      try {
        for (;;) {
          const next = get().unsent.find((u) => u.trouble === null && !waitsForOther(u))
          if (!next || next.id === amendable?.id || !(await post(next))) break
        }
      } finally {
        sending = false
      }
    }

    return {
      ...seed,
      unsent: [],
      ...derive(seed, [], fold),
      line: 'open',
      append(kind, body, strikes = null, id) {
        release()
        const { state, socket, setting } = get()
        const made = add(kind, asSaid(kind, body, state, socket, setting), strikes, id)
        void get().send()
        return made
      },
      appendAmendable(kind, body) {
        release()
        const id = add(kind, body, null)
        hold(id)
        void get().send()
        return id
      },
      amend(id, body) {
        const u = get().unsent.find((x) => x.id === id)
        if (amendable?.id !== id || !u) return false
        change(id, { ...u, body })
        hold(id)
        return true
      },
      undo() {
        // A line in trouble has not been written: undoing it is taking it out of hand.
        const stuck = get().unsent.findLast((u) => u.trouble !== null)
        const entry = undoable(get().lines, get().me)
        if (stuck && (!entry || stuck.trouble?.kind === 'refused' || entry.id === stuck.id)) {
          get().discard(stuck.id)
          return stuck.kind
        }
        if (!entry) return null
        get().append('strike', { why: 'undo' }, entry.seq)
        return entry.kind
      },
      redo() {
        const entry = redoable(get().lines, get().me)
        if (!entry) return null
        get().append('strike', { why: 'redo' }, entry.seq)
        return entry.kind
      },
      async refreshContext(given) {
        const wanted = contextKey(get().state)
        if (!given) {
          if (wanted === contextFor || get().unsent.length > 0) return
          const answer = await fetch(`/api/jobs/${get().tag}/surroundings`).catch(() => null)
          if (!answer?.ok) return
          given = (await answer.json()) as Surroundings
        }
        contextFor = wanted
        const round = surroundingsIn(given)
        if (sameAs(round) === sameAs(surroundingsIn(get()))) return
        set(round)
        show(get().unsent)
      },
      keepCustomer: (customer) => set({ customer }),
      ownerDraft: null,
      draftOwner: (ownerDraft) => set({ ownerDraft }),
      send() {
        if (!sending) round = sendAll()
        return round
      },
      async ask(path, init) {
        release()
        await get().send()
        const left = get().unsent.find((u) => u.trouble?.kind !== 'refused')
        if (left) {
          const text = left.trouble
            ? 'A line on the tape waits for your word. Settle it, then ask again.'
            : get().line === 'signed out'
              ? 'You are signed out. Sign in, and what you entered is saved first.'
              : 'What you entered last is not saved yet. It is tried again by itself; ask again in a moment.'
          return Response.json({ error: { field: 'tape', text } }, { status: 409 })
        }
        return fetch(`/api/jobs/${get().tag}/${path}`, init)
      },
      async poll() {
        if (get().unsent.some((u) => u.trouble === null && !waitsForOther(u))) return get().send()
        try {
          const answer = await fetch(`/api/jobs/${get().tag}/tape?after=${knownTo(get().entries)}`)
          if (answer.status === 401) return set({ line: 'signed out' })
          if (!answer.ok) return set({ line: 'lost' })
          const { entries } = (await answer.json()) as { entries: Entry[] }
          if (entries.length > 0) show(get().unsent, merged(entries))
          dropOrphans()
          if (get().line !== 'open') set({ line: 'open' })
          void get().refreshContext()
        } catch {
          set({ line: 'lost' })
        }
      },
      async restore() {
        const kept = await unsentOf(get().tag)
        const here = new Set(get().unsent.map((u) => u.id))
        const saved = new Set(get().entries.map((e) => e.id))
        for (const u of kept) if (saved.has(u.id)) void dropUnsent(u.id)
        const back = kept.filter((u) => !here.has(u.id) && !saved.has(u.id))
        if (back.length > 0) show([...back, ...get().unsent])
        return get().send()
      },
      discard(id) {
        change(id, null)
        // What strikes a line that was never written strikes nothing.
        for (const u of get().unsent) if (u.strikesId === id) get().discard(u.id)
      },
      retryAnyway(id) {
        const u = get().unsent.find((x) => x.id === id)
        if (!u) return
        change(id, { ...u, trouble: null, basis: get().entries.at(-1)?.seq ?? 0 })
        void get().send()
      },
    }
  })
}

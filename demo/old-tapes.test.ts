import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { ledgerOf } from '@/core/board/loose'
import { handBackHolds } from '@/core/job/hand-back-holds'
import { gateOf } from '@/core/job/gate'
import { jobState, kinds, sayEntry } from '@/core/job/job-state'
import type { Entry } from '@/core/job/job-state'
import type { PowerGate } from '@/core/board/gate-reason'
import { proofStanding } from '@/core/job/proof-owed'
import { evidenceOf } from '@/core/job/evidence'
import { demoSockets } from './sockets'

interface OldTape {
  readonly tag: string
  readonly entries: readonly Entry[]
  /** What was made of it when it was kept. */
  readonly answers: {
    readonly words: readonly string[]
    readonly gate: PowerGate
    readonly holds: readonly string[]
    readonly proof: readonly (readonly unknown[])[]
    readonly evidence: readonly string[]
    readonly ledger: readonly (readonly unknown[])[]
  }
}

const tapes = readFileSync('demo/old-tapes.jsonl', 'utf8')
  .trim()
  .split('\n')
  .map((line) => JSON.parse(line) as OldTape)

describe('a tape of every kind, kept from an earlier version', () => {
  it('is of every kind', () => {
    expect(new Set(tapes.flatMap((t) => t.entries.map((e) => e.kind)))).toEqual(new Set(kinds))
  })
  it.each(tapes)('$tag folds to the same answers', ({ entries, answers }) => {
    const { socketId } = jobState(entries).intake.ticket
    const socket = Object.values(demoSockets).find((s) => s.id === socketId) ?? null
    const state = jobState(
      entries,
      socket?.contacts.map((c) => c.name),
    )
    expect(entries.map(sayEntry)).toEqual(answers.words)
    expect(gateOf(state, socket)).toEqual(answers.gate)
    expect(handBackHolds(state).map((h) => h.text)).toEqual(answers.holds)
    expect(proofStanding(state, socket).tests.map((t) => [t.id, t.result, t.again])).toEqual(answers.proof)
    expect(evidenceOf(state, socket).evidence.map((e) => `${e.seq} ${e.test}: ${e.outcome}`)).toEqual(
      answers.evidence,
    )
    expect(ledgerOf(state.board.loose).map((i) => [i.id, i.what, i.where])).toEqual(answers.ledger)
  })
})

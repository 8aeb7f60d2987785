import { nothingRound } from '@/core/job/advice-setting'
import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { ledgerOf } from '@/core/board/loose'
import { handBackBlockers, proofStanding } from '@/core/job/stations-say'
import { gateOf } from '@/core/job/gate'
import { jobState, kinds, sayEntry } from '@/core/job/job-state'
import type { Entry } from '@/core/job/job-state'
import type { PowerGate } from '@/core/board/gate-reason'
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

/** What a test was answered with is read as the line of what it measures. */
const saidNow: Readonly<Record<string, string>> = {
  'good in A: system loads': 'known-good module in slot A: system loads',
  'good in B: memory lamp': 'known-good module in slot B: memory lamp',
  'outside: a part missing': 'looked at outside of the board: a part missing (a part is gone)',
  'ohms 12v: good': '12 V rail to ground: good, no figure',
  'cell: low': 'cell low',
  'as it came: memory lamp': 'powered: fans on, lamp memory',
  // A start is judged by the CPU that is in it, and each of them counts.
  '33 as it came: memory lamp': '33 known-good CPU: memory lamp',
  '23 as it came: maker screen': '23 known-good CPU: maker screen',
  // What a stroke leaves behind is known from then on.
  '57 socket: power contacts touch': '58 socket: power contacts touch',
}

/** Some words of the trade have taken the place of others. */
const inWordsOfToday = (words: string): string =>
  (saidNow[words] ?? words)
    .replace(/^new pass:/, 'inspection:')
    .replace(/^mended:/, 'repaired:')
    .replace(/\bintact\b/, 'sound')
    .replace(/\b(CPU|memory|graphics|boot) lamp$/, '$1 LED')
    .replace(/, lamp (none|CPU|memory|graphics|boot)\b/, ', debug LED $1')
    .replace('maker screen', 'start screen')
    .replace(/ in a hundred$/, ' %')
    .replace(/^([a-z-]+) settled$/, '$1 done')
    .replace(/^([a-z-]+) passed over/, '$1 skipped')
    .replace(/: at ground$/, ': shorted to ground')
    .replace(/^(whole field|\d+ contacts) looked at$/, '$1 inspected')
    .replace(/(strokes?), there$/, '$1, straight')
    .replace(/(strokes?), still short$/, '$1, short')
    .replace(/(strokes?), past$/, '$1, overbent')
    .replace(/(strokes?), still off$/, '$1, not straight yet')

/** Gate’s reasons that follow from it: a rail that was said to be good counts as read, and is owed again as one that was. */
const heardNow: Readonly<Record<string, readonly string[]>> = { 'Q-0000': ['rail owed', 'rail told'] }

/** A cell that was said to be low owes its settings, as one that was measured low does; a rail that had read low its volts. */
const owedNow: Readonly<Record<string, readonly string[]>> = {
  'Q-0000': ['settings'],
  'Q-0412': ['volts vmem'],
  'Q-0414': ['volts vcore'],
  'Q-0417': ['volts vcore'],
}

/** And of two starts with two CPUs each counts. */
const seenNow: Readonly<Record<string, readonly string[]>> = {
  'Q-0411': ['21 as it came: CPU lamp', '21 current: steady', '21 warmth: warm'],
}

describe('a tape of every kind, kept from an earlier version', () => {
  it('is of every kind there was', () => {
    const kept = new Set(tapes.flatMap((t) => t.entries.map((e) => e.kind)))
    expect(kept.size).toBe(42)
    for (const kind of kept) expect(kinds).toContain(kind)
  })
  it.each(tapes)('$tag folds to the same answers', ({ tag, entries, answers }) => {
    const { socketId } = jobState(entries).intake.ticket
    const socket = Object.values(demoSockets).find((s) => s.id === socketId) ?? null
    const state = jobState(
      entries,
      socket?.contacts.map((c) => c.name),
    )
    expect(entries.map(sayEntry)).toEqual(answers.words.map(inWordsOfToday))
    const gate = gateOf(state, socket)
    expect(gate.lamp).toBe(answers.gate.lamp)
    expect(gate.reasons.map((r) => r.code).sort()).toEqual(
      [...answers.gate.reasons.map((r) => r.code), ...(heardNow[tag] ?? [])].sort(),
    )
    // They come station by station now.
    expect(
      handBackBlockers(state)
        .map((h) => h.text)
        .sort(),
    ).toEqual([...answers.holds].sort())
    expect(
      proofStanding(state, socket, nothingRound)
        .tests.map((t) => t.id)
        .sort(),
    ).toEqual([...answers.proof.map(([id]) => id), ...(owedNow[tag] ?? [])].sort())
    expect(proofStanding(state, socket, nothingRound).tests.map((t) => [t.id, t.result, t.again])).toEqual(
      expect.arrayContaining([...answers.proof]),
    )
    expect(
      evidenceOf(state, socket)
        .evidence.map((e) => `${e.seq} ${e.test}: ${e.outcome}`)
        .sort(),
    ).toEqual([...answers.evidence.map((said) => saidNow[said] ?? said), ...(seenNow[tag] ?? [])].sort())
    expect(ledgerOf(state.board.loose).map((i) => [i.id, i.what, i.where])).toEqual(answers.ledger)
  })
})

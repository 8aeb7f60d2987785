import type { Entry } from '@/core/job/job-state'
import { jobState, tapeFindings } from '@/core/job/job-state'
import { describe, expect, it } from 'vitest'
import { gateOf } from '@/core/job/gate'
import { isDamage } from '@/core/socket/damage/mark'
import { readCodes } from '@/core/triage/instruments/code-tape'
import { faultIds } from '@/core/triage/model/faults'
import { fieldOf } from '@/core/socket/model/socket'
import { checkEntry } from '@/entry-schemas/entry-schema'
import { demoBoards } from './boards'
import { history } from './history'
import { demoJobs, lighthouseBefore } from './jobs'
import { demoHidden, demoReferences } from './references'
import { demoSockets } from './sockets'

const now = new Date('2026-11-24T15:00:00.000Z')
const jobs = demoJobs(now)
const sockets = Object.values(demoSockets)

function checked(entries: readonly Entry[]): void {
  expect(tapeFindings(entries)).toEqual([])
  for (const { seq, by, v, ...rest } of entries) {
    const read = checkEntry(rest)
    if (!read.ok) throw new Error(`line ${seq} by ${by}, v${v}: ${read.fault.field} ${read.fault.text}`)
    expect(read.value.body).toEqual(rest.body)
  }
}
const stateOf = (entries: readonly Entry[]) => {
  const plain = jobState(entries)
  const socket = sockets.find((s) => s.id === plain.intake.ticket.socketId) ?? null
  const state = jobState(
    entries,
    socket?.contacts.map((c) => c.name),
  )
  return { state, socket, gate: gateOf(state, socket) }
}

describe('the demo shop', () => {
  it('has the sockets of the harbour, each contact once', () => {
    expect(sockets.map((s) => [s.name, s.contacts.length, s.pitchMm])).toEqual([
      ['LG-1284', 1284, 0.95],
      ['LG-1716', 1716, 0.85],
      ['PG-906', 906, 1.2],
    ])
    for (const socket of sockets) {
      expect(fieldOf(socket).named.size).toBe(socket.contacts.length)
      for (const single of ['clock', 'reset', 'sense', 'control'] as const)
        expect(fieldOf(socket).totals.get(single)).toBeGreaterThan(0)
    }
    for (const board of demoBoards) expect(sockets.map((s) => s.id)).toContain(board.socketId)
  })
  it('has twelve jobs with tapes that hold', () => {
    expect(jobs).toHaveLength(12)
    expect(new Set(jobs.map((j) => j.tape.tag)).size).toBe(12)
    for (const { tape } of jobs) {
      checked(tape.entries)
      expect(Date.parse(tape.entries.at(-1)!.at)).toBeLessThanOrEqual(now.getTime())
    }
  })
  it('marks only contacts that are there', () => {
    for (const { tape } of jobs) {
      const { state, socket } = stateOf(tape.entries)
      for (const pass of state.socket.passes)
        for (const name of Object.keys(pass.found))
          expect(fieldOf(socket!).named.has(name), `${tape.tag} ${name}`).toBe(true)
    }
  })
  it('shows different states: shut, limited and clear gates, an open offer, an end other than fixed', () => {
    const all = jobs.map((j) => stateOf(j.tape.entries))
    expect(new Set(all.map((a) => a.gate.lamp))).toEqual(
      new Set(['clear', 'limit the current', 'do not power']),
    )
    expect(all.some((a) => a.state.intake.offers.some((o) => o.approved === null))).toBe(true)
    expect(new Set(all.map((a) => a.state.handBack.done?.outcome))).toEqual(
      new Set([undefined, 'exchanged', 'fixed']),
    )
  })
  it('the ticket kiosk shows its crater and its short', () => {
    const { state, gate } = stateOf(jobs.find((j) => j.tape.tag === 'Q-0417')!.tape.entries)
    expect(gate.reasons[0]!.text).toBe('P13 touches P14: core rail to ground')
    expect(Object.values(state.socket.passes.at(-1)!.marks).filter(isDamage).length).toBeGreaterThan(20)
  })
  it('has an earlier visit of the lighthouse’s board, told by its serial', () => {
    const before = lighthouseBefore(now)
    checked(before.entries)
    const serial = (entries: readonly Entry[]) => jobState(entries).intake.ticket.serial
    const again = jobs.find((j) => j.tape.tag === 'Q-0418')!.tape.entries
    expect(serial(before.entries)).toBe(serial(again))
  })
  it('hides behind every open job a fault the reasoner knows, and knows codes, rails and current of its boards', () => {
    for (const { tape } of jobs)
      if (tape.tag !== 'Q-0407') expect(demoHidden[tape.tag], tape.tag).toBeDefined()
    for (const faults of Object.values(demoHidden))
      for (const fault of faults) expect(faultIds).toContain(fault)
    for (const id of Object.keys(demoReferences)) expect(demoBoards.map((b) => b.id)).toContain(id)
    expect(
      readCodes({ codes: ['19', '4C', '51'], watchedS: 90 }, demoReferences['br-sound-7']!.codes!),
    ).toMatchObject({
      shows: 'stuck',
      outcome: 'memory',
    })
  })
  it('has a past that is always the same, of which every tape holds', () => {
    const past = [...history(40, now)]
    for (const tape of past) checked(tape.entries)
    expect([...history(40, now)].map((t) => t.entries)).toEqual(past.map((t) => t.entries))
    expect(
      past.filter((t) => stateOf(t.entries).state.handBack.done?.outcome === 'fixed').length,
    ).toBeGreaterThan(25)
  })
})

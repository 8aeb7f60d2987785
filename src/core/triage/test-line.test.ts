import { describe, expect, it } from 'vitest'
import { gateOf } from '../job/gate'
import { evidenceOf } from '../job/evidence'
import { jobState } from '../job/job-state'
import { tape } from '../job/tape.testing'
import { railsRead } from '../board/slice'
import { rails } from '../board/rail'
import { checkEntry } from '@/entry-schemas/entry-schema'
import { benchTests } from './model/bench-tests'
import { lineOfTest } from './test-line'

const said = benchTests.flatMap((t) =>
  [...t.outcomes, ...Object.keys(t.open ?? {})].map((outcome) => ({ test: t.id, outcome })),
)

describe('a test answered from the list', () => {
  it.each(said)('$test: $outcome is the same evidence whatever line it stands in', (trial) => {
    const { kind, body } = lineOfTest(trial)
    const own = evidenceOf(jobState(tape().put(kind, body).entries), null).evidence
    expect(own.map(({ test, outcome }) => ({ test, outcome }))).toContainEqual(trial)
    expect(
      checkEntry({ id: crypto.randomUUID(), kind, at: '2026-11-24T10:00:00Z', strikes: null, body }),
    ).toMatchObject({ ok: true })
    // An older line that says it as a trial is read as that line.
    const old = evidenceOf(jobState(tape().put('trial', trial).entries), null).evidence
    expect(old).toEqual(own)
  })
  it.each(said.filter((s) => s.test === 'as it came'))('$outcome, as it came, is a power-up', (trial) => {
    expect(lineOfTest(trial).kind).toBe('baseline')
  })
  it('measures a rail as the form does: the table, the gate and the next step know it', () => {
    const t = tape()
    for (const rail of rails) {
      const { kind, body } = lineOfTest({ test: `ohms ${rail}`, outcome: 'good' })
      t.put(kind, body)
    }
    const state = jobState(t.entries)
    expect(railsRead(state.board).size).toBe(rails.length)
    const codes = gateOf(state, null).reasons.map((r) => r.code)
    expect(codes).not.toContain('rail unmeasured')
    expect(codes).toContain('rail told')
    const figures = rails.reduce((tape, rail) => tape.put('rail', { rail, ohms: 900, cpu: 'out' }), t)
    expect(gateOf(jobState(figures.entries), null).reasons.map((r) => r.code)).not.toContain('rail told')
  })
  it('a rail said to be good clears no short that was measured, nor one that was said', () => {
    const good = { rail: '12v', ohms: null, is: 'good', cpu: null } as const
    for (const ohms of [0.2, null]) {
      const short = tape().put('rail', {
        rail: '12v',
        ohms,
        ...(ohms === null ? { is: 'short' as const } : {}),
        cpu: 'out',
      })
      expect(gateOf(jobState(short.put('rail', good).entries), null).lamp).toBe('do not power')
      const texts = gateOf(jobState(short.entries), null)
        .reasons.filter((r) => r.level === 'closed')
        .map((r) => r.text)
      expect(texts.some((text) => /12 V rail (is|was found) shorted to ground/.test(text))).toBe(true)
    }
  })
  it('a rail that is owed again is not read by a word alone: the current stays limited until a figure', () => {
    const t = tape()
    for (const rail of rails) t.put('rail', { rail, ohms: 900, cpu: 'out' })
    t.put('mended', { fault: 'core controller' })
    for (const rail of rails) t.put('rail', { rail, ohms: null, is: 'good', cpu: null })
    const codes = () => gateOf(jobState(t.entries), null).reasons.map((r) => r.code)
    expect(codes()).toContain('rail told')
    for (const rail of rails) t.put('rail', { rail, ohms: 900, cpu: 'out' })
    expect(codes()).not.toContain('rail told')
    // A word after a figure that stands adds nothing and takes nothing away.
    t.put('rail', { rail: '12v', ohms: null, is: 'good', cpu: null })
    expect(codes()).not.toContain('rail told')
  })
  it('a word that contradicts what is fitted is a question, not a reading', () => {
    const t = tape().put('fitted', { cpu: null })
    t.put('rail', { rail: '12v', ohms: null, is: 'good', cpu: 'in' })
    const reasons = gateOf(jobState(t.entries), null).reasons
    expect(reasons.map((r) => r.code)).not.toContain('rail told')
    expect(reasons.some((r) => r.code === 'question' && /CPU in/.test(r.text))).toBe(true)
  })
  it('a look that answers a test with what it can not give is no evidence, and is refused at the edge', () => {
    const body = {
      what: 'outside of the board',
      seen: 'purple',
      clear: false,
      hazard: 'burnt',
      test: 'outside',
    } as const
    expect(evidenceOf(jobState(tape().put('look', body).entries), null).evidence).toEqual([])
    const line = {
      id: '00000000-0000-4000-8000-000000000001',
      kind: 'look',
      strikes: null,
      at: '2026-11-24T09:00:00Z',
    }
    expect(checkEntry({ ...line, body })).toMatchObject({ ok: false, fault: { field: 'seen' } })
    const good = { ...body, seen: 'scorched at a rail' }
    expect(checkEntry({ ...line, body: good })).toMatchObject({ ok: true })
    expect(checkEntry({ ...line, body: { ...good, what: 'the drawer' } })).toMatchObject({
      ok: false,
      fault: { field: 'what' },
    })
    expect(checkEntry({ ...line, body: { ...good, hazard: 'harmless' } })).toMatchObject({
      ok: false,
      fault: { field: 'hazard' },
    })
    expect(checkEntry({ ...line, body: { ...good, clear: true, hazard: 'harmless' } })).toMatchObject({
      ok: false,
    })
  })
  it('a part that was missing and is fitted again is a repair', () => {
    const t = tape().put('part', { ref: 'R214', did: 'found missing', text: 'beside the firmware chip' })
    expect(evidenceOf(jobState(t.entries), null).evidence).toHaveLength(1)
    t.put('part', { ref: 'R214', did: 'fitted' })
    expect(evidenceOf(jobState(t.entries), null).changes).toEqual([{ is: 'mended', fault: 'chip resistor' }])
  })
  it('a power-up that loads the system is a power-up', () => {
    const { kind, body } = lineOfTest({ test: 'as it came', outcome: 'system loads' })
    const { board } = jobState(tape().put(kind, body).entries)
    expect(board.baselines).toHaveLength(1)
    expect(board.power.ranHere).toBe(true)
  })
  it('what the map, the strokes and the parts knew, triage knows', () => {
    const missing = tape().put('part', {
      ref: 'R214',
      did: 'found missing',
      text: 'beside the firmware chip',
    })
    expect(evidenceOf(jobState(missing.entries), null).evidence).toMatchObject([
      { test: 'round the chip', outcome: 'a resistor gone' },
    ])
    const elsewhere = tape().put('part', { ref: 'C31', did: 'found missing' })
    expect(evidenceOf(jobState(elsewhere.entries), null).evidence).toMatchObject([
      { test: 'outside', outcome: 'a part missing' },
    ])
  })
})

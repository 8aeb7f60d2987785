import { describe, expect, it } from 'vitest'
import { nothingNoted } from '../board/baseline'
import { believedOf } from '../intake/known-by'
import { jobState } from '../job/job-state'
import { lifted, tape } from '../job/tape.testing'
import type { TestTape } from '../job/tape.testing'
import { harmsOf, jobRecord } from './job-record'
import { learnedFrom, nothingLearned } from './learned'
import { repairOf } from '../triage/model/repair'
import { trackRecord } from './track-record'

const dark = { ...nothingNoted, fans: 'on', lamp: 'memory', picture: 'none' } as const
const runs = { ...nothingNoted, fans: 'on', picture: 'system loads' } as const
const fixed = { outcome: 'fixed', priceMinor: null, text: '' } as const
const recordOf = (t: TestTape) => jobRecord(jobState(t.entries))
const whole = () =>
  tape()
    .put('ticket', { set: { minutesPromised: 4 } })
    .put('claim', { text: 'the fans ran' })
    .put('claim weighed', {
      claim: 2,
      test: 'fans settle',
      outcome: 'settle',
      reliability: 0.5,
      knows: 'saw it',
    })
    .put('claim checked', { claim: 2, verdict: 'holds', how: 'seen here' })
    .put('clock', { run: 'triage' })
    .put('odds said', { odds: 0.2, reckoned: null })
    .put('baseline', dark)
    .put('stroke', { ...lifted('A1'), predictedSnaps: 0.1, damage: 'lean' })
    .as('Ines')
    .put('stroke', { ...lifted('B1'), result: 'snapped', predictedSnaps: 0.4, damage: 'folded' })
    .put('odds said', { odds: 0.6, reckoned: 0.5 })
    .put('odds said', { odds: 0.8, reckoned: 0.55 })
    .put('baseline', runs)

/** The same lines, to go on from. */
function copy(t: TestTape): TestTape {
  const other = tape()
  other.entries.push(...t.entries)
  return other
}

const noHarm = Object.fromEntries(harmsOf.map((harm) => [harm, 0]))

describe('what a job leaves for the record', () => {
  it('is nothing while it is open, parked or was never one', () => {
    expect(recordOf(whole())).toBeNull()
    expect(recordOf(whole().put('hand-back', { ...fixed, outcome: 'parked' }))).toBeNull()
    expect(recordOf(whole().put('hand-back', { ...fixed, outcome: 'withdrawn' }))).toBeNull()
  })
  it('holds every odds that was said with what came of it: the last before a start counts', () => {
    const record = recordOf(whole().put('hand-back', fixed))!
    expect(record.odds).toEqual([
      { of: 'snaps', source: 'reckoned', by: 'Maren', kind: 'lean', school: 'A', odds: 0.1, came: false },
      { of: 'snaps', source: 'reckoned', by: 'Ines', kind: 'folded', school: 'A', odds: 0.4, came: true },
      { of: 'picture', source: 'said aloud', by: 'Maren', kind: '', odds: 0.2, came: false },
      { of: 'picture', source: 'said aloud', by: 'Ines', kind: '', odds: 0.8, came: true },
      { of: 'picture', source: 'reckoned', by: 'Ines', kind: '', odds: 0.55, came: true },
      { of: 'claims', source: 'reckoned', by: 'Maren', kind: 'saw it', odds: 0.5, came: true },
    ])
    // The clock ran from line 5 to the hand-back on line 13, a minute a line.
    expect(record).toMatchObject({
      time: { expected: 4, took: 8 },
      worked: 2,
      harms: { ...noHarm, 'contact snapped': 1 },
      held: null,
    })
  })
  it('counts what work did to the board by kind, and each stroke in the order of work it was made in', () => {
    const stroke = { technique: 'lift', tool: 'needle', from: null, strokes: 1, predictedSnaps: 0.1 } as const
    const t = tape()
      .put('stroke', { ...stroke, contact: 'A1', result: 'there' })
      .put('school', { school: 'B' })
      .put('stroke', { ...stroke, contact: 'A2', result: 'there' })
      .put('replaced', { contact: 'A3', how: 'transplant', holds: false, pulledOut: ['A4', 'A5'] })
      .put('seat', { cpu: 'x', drop: 'needed force', heatsink: true })
      .put('hand-back', fixed)
    const record = recordOf(t)!
    expect(record.odds.map((o) => o.school)).toEqual(['A', 'B'])
    expect(record).toMatchObject({
      worked: 3,
      harms: {
        'contact snapped': 0,
        'contact pulled out beside another': 2,
        'replacement that does not hold': 1,
        'CPU forced in': 1,
      },
    })
    const { groups, harms } = trackRecord([record, record])
    expect(groups.flatMap((g) => (g.school ? [[g.school, g.calibration.n]] : []))).toEqual([
      ['A', 2],
      ['B', 2],
    ])
    expect(harms['contact pulled out beside another']).toBe(4)
  })
  it('tells a picture by the next start, whatever it was for, and not by one that was not looked at', () => {
    const t = tape()
      .put('odds said', { odds: 0.7, reckoned: null })
      .put('baseline', { ...nothingNoted, fans: 'on' })
      .put('trial', { test: 'good in A', outcome: 'memory lamp' })
      .put('hand-back', fixed)
    expect(recordOf(t)!.odds).toMatchObject([{ of: 'picture', odds: 0.7, came: false }])
    const twice = tape()
      .put('odds said', { odds: 0.3, reckoned: null })
      .put('baseline', dark)
      .put('baseline', runs)
      .put('hand-back', fixed)
    expect(recordOf(twice)!.odds).toMatchObject([{ odds: 0.3, came: false }])
    const never = tape().put('odds said', { odds: 0.7, reckoned: null }).put('hand-back', fixed)
    expect(recordOf(never)!.odds).toEqual([])
  })
  it('has what a decision to go on came to, and whether the repair held', () => {
    const t = whole()
      .put('decision', { text: 'we go on', goingOn: { minutes: 2, spentMinutes: 5 } })
      .put('hand-back', fixed)
      .put('late outcome', { text: 'asked', holds: false })
    // Nine minutes in all, five of them before it was decided.
    expect(recordOf(t)).toMatchObject({ wentOn: { expected: 2, took: 4 }, held: false })
    const back = whole().put('hand-back', { ...fixed, outcome: 'returned unrepaired' })
    expect(recordOf(back)).toMatchObject({ time: null, wentOn: null, held: null })
  })
  it('tells every test of the proof that was settled against how likely it was to find something', () => {
    const t = tape()
      .put('proof', { test: 'system', result: 'fail', reading: 'hangs', finds: 0.08 })
      .as('Ines')
      .put('proof', { test: 'system', result: 'pass', reading: 'loads' })
      .put('cold start', { came: true })
      .put('cold start', { came: false, finds: 0.05 })
      .put('cold start', { came: true, finds: 0.04 })
      .put('proof', { test: 'ports', result: 'pass', reading: '', finds: 0.01 })
      .put('strike', { why: 'undo' }, 6)
      .put('proof', { test: 'load', result: 'pass', reading: '', finds: 0.02 })
      .put('proof', { test: 'load', result: 'fail', reading: 'hangs', afterAll: true })
      // One of which nothing was said: what was said of an earlier one stays.
      .put('proof', { test: 'sound', result: 'pass', reading: '', finds: 0.03 })
      .put('proof', { test: 'sound', result: 'pass', reading: 'again' })
      .put('proof', { test: 'sound', result: 'fail', reading: 'hums', afterAll: true })
      .put('cold start', { came: true, finds: 0.02 })
      .put('proof', { test: 'cold starts', result: 'fail', reading: 'the next day', afterAll: true })
      .put('hand-back', fixed)
    const proof = { of: 'proof', source: 'reckoned' } as const
    expect(recordOf(t)!.odds).toEqual([
      { ...proof, by: 'Maren', kind: 'system', odds: 0.08, came: true },
      { ...proof, by: 'Ines', kind: 'cold starts', odds: 0.05, came: true },
      { ...proof, by: 'Ines', kind: 'cold starts', odds: 0.04, came: false },
      { ...proof, by: 'Ines', kind: 'load', odds: 0.02, came: true },
      { ...proof, by: 'Ines', kind: 'sound', odds: 0.03, came: false },
      { ...proof, by: 'Ines', kind: 'cold starts', odds: 0.02, came: true },
    ])
  })
  it('tells whether a repair took as the shop’s record of repairs does, and whether going on ended as it was said', () => {
    const t = tape()
      .put('mended', { fault: 'cell weak', takes: 0.95 })
      .put('mended', { fault: 'chip joint' })
      .as('Ines')
      .put('mended', { fault: 'chip joint', takes: 0.7 })
      .put('decision', { text: 'we go on', goingOn: { minutes: 60, spentMinutes: 5, runs: 0.4 } })
      .put('decision', { text: 'we go on', goingOn: { minutes: 50, spentMinutes: 9, runs: 0.6 } })
    const repair = { of: 'repairs', source: 'reckoned' }
    const first = { ...repair, by: 'Maren', kind: 'chip joint', odds: repairOf('chip joint').succeeds }
    expect(recordOf(copy(t).put('hand-back', fixed))!.odds).toEqual([
      { ...repair, by: 'Maren', kind: 'cell weak', odds: 0.95, came: true },
      { ...first, came: false },
      { ...repair, by: 'Ines', kind: 'chip joint', odds: 0.7, came: true },
      { of: 'going on', source: 'reckoned', by: 'Ines', kind: '', odds: 0.6, came: true },
    ])
    // What came of the last repairs of one that was not fixed nobody knows.
    expect(recordOf(copy(t).put('hand-back', { ...fixed, outcome: 'returned unrepaired' }))!.odds).toEqual([
      { ...first, came: false },
      { of: 'going on', source: 'reckoned', by: 'Ines', kind: '', odds: 0.6, came: false },
    ])
  })
  it('tells whether what was promised was kept, by when the clock stopped; one that was moved before its time counts no more', () => {
    const at = (minute: number) => new Date(Date.UTC(2026, 10, 24, 9, minute)).toISOString()
    const promised = (minute: number, kept?: number) =>
      ({ set: { promisedAt: at(minute) }, ...(kept === undefined ? {} : { kept }) }) as const
    const odds = (t: TestTape) => recordOf(t.put('hand-back', fixed))!.odds
    const one = { of: 'promise', source: 'reckoned', by: 'Maren', kind: '' }
    // Line n stands at minute n: the clock stops at 4, the owner comes at 7.
    const kept = tape()
      .put('ticket', promised(5, 0.7))
      .put('clock', { run: 'triage' })
      .put('note', { text: 'x' })
    kept.put('clock', { run: null }).put('note', { text: 'x' }).put('note', { text: 'x' })
    expect(odds(kept)).toEqual([{ ...one, odds: 0.7, came: true }])
    expect(odds(tape().put('ticket', promised(1, 0.7)).put('note', { text: 'x' }))).toMatchObject([
      { came: false },
    ])
    const moved = tape().put('ticket', promised(60, 0.7)).put('ticket', promised(90, 0.9))
    expect(odds(moved)).toMatchObject([{ odds: 0.9, came: true }])
    const late = tape()
      .put('ticket', promised(2, 0.7))
      .put('note', { text: 'x' })
      .put('ticket', promised(90, 0.9))
    expect(odds(late)).toMatchObject([
      { odds: 0.7, came: false },
      { odds: 0.9, came: true },
    ])
    const taken = tape()
      .put('ticket', promised(60, 0.7))
      .put('ticket', { set: { promisedAt: null } })
    expect(odds(taken)).toEqual([])
    expect(odds(tape().put('ticket', promised(60)))).toEqual([])
  })
  it('tells what the sheet left open by what the owner says later', () => {
    const t = tape().put('hand-back', { ...fixed, left: 0.1 })
    expect(recordOf(t)!.odds).toEqual([])
    const one = { of: 'holds', source: 'reckoned', by: 'Maren', kind: '', odds: 0.9 }
    expect(recordOf(t.put('late outcome', { text: 'x', holds: false }))!.odds).toEqual([
      { ...one, came: false },
    ])
    expect(recordOf(t.put('late outcome', { text: 'x', holds: true }))!.odds).toEqual([
      { ...one, came: true },
    ])
  })
  it('counts no claim that could not be told, nor one that weighs nothing', () => {
    const t = tape()
      .put('claim', { text: 'a' })
      .put('claim checked', { claim: 1, verdict: 'holds', how: '' })
      .put('claim', { text: 'b' })
      .put('claim weighed', { claim: 3, test: 'cell', outcome: 'low', reliability: 0.5 })
      .put('claim checked', { claim: 3, verdict: 'cannot tell', how: '' })
      .put('hand-back', fixed)
    expect(recordOf(t)!.odds).toEqual([])
  })
})

describe('what the record says for the work of today', () => {
  const record = recordOf(whole().put('hand-back', fixed))!
  it('is what the bench defaults say without a job', () => {
    expect(nothingLearned).toMatchObject({
      claims: {},
      agreed: { n: 0, factor: 1 },
      goingOn: { n: 0, factor: 1 },
    })
    expect(believedOf('saw it', nothingLearned.claims['saw it'])).toBe(0.5)
  })
  it('moves with what came: claims are believed more, jobs reckoned longer', () => {
    const { claims, agreed } = learnedFrom([record, record, record])
    expect(claims).toEqual({ 'saw it': { held: 3, checked: 3 } })
    expect(believedOf('saw it', claims['saw it'])).toBeCloseTo(8 / 13, 12)
    expect(believedOf('heard of it', claims['heard of it'])).toBe(0.25)
    expect(agreed.n).toBe(3)
    expect(agreed.factor).toBeGreaterThan(1.2)
    expect(believedOf('did it, knows how', { held: 500, checked: 500 })).toBe(0.9)
    expect(() => believedOf('saw it', { held: 3, checked: 2 })).toThrow('3 of 2')
  })
  it('stands by sort, by person, by kind and by the order of work', () => {
    const { jobs, groups, timeBy, worked, harms } = trackRecord([record])
    expect(jobs).toBe(1)
    expect(groups.map((g) => [g.of, g.source, g.by ?? g.kind ?? g.school, g.calibration.n])).toEqual([
      ['claims', 'reckoned', null, 1],
      ['claims', 'reckoned', 'Maren', 1],
      ['claims', 'reckoned', 'saw it', 1],
      ['picture', 'reckoned', null, 1],
      ['picture', 'reckoned', 'Ines', 1],
      ['picture', 'said aloud', null, 2],
      ['picture', 'said aloud', 'Ines', 1],
      ['picture', 'said aloud', 'Maren', 1],
      ['snaps', 'reckoned', null, 2],
      ['snaps', 'reckoned', 'Ines', 1],
      ['snaps', 'reckoned', 'Maren', 1],
      ['snaps', 'reckoned', 'folded', 1],
      ['snaps', 'reckoned', 'lean', 1],
      ['snaps', 'reckoned', 'A', 2],
    ])
    expect(timeBy).toMatchObject([{ factor: { n: 1 } }])
    expect(worked).toBe(2)
    expect(harms).toEqual({ ...noHarm, 'contact snapped': 1 })
  })
})

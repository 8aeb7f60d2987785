import { ledgerOf } from '../board/loose'
import { unaccounted } from '../board/slice'
import { openOffers, uncheckedClaims } from '../intake/slice'
import { currentPass } from '../socket/slice'
import { benchSeconds } from '../work/slice'
import type { Entry, JobState } from './job-state'
import { foldOn, jobState, subjects } from './job-state'
import { struckBy } from '../tape/line'
import type { StrokeResult } from '../socket/bodies'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { tape, TestTape } from './tape.testing'

/** A step that any person could take, as a function of the tape so far. */
const step: fc.Arbitrary<(t: TestTape) => unknown> = fc.oneof(
  fc.constant((t: TestTape) => t.put('ticket', { set: { complaint: `dark ${t.entries.length}` } })),
  fc.constant((t: TestTape) => t.put('claim', { text: 'it worked' })),
  fc
    .integer({ min: 1, max: 900 })
    .map((ohms) => (t: TestTape) => t.put('rail', { rail: 'vmem', ohms, cpu: 'out' })),
  fc
    .constantFrom('A1', 'A2', 'B1')
    .map((c) => (t: TestTape) => t.put('mark', { contacts: [c], mark: { kind: 'low', heightMm: -0.1 } })),
  fc.constantFrom('there' as const, 'snapped' as const, 'still off' as const).map(
    (result) => (t: TestTape) =>
      t.put('stroke', {
        contact: 'A1',
        technique: 'lift',
        tool: 'needle',
        from: null,
        strokes: 1,
        result,
        predictedSnaps: null,
      }),
  ),
  fc.constant((t: TestTape) => t.put('pass', { name: 'again' })),
  fc.constant((t: TestTape) => t.put('looked', { contacts: 'all' })),
  fc.constant((t: TestTape) => t.put('part', { ref: 'R1', did: 'taken off' })),
  fc
    .constantFrom('triage' as const, 'socket' as const, null)
    .map((run) => (t: TestTape) => t.put('clock', { run })),
  fc.constant((t: TestTape) => t.put('station', { station: 'triage', mark: 'settled', why: '' })),
)
const laid = fc.array(step, { maxLength: 25 }).map((steps) => steps.reduce((t, s) => (s(t), t), tape()))

const contacts = ['A1', 'A2', 'B1']
const withoutPlace = ({ seq: _, board, ...rest }: ReturnType<typeof jobState>) => ({
  ...rest,
  board: { ...board, lastTouched: 0 },
})

describe('jobState', () => {
  it('is the same for the same tape', () => {
    fc.assert(
      fc.property(laid, (t) => {
        expect(jobState(t.entries, contacts)).toEqual(jobState([...t.entries], contacts))
      }),
    )
  })
  it('folded on line by line, or read back from JSON on the way, it is as if folded at once', () => {
    fc.assert(
      fc.property(laid, fc.nat(25), (t, at) => {
        const whole = jobState(t.entries, contacts)
        const first: JobState = jobState(t.entries.slice(0, at), contacts)
        const rest = t.entries.slice(at)
        expect(foldOn(first, rest, contacts) ?? whole).toEqual(whole)
        const kept = JSON.parse(JSON.stringify(first)) as JobState
        expect(foldOn(kept, rest, contacts) ?? whole).toEqual(whole)
      }),
    )
  })
  it('leaves a slice the same object when no line it hears has come', () => {
    const before = jobState(tape().put('rail', { rail: '12v', ohms: 300, cpu: 'out' }).entries)
    const after = foldOn(before, tape().put('clock', { run: 'triage' }).entries)!
    expect(after.work).not.toBe(before.work)
    for (const id of [
      'board',
      'intake',
      'triage',
      'socket',
      'firmware',
      'parts',
      'proof',
      'handBack',
    ] as const)
      expect(after[id]).toBe(before[id])
  })
  it('striking the last line gives the state before it, and striking the strike brings it back', () => {
    fc.assert(
      fc.property(laid, step, (t, more) => {
        const before = withoutPlace(jobState(t.entries, contacts))
        more(t)
        const after = withoutPlace(jobState(t.entries, contacts))
        const seq = t.entries.length
        t.put('strike', { why: 'undo' }, seq)
        expect(withoutPlace(jobState(t.entries, contacts))).toEqual(before)
        t.put('strike', { why: 'redo' }, seq + 1)
        expect(withoutPlace(jobState(t.entries, contacts))).toEqual(after)
      }),
    )
  })
  it('does not change what it was given', () => {
    fc.assert(
      fc.property(laid, (t) => {
        const copy = structuredClone(t.entries)
        jobState(t.entries, contacts)
        expect(t.entries).toEqual(copy)
      }),
    )
  })
  it('opens the first pass by itself and carries marks, not looks, into the next', () => {
    const t = tape()
      .put('looked', { contacts: 'all' })
      .put('mark', { contacts: ['A1'], mark: { kind: 'low' } })
      .put('pass', { name: 'after' })
    const s = jobState(t.entries, contacts)
    expect(s.socket.passes.map((p) => p.name)).toEqual(['before', 'after'])
    expect(Object.keys(s.socket.passes[0]!.looked)).toEqual(contacts)
    expect(currentPass(s.socket)).toMatchObject({ marks: { A1: { kind: 'low' } }, looked: {} })
  })
  it('a stroke that went well takes the mark off the field, not off what was found', () => {
    const stroke = {
      contact: 'A1',
      technique: 'lift',
      tool: 'needle',
      from: null,
      strokes: 2,
      predictedSnaps: 0.01,
    }
    const t = tape().put('mark', { contacts: ['A1'], mark: { kind: 'low' } })
    const good = jobState(t.put('stroke', { ...stroke, result: 'there' }).entries)
    expect([good.socket.passes[0]!.marks, good.socket.passes[0]!.found]).toEqual([
      {},
      { A1: { kind: 'low' } },
    ])
    const bad = jobState(t.put('stroke', { ...stroke, result: 'snapped' }).entries)
    expect(bad.socket.passes[0]!.marks).toEqual({ A1: { kind: 'snapped' } })
    expect(unaccounted(bad.board).map((i) => i.what)).toEqual(['fragment of A1'])
  })
  it('a stroke that fell short leaves a third, one that went past leaves some on the other side', () => {
    const stroke = {
      contact: 'A1',
      technique: 'push',
      tool: 'needle',
      from: null,
      strokes: 1,
      predictedSnaps: 0.01,
    }
    const t = () => tape().put('mark', { contacts: ['A1'], mark: { kind: 'lean', leanMm: [0.3, 0] } })
    const after = (result: StrokeResult, touches?: string) =>
      jobState(t().put('stroke', { ...stroke, result, ...(touches ? { touches } : {}) }).entries).socket
        .passes[0]!.marks.A1
    expect(after('still short')).toEqual({ kind: 'lean', leanMm: [0.105, 0] })
    expect(after('past')).toEqual({ kind: 'lean', leanMm: [-0.09, 0] })
    expect(after('touching', 'A2')).toMatchObject({ kind: 'touching', touches: 'A2' })
    expect(after('still off')).toEqual({ kind: 'lean', leanMm: [0.3, 0] })
  })
  it('a contact that was replaced and holds is whole again; what came out with it is gone and to be accounted for', () => {
    const t = tape().put('mark', { contacts: ['A1'], mark: { kind: 'snapped' } })
    const replaced = { contact: 'A1', how: 'transplant' as const, donor: 'old one', pulledOut: ['A2'] }
    const bad = jobState(t.put('replaced', { ...replaced, holds: false }).entries)
    expect(bad.socket.passes[0]!.marks).toEqual({ A1: { kind: 'snapped' }, A2: { kind: 'snapped' } })
    expect(unaccounted(bad.board).map((i) => i.what)).toEqual(['fragment of A1', 'contact A2, pulled out'])
    const good = jobState(t.put('replaced', { ...replaced, holds: true, pulledOut: [] }).entries)
    expect(good.socket.passes[0]!.marks).toEqual({ A2: { kind: 'snapped' } })
    expect(good.board.power.proved > good.board.power.changed).toBe(false)
    const whole = jobState(
      t.put('replaced', { ...replaced, how: 'whole socket', holds: true, pulledOut: [] }).entries,
    )
    expect(whole.socket.passes[0]!.marks).toEqual({})
  })
  it('a fragment is accounted for by its own line', () => {
    const t = tape()
      .put('missing', { what: 'tip of A2', from: 'socket' })
      .put('accounted', { item: 1, where: 'in the dish' })
    expect(unaccounted(jobState(t.entries).board)).toEqual([])
    expect(ledgerOf(jobState(t.entries).board.loose)[0]).toMatchObject({ where: 'in the dish' })
  })
  it('an approved offer moves the limit, a refused one does not', () => {
    const t = tape()
      .put('ticket', { set: { limitMinor: 100, minutesPromised: 30 } })
      .put('offer', { text: 'more', limitMinor: 500, minutes: 90 })
    expect(openOffers(jobState(t.entries).intake)).toHaveLength(1)
    const refused = jobState([...t.entries, ...tape().put('note', { text: 'x' }).entries.slice(1)])
    expect(refused.intake.ticket.limitMinor).toBe(100)
    t.put('offer answered', { offer: 2, approved: true, how: '' })
    expect(jobState(t.entries).intake.ticket).toMatchObject({ limitMinor: 500, minutesPromised: 90 })
    expect(openOffers(jobState(t.entries).intake)).toEqual([])
  })
  it('a claim is work until it is checked', () => {
    const t = tape().put('claim', { text: 'it worked' })
    expect(uncheckedClaims(jobState(t.entries).intake)).toHaveLength(1)
    t.put('claim checked', { claim: 1, verdict: 'wrong', how: 'salt' })
    expect(uncheckedClaims(jobState(t.entries).intake)).toEqual([])
  })
  it('a power-up under a limit counts until something is touched, or if the supply trips', () => {
    const up = {
      fans: 'on',
      current: 'steady',
      amps: 0.6,
      lamp: 'none',
      beeps: '',
      cpuHeat: 'warm',
      codes: [],
      picture: 'none',
    } as const
    const proved = (t: ReturnType<typeof tape>) => {
      const { power } = jobState(t.entries).board
      return power.proved > power.changed
    }
    const t = tape().put('supply', { limitA: 1 }).put('baseline', up)
    expect(proved(t)).toBe(true)
    expect(proved(t.put('seat', { cpu: 'x', drop: 'flat', heatsink: true }))).toBe(false)
    expect(
      proved(
        tape()
          .put('supply', { limitA: 1 })
          .put('baseline', { ...up, current: 'trips' }),
      ),
    ).toBe(false)
  })
})

describe('bench clock', () => {
  it('adds up by station, runs on while it runs, and stops at the hand-back', () => {
    const t = tape()
      .put('clock', { run: 'triage' })
      .put('note', { text: 'x' })
      .put('clock', { run: 'socket' })
      .put('note', { text: 'y' })
    const at = (minute: number) => new Date(Date.UTC(2026, 10, 24, 9, minute)).toISOString()
    const running = benchSeconds(jobState(t.entries).work, at(10))
    expect([running.station('triage'), running.station('socket'), running.all]).toEqual([120, 420, 540])
    t.put('hand-back', { outcome: 'fixed', priceMinor: null, text: '' })
    expect(benchSeconds(jobState(t.entries).work, at(50)).all).toBe(240)
  })
})

describe('struckBy', () => {
  it('a strike that is struck does not count', () => {
    const t = tape()
      .put('note', { text: 'a' })
      .put('strike', { why: 'x' }, 1)
      .put('strike', { why: 'y' }, 2)
      .put('strike', { why: 'z' }, 3)
    expect([...struckBy(t.entries).keys()]).toEqual([3, 1])
  })
})

it('subjects tell what two people may write about at once', () => {
  const of = (entry: Entry) => subjects(entry)
  const [ticket, mark] = tape()
    .put('ticket', { set: { cpu: 'x', use: 'y' } })
    .put('mark', { contacts: ['A1', 'A2'], mark: { kind: 'low' } }).entries
  expect(of(ticket!)).toEqual(['ticket cpu', 'ticket use'])
  expect(of(mark!)).toEqual(['contact A1', 'contact A2'])
  expect(subjects({ kind: 'strike', body: { why: 'x' }, strikes: 4 })).toEqual(['entry 4'])
})

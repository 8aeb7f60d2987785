import { nothingRound } from './advice-setting'
import { describe, expect, it } from 'vitest'
import { nothingNoted } from '../board/baseline'
import { rails } from '../board/rail'
import type { Rail } from '../board/rail'
import { stations } from '../board/station'
import type { PowerGate } from '../board/gate-reason'
import { faults } from '../triage/model/faults'
import { benchTests } from '../triage/model/bench-tests'
import type { Belief } from '../triage/reason/belief'
import { testOf } from '../triage/reason/hypotheses'
import type { Bodies } from '../slices'
import { chosenStep, triageStep } from '../triage/next-step'
import { smallField } from '../socket/model/field.testing'
import { reckonAdvice, toAdvise } from './advise'
import { gateOf } from './gate'
import { jobState } from './job-state'
import { nextStep, stepAt } from './next-step'
import { progress } from './stations-say'
import { tape } from './tape.testing'
import type { TestTape } from './tape.testing'

const socket = smallField()
const names = socket.contacts.map((c) => c.name)
function standing(t: TestTape) {
  const state = jobState(t.entries, names)
  const gate = gateOf(state, socket)
  const advised = {
    state,
    field: socket,
    gate,
    setting: nothingRound,
    ...reckonAdvice(socket, toAdvise(state, socket, gate, nothingRound)),
  }
  return {
    state,
    gate,
    advised,
    step: (station: (typeof stations)[number]) => stepAt(station, advised),
    next: nextStep(advised),
    at: nextStep(advised).station,
  }
}
const taken = () =>
  tape()
    .put('ticket', {
      set: { board: 'TW-K61', complaint: 'dark', history: ['none known'], socketId: 'small' },
    })
    .put('consent', { risks: [], limitMinor: null, signature: null, how: 'by telephone' })
const measured = (ohms: Readonly<Partial<Record<Rail, number>>> = {}) => {
  const t = taken()
    .put('look', { what: 'outside of the board', seen: 'nothing seen', clear: true })
    .put('cell', { volts: 3 })
  for (const rail of rails) t.put('rail', { rail, ohms: ohms[rail] ?? 900, cpu: 'out' })
  return t
}

describe('nextStep', () => {
  it('asks at intake for what is still missing, in order', () => {
    expect(standing(tape()).step('intake').say).toMatch(/which board/)
    expect(standing(tape().put('ticket', { set: { board: 'x' } })).step('intake').say).toMatch(
      /in their words/,
    )
    expect(
      standing(tape().put('ticket', { set: { board: 'x', complaint: 'y' } })).step('intake').say,
    ).toMatch(/just before it died/)
    expect(standing(taken()).step('intake').say).toMatch(/go to triage/)
    expect(standing(taken().put('claim', { text: 'z' })).step('intake').say).toMatch(/1 claim waits/)
    expect(
      standing(taken().put('offer', { text: 'more', limitMinor: null, minutes: null })).step('intake').say,
    ).toMatch(/changed offer: more/)
  })
  it('measures before it powers, and looks before both', () => {
    expect(standing(taken()).step('triage').say).toMatch(/outside of the board/)
    const seen = () => taken().put('look', { what: 'outside of the board', seen: 'x', clear: true })
    expect(standing(seen()).step('triage').say).toMatch(/measure the rails/)
    expect(standing(seen().put('rail', { rail: '12v', ohms: 900, cpu: 'out' })).step('triage').say).toMatch(
      /measure the 5 V rail/,
    )
    expect(standing(measured()).step('triage').say).toMatch(/Do not power yet: Nobody has looked/)
    const looked = measured().put('looked', { contacts: 'all' })
    expect(standing(looked).step('triage').say).toMatch(/Set a current limit/)
    expect(standing(looked.put('supply', { limitA: 0.5 })).step('triage').say).toMatch(/Power up under 0.5 A/)
  })
  it('names no rail where each was read, one of them in a word alone', () => {
    const t = taken().put('look', { what: 'outside of the board', seen: 'x', clear: true })
    for (const rail of rails.slice(1)) t.put('rail', { rail, ohms: 900, cpu: 'out' })
    t.put('rail', { rail: '12v', ohms: null, is: 'short', cpu: null })
    const { say, why } = standing(t).step('triage')
    expect(`${say} ${why}`).toMatch(/12 V rail/)
    expect(`${say} ${why}`).not.toMatch(/undefined/)
  })
  it('asks for the rails of the board’s own after the usual ones, and counts them', () => {
    const own = [{ rail: 'chipset', ohmsOut: 92, ohmsIn: null, volts: null }]
    const t = taken().put('look', { what: 'outside of the board', seen: 'x', clear: true })
    t.put('ticket', { set: { rails: own } })
    expect(standing(t).step('triage').why).toMatch(/^8 readings/)
    for (const rail of rails) t.put('rail', { rail, ohms: 900, cpu: 'out' })
    const step = standing(t).step('triage')
    expect(step).toMatchObject({ part: 'rails', say: 'Unplug it and measure the chipset rail to ground.' })
    expect(step.test).toBeUndefined()
    t.put('rail', { rail: 'chipset', ohms: 90, cpu: 'out' })
    expect(standing(t).step('triage').say).toMatch(/coin cell|Nobody has looked/)
  })
  it('asks for a rail at ground once more where that does not fit the rest, and not a third time', () => {
    const t = measured().put('looked', { contacts: 'all' }).put('supply', { limitA: 2 })
    const ran = { ...nothingNoted, fans: 'on', current: 'steady', amps: 0.9, cpuHeat: 'warm' } as const
    for (let i = 0; i < 3; i++) t.put('baseline', { ...ran, picture: 'maker screen' })
    t.put('rail', { rail: 'vmem', ohms: 0.5, cpu: 'out' })
    expect(standing(t).step('triage').say).toBe(
      'Measure memory rail to ground again: a short does not fit the rest.',
    )
    t.put('rail', { rail: 'vmem', ohms: 0.6, cpu: 'out' })
    expect(standing(t).step('triage').say).not.toMatch(/does not fit the rest/)
    // Of a board that was never started a short fits; it is read once more before it is repaired.
    const dark = measured({ vmem: 0.5 }).put('looked', { contacts: 'all' })
    const once = standing(dark).step('triage')
    expect(once).toMatchObject({
      say: 'Measure memory rail to ground, unplugged, once more.',
      test: 'ohms vmem',
    })
    expect(once.why).toMatch(/^Do not power: memory rail is shorted/)
    dark.put('rail', { rail: 'vmem', ohms: 0.6, cpu: 'out' })
    expect(standing(dark).step('triage').say).not.toMatch(/^Measure memory rail/)
    // Not where the same rail had just read well.
    const slipped = measured().put('looked', { contacts: 'all' })
    slipped.put('rail', { rail: 'vmem', ohms: 0.5, cpu: 'out' })
    expect(standing(slipped).step('triage')).toMatchObject({
      say: 'Measure memory rail to ground again: a short does not fit the rest.',
      test: 'ohms vmem',
    })
  })
  it('after a change measures each rail again, one after another, with its answers', () => {
    const t = measured().put('looked', { contacts: 'all' })
    t.put('part', { ref: 'R1', did: 'fitted' })
    expect(standing(t).step('triage')).toMatchObject({ part: 'rails', test: 'ohms 12v' })
    t.put('rail', { rail: '12v', ohms: 480, cpu: 'out' })
    expect(standing(t).step('triage')).toMatchObject({ part: 'rails', test: 'ohms 5v' })
  })
  it('of a machine that just ran asks neither for its rails nor for its socket first', () => {
    const t = taken().put('look', { what: 'outside of the board', seen: 'nothing seen', clear: true })
    t.put('cell', { volts: 3 })
    expect(standing(t).step('triage')).toMatchObject({ part: 'rails' })
    t.put('baseline', { ...nothingNoted, fans: 'on', current: 'steady', amps: 0.9, picture: 'system loads' })
    const { step, at } = standing(t)
    expect(step('triage').say).toBe('It runs: prove it.')
    expect(at).not.toBe('triage')
  })
  it('from the first power-up on is what the odds say, and waits for them', () => {
    const t = measured().put('looked', { contacts: 'all' }).put('supply', { limitA: 1 })
    t.put('baseline', {
      fans: 'on',
      current: 'steady',
      amps: 0.7,
      lamp: 'memory',
      beeps: '',
      cpuHeat: 'warm',
      codes: ['51'],
      picture: 'none',
    })
    const { step, advised } = standing(t)
    expect(step('triage')).toMatchObject({ say: `${advised.belief!.next[0]!.test.say}.`, part: 'next-test' })
    expect(stepAt('triage', { ...advised, belief: null })).toMatchObject({ pending: true })
    for (const slot of ['A', 'B'])
      t.put('swap', {
        what: 'module',
        part: 'known-good',
        place: `slot ${slot}`,
        knownGood: true,
        outcome: slot === 'A' ? 'system loads' : 'memory lamp',
      })
    expect(standing(t).advised.belief!.next.map((n) => n.test.id)).not.toContain('good in A')
  })
  it('never names a chosen test that powers the board as the thing to do while the gate is closed', () => {
    const closed: PowerGate = {
      lamp: 'do not power',
      reasons: [
        {
          level: 'closed',
          code: 'rail short',
          text: '12 V rail is shorted to ground: 2 Ω, CPU out',
          at: { station: 'triage', part: 'rails', say: 'Find the short' },
        },
      ],
    }
    for (const test of benchTests) {
      const step = chosenStep(test, undefined, closed)
      if (test.powers) {
        expect(step.say).toMatch(/^Do not power yet: 12 V rail is shorted/)
        expect(step.why).toContain('note only what has already happened')
      } else expect(step.say).toBe(`${test.say}.`)
      expect(step.test).toBe(test.id)
      expect(chosenStep(test, undefined, { lamp: 'clear', reasons: [] }).say).toBe(`${test.say}.`)
    }
  })
  it('mends what is settled before anything else is tried', () => {
    const { advised, state, gate } = standing(measured().put('looked', { contacts: 'all' }))
    const belief = {
      ...advised.belief!,
      verdict: { is: 'found' as const, fault: 'slot B' as const, odds: 0.98 },
    }
    const t = measured()
      .put('looked', { contacts: 'all' })
      .put('supply', { limitA: 1 })
      .put('baseline', {
        ...nothingNoted,
        fans: 'on',
        current: 'steady',
        amps: 0.7,
        cpuHeat: 'warm',
        lamp: 'memory',
      })
    const later = { ...standing(t).advised, belief }
    expect(nextStep(later)).toMatchObject({
      station: 'triage',
      say: 'Repair it: memory slot B damaged or dirty.',
    })
    // With no test worth its minutes, what may be repaired is named before it can be noted as repaired.
    const [first] = belief.faults
    const open = (odds: number) =>
      triageStep(jobState(t.entries, names).board, later.gate, {
        ...belief,
        verdict: null,
        notWorthMore: true,
        faults: [{ ...first!, odds }],
        somethingElse: 0.05,
      })
    expect(open(0.7).repairs).toBe(first!.fault)
    expect(open(0.7).say).toContain(faults[first!.fault].say)
    // One that is less likely than not is not repaired to see.
    expect(open(0.4).repairs).toBeUndefined()
    // Nor is a board that may well have something in no list.
    const strange = triageStep(jobState(t.entries, names).board, later.gate, {
      ...belief,
      verdict: null,
      notWorthMore: true,
      faults: [{ ...first!, odds: 0.7 }],
      somethingElse: 0.2,
    })
    expect(strange.repairs).toBeUndefined()
    expect(strange.say).toMatch(/stop, and say what stays open/)
    expect(state.handBack.done).toBeNull()
    expect(gate.lamp).toBe('limit the current')
  })
  it('has its own parts put back and noted before a start as it came, and does not ask for it again and again', () => {
    const dark = { ...nothingNoted, fans: 'on', lamp: 'memory', picture: 'none' } as const
    const start = { test: testOf('as it came'), outcomes: [], tells: 0.3, riskMinutes: 0, again: true }
    const t = (fitted: Partial<Bodies['fitted']>) =>
      measured()
        .put('supply', { limitA: 1 })
        .put('fitted', { heatsink: true, ...fitted })
        .put('baseline', dark)
    const step = (fitted: Partial<Bodies['fitted']>) =>
      triageStep(jobState(t(fitted).entries, names).board, { lamp: 'clear', reasons: [] } as never, {
        ...({
          verdict: null,
          repair: null,
          notWorthMore: false,
          confirms: null,
          faults: [],
        } as never as Belief),
        next: [start as never],
      })
    expect(step({ cpu: 'Orrin 41' })).toMatchObject({
      test: 'as it came',
      say: 'Put it back as it came, then power up.',
    })
    const lent = step({ cpu: 'bench Orrin 51' })
    expect(lent).toMatchObject({
      part: 'fitted',
      say: 'Put it back as it came, and note it: its own CPU, heatsink on.',
    })
    expect(lent.test).toBeUndefined()
    expect(step({ cpu: 'Orrin 41', modules: [], drive: null }).say).toMatch(/: its modules; its drive\.$/)
    expect(step({ cpu: 'known-good CPU' }).test).toBeUndefined()
  })
  it('looks at the last step first where a start stops earlier than before', () => {
    const dark = { ...nothingNoted, picture: 'none', lamp: 'none' } as const
    const t = measured()
      .put('looked', { contacts: 'all' })
      .put('supply', { limitA: 1 })
      .put('baseline', { ...dark, fans: 'on', current: 'steady', lamp: 'memory', cpuHeat: 'warm', amps: 0.4 })
    const say = (after: typeof t) =>
      triageStep(jobState(after.entries, names).board, { lamp: 'clear', reasons: [] } as never, null).say
    expect(say(t)).toMatch(/^Calculating/)
    const nothing = { ...dark, fans: 'off', current: 'none', amps: 0 } as const
    const worse = t.put('fitted', { cpu: 'bench Orrin 41', heatsink: true }).put('baseline', nothing)
    expect(say(worse)).toBe('It stops earlier than before: the last step first.')
    expect(
      say(worse.put('look', { what: 'round the socket', seen: 'nothing seen', clear: true })),
    ).not.toMatch(/last step/)
    // Nothing was done in between: it comes and goes.
    const alone = measured()
      .put('looked', { contacts: 'all' })
      .put('supply', { limitA: 1 })
      .put('baseline', { ...dark, fans: 'on', current: 'steady', lamp: 'memory', cpuHeat: 'warm', amps: 0.4 })
      .put('baseline', nothing)
    expect(say(alone)).not.toMatch(/last step/)
  })
  it('puts a loose fragment first, at every station but the ticket', () => {
    const t = measured().put('stroke', {
      contact: 'A2',
      technique: 'lift',
      tool: 'needle',
      from: null,
      strokes: 1,
      result: 'snapped',
      predictedSnaps: 0.02,
    })
    const { next, step } = standing(t)
    expect(next).toMatchObject({
      say: 'Account for fragment of A2: find it, or say where it went.',
      part: 'ledger',
    })
    for (const station of stations)
      if (station === 'intake') expect(step(station).say).not.toMatch(/fragment/)
      else expect(step(station)).toEqual(next)
  })
  it('goes where the gate is closed, and never says to power there', () => {
    const ground = measured()
      .put('looked', { contacts: 'all' })
      .put('rail', { rail: '12v', ohms: 0.2, cpu: 'out' })
      .put('rail', { rail: '12v', ohms: 0.3, cpu: 'out' })
    const { next, step, advised } = standing(ground)
    expect(next.station).toBe('triage')
    expect(next.why).toMatch(/^Do not power: 12 V rail is shorted to ground/)
    expect(next.test).toBe(advised.belief!.next[0]!.test.id)
    expect(advised.belief!.next.every((n) => !n.test.powers)).toBe(true)
    expect(step('proof').say).toMatch(/^Do not power yet: 12 V rail/)
    expect(step('proof').proves).toBeUndefined()
    // What is made without power is asked for all the same.
    const soldered = ground.put('part', { ref: 'R214', did: 'fitted', value: '33 Ω' })
    expect(standing(soldered).step('proof').proves).toBe('continuity')
  })
  it('does not say to seat the CPU and try while the gate is closed', () => {
    const ground = { rail: '12v', ohms: 0.2, cpu: 'out' } as const
    const whole = measured().put('looked', { contacts: 'all' })
    expect(standing(whole).step('socket').say).toMatch(/Seat the CPU and try/)
    expect(standing(whole.put('rail', ground)).step('socket').say).toMatch(
      /^The field looks right\. Do not power yet: 12 V rail is shorted to ground/,
    )
    const marked = measured()
      .put('looked', { contacts: 'all' })
      .put('mark', { contacts: ['D1'], mark: { kind: 'low', heightMm: -0.14 } })
      .put('rail', ground)
    expect(standing(marked).step('socket').say).toMatch(
      /^Leave the marked contact as it is\. Do not power yet: 12 V/,
    )
    // Proud as it was seated: seating it again is what clears it.
    const proud = measured()
      .put('looked', { contacts: 'all' })
      .put('seat', { cpu: 'x', drop: 'proud', heatsink: true })
    expect(standing(proud.put('looked', { contacts: 'all' })).step('socket').say).toMatch(/Seat the CPU/)
  })
  it('names the test that is due first in the list of tests as well', () => {
    for (const t of [
      taken(),
      taken().put('look', { what: 'outside of the board', seen: 'x', clear: true }),
    ]) {
      const { step, advised } = standing(t)
      expect(step('triage').test).toBeDefined()
      expect(advised.belief!.next[0]!.test.id).toBe(step('triage').test)
    }
  })
  it('parts what touches before any power, and says where to begin', () => {
    const t = measured()
      .put('looked', { contacts: 'all' })
      .put('mark', { contacts: ['C4'], mark: { kind: 'touching', touches: 'C5' } })
    expect(standing(t).step('socket').say).toBe(
      'Begin with C4: separate from C5, from the south-east; separate C4 from C5 before any power.',
    )
  })
  it('names a crater and the way to work it', () => {
    const t = measured()
      .put('looked', { contacts: 'all' })
      .put('mark', { contacts: ['A1', 'A2', 'B1', 'B2', 'C2'], mark: { kind: 'low', heightMm: -0.1 } })
    expect(standing(t).step('socket').say).toMatch(
      /^Level the crater of 5 at \w\d from its rim inward, begin with/,
    )
  })
  it('does not say from the rim inward where it begins in the middle, and says that others wait for it', () => {
    const t = measured()
      .put('looked', { contacts: 'all' })
      .put('mark', { contacts: ['A1', 'A2', 'B1', 'B2', 'C2'], mark: { kind: 'low', heightMm: -0.1 } })
    const { advised } = standing(t)
    const { planned, clusters } = advised.work!
    const { middle } = clusters[0]!
    const steps = planned.steps
      .toSorted((a, b) => Number(b.contact === middle) - Number(a.contact === middle))
      .map((s, i) => ({ ...s, after: i === 0 ? [] : [middle] }))
    const work = { planned: { ...planned, steps }, clusters }
    expect(stepAt('socket', { ...advised, work }).say).toMatch(
      new RegExp(`^Level the crater of 5 at ${middle}, begin with ${middle}, for which \\d+ others wait`),
    )
  })
  it('never says a marked field looks right', () => {
    const t = measured()
      .put('looked', { contacts: 'all' })
      .put('mark', { contacts: ['A1'], mark: { kind: 'low' } })
    const { advised } = standing(t)
    expect(stepAt('socket', { ...advised, work: null })).toMatchObject({ pending: true })
    expect(standing(measured().put('looked', { contacts: 'all' })).step('socket').say).toMatch(/looks right/)
    expect(standing(measured().put('looked', { contacts: ['A1'] })).step('socket').say).toMatch(
      /other 59 contacts/,
    )
    const ground = { contacts: ['D1'], mark: { kind: 'low', heightMm: -0.14 } } as const
    expect(
      standing(measured().put('looked', { contacts: 'all' }).put('mark', ground)).step('socket').say,
    ).toBe('Leave the marked contact as it is. Seat the CPU and try.')
  })
  it('has a sentence and a reason at every station of every job', () => {
    for (const t of [
      tape(),
      taken(),
      measured(),
      measured().put('hand-back', { outcome: 'fixed', priceMinor: null, text: '' }),
    ])
      for (const station of stations) {
        const { say, why } = standing(t).step(station)
        expect(say).toMatch(/^[A-Z0-9].*\.$/)
        expect(why.length).toBeGreaterThan(0)
      }
  })
})

describe('the station where a job waits', () => {
  it('goes from station to station as the work does', () => {
    expect(standing(tape()).at).toBe('intake')
    expect(standing(taken()).at).toBe('triage')
    expect(standing(measured()).at).toBe('socket')
    const done = measured()
      .put('looked', { contacts: 'all' })
      .put('station', { station: 'socket', mark: 'settled', why: '' })
      .put('station', { station: 'triage', mark: 'settled', why: '' })
    expect(standing(done.put('station', { station: 'intake', mark: 'settled', why: '' })).at).toBe('firmware')
  })
  it('marks what was begun, settled and passed over, with a word', () => {
    const t = taken()
      .put('station', { station: 'firmware', mark: 'passed over', why: 'nothing points here' })
      .put('mark', { contacts: ['A1'], mark: { kind: 'low' } })
    const stops = progress(standing(t).state, socket, nothingRound)
    expect(stops.map((s) => s.mark)).toEqual([
      'open',
      'untouched',
      'open',
      'passed over',
      'untouched',
      'untouched',
      'untouched',
    ])
    expect(stops[2]!.note).toBe('inspection 1, 1 marked')
    expect(stops[3]!.note).toBe('nothing points here')
  })
})

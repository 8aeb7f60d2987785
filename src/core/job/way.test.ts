import { jobState } from './job-state'
import { stations } from '../board/station'
import { rails } from '../board/rail'
import { describe, expect, it } from 'vitest'
import { smallField } from '../socket/field.testing'
import { gateOf } from './gate'
import { tape } from './tape.testing'
import type { TestTape } from './tape.testing'
import { nextStation, nextStep, socketWork, way } from './way'

const socket = smallField()
const names = socket.contacts.map((c) => c.name)

function standing(t: TestTape) {
  const state = jobState(t.entries, names)
  const gate = gateOf(state, socket)
  const step = (station: (typeof stations)[number]) =>
    nextStep(
      station,
      state,
      socket,
      gate,
      socketWork(socket, state.socket.passes.at(-1)?.marks ?? {}, state.socket.school),
    )
  return { state, step, at: nextStation(state, socket) }
}
const taken = () =>
  tape()
    .put('ticket', {
      set: { board: 'TW-K61', complaint: 'dark', history: ['none known'], socketId: 'small' },
    })
    .put('consent', { risks: [], limitMinor: null, signature: null, how: 'by telephone' })
const measured = () => {
  const t = taken()
    .put('look', { what: 'outside of the board', seen: 'nothing seen', clear: true })
    .put('cell', { volts: 3 })
  for (const rail of rails) t.put('rail', { rail, ohms: 900, cpu: 'out' })
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
  it('turns the stage that is blocked into a look', () => {
    const t = measured().put('looked', { contacts: 'all' }).put('supply', { limitA: 1 })
    t.put('baseline', {
      fans: 'on',
      current: 'steady',
      amps: 1,
      lamp: 'memory',
      beeps: '',
      cpuHeat: 'warm',
      codes: ['51'],
      picture: 'none',
    })
    expect(standing(t).step('triage').say).toMatch(/known-good module, each slot in turn/)
  })
  it('parts what touches before any power, and says where to begin', () => {
    const t = measured()
      .put('looked', { contacts: 'all' })
      .put('mark', { contacts: ['C4'], mark: { kind: 'touching', touches: 'C5' } })
    expect(standing(t).step('socket').say).toBe(
      'Begin with C4: part from C5, from the south-east; part C4 from C5 before any power.',
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
  it('never says a marked field looks right', () => {
    const t = measured()
      .put('looked', { contacts: 'all' })
      .put('mark', { contacts: ['A1'], mark: { kind: 'low' } })
    const state = jobState(t.entries, names)
    const gate = gateOf(state, socket)
    expect(nextStep('socket', state, socket, gate, null).say).toMatch(/marked contacts/)
    expect(standing(measured().put('looked', { contacts: 'all' })).step('socket').say).toMatch(/looks right/)
    expect(standing(measured().put('looked', { contacts: ['A1'] })).step('socket').say).toMatch(
      /other 59 contacts/,
    )
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

describe('way', () => {
  it('goes from station to station as the work does', () => {
    expect(standing(tape()).at).toBe('intake')
    expect(standing(taken()).at).toBe('triage')
    expect(standing(measured()).at).toBe('socket')
    const done = measured()
      .put('station', { station: 'socket', mark: 'settled', why: '' })
      .put('station', { station: 'triage', mark: 'settled', why: '' })
    expect(standing(done.put('station', { station: 'intake', mark: 'settled', why: '' })).at).toBe('firmware')
  })
  it('marks what was begun, settled and passed over, with a word', () => {
    const t = taken()
      .put('station', { station: 'firmware', mark: 'passed over', why: 'nothing points here' })
      .put('mark', { contacts: ['A1'], mark: { kind: 'low' } })
    const stops = way(standing(t).state, socket)
    expect(stops.map((s) => s.mark)).toEqual([
      'open',
      'untouched',
      'open',
      'passed over',
      'untouched',
      'untouched',
      'untouched',
    ])
    expect(stops[2]!.note).toBe('pass 1, 1 marked')
    expect(stops[3]!.note).toBe('nothing points here')
  })
})

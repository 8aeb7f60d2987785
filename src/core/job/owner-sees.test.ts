import { describe, expect, it } from 'vitest'
import { jobState } from './job-state'
import { ownerSees } from './owner-sees'
import { tape } from './tape.testing'
import type { TestTape } from './tape.testing'

const sees = (t: TestTape) => ownerSees(jobState(t.entries))
const taken = () =>
  tape().put('ticket', {
    set: { board: 'Tarnworks TW-K61', revision: 'B', complaint: 'dark', limitMinor: 50_000 },
  })

describe('what an owner sees', () => {
  it('is where it stands, step by step, in plain words', () => {
    expect(sees(taken())).toMatchObject({
      board: 'Tarnworks TW-K61 rev B',
      theirWords: 'dark',
      where: 'It is here, and waits for its turn.',
      limitMinor: 50_000,
    })
    const work = taken().put('cell', { volts: 2.9 })
    expect(sees(work).where).toBe('We are working on it.')
    const waits = taken().put('awaited', { what: 'two capacitors', expectedOn: null })
    expect(sees(waits).where).toBe('It waits for a part that is on its way.')
    const asked = work.put('offer', { text: 'a second contact', limitMinor: 80_000, minutes: 60 })
    expect(sees(asked)).toMatchObject({ where: 'We ask you something before we go on.', asked: [{ seq: 3 }] })
    const answered = asked.put('offer answered', { offer: 3, approved: true, how: 'by their link' })
    expect(sees(answered)).toMatchObject({ asked: [], answered: [{ approved: true }], limitMinor: 80_000 })
    const proved = answered.put('cold start', { came: true })
    expect(sees(proved)).toMatchObject({ where: 'It is being tested.', mayReport: false })
    const done = proved
      .put('advice', { text: 'cover the socket' })
      .put('hand-back', { outcome: 'fixed', priceMinor: 40_000, text: 'one contact straightened' })
    expect(sees(done)).toMatchObject({
      where: 'It is repaired.',
      mayReport: true,
      ended: { priceMinor: 40_000, advice: ['cover the socket'] },
    })
  })
  it('has nothing of the work: no note, no odds, no picture, no name', () => {
    const secret = taken()
      .put('note', { text: 'owner is rude' })
      .put('claim', { text: 'never touched it' })
      .put('decision', { text: 'not worth it' })
      .put('odds said', { odds: 0.1, reckoned: 0.2 })
      .put('offer', { text: 'more', limitMinor: null, minutes: null })
      .put('offer', { text: 'still more', limitMinor: null, minutes: null })
      .put('offer answered', { offer: 6, approved: true, how: 'by telephone' })
    expect(JSON.stringify(sees(secret))).not.toMatch(/rude|never touched|not worth|0\.1|Maren/)
  })
  it('asks nothing any more once it has gone', () => {
    const gone = taken()
      .put('offer', { text: 'more', limitMinor: null, minutes: null })
      .put('hand-back', { outcome: 'returned unrepaired', priceMinor: 0, text: '' })
    expect(sees(gone)).toMatchObject({
      asked: [],
      mayReport: false,
      where: 'It goes back to you unrepaired.',
    })
  })
})

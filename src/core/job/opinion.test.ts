import { describe, expect, it } from 'vitest'
import { jobState } from './job-state'
import { opinionSees, opinionText } from './opinion'
import { tape } from './tape.testing'
import type { TestTape } from './tape.testing'

const picture = 'ab'.repeat(32)
const asked = () =>
  tape()
    .put('ticket', { set: { board: 'Tarnworks TW-K61', complaint: 'dark', limitMinor: 50_000 } })
    .put('claim', { text: 'nobody touched it' })
    .put('photo', { file: picture, name: 'a.png', type: 'image/png', bytes: 9, caption: 'corner D' })
    .put('volts', { rail: 'vcore', volts: 0.4 })
    .put('odds said', { odds: 0.9, reckoned: 0.3 })
    .put('note', { text: 'the owner is in a hurry' })
    .put('decision', { text: 'go on, 40 minutes' })
    .put('volts', { rail: '12v', volts: 11.9 })
    .put('strike', { why: 'wrong board' }, 8)
    .put('opinion asked', { text: 'Is D4 bent?', of: 'Maren', photos: [picture] })
const sees = (t: TestTape, line = 10) => opinionSees(t.entries, jobState(t.entries), line)

describe('what whoever is asked for a second opinion sees', () => {
  it('is the question, its photos and what stands of what was seen; not what we think, nor what is between shop and owner', () => {
    expect(sees(asked())).toEqual({
      board: 'Tarnworks TW-K61',
      theirWords: 'dark',
      question: 'Is D4 bent?',
      of: 'Maren',
      photos: [{ file: picture, caption: 'corner D' }],
      noted: [expect.stringMatching(/^core.* 0\.4 V$/)],
      answers: [],
      done: false,
    })
    const text = opinionText(sees(asked())!, 'Q-0412')
    expect(text).toContain('Is D4 bent?')
    expect(text).toContain('1. corner D')
    expect(text).not.toMatch(/hurry|90 %|go on|11\.9|nobody touched/)
  })
  it('is nothing where nobody is asked, nor once the question was struck', () => {
    expect(sees(asked(), 4)).toBeNull()
    expect(sees(asked().put('strike', { why: 'asked by telephone' }, 10))).toBeNull()
  })
  it('has the answer as a claim, which weighs nothing by itself and is not the owner’s', () => {
    const answered = asked().put('claim', {
      text: 'it is the light',
      opinion: { asked: 10, by: 'Maren' },
    })
    expect(sees(answered)!.answers).toEqual([{ by: 'Maren', text: 'it is the light' }])
    const { claims } = jobState(answered.entries).intake
    expect(claims.map((c) => [c.opinion?.by ?? 'owner', c.weighed])).toEqual([
      ['owner', null],
      ['Maren', null],
    ])
  })
})

import { describe, expect, it } from 'vitest'
import { jobState } from '../job/job-state'
import { tape } from '../job/tape.testing'
import type { TestTape } from '../job/tape.testing'
import { lifeOf } from './life'
import { partInHand, partsStep } from './next-step'
import type { PadSeen } from './missing/pad'

const parts = (t: TestTape) => jobState(t.entries).parts
const step = (t: TestTape) => partsStep(parts(t), null).say
const data: PadSeen = {
  groundOhm: 250_000,
  net: 'SPI_MISO',
  pins: [{ pin: 'U7.2', does: 'data', ohms: 0.4 }],
}
const supply: PadSeen = { groundOhm: 180, diodeV: 0.33, rails: { '3v3': 0.3 } }
const missing = () => tape().put('part', { ref: 'R214', did: 'found missing' })
const read = () => missing().put('pads', { ref: 'R214', a: data, b: { ...data, net: 'PCH_MISO' }, padsMm: 1 })
const fitted = () => read().put('part', { ref: 'R214', did: 'fitted', value: '33 Ω' })
const measured = (value: string) => fitted().put('part', { ref: 'R214', did: 'measured', value })

describe('what is next with small parts', () => {
  it.each<[string, TestTape, string]>([
    [
      'nothing noted',
      tape(),
      'Look round the socket and the firmware chip for missing or cracked small parts.',
    ],
    ['found missing', missing(), 'What was R214? Read its two pads, unplugged.'],
    [
      'found cracked',
      tape().put('part', { ref: 'R9', did: 'found damaged', how: 'cracked' }),
      'Take R9 off, and read its two pads.',
    ],
    [
      'little read',
      missing().put('pads', { ref: 'R214', a: { groundOhm: 120_000 }, b: {} }),
      'R214: read pad A, beep it out to the pins near it.',
    ],
    ['read', read(), 'Fit 33 Ω, 0402, at R214.'],
    [
      'of a supply',
      tape()
        .put('part', { ref: 'C9', did: 'found missing' })
        .put('pads', { ref: 'C9', a: supply, b: { groundOhm: 0.2, diodeV: 0, net: 'GND' } }),
      'C9: Look it up on a board map of this revision: net and value.',
    ],
    ['fitted', fitted(), 'Measure across R214.'],
    ['read across', measured('34'), 'Every part noted is settled: mark the station done, or note another.'],
    [
      'read across, too much',
      measured('210'),
      'R214 does not read as it must: look at its joints, or take it off.',
    ],
    [
      'read across, open',
      measured('open'),
      'R214 does not read as it must: look at its joints, or take it off.',
    ],
    [
      'measured only',
      tape().put('part', { ref: 'BT1', did: 'measured', value: '3.1 kΩ' }),
      'Every part noted is settled: mark the station done, or note another.',
    ],
    [
      'fitted, nothing expected',
      missing().put('part', { ref: 'R214', did: 'fitted' }),
      'Every part noted is settled: mark the station done, or note another.',
    ],
  ])('%s', (_, t, say) => expect(step(t)).toBe(say))
  it('is that of the first that is not settled', () => {
    const t = measured('34').put('part', { ref: 'C3', did: 'found missing' })
    expect(partInHand(parts(t))?.ref).toBe('C3')
    expect(partInHand(parts(measured('34')))).toBeNull()
  })
  it('goes back with the readings when they are struck', () => {
    const t = read()
    t.put('strike', { why: 'the wrong pad' }, t.entries.at(-1)!.seq)
    expect(step(t)).toBe('What was R214? Read its two pads, unplugged.')
  })
})

describe('what is read across a part', () => {
  const across = (t: TestTape) => lifeOf(parts(t), 'R214').across
  it('is judged by what had to be read, once it is fitted', () => {
    expect(across(measured('34'))).toMatchObject({
      ohms: 34,
      fits: true,
      say: 'as it must; from pin to far end 30 Ω to 37 Ω',
    })
    expect(across(measured('3'))!.say).toMatch(/^too little: bridged/)
    expect(across(measured('open'))).toMatchObject({ fits: false })
    expect(across(fitted())).toBeNull()
    expect(across(measured('about right'))).toBeNull()
    expect(across(read().put('part', { ref: 'R214', did: 'measured', value: '34' }))).toBeNull()
  })
})

import { nothingRound } from './advice-setting'
import { describe, expect, it } from 'vitest'
import type { Bodies } from '../slices'
import { faultIds } from '../triage/model/faults'
import type { FaultId } from '../triage/model/faults'
import { placeOfNet, placeOfPart } from '../parts/found'
import { believe } from '../triage/reason/belief'
import { toBelieve } from './advise'
import { evidenceOf } from './evidence'
import { gateOf } from './gate'
import { jobState } from './job-state'
import { tape } from './tape.testing'
import type { TestTape } from './tape.testing'

type Part = Bodies['part']
const missing = (more: Partial<Part> = {}): Part => ({ ref: 'R214', did: 'found missing', ...more })
const evidence = (t: TestTape) => evidenceOf(jobState(t.entries), null)
const seen = (...parts: Part[]) =>
  evidence(parts.reduce((t, p) => t.put('part', p), tape())).evidence.map((e) => [e.test, e.outcome])
const odds = (t: TestTape, fault: FaultId) => {
  const { evidence: found, changes } = evidence(t)
  return (
    believe({ history: [], evidence: found, changes, mayPower: true }).faults.find((f) => f.fault === fault)
      ?.odds ?? 0
  )
}

describe('a part that was found', () => {
  it.each<[string, Partial<Part>, string, string]>([
    ['missing at the firmware chip', { place: 'at the firmware chip' }, 'round the chip', 'a resistor gone'],
    [
      'a capacitor there',
      { ref: 'C9', place: 'at the firmware chip' },
      'round the chip',
      'another part gone',
    ],
    ['by its net alone', { net: 'SPI_MISO' }, 'round the chip', 'a resistor gone'],
    ['by its words alone', { text: 'left of the chip' }, 'round the chip', 'a resistor gone'],
    [
      'broken at the core regulator',
      { did: 'found damaged', how: 'cracked', place: 'at the core regulator' },
      'round the socket',
      'part broken at the regulator',
    ],
    ['on a sense line', { net: 'VCORE_SENSE' }, 'round the socket', 'part broken at the regulator'],
    ['at memory', { place: 'at memory' }, 'outside', 'a part missing'],
    [
      'burnt at the chipset',
      { did: 'found damaged', how: 'burnt', place: 'at the chipset' },
      'outside',
      'scorched at a controller',
    ],
    ['burnt elsewhere', { did: 'found damaged', how: 'burnt' }, 'outside', 'scorched at a rail'],
    [
      'bridged at the firmware chip',
      { did: 'found damaged', how: 'bridged', place: 'at the firmware chip' },
      'round the chip',
      'chip reworked',
    ],
    ['nobody says where', {}, 'outside', 'a part missing'],
  ])('%s is evidence by itself', (_, part, test, outcome) =>
    expect(seen(missing(part))).toEqual([[test, outcome]]),
  )
  it('bridged elsewhere is none: no look tells of it, and the gate stays shut for it', () => {
    expect(seen(missing({ did: 'found damaged', how: 'bridged', place: 'at the core regulator' }))).toEqual(
      [],
    )
    const t = tape().put('part', missing({ did: 'found damaged', how: 'bridged' }))
    expect(jobState(t.entries).board.power.damagedParts).toHaveProperty('R214')
  })
  it('is said where it is, else by its net, else by its words', () => {
    expect(placeOfPart({ place: 'at memory', net: 'SPI_CLK' })).toBe('at memory')
    expect(placeOfPart({ net: 'NET0012', text: 'at the chip' })).toBe('at the firmware chip')
    expect([
      placeOfNet('MEM_A_DQ3'),
      placeOfNet('PCH_SLP#'),
      placeOfNet('VR_FB1'),
      placeOfNet('GND'),
    ]).toEqual(['at memory', 'at the chipset', 'at the core regulator', null])
  })
  it('moves the fault it speaks for', () => {
    const dark = () => tape().put('trial', { test: 'as it came', outcome: 'fans, no lamp' })
    for (const [part, fault] of [
      [missing({ place: 'at the firmware chip' }), 'chip resistor'],
      [missing({ net: 'VCORE_SENSE' }), 'core regulator part'],
    ] as const)
      expect(odds(dark().put('part', part), fault)).toBeGreaterThan(5 * odds(dark(), fault))
  })
  it('stands beside another that was found there, and counts once however often it is said', () => {
    const chip = { place: 'at the firmware chip' } as const
    const two = seen(missing(chip), missing({ ...chip, ref: 'C9' }), missing({ ...chip, ref: 'R215' }))
    expect(two).toEqual([
      ['round the chip', 'another part gone'],
      ['round the chip', 'a resistor gone'],
    ])
    const looked = tape()
      .put('look', {
        what: 'round the firmware chip',
        seen: 'a resistor gone',
        clear: false,
        hazard: 'part gone',
      })
      .put('part', missing(chip))
    expect(evidence(looked).evidence).toHaveLength(1)
    const both = (t: TestTape) => odds(t, 'chip resistor') + odds(t, 'chip supply part')
    const dark = () => tape().put('trial', { test: 'as it came', outcome: 'fans, no lamp' })
    const one = dark().put('part', missing(chip))
    expect(
      both(
        dark()
          .put('part', missing(chip))
          .put('part', missing({ ...chip, ref: 'C9' })),
      ),
    ).toBeGreaterThan(both(one))
  })
  it('is taken back by a look that finds the place clear, and takes such a look back', () => {
    const chip = missing({ place: 'at the firmware chip' })
    const clear = { what: 'round the firmware chip', seen: 'nothing seen', clear: true } as const
    expect(evidence(tape().put('part', chip).put('look', clear)).evidence.map((e) => e.outcome)).toContain(
      'clear',
    )
    const after = evidence(
      tape()
        .put('trial', { test: 'round the chip', outcome: 'a resistor gone' })
        .put('trial', { test: 'round the chip', outcome: 'clear' }),
    )
    expect(after.evidence.map((e) => e.outcome)).toEqual(['clear'])
    const before = evidence(
      tape()
        .put('trial', { test: 'round the chip', outcome: 'clear' })
        .put('trial', { test: 'round the chip', outcome: 'a resistor gone' }),
    )
    expect(before.evidence.map((e) => e.outcome)).toEqual(['a resistor gone'])
  })
  it.each<[Partial<Part>, FaultId]>([
    [{ place: 'at the firmware chip' }, 'chip resistor'],
    [{ ref: 'C9', net: 'SPI_VCC' }, 'chip supply part'],
    [{ did: 'found damaged', how: 'cracked', net: 'VCORE_SENSE' }, 'core regulator part'],
  ])('fitted again, mends its fault: %j', (part, fault) => {
    const t = tape()
      .put('part', missing(part))
      .put('part', { ref: part.ref ?? 'R214', did: 'fitted' })
    expect(evidence(t).changes).toEqual([expect.objectContaining({ is: 'mended', fault })])
    expect(faultIds).toContain(fault)
  })
  it('that the reasoner knows nothing of ends what it said once it is fitted', () => {
    const t = tape().put('part', missing()).put('part', { ref: 'R214', did: 'fitted' })
    expect(evidence(t)).toMatchObject({ evidence: [], changes: [] })
  })
})

describe('traces of earlier work', () => {
  const looked = (what: string, words: string, clear = false) =>
    tape().put('look', { what, seen: words, clear, hazard: 'harmless' })
  const asked = (t: TestTape) => {
    const state = jobState(t.entries)
    return toBelieve(state, null, gateOf(state, null), nothingRound)
  }
  it('round the firmware chip are a look at it; a part that is gone counts before them', () => {
    const says = (words: string) =>
      asked(looked('round the firmware chip', words)).evidence.map((e) => e.outcome)
    expect(says('flux round its legs')).toEqual(['chip reworked'])
    expect(says('soldered again by hand')).toEqual(['chip reworked'])
    expect(says('a scratch')).toEqual([])
    expect(says('flux, and a resistor gone')).not.toContain('chip reworked')
    expect(says('no flux nor rework to be seen, a scratch')).toEqual([])
    const gone = tape().put('look', {
      what: 'round the firmware chip',
      seen: 'flux on bare pads',
      clear: false,
      hazard: 'part gone',
    })
    expect(asked(gone).evidence.map((e) => e.outcome)).toEqual(['another part gone'])
  })
  it('anywhere are as good as being told that others worked on it', () => {
    expect(asked(looked('the other side', 'burnt header')).history).toEqual(['worked on by others'])
    expect(asked(looked('outside of the board', 'reheated part at the edge')).history).toContain(
      'worked on by others',
    )
    expect(asked(looked('outside of the board', 'no flux', true)).history).toEqual([])
    expect(asked(looked('outside of the board', 'dust')).history).toEqual([])
    const told = looked('the other side', 'flux').put('ticket', { set: { history: ['worked on by others'] } })
    expect(asked(told).history).toEqual(['worked on by others'])
  })
})

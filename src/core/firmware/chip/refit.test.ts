import { describe, expect, it } from 'vitest'
import { gateOf } from '../../job/gate'
import { evidenceOf } from '../../job/evidence'
import { tape } from '../../job/tape.testing'
import type { Bodies } from '../../slices'
import { stateOf } from '../chip-on-tape.testing'
import type { Tape } from '../chip-on-tape.testing'
import { chipPins, lineIs, refitPoints } from './refit'

const off = (by: Bodies['chip moved']['by'] = 'hot air') =>
  tape().put('chip moved', { to: 'off', by, despite: [] })
const on = (by: Bodies['chip moved']['by'] = 'hot air') =>
  off(by).put('chip moved', { to: 'on', by, despite: [] })
const all = (ohms: number | null) => Object.fromEntries(chipPins.map((pin) => [pin, ohms]))
const sound = (t = on()) =>
  t
    .put('refit', { orientation: 'right', pads: 'whole', joints: 'sound' })
    .put('refit', { lines: { ...all(33), GND: 0.3, VCC: 0.4, WP: 4700, HOLD: 4700 }, seated: true })
const points = (t: Tape) => Object.fromEntries(refitPoints(stateOf(t).firmware).map((p) => [p.point, p.is]))
const forbids = (t: Tape) => {
  const reason = gateOf(stateOf(t), null).reasons.find((r) => r.code === 'chip fitted')
  return reason && `${reason.level}: ${reason.text}`
}

describe('a chip that was fitted again', () => {
  it('asks everything of one that was soldered, and is good point by point', () => {
    expect(points(tape())).toEqual({})
    expect(points(off())).toEqual({})
    expect(points(on())).toEqual({
      orientation: 'open',
      pads: 'open',
      joints: 'open',
      lines: 'open',
      seated: 'open',
    })
    expect(new Set(Object.values(points(sound())))).toEqual(new Set(['good']))
  })
  it('asks no pads and no lines of one in a socket', () => {
    expect(Object.keys(points(on('hand')))).toEqual(['orientation', 'joints', 'seated'])
  })
  it('forgets what was looked at once it came off again', () => {
    const again = sound()
      .put('chip moved', { to: 'off', by: 'iron', despite: [] })
      .put('chip moved', { to: 'on', by: 'iron', despite: [] })
    expect(new Set(Object.values(points(again)))).toEqual(new Set(['open']))
  })
  it('measures a pin anew that was reflowed, and owes the rails after it', () => {
    const open = sound().put('refit', { lines: { CLK: null } })
    const over = open.put('refit', { reflowed: true, joints: 'sound' })
    expect(refitPoints(stateOf(over).firmware).find((p) => p.point === 'lines')).toMatchObject({
      is: 'open',
      say: 'still to be measured: CLK (6)',
    })
    expect(stateOf(over).board.power.railsOwedSince).toBe(over.entries.length)
  })
  it('takes the last reading of each pin, and each pin counts', () => {
    const some = on().put('refit', { lines: { CS: 33 } })
    expect(refitPoints(stateOf(some).firmware).find((p) => p.point === 'lines')!.say).toContain('DO (2)')
    expect(points(sound(on()).put('refit', { lines: { CLK: null } })).lines).toBe('no')
    expect(
      points(
        sound(on())
          .put('refit', { lines: { CLK: null } })
          .put('refit', { lines: { CLK: 33 } }),
      ).lines,
    ).toBe('good')
  })
  it.each([
    ['CS', 33, 'through'],
    ['CS', 900, 'open'],
    ['GND', 0.3, 'through'],
    ['GND', 33, 'open'],
    ['HOLD', 4700, 'through'],
    ['VCC', null, 'open'],
  ] as const)('%s at %s Ω is %s', (pin, ohms, is) => expect(lineIs(pin, ohms)).toBe(is))
})

describe('the power gate', () => {
  it('is shut while the chip is off, and until what could destroy it was looked at', () => {
    expect(forbids(tape())).toBeUndefined()
    expect(forbids(off())).toBe('closed: The firmware chip is off the board')
    expect(forbids(on())).toContain('orientation')
    expect(forbids(on().put('refit', { orientation: 'right', pads: 'whole' }))).toContain('joints')
    // Lines that were not measured do no harm; a pin that is known to be open is put right first.
    expect(
      forbids(on().put('refit', { orientation: 'right', pads: 'whole', joints: 'sound' })),
    ).toBeUndefined()
    expect(forbids(sound())).toBeUndefined()
    expect(forbids(sound().put('refit', { lines: { VCC: null } }))).toContain('VCC (8)')
  })
  it.each<Bodies['refit']>([
    { orientation: 'turned' },
    { pads: 'lifted' },
    { joints: 'open or bridged' },
    { seated: false },
  ])('is shut by %o, and opened by its mend', (bad) => {
    expect(forbids(sound().put('refit', bad))).toMatch(/^closed/)
    expect(
      forbids(
        sound()
          .put('refit', bad)
          .put('refit', { orientation: 'right', pads: 'whole', joints: 'sound', seated: true }),
      ),
    ).toBeUndefined()
  })
  it('wants the rails again after heat, and not after a hand', () => {
    const owed = (t: Tape) => stateOf(t).board.power.railsOwedSince
    const read = () => tape().put('rail', { rail: '12v', ohms: 480, cpu: 'out' })
    expect(owed(read().put('chip moved', { to: 'off', by: 'iron', despite: [] }))).toBe(2)
    expect(owed(read().put('chip moved', { to: 'off', by: 'hand', despite: [] }))).toBe(0)
  })
})

describe('what it tells triage', () => {
  const of = (t: Tape) => evidenceOf(stateOf(t), null)
  it('soldered on again it may have a joint open; found so and reflowed it is repaired', () => {
    expect(of(on('hand')).changes).toEqual([])
    const made = [
      { is: 'made', fault: 'chip joint' },
      { is: 'made', fault: 'chip resistor' },
    ]
    expect(of(on()).changes).toEqual(made)
    const over = on()
      .put('refit', { lines: { DO: null } })
      .put('refit', { reflowed: true, joints: 'sound' })
    expect(of(over).changes).toEqual([...made, { is: 'mended', fault: 'chip joint' }])
    expect(of(on().put('refit', { joints: 'sound' })).changes).toEqual(made)
  })
  it('lines are evidence once all of them are known, or one is open', () => {
    const lines = (t: Tape) => of(t).evidence.filter((e) => e.test === 'chip lines')
    expect(lines(on().put('refit', { lines: { CS: 33 } }))).toEqual([])
    expect(lines(sound()).map((e) => e.outcome)).toEqual(['through'])
    expect(lines(on().put('refit', { lines: { CS: null } }))).toMatchObject([{ outcome: 'open', after: 2 }])
  })
})

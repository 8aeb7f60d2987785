import { gateOf as judgeTape } from './gate'
import { foldOn, jobState } from './job-state'
import type { Entry } from './job-state'
import type { Bodies, Kind } from '../slices'
import type { Baseline } from '../board/baseline'
import { rails } from '../board/rail'
import { nothingNoted } from '../board/baseline'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { smallField } from '../socket/model/field.testing'
import { anyTape } from './any-tape.testing'
import { tape } from './tape.testing'
import type { TestTape } from './tape.testing'

const land = smallField()
const pins = smallField('pin-grid')
const names = land.contacts.map((c) => c.name)
const gateOf = (entries: readonly Entry[], socket = land) => judgeTape(jobState(entries, names), socket)
const lamp = (t: TestTape, socket = land) => gateOf(t.entries, socket).lamp
const codes = (t: TestTape, socket = land) => gateOf(t.entries, socket).reasons.map((r) => r.code)

const ohms = { '12v': 480, '5v': 310, '3v3': 265, standby: 720, vcore: 6.4, vmem: 221, vsys: 38 } as const
const good: Baseline = {
  ...nothingNoted,
  fans: 'on',
  current: 'steady',
  amps: 0.8,
  lamp: 'memory',
  cpuHeat: 'warm',
  picture: 'none',
}
const measure = (t: TestTape, cpu: 'in' | 'out') => {
  for (const rail of rails) t.put('rail', { rail, ohms: ohms[rail], cpu })
  return t
}
/** A board that a careful technician would power without a limit. */
const clear = () =>
  measure(
    tape()
      .put('look', { what: 'outside of the board', seen: 'nothing seen', clear: true })
      .put('looked', { contacts: 'all' }),
    'out',
  )
    .put('seat', { cpu: 'Orrin 41', drop: 'flat', heatsink: true })
    .put('supply', { limitA: 2 })
    .put('baseline', good)
const recorded = (change: Partial<Bodies['current']>): Bodies['current'] => ({
  name: 'a.csv',
  samples: 9,
  pattern: 'steady',
  standbyA: 0.1,
  plateauA: 0.8,
  peakA: 2,
  periodS: null,
  segments: [],
  curve: { s: [], a: [] },
  ...change,
})
const again = (t: TestTape) => t.put('baseline', good)

it('a board looked at, measured, seated and tried under a limit is clear', () => {
  expect(gateOf(clear().entries)).toEqual({ lamp: 'clear', reasons: [] })
  expect(lamp(clear(), pins)).toBe('clear')
})

describe('a proven hazard stands until the same is read under the same conditions', () => {
  it('a core rail at ground with the CPU out is not cleared by a reading with it in', () => {
    const t = clear().put('fitted', { cpu: null }).put('rail', { rail: 'vcore', ohms: 0.5, cpu: 'out' })
    again(
      t
        .put('fitted', { cpu: 'Orrin 41', heatsink: true })
        .put('rail', { rail: 'vcore', ohms: 0.5, cpu: 'in' }),
    )
    expect(codes(t)).toEqual(['rail short'])
    t.put('fitted', { cpu: null }).put('rail', { rail: 'vcore', ohms: 6, cpu: 'out' })
    expect(codes(t)).toEqual(['first power'])
  })
  it('a reading with the CPU in is asked about while the CPU is out', () => {
    const t = clear().put('fitted', { cpu: null }).put('rail', { rail: 'vcore', ohms: 2, cpu: 'in' })
    expect(lamp(t)).toBe('do not power')
    expect(codes(t)).toContain('question')
  })
  it.each([
    ['proud', { drop: 'proud' }],
    ['needed force', { drop: 'needed force' }],
    ['turned', { drop: 'flat', turned: true }],
  ] as const)('a CPU that went in %s stays so until the next flat seating', (_, how) => {
    const t = clear().put('seat', { cpu: 'Orrin 41', heatsink: true, ...how })
    expect(lamp(again(t))).toBe('do not power')
    expect(lamp(again(t.put('looked', { contacts: 'all' })))).toBe('do not power')
    t.put('seat', { cpu: 'Orrin 41', heatsink: true, drop: 'flat' })
    expect(lamp(t)).toBe('limit the current')
    expect(lamp(again(t))).toBe('clear')
  })
  it('an even light push limits on a pin grid, and closes on a land grid', () => {
    const t = again(clear().put('seat', { cpu: 'x', heatsink: true, drop: 'light push' }))
    expect(lamp(t, pins)).toBe('limit the current')
    expect(lamp(t)).toBe('do not power')
  })
  it('what was too high is put right by a repair or another supply, not by moving a module', () => {
    const high = measure(clear().put('volts', { rail: '12v', volts: 19 }), 'in').put('looked', {
      contacts: 'all',
    })
    expect(codes(high)).toContain('volts high')
    expect(lamp(high.put('fitted', { modules: ['A1'] }))).toBe('do not power')
    const swap = {
      what: 'supply',
      part: 'bench',
      place: 'board',
      knownGood: true,
      outcome: 'nothing',
    } as const
    expect(lamp(high.put('swap', swap))).toBe('limit the current')
    expect(codes(high)).toContain('volts high')
  })
  it('a look at one edge of the outside is no look at the whole of it, and clears nothing there', () => {
    expect(codes(tape().put('look', { what: 'outside, left edge', seen: '-', clear: true }))).toContain(
      'outside',
    )
    const burnt = clear().put('look', { what: 'outside', seen: 'x', clear: false, hazard: 'burnt' })
    expect(codes(burnt.put('look', { what: 'outside, left edge', seen: '-', clear: true }))).toContain(
      'hazard',
    )
    expect(codes(burnt.put('look', { what: 'The outside of the board', seen: '-', clear: true }))).toEqual([])
  })
  it('volts out of range are heard, the last one good or not', () => {
    const core = clear().put('volts', { rail: 'vcore', volts: 2.4 })
    expect(lamp(core)).toBe('do not power')
    core.put('volts', { rail: '12v', volts: 12 })
    expect(lamp(core)).toBe('do not power')
    expect(lamp(clear().put('volts', { rail: '12v', volts: 19 }))).toBe('do not power')
    expect(lamp(clear().put('volts', { rail: '12v', volts: -12 }))).toBe('do not power')
    expect(lamp(clear().put('volts', { rail: '12v', volts: 12 }))).toBe('clear')
    const out = clear().put('volts', { rail: 'vcore', volts: 2.4 }).put('fitted', { cpu: null })
    out.put('volts', { rail: 'vcore', volts: 1.1 })
    expect(codes(out)).toContain('volts high')
  })
  it('a tripped supply owes every rail again, then a first power', () => {
    const trips: [string, (t: TestTape) => TestTape][] = [
      ['power-up', (t) => t.put('baseline', { ...good, current: 'trips' })],
      ['test', (t) => t.put('trial', { test: 'current', outcome: 'trips' })],
      [
        'recording',
        (t) =>
          t.put('current', {
            name: '',
            samples: 20,
            pattern: 'trips',
            standbyA: null,
            plateauA: null,
            peakA: 3,
            periodS: null,
            segments: [{ kind: 'off', fromS: 0, toS: 1, amps: 0, periodS: null }],
            curve: { s: [0, 1], a: [0, 0] },
          }),
      ],
    ]
    for (const [what, trip] of trips) {
      const t = trip(clear()).put('rail', { rail: '12v', ohms: 480, cpu: 'in' })
      expect(lamp(t), what).toBe('do not power')
      expect(lamp(t.put('baseline', { ...nothingNoted, fans: 'on' })), what).toBe('do not power')
      measure(t, 'in')
      expect(codes(t), what).toEqual(['first power'])
      expect(lamp(again(t)), what).toBe('clear')
    }
  })
  it.each([
    [{ hazard: 'burnt' }, 'charred'],
    [{ hazard: 'smoke' }, 'smoke came out'],
    [{ hazard: 'swollen' }, 'a can bulges'],
    [{ hazard: 'corroded' }, 'rust'],
    [{ hazard: 'solder or metal' }, 'solder ball'],
    [{}, 'green residue'],
  ] as const)('a finding %o closes until the same place is looked at again', (told, seen) => {
    const t = clear().put('look', { what: 'round the socket', seen, clear: false, ...told })
    expect(lamp(t)).toBe('do not power')
    expect(lamp(t.put('look', { what: 'the other side', seen: 'nothing', clear: true }))).toBe('do not power')
    expect(lamp(t.put('look', { what: 'Round the socket ', seen: 'cleaned', clear: true }))).toBe('clear')
  })
  it('“no burn mark” said to be harmless does not close', () => {
    expect(
      lamp(clear().put('look', { what: 'x', seen: 'no burn mark', clear: false, hazard: 'harmless' })),
    ).toBe('clear')
  })
  it.each([
    ['outside', 'scorched at a rail'],
    ['socket', 'power contacts touch'],
    ['swept', 'sense contact off'],
    ['CPU proud', 'proud'],
    ['ohms vcore', 'short'],
    ['round the chip', 'a resistor gone'],
    ['outside', 'cooler loose'],
  ])('a test “%s” that finds “%s” closes', (test, outcome) => {
    expect(lamp(clear().put('trial', { test, outcome }))).toBe('do not power')
  })
})

describe('rails of the board’s own', () => {
  const rails = [{ rail: 'chipset', ohmsOut: 92, ohmsIn: null, volts: 1.05 }]
  const own = () => clear().put('ticket', { set: { rails } })
  const chipset = (t: TestTape, ohms: number) => t.put('rail', { rail: 'chipset', ohms, cpu: 'in' })
  it('are owed before power like the rest, and judged by a good board', () => {
    expect(gateOf(own().entries).reasons.map((r) => r.text)).toEqual(['chipset rail not measured'])
    expect(lamp(chipset(own(), 90))).toBe('clear')
    expect(codes(chipset(own(), 5))).toEqual(['rail short'])
    const differs = chipset(chipset(own(), 5), 90)
    expect(codes(differs)).toEqual(['question'])
    expect(lamp(chipset(differs, 91))).toBe('clear')
  })
  it('are owed again after heat', () => {
    const t = measure(chipset(own(), 90).put('part', { ref: 'R1', did: 'fitted' }), 'in')
    expect(gateOf(t.entries).reasons.map((r) => r.text)).toContainEqual(
      expect.stringContaining('chipset rail is owed again'),
    )
    expect(lamp(again(chipset(t, 90).put('looked', { contacts: 'all' })))).toBe('clear')
  })
  it('close while one is at too many volts', () => {
    const volts = (t: TestTape, is: number) => t.put('volts', { rail: 'chipset', volts: is })
    expect(lamp(volts(chipset(own(), 90), 1.06))).toBe('clear')
    expect(codes(volts(chipset(own(), 90), 1.4))).toContain('volts high')
  })
  it('may be below ground: then it is the other sign that is read the wrong way round', () => {
    const below = [{ rail: 'minus12', ohmsOut: 400, ohmsIn: null, volts: -12 }]
    const t = () =>
      clear()
        .put('ticket', { set: { rails: below } })
        .put('rail', { rail: 'minus12', ohms: 400, cpu: 'in' })
    const volts = (is: number) => lamp(t().put('volts', { rail: 'minus12', volts: is }))
    expect([volts(-12), volts(-14.5), volts(12), volts(-7)]).toEqual([
      'clear',
      'do not power',
      'do not power',
      'limit the current',
    ])
  })
  it('told together in words close until they are told good', () => {
    const told = (t: TestTape, outcome: string) => t.put('trial', { test: 'ohms other', outcome })
    expect(codes(told(clear(), 'short'))).toEqual(['question'])
    expect(codes(told(clear(), 'low'))).toEqual(['question'])
    const differs = told(told(clear(), 'short'), 'good')
    expect(gateOf(differs.entries).reasons.map((r) => r.text)).toEqual([
      'another rail was found shorted to ground, then good, and nothing done since could have mended that',
    ])
    expect(lamp(told(differs, 'good'))).toBe('clear')
    const mended = told(clear(), 'short').put('fitted', { card: null }).put('fitted', { card: 'K1' })
    expect(lamp(told(mended, 'good'))).not.toBe('do not power')
  })
  it('follow the ticket: another model has others', () => {
    expect(lamp(own().put('ticket', { set: { rails: [] } }))).toBe('clear')
  })
})

describe('a machine that just ran', () => {
  const came = { ...good, picture: 'system loads' } as const
  const ran = () =>
    tape()
      .put('look', { what: 'outside of the board', seen: 'nothing seen', clear: true })
      .put('fitted', { cpu: 'Orrin 41', heatsink: true })
      .put('supply', { limitA: 2 })
      .put('baseline', came)
  it('owes neither its rails nor a look at its socket before its next start', () => {
    expect(lamp(ran())).toBe('limit the current')
    expect(codes(ran())).toEqual(['rail unmeasured', 'not looked'])
  })
  it.each<[string, (t: TestTape) => TestTape]>([
    ['another cell', (t) => t.put('cell', { volts: 3.1, isNew: true })],
    ['another module', (t) => t.put('fitted', { modules: ['A1'] })],
    ['a card', (t) => t.put('fitted', { card: 'bench card' })],
    [
      'a start of the bench that came up',
      (t) => t.put('trial', { test: 'cold start', outcome: 'system loads' }),
    ],
    ['a cell that was read', (t) => t.put('trial', { test: 'cell', outcome: 'low' })],
  ])('nor after %s', (_, then) => expect(lamp(then(ran()))).toBe('limit the current'))
  it.each<[string, (t: TestTape) => TestTape]>([
    ['another CPU', (t) => t.put('fitted', { cpu: 'bench', heatsink: true })],
    ['a seating', (t) => t.put('seat', { cpu: 'Orrin 41', drop: 'flat', heatsink: true })],
    ['a soldered part', (t) => t.put('part', { ref: 'R1', did: 'fitted' })],
    [
      'a soldered part, and another cell',
      (t) => t.put('part', { ref: 'R1', did: 'fitted' }).put('cell', { volts: 3.1, isNew: true }),
    ],
    ['word that it does not hold', (t) => t.put('late outcome', { text: 'dead again', holds: false })],
    ['a start without a picture', (t) => t.put('baseline', good)],
    ['a dark start', (t) => t.put('trial', { test: 'cold start', outcome: 'fans, dark' })],
    ['a start that tripped', (t) => t.put('trial', { test: 'current', outcome: 'trips' })],
    ['a recording that trips', (t) => t.put('current', recorded({ pattern: 'trips' }))],
    [
      'a trial of another part',
      (t) => t.put('swap', { what: 'module', part: 'x', place: 'A', knownGood: true, outcome: 'nothing' }),
    ],
    ['a rail at ground', (t) => t.put('rail', { rail: '12v', ohms: 2, cpu: 'in' })],
    ['a burn', (t) => t.put('look', { what: 'outside', seen: 'burnt', clear: false, hazard: 'burnt' })],
  ])('but does after %s', (_, then) => expect(lamp(then(ran()))).toBe('do not power'))
  it('is judged anew by a dark start that is laid on its tape', () => {
    const t = ran()
    const before = jobState(t.entries, names)
    expect(judgeTape(before, land).lamp).toBe('limit the current')
    t.put('trial', { test: 'cold start', outcome: 'fans, dark' })
    expect(judgeTape(foldOn(before, t.entries.slice(-1), names)!, land).lamp).toBe('do not power')
  })
  it.each<[string, Partial<Baseline>]>([
    ['at its limit', { amps: 2 }],
    ['with a hot CPU', { cpuHeat: 'hot' }],
    ['again and again', { fans: 'restarts' }],
  ])('one that ran %s owes them', (_, seen) =>
    expect(lamp(ran().put('baseline', { ...came, ...seen }))).toBe('do not power'),
  )
})

describe('what the board was changed by ages what it could have changed', () => {
  it.each<[string, Kind, Bodies[Kind]]>([
    ['another CPU', 'fitted', { cpu: 'bench', heatsink: true }],
    ['the CPU out', 'fitted', { cpu: null }],
    ['memory', 'fitted', { modules: ['A1', 'B1'] }],
    ['a card', 'fitted', { card: 'bench card' }],
    ['a new cell', 'cell', { volts: 3.1, isNew: true }],
    ['firmware written', 'firmware', { did: 'written again' }],
    ['a seating', 'seat', { cpu: 'Orrin 41', drop: 'flat', heatsink: true }],
    [
      'a module tried',
      'swap',
      { what: 'module', part: 'x', place: 'A', knownGood: true, outcome: 'nothing' },
    ],
    ['a raised stub', 'replaced', { contact: 'A1', how: 'stub raise', holds: true, pulledOut: [] }],
  ])('%s owes a first power', (_, kind, body) => {
    const t = clear().put(kind, body as never)
    expect(codes(t)).toEqual(['first power'])
  })
  it.each<[string, Kind, Bodies[Kind]]>([
    ['a transplant', 'replaced', { contact: 'A1', how: 'transplant', holds: true, pulledOut: [] }],
    ['a new socket', 'replaced', { contact: 'A1', how: 'whole socket', holds: true, pulledOut: [] }],
    ['a soldered part', 'part', { ref: 'R1', did: 'fitted' }],
    ['a mend with heat', 'mended', { fault: 'core controller' }],
  ])('after %s the rails are measured again', (_, kind, body) => {
    const t = clear().put(kind, body as never)
    expect(codes(t)).toContain('rail owed')
    expect(codes(measure(t, 'in').put('looked', { contacts: 'all' }))).toEqual(['first power'])
    expect(lamp(again(t))).toBe('clear')
  })
  it.each(['card', 'module', 'drive', 'supply', 'cooling', 'cell weak'])(
    'a %s that was put right by hand owes a first power, and no rail',
    (fault) => expect(codes(clear().put('mended', { fault }))).toEqual(['first power']),
  )
  it.each([
    ['card', 'nothing'],
    ['good in A', 'nothing'],
    ['good in B', 'memory lamp'],
    ['good in both', 'nothing'],
    ['own in B', 'nothing'],
    ['known-good CPU', 'nothing'],
    ['bench supply', 'nothing'],
    ['good drive', 'boot lamp'],
    ['new cell', 'nothing'],
    ['new cell under load', 'good'],
  ])('the test “%s” changes what is fitted: first power is owed', (test, outcome) => {
    expect(codes(clear().put('trial', { test, outcome }))).toContain('first power')
  })
  it('another firmware chip is a soldered part', () => {
    const t = clear().put('firmware', { chip: 'LSN-16V' })
    expect(lamp(t)).toBe('clear')
    expect(codes(t.put('firmware', { chip: 'Fern-32V' }))).toContain('rail owed')
  })
  it('the same fitted again changes nothing', () => {
    expect(lamp(clear().put('fitted', { cpu: 'Orrin 41', heatsink: true, modules: [] }))).toBe('clear')
  })
  it.each<[string, Partial<Baseline>, number | null]>([
    ['ran at its limit', { amps: 1.95 }, 2],
    ['drew more than its limit', { amps: 1.75 }, 0.5],
    ['cycled', { current: 'cycling' }, 2],
    ['drew nothing', { current: 'none' }, 2],
    ['drew standby only', { current: 'standby' }, 2],
    ['had a hot CPU', { cpuHeat: 'hot' }, 2],
    ['had dark fans', { fans: 'off' }, 2],
    ['had a limit of 60 A', {}, 60],
    ['had no limit', {}, null],
    ['noted no current', { current: 'not noted' }, 2],
    ['noted no amperes', { amps: null }, 2],
    ['noted no fans', { fans: 'not noted' }, 2],
    ['felt no CPU', { cpuHeat: 'not noted' }, 2],
  ])('a start that %s proves nothing', (_, seen, limitA) => {
    const t = clear().put('cell', { volts: 3, isNew: true }).put('supply', { limitA })
    expect(lamp(t.put('baseline', { ...good, ...seen }))).not.toBe('clear')
    expect(lamp(again(t.put('supply', { limitA: 2 })))).toBe('clear')
  })
  it.each<[string, (t: TestTape) => TestTape, string]>([
    ['a recording that cycles', (t) => t.put('current', recorded({ pattern: 'cycling' })), 'it cycled'],
    ['a recording of nothing', (t) => t.put('current', recorded({ pattern: 'none' })), 'it drew nothing'],
    [
      'a recording at its limit',
      (t) => t.put('current', recorded({ plateauA: 2 })),
      'it ran at its limit of 2 A',
    ],
    ['a test that saw it cycle', (t) => t.put('trial', { test: 'current', outcome: 'cycling' }), 'it cycled'],
    [
      'a temperature that ran away',
      (t) => t.put('proof', { test: 'temperature', result: 'fail', reading: '104 °C' }),
      'it failed the test of its temperature',
    ],
  ])('after a start that went well, %s takes back what it proved', (_, lay, why) => {
    const t = lay(clear())
    expect(gateOf(t.entries).reasons.map((r) => r.text)).toEqual([expect.stringContaining(why)])
    expect(lamp(again(t))).toBe('clear')
  })
  it('a board that came back was in other hands: first power is owed again', () => {
    const t = clear().put('hand-back', { outcome: 'fixed', priceMinor: null, text: '' })
    expect(lamp(t.put('late outcome', { text: 'runs', holds: true }))).toBe('clear')
    expect(codes(t.put('late outcome', { text: 'dead again', holds: false }))).toEqual(['first power'])
  })
  it('a cell that reads more than a cell gives is a question, until it reads as one', () => {
    const t = clear().put('cell', { volts: 4.4, where: 'at the board' })
    expect(codes(t)).toEqual(['question'])
    expect(lamp(t.put('cell', { volts: 3.1 }))).toBe('clear')
  })
  it('what was looked at on the map of another socket counts for nothing', () => {
    const t = tape().put('ticket', { set: { socketId: 'one' } })
    t.entries.push(...laid([...t.entries, ...clear().entries]).slice(1))
    expect(lamp(t)).toBe('clear')
    expect(codes(t.put('ticket', { set: { socketId: 'one', cpu: 'x' } }))).toEqual([])
    expect(codes(t.put('ticket', { set: { socketId: 'two' } }))).toEqual(['not looked'])
  })
  it('a picture without a CPU proves nothing', () => {
    const t = clear().put('fitted', { cpu: null })
    expect(lamp(t.put('baseline', { ...good, picture: 'system loads' }))).toBe('limit the current')
  })
})

describe('what is known in part counts as the worst it may be', () => {
  it('a CPU seated with the heatsink not noted has none', () => {
    expect(lamp(again(clear().put('seat', { cpu: 'x', drop: 'flat' })))).toBe('do not power')
    expect(lamp(again(clear().put('fitted', { cpu: 'bench' })))).toBe('do not power')
  })
  it.each<[string, Bodies['mark']['mark']]>([
    ['something lodged', { kind: 'lodged' }],
    ['perhaps folded', { kind: 'snapped', maybe: 'folded' }],
    ['touching nobody knows whom', { kind: 'touching' }],
    ['folded over nobody knows whom', { kind: 'folded' }],
    ['lying over no contact of this socket', { kind: 'folded', touches: 'ZZ99' }],
  ])('%s closes', (_, mark) => {
    expect(lamp(clear().put('mark', { contacts: ['D4'], mark }))).toBe('do not power')
  })
  it('what was found snapped, gone or missing is asked for, piece by piece', () => {
    const t = clear().put('mark', { contacts: ['D1', 'D2'], mark: { kind: 'snapped' } })
    expect(codes(t)).toEqual(['unaccounted', 'unaccounted'])
    const seq = t.entries.length
    expect(codes(t.put('accounted', { item: `${seq}/0`, where: 'in the dish' }))).toEqual(['unaccounted'])
    expect(codes(t.put('accounted', { item: `${seq}/1`, where: 'in the dish' }))).toEqual([])
    expect(codes(clear().put('part', { ref: 'R7', did: 'found missing' }))).toEqual(['unaccounted'])
    expect(codes(clear().put('mark', { contacts: ['D1'], mark: { kind: 'tip gone' } }))).toEqual([
      'unaccounted',
    ])
  })
  it('what breaks off a contact that was mended or replaced is asked for again', () => {
    const snap = { contact: 'D1', technique: 'push', tool: 'needle', from: null, strokes: 1 } as const
    const snapped = { ...snap, result: 'snapped', predictedSnaps: null } as const
    const asked = (t: TestTape) => gateOf(t.entries).reasons.filter((r) => r.code === 'unaccounted').length
    const found = (t: TestTape, seq: number) => t.put('accounted', { item: `${seq}/0`, where: 'in the dish' })
    const gone = clear().put('mark', { contacts: ['D1'], mark: { kind: 'tip gone' } })
    found(gone, gone.entries.length)
    expect(asked(gone)).toBe(0)
    expect(asked(gone.put('stroke', snapped))).toBe(1)
    found(gone, gone.entries.length)
    const given = { contact: 'D1', how: 'transplant', holds: true, pulledOut: [] } as const
    expect(asked(gone.put('replaced', given))).toBe(0)
    expect(asked(gone.put('mark', { contacts: ['D1'], mark: { kind: 'snapped' } }))).toBe(1)
    // The old fragment is asked for still, whatever the new contact is like.
    const old = clear()
      .put('mark', { contacts: ['D1'], mark: { kind: 'snapped' } })
      .put('replaced', given)
    expect(asked(old.put('mark', { contacts: ['D1'], mark: { kind: 'low' } }))).toBe(1)
    const whole = { ...given, how: 'whole socket' } as const
    expect(
      asked(old.put('replaced', whole).put('mark', { contacts: ['D1'], mark: { kind: 'snapped' } })),
    ).toBe(2)
  })
  it('what was pulled out together is accounted for one by one', () => {
    const out = { contact: 'A1', how: 'transplant', holds: true, pulledOut: ['A2', 'A3'] } as const
    const t = clear().put('replaced', out)
    t.put('accounted', { item: `${t.entries.length}/1`, where: 'in the dish' })
    expect(
      gateOf(t.entries)
        .reasons.filter((r) => r.code === 'unaccounted')
        .map((r) => r.text),
    ).toEqual(['contact A2, pulled out is not accounted for'])
  })
  it('readings that can not be count for nothing: the probe was off', () => {
    const t = clear()
    for (const cpu of ['in', 'in'] as const) for (const rail of rails) t.put('rail', { rail, ohms: 1e7, cpu })
    expect(lamp(tape().put('look', { what: 'outside', seen: 'x', clear: true }))).toBe('do not power')
    const off = tape()
      .put('looked', { contacts: 'all' })
      .put('look', { what: 'outside', seen: '-', clear: true })
    for (let i = 0; i < 2; i++) for (const rail of rails) off.put('rail', { rail, ohms: 1e7, cpu: 'out' })
    again(off.put('supply', { limitA: 2 })).put('baseline', { ...good, cpuHeat: 'cold' })
    expect(lamp(off)).toBe('do not power')
  })
  it('one contact of all looked at closes; nearly all, and all round the damage, limits', () => {
    const looks = (n: number) => {
      const t = tape().put('look', { what: 'outside', seen: 'x', clear: true })
      measure(t.put('looked', { contacts: names.slice(0, n) }), 'out').put('supply', { limitA: 2 })
      return t.put('baseline', { ...good, cpuHeat: 'cold' })
    }
    expect(lamp(looks(1))).toBe('do not power')
    expect(lamp(looks(58))).toBe('limit the current')
    expect(lamp(looks(60))).toBe('clear')
    const near = looks(58).put('mark', { contacts: [names[58]!], mark: { kind: 'low', heightMm: -0.02 } })
    expect(lamp(near)).toBe('do not power')
  })
  it('an outside look is owed before the first power; a machine seen running is limited', () => {
    const t = () => measure(tape().put('looked', { contacts: 'all' }), 'out').put('supply', { limitA: 2 })
    expect(lamp(t())).toBe('do not power')
    expect(lamp(t().put('baseline', { ...good, picture: 'system loads', cpuHeat: 'cold' }))).toBe(
      'limit the current',
    )
  })
  it('a forced seating owes the whole field another look', () => {
    const t = clear().put('seat', { cpu: 'x', heatsink: true, drop: 'needed force' })
    again(t.put('seat', { cpu: 'x', heatsink: true, drop: 'flat' }))
    expect(codes(t)).toEqual(['not looked'])
  })
})

/** Each hazard, and the lines that alone can clear it. */
const hazards: readonly {
  readonly what: string
  readonly lay: (t: TestTape) => void
  readonly clears: (e: Entry, seq: number) => boolean
}[] = [
  {
    what: 'a rail at ground',
    lay: (t) => t.put('rail', { rail: 'vcore', ohms: 0.02, cpu: 'out' }),
    clears: (e) => e.kind === 'rail' && e.body.rail === 'vcore' && e.body.cpu === 'out',
  },
  {
    what: 'a proud CPU',
    lay: (t) => t.put('seat', { cpu: 'x', drop: 'proud', heatsink: true }),
    clears: (e) => e.kind === 'seat',
  },
  {
    what: 'something burnt',
    lay: (t) => t.put('look', { what: 'a place', seen: 'x', clear: false, hazard: 'burnt' }),
    clears: (e) => e.kind === 'look' && e.body.what.trim() === 'a place',
  },
  {
    what: 'a rail too high',
    lay: (t) => t.put('volts', { rail: '12v', volts: 19 }),
    clears: (e) => e.kind === 'volts' && e.body.rail === '12v',
  },
  {
    what: 'a trip',
    lay: (t) => t.put('trial', { test: 'current', outcome: 'trips' }),
    clears: (e) => e.kind === 'rail' || e.kind === 'baseline',
  },
  {
    what: 'a contact touching nobody knows whom',
    lay: (t) => t.put('mark', { contacts: ['D4'], mark: { kind: 'touching' } }),
    clears: (e) => e.kind === 'mark' || e.kind === 'stroke' || e.kind === 'replaced',
  },
  {
    what: 'a lost screw',
    lay: (t) => t.put('missing', { what: 'a screw', from: 'bench' }),
    clears: (e) => e.kind === 'accounted',
  },
  {
    what: 'a clip',
    lay: (t) => t.put('firmware', { clipOn: true }),
    clears: (e) => e.kind === 'firmware' && e.body.clipOn === false,
  },
]

const rank = { clear: 0, 'limit the current': 1, 'do not power': 2 } as const
const laid = (entries: readonly Entry[]) =>
  entries.map((e, i) => ({ ...e, seq: i + 1, strikes: null }) as Entry)
const any = anyTape(25).map((entries) => entries.filter((e) => e.kind !== 'strike'))

describe('tapes drawn from every kind of line', () => {
  it.each(hazards)('after $what never clear until its own clearing line', ({ lay, clears }) => {
    fc.assert(
      fc.property(any, any, (before, after) => {
        const t = clear()
        t.entries.push(...before)
        lay(t)
        const hazard = t.entries.at(-1)!
        const rest = after.filter((e) => !clears(e, hazard.seq))
        expect(gateOf(laid([...t.entries, ...rest])).lamp).not.toBe('clear')
      }),
      { numRuns: 120 },
    )
  })
  it.each(hazards)('$what at the end never opens', ({ lay }) => {
    fc.assert(
      fc.property(any, fc.boolean(), (before, cleared) => {
        const t = cleared ? clear() : tape()
        t.entries.push(...before)
        const was = gateOf(laid(t.entries)).lamp
        lay(t)
        expect(rank[gateOf(laid(t.entries)).lamp]).toBeGreaterThanOrEqual(rank[was])
      }),
      { numRuns: 120 },
    )
  })
  it('the order of lines that have nothing to do with each other does not matter', () => {
    const lines: readonly [Kind, Bodies[Kind]][] = [
      ['note', { text: 'x' }],
      ['claim', { text: 'it worked' }],
      ['rail', { rail: 'vcore', ohms: 0.02, cpu: 'in' }],
      ['look', { what: 'a place', seen: 'x', clear: false, hazard: 'liquid' }],
      ['mark', { contacts: ['D4'], mark: { kind: 'lodged' } }],
      ['missing', { what: 'a screw', from: 'bench' }],
      ['volts', { rail: '5v', volts: 5 }],
      ['part', { ref: 'C9', did: 'found damaged' }],
    ]
    fc.assert(
      fc.property(
        fc.shuffledSubarray([...lines.keys()], { minLength: lines.length }),
        fc.nat({ max: lines.length }),
        (order, keep) => {
          const kept = new Set([...lines.keys()].slice(0, keep))
          const lay = (of: readonly number[]) => {
            const t = clear()
            for (const i of of) if (kept.has(i)) t.put(lines[i]![0], lines[i]![1] as never)
            return gateOf(t.entries)
              .reasons.map((r) => r.text)
              .sort()
          }
          expect(lay(order)).toEqual(lay([...lines.keys()]))
        },
      ),
      { numRuns: 60 },
    )
  })
})

const moved = (to: 'on' | 'off') => ({ to, by: 'hot air', despite: [] }) as const
/** Where the rails are owed again by a change. */
const heated = () => clear().put('part', { ref: 'R9', did: 'fitted', value: '10 kΩ' })
const open = (...rail: readonly (keyof typeof ohms)[]) =>
  rail.reduce((t, r) => t.put('rail', { rail: r, ohms: 40_000_000, cpu: 'in' }), clear())

const read = (rail: keyof typeof ohms, ...values: readonly number[]) =>
  values.reduce((t, value) => t.put('rail', { rail, ohms: value, cpu: 'in' }), clear())

/** Each line of a tape that bears on power, after a board that may be powered: all that the gate says then. */
const lines: Readonly<Record<string, () => TestTape>> = {
  nothing: clear,
  'no line at all': tape,
  'a sense contact that is gone': () => clear().put('mark', { contacts: ['H1'], mark: { kind: 'snapped' } }),
  'a reserved one that is gone': () => clear().put('mark', { contacts: ['H5'], mark: { kind: 'snapped' } }),
  'one that may be gone': () =>
    clear().put('mark', { contacts: ['H1'], mark: { kind: 'low', heightMm: -0.02, maybe: 'snapped' } }),
  'one that leans a little': () =>
    clear().put('mark', { contacts: ['H5'], mark: { kind: 'lean', leanMm: [0.02, 0] } }),
  'one that is far too low': () =>
    clear().put('mark', { contacts: ['H5'], mark: { kind: 'low', heightMm: -0.4 } }),
  'one that stands sound': () => clear().put('mark', { contacts: ['H5'], mark: { kind: 'intact' } }),
  'something that may be lodged': () =>
    clear().put('mark', { contacts: ['A1'], mark: { kind: 'scuffed', maybe: 'lodged' } }),
  'something lodged': () => clear().put('mark', { contacts: ['A1'], mark: { kind: 'lodged' } }),
  paste: () => clear().put('mark', { contacts: ['A1'], mark: { kind: 'paste' } }),
  'a named touch': () => clear().put('mark', { contacts: ['C5'], mark: { kind: 'touching', touches: 'C4' } }),
  'a named touch of one net': () =>
    clear().put('mark', { contacts: ['C5'], mark: { kind: 'touching', touches: 'C6' } }),
  'a touch nobody named': () => clear().put('mark', { contacts: ['C5'], mark: { kind: 'touching' } }),
  'folded over nobody named': () => clear().put('mark', { contacts: ['H5'], mark: { kind: 'folded' } }),
  'open once': () => open('vmem'),
  'open twice': () => open('vmem', 'vmem'),
  'two open once': () => open('vmem', 'vsys'),
  'open, then read again': () => open('vmem').put('rail', { rail: 'vmem', ohms: 221, cpu: 'in' }),
  'read with the CPU said to be out, which is in': () =>
    clear().put('rail', { rail: 'vmem', ohms: 221, cpu: 'out' }),
  'short with the CPU said to be out, which is in': () =>
    clear().put('rail', { rail: 'vmem', ohms: 0.4, cpu: 'out' }),
  'low with the CPU said to be out, which is in': () =>
    clear().put('rail', { rail: 'vmem', ohms: 12, cpu: 'out' }),
  'short, then low in such a reading': () =>
    clear()
      .put('rail', { rail: 'vmem', ohms: 0.4, cpu: 'out' })
      .put('rail', { rail: 'vmem', ohms: 12, cpu: 'out' }),
  'short with the CPU in': () => clear().put('rail', { rail: 'vmem', ohms: 0.4, cpu: 'in' }),
  'short, then good': () => read('vmem', 0.4, 221),
  'short, then good, then good': () => read('vmem', 0.4, 221, 218),
  'short, then good, then short': () => read('vmem', 0.4, 221, 0.4),
  'short, then good with the module out': () =>
    read('vmem', 0.4).put('fitted', { modules: [] }).put('rail', { rail: 'vmem', ohms: 221, cpu: 'in' }),
  'short, then good after a new cell': () =>
    read('vmem', 0.4)
      .put('cell', { volts: 3.1, isNew: true })
      .put('rail', { rail: 'vmem', ohms: 221, cpu: 'in' }),
  'short, then open, then good': () => read('vmem', 0.4, 40_000_000, 221),
  'short, then open, then good twice': () => read('vmem', 0.4, 40_000_000, 221, 218),
  'short, a trip, then all good': () =>
    measure(read('vmem', 0.4).put('baseline', { ...good, current: 'trips' }), 'in'),
  'good, said to be short, then good': () =>
    clear()
      .put('rail', { rail: 'vmem', ohms: 221, cpu: 'in' })
      .put('rail', { rail: 'vmem', ohms: null, is: 'short', cpu: null })
      .put('rail', { rail: 'vmem', ohms: 221, cpu: 'in' }),
  'a rail of which only such a reading stands': () => {
    const t = tape().put('seat', { cpu: 'Orrin 41', drop: 'flat', heatsink: true })
    return t.put('rail', { rail: 'vmem', ohms: 0.4, cpu: 'out' })
  },
  'seated with force': () => clear().put('seat', { cpu: 'Orrin 41', drop: 'needed force', heatsink: true }),
  'seated with a light push': () =>
    clear().put('seat', { cpu: 'Orrin 41', drop: 'light push', heatsink: true }),
  'seated with a light push, uneven': () =>
    clear().put('seat', { cpu: 'Orrin 41', drop: 'light push', corner: 'far left', heatsink: true }),
  'seated turned': () => clear().put('seat', { cpu: 'Orrin 41', drop: 'flat', turned: true, heatsink: true }),
  'said to be short': () => clear().put('rail', { rail: 'vmem', ohms: null, is: 'short', cpu: null }),
  'said to be low': () => clear().put('rail', { rail: 'vmem', ohms: null, is: 'low', cpu: null }),
  'said to be short, then measured': () =>
    clear()
      .put('rail', { rail: 'vmem', ohms: null, is: 'short', cpu: null })
      .put('rail', { rail: 'vmem', ohms: 221, cpu: 'in' }),
  'said to be short, then measured twice': () =>
    clear()
      .put('rail', { rail: 'vmem', ohms: null, is: 'short', cpu: null })
      .put('rail', { rail: 'vmem', ohms: 221, cpu: 'in' })
      .put('rail', { rail: 'vmem', ohms: 221, cpu: 'in' }),
  'said to be good': () => clear().put('rail', { rail: 'vmem', ohms: null, is: 'good', cpu: null }),
  'said to be good with the CPU out, which is in': () =>
    clear().put('rail', { rail: 'vmem', ohms: null, is: 'good', cpu: 'out' }),
  'said so, then measured': () =>
    clear()
      .put('rail', { rail: 'vmem', ohms: null, is: 'good', cpu: 'out' })
      .put('rail', { rail: 'vmem', ohms: 200, cpu: 'in' }),
  'another rail said to be short': () => clear().put('trial', { test: 'ohms other', outcome: 'short' }),
  'heat beside the socket': heated,
  'said to be good after heat': () => heated().put('rail', { rail: '5v', ohms: null, is: 'good', cpu: null }),
  'one rail measured after heat': () => heated().put('rail', { rail: '5v', ohms: 310, cpu: 'in' }),
  'too many volts': () => clear().put('volts', { rail: '12v', volts: 14 }),
  'too many volts, heat since': () =>
    clear().put('volts', { rail: '12v', volts: 14 }).put('part', { ref: 'R9', did: 'fitted' }),
  'too many volts, put right and measured': () =>
    measure(clear().put('volts', { rail: '12v', volts: 14 }).put('part', { ref: 'R9', did: 'fitted' }), 'in'),
  'too few volts': () => clear().put('volts', { rail: '12v', volts: 9 }),
  'volts below ground': () => clear().put('volts', { rail: '12v', volts: -9 }),
  'a cell over its volts': () => clear().put('cell', { volts: 3.9 }),
  'a burn': () =>
    clear().put('look', { what: 'round the socket', seen: 'scorched', clear: false, hazard: 'burnt' }),
  'what is harmless': () =>
    clear().put('look', { what: 'round the socket', seen: 'dust', clear: false, hazard: 'harmless' }),
  'a part gone': () =>
    clear().put('look', { what: 'round the socket', seen: 'C9 gone', clear: false, hazard: 'part gone' }),
  'what nobody judged': () => clear().put('look', { what: 'round the socket', seen: 'a mark', clear: false }),
  'a trip': () => clear().put('baseline', { ...good, current: 'trips' }),
  'a trip, one rail measured': () =>
    clear()
      .put('baseline', { ...good, current: 'trips' })
      .put('rail', { rail: '5v', ohms: 310, cpu: 'in' }),
  'a trip, all measured': () => measure(clear().put('baseline', { ...good, current: 'trips' }), 'in'),
  'the clip on': () => clear().put('firmware', { clipOn: true }),
  'the clip on at too many volts': () =>
    clear().put('firmware', { chipVolts: 1.8, programmerVolts: 3.3, clipOn: true }),
  'the chip off': () => clear().put('chip moved', moved('off')),
  'the chip on, its way round not looked at': () =>
    clear().put('chip moved', moved('off')).put('chip moved', moved('on')),
  'the chip on, turned': () =>
    clear()
      .put('chip moved', moved('off'))
      .put('chip moved', moved('on'))
      .put('refit', { orientation: 'turned' }),
  'ran, then heat': () =>
    clear()
      .put('baseline', { ...good, picture: 'system loads' })
      .put('part', { ref: 'R9', did: 'fitted' }),
  'ran, rails not measured': () =>
    tape()
      .put('seat', { cpu: 'Orrin 41', drop: 'flat', heatsink: true })
      .put('supply', { limitA: 2 })
      .put('baseline', { ...good, picture: 'system loads' }),
  'ran, then a start in the dark': () =>
    tape()
      .put('seat', { cpu: 'Orrin 41', drop: 'flat', heatsink: true })
      .put('supply', { limitA: 2 })
      .put('baseline', { ...good, picture: 'system loads' })
      .put('trial', { test: 'cold start', outcome: 'memory lamp' }),
  'ran after a start in the dark': () =>
    tape()
      .put('seat', { cpu: 'Orrin 41', drop: 'flat', heatsink: true })
      .put('supply', { limitA: 2 })
      .put('trial', { test: 'cold start', outcome: 'memory lamp' })
      .put('baseline', { ...good, picture: 'system loads' }),
  'a few not looked at beside damage': () =>
    tape()
      .put('looked', { contacts: names.filter((n) => n !== 'A2') })
      .put('mark', { contacts: ['A1'], mark: { kind: 'low', heightMm: -0.05 } }),
}

/** The same field with one contact that senses the core’s volts, and one of which nobody knows what it carries. */
const sensing = {
  ...land,
  contacts: land.contacts.map((c) =>
    c.name === 'H1'
      ? { ...c, group: 'sense' as const }
      : c.name === 'H5'
        ? { ...c, group: 'unknown' as const }
        : c,
  ),
}
it.each([
  ['land grid', sensing],
  ['pin grid', pins],
  ['no socket', null],
] as const)('what each line of a tape comes to at the gate, whole: %s', (_, field) => {
  const said = Object.entries(lines).flatMap(([name, of]) => {
    const { lamp, reasons } = judgeTape(jobState(of().entries, names), field)
    return [`${name}: ${lamp}`, ...reasons.map((r) => `  ${r.level} | ${r.text} | ${r.at.say}`)]
  })
  expect(`${said.join('\n')}\n`).toMatchSnapshot()
})

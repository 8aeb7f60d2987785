import { jobState } from '../../job/job-state'
import { nothingNoted } from '../../board/baseline'
import { describe, expect, it } from 'vitest'
import { lifted, tape } from '../../job/tape.testing'
import type { TestTape } from '../../job/tape.testing'
import { smallField } from '../../socket/model/field.testing'
import { believe } from './belief'
import { benchTests } from '../model/bench-tests'
import type { ToBelieve } from './belief'
import type { Change } from '../model/repair'
import { evidenceOf } from '../../job/evidence'

const socket = smallField()
const names = socket.contacts.map((c) => c.name)
const seen = (t: ReturnType<typeof tape>) => evidenceOf(jobState(t.entries, names), socket).evidence
const said = (t: ReturnType<typeof tape>) =>
  seen(t).map((e) => `${e.test}${e.of ? `, of ${e.of}` : ''}: ${e.outcome}`)
const ask = (more: Partial<ToBelieve>) => believe({ history: [], evidence: [], mayPower: true, ...more })

describe('the tape as evidence', () => {
  it.each<[string, ReturnType<typeof tape>, string[]]>([
    ['a rail', tape().put('rail', { rail: 'vmem', ohms: 2, cpu: 'out' }), ['ohms vmem: short']],
    ['missing volts', tape().put('volts', { rail: '12v', volts: 0.1 }), ['volts 12v: missing']],
    ['volts', tape().put('volts', { rail: '12v', volts: 11.9 }), ['volts 12v: there']],
    ['a low cell', tape().put('cell', { volts: 2.1 }), ['cell: low']],
    [
      'a clear look',
      tape().put('look', { what: 'round the firmware chip', seen: 'nothing seen', clear: true }),
      ['round the chip: clear'],
    ],
    [
      'a found resistor',
      tape().put('look', { what: 'round the firmware chip', seen: 'resistor R9 gone', clear: false }),
      ['round the chip: a resistor gone'],
    ],
    [
      'a burn',
      tape().put('look', { what: 'outside of the board', seen: 'burn mark', clear: false }),
      ['outside: scorched at a rail'],
    ],
    [
      'a burn told by its key, whatever the words',
      tape().put('look', { what: 'outside of the board', seen: 'charred', clear: false, hazard: 'burnt' }),
      ['outside: scorched at a rail'],
    ],
    [
      'words about a burn that is none',
      tape().put('look', {
        what: 'outside of the board',
        seen: 'no burn mark',
        clear: false,
        hazard: 'harmless',
      }),
      [],
    ],
    [
      'corrosion round the chip, no part gone',
      tape().put('look', { what: 'round the chip', seen: 'green', clear: false, hazard: 'corroded' }),
      [],
    ],
    [
      'a look that says nothing known',
      tape().put('look', { what: 'the other side', seen: 'dust', clear: false }),
      [],
    ],
    [
      'a power-up',
      tape().put('baseline', {
        ...nothingNoted,
        fans: 'on',
        lamp: 'memory',
        cpuHeat: 'warm',
        current: 'cycling',
      }),
      ['as it came: memory lamp', 'current: cycles', 'warmth: warm'],
    ],
    ['a dead one', tape().put('baseline', { ...nothingNoted, fans: 'off' }), ['as it came: nothing']],
    [
      'one of which the fans were noted',
      tape().put('baseline', { ...nothingNoted, fans: 'on' }),
      ['as it came: fans turn'],
    ],
    [
      'one that stays dark, on a board without lamps',
      tape().put('baseline', { ...nothingNoted, fans: 'on', fanSpeed: 'full speed', picture: 'none' }),
      ['as it came: fans, dark', 'fans settle: full speed'],
    ],
    [
      'one that restarts, and beeps',
      tape().put('baseline', { ...nothingNoted, fans: 'restarts', beeps: '1 long 2 short' }),
      ['as it came: restarts', 'beeps: beeps or memory code'],
    ],
    [
      'the settings screen, with nothing to start from',
      tape()
        .put('fitted', { drive: null })
        .put('baseline', { ...nothingNoted, picture: 'settings screen' }),
      ['no drive: settings screen'],
    ],
    [
      'no memory fitted',
      tape()
        .put('fitted', { modules: [] })
        .put('baseline', { ...nothingNoted, fans: 'on', lamp: 'memory' }),
      ['no memory: memory lamp'],
    ],
    [
      'a CPU of the bench',
      tape()
        .put('fitted', { cpu: 'bench Orrin 41', modules: [] })
        .put('fitted', { modules: ['A1'] })
        .put('baseline', { ...nothingNoted, picture: 'system loads' }),
      ['known-good CPU: system loads'],
    ],
    [
      'a start without a CPU, and what was read of it',
      tape()
        .put('fitted', { cpu: null })
        .put('baseline', { ...nothingNoted, fans: 'on', lamp: 'cpu', current: 'steady', beeps: 'silent' }),
      ['no CPU: CPU lamp', 'current, of no CPU: steady'],
    ],
    [
      'an ID as older tapes have it',
      tape().put('trial', { test: 'chip id', outcome: 'wrong or none' }),
      ['chip id: wrong or none'],
    ],
    ['one of which nothing was noted', tape().put('baseline', { ...nothingNoted, amps: 0.4 }), []],
    ['a proud CPU', tape().put('seat', { cpu: 'x', drop: 'proud', heatsink: true }), ['CPU proud: proud']],
    [
      'a test carried out',
      tape().put('trial', { test: 'good in A', outcome: 'system loads' }),
      ['good in A: system loads'],
    ],
    ['a map that shows nothing', tape().put('looked', { contacts: 'all' }), ['socket: clear']],
    ['a part of a map', tape().put('looked', { contacts: ['A1'] }), []],
    [
      'a bent memory contact',
      tape().put('mark', { contacts: ['A1'], mark: { kind: 'low' } }),
      ['socket: memory A contact off'],
    ],
    [
      'rail and ground touching',
      tape().put('mark', { contacts: ['C4'], mark: { kind: 'touching', touches: 'C5' } }),
      ['socket: power contacts touch'],
    ],
    ['one bent ground', tape().put('mark', { contacts: ['C1'], mark: { kind: 'low' } }), []],
    [
      'the gravest of several',
      tape().put('mark', { contacts: ['A1', 'H1'], mark: { kind: 'low' } }),
      ['socket: control contact off'],
    ],
  ])('%s', (_, t, expected) => expect(said(t)).toEqual(expected))

  it('counts the readings of a meter, before and after each mend', () => {
    const t = tape()
      .put('rail', { rail: 'vmem', ohms: 2, cpu: 'out' })
      .put('rail', { rail: 'vmem', ohms: 3, cpu: 'out' })
      .put('mended', { fault: 'memory rail short' })
      .put('rail', { rail: 'vmem', ohms: 205, cpu: 'out' })
    expect(seen(t)).toEqual([
      { seq: 2, test: 'ohms vmem', outcome: 'short', earlier: ['short'] },
      { seq: 4, test: 'ohms vmem', outcome: 'good', after: 1 },
    ])
  })
  it('takes no reading with the CPU in for one of those without it', () => {
    const t = tape()
      .put('rail', { rail: 'vcore', ohms: 30, cpu: 'out' })
      .put('rail', { rail: 'vcore', ohms: 0.2, cpu: 'out' })
      .put('rail', { rail: 'vcore', ohms: 4, cpu: 'in' })
    expect(seen(t)).toEqual([{ seq: 3, test: 'ohms vcore', outcome: expect.any(String) }])
  })
  it('counts each time a rail was read in volts', () => {
    const t = tape()
      .put('volts', { rail: 'vmem', volts: 0 })
      .put('volts', { rail: 'vmem', volts: 1.2 })
      .put('volts', { rail: 'vmem', volts: null, is: 'there' })
    expect(seen(t)).toEqual([{ seq: 3, test: 'volts vmem', outcome: 'there', earlier: ['missing', 'there'] }])
  })
  it('takes a socket as mended once its strokes have taken the finding off the map', () => {
    const t = tape()
      .put('mark', { contacts: ['A1'], mark: { kind: 'low' } })
      .put('baseline', { ...nothingNoted, fans: 'on', lamp: 'memory' })
      .put('stroke', lifted('A1'))
    const state = () => evidenceOf(jobState(t.entries, names), socket)
    expect(state().mended).toEqual(['memory A contact open'])
    expect(said(t)).toEqual(['as it came: memory lamp', 'socket: memory A contact off'])
    t.put('pass', { name: 'after' }).put('looked', { contacts: 'all' })
    expect(state().evidence.at(-1)).toMatchObject({
      test: 'socket',
      outcome: 'clear',
      after: 2,
    })
    t.put('mark', { contacts: ['A2'], mark: { kind: 'low' } })
    expect(state().mended).toEqual([])
  })
  it('counts that strokes may have disturbed a neighbour, until the socket was looked over again', () => {
    const dark = { ...nothingNoted, fans: 'on', lamp: 'cpu', picture: 'none' } as const
    const touch = (t: TestTape) => {
      const { evidence, changes } = evidenceOf(jobState(t.entries, names), socket)
      const { faults } = believe({ history: [], evidence, changes, mayPower: true })
      return faults.find((f) => f.fault === 'signal contacts touch')?.odds ?? 0
    }
    const worked = () => tape().put('stroke', lifted('A1')).put('baseline', dark)
    expect(touch(worked())).toBeGreaterThan(1.5 * touch(tape().put('baseline', dark)))
    const looked = worked().put('pass', { name: 'after' }).put('looked', { contacts: 'all' })
    expect(touch(looked)).toBeLessThan(touch(worked()) / 2)
  })
  it('takes a part that was missing and is fitted as a repair, as sure as such a repair is', () => {
    const missing = () =>
      tape().put('part', { ref: 'R214', did: 'found missing', text: 'chip pin 2 to controller' })
    const of = (t: ReturnType<typeof tape>) => evidenceOf(jobState(t.entries, names), socket)
    expect(of(missing()).changes).toEqual([])
    const fitted = missing().put('part', { ref: 'R214', did: 'fitted', value: '33 Ω' })
    expect(of(fitted).changes).toEqual([{ is: 'mended', fault: 'chip resistor' }])
    expect(said(fitted)).toEqual(['round the chip: a resistor gone'])
    // One that is nowhere near what the reasoner knows is no repair of what it knows: what it said is over.
    const far = tape().put('part', { ref: 'C318', did: 'found missing', text: 'beside the card slot' })
    expect(said(far)).toEqual(['outside: a part missing'])
    far.put('part', { ref: 'C318', did: 'fitted' })
    expect(of(far)).toMatchObject({ changes: [], evidence: [] })
    // Another part, or one that was not missing, repairs nothing.
    expect(of(missing().put('part', { ref: 'R9', did: 'fitted' })).changes).toEqual([])
    fitted.put('look', { what: 'round the chip', seen: 'nothing', clear: true })
    expect(seen(fitted).at(-1)).toMatchObject({ outcome: 'clear', after: 1 })
  })
  it('takes a test that cures as a cure: a later good start points at nothing else', () => {
    const t = tape()
      .put('baseline', { ...nothingNoted, fans: 'on', lamp: 'memory', picture: 'none' })
      .put('trial', { test: 'settings cleared', outcome: 'system loads' })
    const of = (tape: TestTape) => evidenceOf(jobState(tape.entries, names), socket)
    expect(of(t).changes).toEqual([{ is: 'cured', fault: 'settings' }])
    expect(of(t).mended).toEqual(['settings'])
    const odds = (tape: TestTape) =>
      ask({ ...of(tape) }).faults.find((f) => f.fault === 'cell weak')?.odds ?? 0
    const before = odds(t)
    t.put('baseline', { ...nothingNoted, fans: 'on', lamp: 'none', picture: 'system loads' })
    expect(of(t).evidence.at(-1)).toMatchObject({ test: 'as it came', after: 1 })
    expect(odds(t)).toBeLessThanOrEqual(before + 0.02)
  })
  it('leaves out what was struck', () => {
    const t = tape().put('cell', { volts: 2.1 }).put('strike', { why: 'slip' }, 1)
    expect(said(t)).toEqual([])
  })
})

const swap = (what: 'module' | 'CPU', place: string, knownGood: boolean, outcome: string) =>
  tape().put('swap', { what, part: 'x', place, knownGood, outcome })
const curve = {
  name: '',
  samples: 99,
  standbyA: 0.1,
  plateauA: null,
  peakA: 1,
  segments: [],
  curve: { s: [0, 1], a: [0, 1] },
}
const codes = {
  name: 'a board',
  codes: [
    { code: '1A', stage: 'CPU and chipset', say: '', restS: 5 },
    { code: '4C', stage: 'memory training', say: '', restS: 180 },
  ],
} as const

describe('instruments as evidence', () => {
  it.each<[string, ReturnType<typeof tape>, string[]]>([
    ['a good module in a slot', swap('module', 'slot A', true, 'memory lamp'), ['good in A: memory lamp']],
    ['the owner’s module in slot B', swap('module', 'B', false, 'system loads'), ['own in B: system loads']],
    ['the owner’s CPU elsewhere', swap('CPU', 'another board', false, 'nothing'), ['CPU elsewhere: fails']],
    ['a good CPU here', swap('CPU', 'this board', true, 'CPU lamp'), ['known-good CPU: CPU lamp']],
    ['the owner’s CPU here', swap('CPU', 'this board', false, 'CPU lamp'), []],
    ['a curve', tape().put('current', { ...curve, pattern: 'cycling', periodS: 2 }), ['current: cycles']],
    [
      'a cell at the board',
      tape().put('cell', { volts: 1.9, where: 'at the board' }),
      ['cell under load: low'],
    ],
    [
      'a new cell at the board',
      tape().put('cell', { volts: 3, where: 'at the board', isNew: true }),
      ['new cell under load: good'],
    ],
    [
      'settings lost',
      tape().put('runs', { ratedMTs: null, seenMTs: null, startS: null, settingsKept: false }),
      ['settings kept: lost'],
    ],
  ])('%s', (_, t, wanted) => {
    expect(said(t)).toEqual(wanted)
  })
  const reckoned = (t: ReturnType<typeof tape>, reference: Parameters<typeof evidenceOf>[2]) =>
    evidenceOf(jobState(t.entries, names), socket, reference).evidence.map((e) => `${e.test}: ${e.outcome}`)
  it('codes say nothing without a table, nor while they may train, and then how far it came', () => {
    const reference = { codes, rails: null }
    const run = (watchedS: number) => tape().put('codes', { codes: ['1A', '4C'], atS: [1, 4], watchedS })
    expect(said(run(900))).toEqual([])
    expect(reckoned(run(60), reference)).toEqual([])
    expect(reckoned(run(900), reference)).toEqual(['codes: memory'])
  })
  it('a rail is judged by the good board where there is one', () => {
    const t = tape().put('rail', { rail: 'vmem', ohms: 60, cpu: 'out' })
    const reference = {
      codes: null,
      rails: { name: '', rails: { vmem: { ohmsOut: 220, ohmsIn: null, volts: 1.2 } } },
    }
    expect(said(t)).toEqual(['ohms vmem: good'])
    expect(reckoned(t, reference)).toEqual(['ohms vmem: low'])
  })
})

describe('claims as evidence', () => {
  const claim = (reliability = 0.5) =>
    tape()
      .put('claim', { text: 'the cell is empty' })
      .put('claim weighed', { claim: 1, test: 'cell', outcome: 'low', reliability })
  it('count as far as they are believed', () => {
    expect(seen(claim())).toMatchObject([{ test: 'cell', outcome: 'low', reliability: 0.5 }])
    const odds = (r: number) =>
      ask({ evidence: seen(claim(r)) }).faults.find((f) => f.fault === 'cell weak')?.odds ?? 0
    expect(odds(0.9)).toBeGreaterThan(odds(0.3))
  })
  it('are nothing before they are weighed, when found wrong, and once the same was seen here', () => {
    expect(seen(tape().put('claim', { text: 'the cell is empty' }))).toEqual([])
    expect(seen(claim().put('claim checked', { claim: 1, verdict: 'wrong', how: '' }))).toEqual([])
    expect(said(claim().put('cell', { volts: 3.1 }))).toEqual(['cell: good'])
  })
  it('that hold are believed like what was seen', () => {
    const t = claim().put('claim checked', { claim: 1, verdict: 'holds', how: '' })
    expect(seen(t)).toMatchObject([{ reliability: 0.95 }])
  })
})

describe('the belief', () => {
  it('says aloud which evidence nothing likely explains', () => {
    const fits = ask({ evidence: [{ test: 'as it came', outcome: 'memory lamp' }] })
    expect(fits.unexplained).toEqual([])
    const odd = ask({
      evidence: [
        { test: 'as it came', outcome: 'nothing' },
        { test: 'current', outcome: 'nothing' },
        { test: 'volts 12v', outcome: 'missing' },
        { test: 'codes', outcome: 'late' },
      ],
    })
    expect(odd.unexplained.map((u) => u.outcome)).toContain('late')
  })
  it('says when no test left is worth its minutes, and not before', () => {
    expect(ask({}).notWorthMore).toBe(false)
    const free = benchTests.filter((t) => !t.powers && t.needs.length === 0)
    const evidence = free.map((t) => ({ test: t.id, outcome: t.outcomes.at(-1)! }))
    const spent = ask({ evidence, mayPower: false, shelf: [] })
    expect(spent.verdict).toBeNull()
    expect(spent.notWorthMore).toBe(true)
  })
  it('expects a fault again that was mended here before', () => {
    const odds = (again: ToBelieve['again']) =>
      ask({
        ...(again ? { again } : {}),
        evidence: [{ test: 'as it came', outcome: 'memory lamp' }],
      }).faults.find((f) => f.fault === 'slot B')?.odds ?? 0
    expect(odds(['slot B'])).toBeGreaterThan(2 * odds([]))
  })
  it('begins with history alone, ranked, and a test to begin with', () => {
    const belief = ask({ history: ['power cut during update'] })
    expect(belief.faults[0]).toMatchObject({ fault: 'firmware corrupt', reasons: [] })
    expect(belief.last).toBeNull()
    expect(belief.next.length).toBe(5)
    const odds = belief.faults.map((f) => f.odds)
    expect(odds).toEqual([...odds].sort((a, b) => b - a))
  })
  it('gives the likely causes as ways that exclude each other: with what is left they sum to one', () => {
    const cases: Partial<ToBelieve>[] = [
      {},
      { history: ['lightning or surge'] },
      { evidence: [{ test: 'as it came', outcome: 'memory lamp' }] },
      {
        evidence: [{ test: 'outside', outcome: 'cell holder green' }],
        changes: [{ is: 'mended', fault: 'cell holder' }],
      },
      {
        evidence: [
          { test: 'ohms 12v', outcome: 'short' },
          { test: 'ohms vmem', outcome: 'short' },
        ],
      },
    ]
    for (const given of cases) {
      const { causes, otherwise, faults, somethingElse } = ask(given)
      expect(causes.reduce((sum, c) => sum + c.odds, otherwise.odds)).toBeCloseTo(1, 9)
      expect(causes.reduce((sum, c) => sum + c.before, otherwise.before)).toBeCloseTo(1, 9)
      expect(otherwise.odds).toBeGreaterThanOrEqual(somethingElse - 1e-9)
      // A fault’s own odds are those of every way it is in: never below those shown here.
      for (const { fault, odds } of faults) {
        const within = causes.filter((c) => c.faults.includes(fault)).reduce((sum, c) => sum + c.odds, 0)
        expect(odds).toBeGreaterThanOrEqual(within - 1e-9)
      }
    }
    const both = ask(cases[4]!).causes.find((c) => c.faults.length === 2)!
    expect(both.say).toMatch(/^two faults: .* and .*/)
  })
  it('shows what the last evidence moved, and what speaks for and against', () => {
    const evidence = [
      { test: 'as it came', outcome: 'memory lamp' },
      { test: 'module elsewhere', outcome: 'good' },
    ]
    const before = ask({ evidence: evidence.slice(0, 1) }).faults.find((f) => f.fault === 'module')!
    const after = ask({ evidence }).faults.find((f) => f.fault === 'module')
    expect(after?.before ?? before.odds).toBeCloseTo(before.odds, 9)
    const settings = ask({ evidence }).faults.find((f) => f.fault === 'settings')!
    expect(settings.odds).toBeGreaterThan(settings.before)
    expect(settings.reasons[0]).toMatchObject({ test: 'Power up as it came', outcome: 'memory lamp' })
    expect(settings.reasons[0]!.bits).toBeGreaterThan(1)
  })
  it('comes to a verdict, asks for no more, and looks behind it once it is mended', () => {
    const evidence = [
      { test: 'as it came', outcome: 'nothing' },
      { test: 'front wiring', outcome: 'wrong' },
      { test: 'bridged', outcome: 'system loads' },
      { test: 'current', outcome: 'nothing' },
      { test: 'volts 12v', outcome: 'missing' },
      { test: 'bench supply', outcome: 'nothing' },
      { test: 'controller talks', outcome: 'talks' },
    ]
    const belief = ask({ evidence })
    expect(belief.verdict).toMatchObject({ is: 'found', fault: 'front wiring' })
    expect(belief.next).toEqual([])
    const changes: Change[] = [{ is: 'mended', fault: 'front wiring' }]
    const now = ask({ evidence, changes })
    expect(now.next.filter((s) => s.test.id === 'as it came')).toHaveLength(1)
    expect(now.verdict).toBeNull()
    expect(now.next[0]).toMatchObject({ test: { id: 'as it came' } })
    const started = ['as it came', 'cold start', 'needed only', 'card'].map((test) => ({
      test,
      outcome: 'system loads',
      after: 1,
    }))
    expect(ask({ changes, evidence: [...evidence, ...started] }).verdict).toMatchObject({
      is: 'nothing left',
    })
    const later = ask({
      changes,
      evidence: [...evidence, { test: 'as it came', outcome: 'memory lamp', after: 1 }],
    })
    expect(later.faults[0]!.fault).not.toBe('front wiring')
    expect(later.next.length).toBeGreaterThan(0)
  })
  it('tells nobody to power a board that may not be, not even after a mend', () => {
    const shut = ask({ changes: [{ is: 'mended', fault: 'slot B' }], mayPower: false })
    expect(shut.next.length).toBeGreaterThan(0)
    expect(shut.next.filter((s) => s.test.powers)).toEqual([])
  })
  it('can be handed from a worker', () => {
    expect(structuredClone(ask({ evidence: [{ test: 'cell', outcome: 'low' }] })).next).toHaveLength(5)
  })
})

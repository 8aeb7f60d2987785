import fc from 'fast-check'
import { gateOf } from '../../job/gate'
import { jobState } from '../../job/job-state'
import { tape } from '../../job/tape.testing'
import { describe, expect, it } from 'vitest'
import { assess } from '../damage/assess'
import { smallField } from '../model/field.testing'
import { usualFigures } from './bench-figures'
import type { Marks } from '../damage/mark'
import { forbidPower } from '../damage/closing-shorts'
import { plan } from './plan'
import { giveBack, orderOfWork, reckon, weigh, worthShare } from './reckon'
import type { ToWeigh } from './reckon'
import type { Technique } from './technique'

const socket = smallField()
const all = socket.contacts.map((c) => c.name)
const ask: ToWeigh = {
  marks: { H1: { kind: 'lean', leanMm: [0.35, 0] } },
  contact: 'H1',
  technique: 'push',
  first: { kind: 'lean', leanMm: [0.35, 0] },
  strokes: 0,
  worthMinor: 100_000,
  strokeMinor: 1000,
  lossMinor: 20_000,
  withALoss: 0.6,
}

it('a board that runs with something lost is worth a share of one that runs whole', () => {
  const seen = assess(socket, { H1: { kind: 'snapped' } }, { draws: 200 })
  const of = (runs: number, whole: number) => worthShare({ ...seen, runs, whole }, 0.6)
  expect([of(0, 0), of(0.8, 0), of(0.8, 0.3), of(0.8, 0.8), of(0.8, 0.9)]).toEqual(
    [0, 0.48, 0.6, 0.8, 0.8].map((v) => expect.closeTo(v, 9) as number),
  )
})

describe('the order of work', () => {
  const { worthMinor, strokeMinor, lossMinor, withALoss } = ask
  const worth = { worthMinor, strokeMinor, lossMinor, withALoss }
  const asked = (marks: Marks) => ({
    marks,
    looked: all,
    school: 'A' as const,
    left: {},
    strokes: {},
    first: marks,
    worth,
  })
  it('holds no contact of which a stroke is advised against, and says of those why', () => {
    const marks: Marks = {
      H1: { kind: 'lean', leanMm: [0.35, 0] },
      D1: { kind: 'lean', leanMm: [0.35, 0] },
      A2: { kind: 'low', heightMm: -0.14 },
      C2: { kind: 'low', heightMm: -0.05 },
      F3: { kind: 'twisted', twistDeg: 8 },
    }
    const { steps } = orderOfWork(socket, asked(marks))
    expect(steps.map((s) => s.contact).sort()).toEqual(Object.keys(marks).sort())
    for (const { contact, technique, say } of steps) {
      const first = marks[contact]!
      const handled = plan(socket, marks).steps.find((s) => s.contact === contact)!.technique as Technique
      const { advice, why } = weigh(socket, { ...ask, marks, contact, technique: handled, first })
      if (technique === 'leave') expect(say).toBe(`leave: ${why}`)
      else expect(advice).toBe('push')
    }
    expect(steps.filter((s) => s.technique === 'leave').map((s) => s.contact)).toContain('D1')
    const last = steps.findLastIndex((s) => s.technique !== 'leave')
    expect(steps.findIndex((s) => s.technique === 'leave')).toBeGreaterThan(last)
  })
  it('parts a short, however little the board needs the contact', () => {
    const marks: Marks = { C4: { kind: 'touching', touches: 'C5' } }
    expect(orderOfWork(socket, asked(marks)).steps[0]!.technique).not.toBe('leave')
  })
  it.each([
    ['C4', [0, 0.59]],
    ['C5', [-0.65, 0]],
    ['F5', [-0.59, 0]],
    ['G2', [0, -0.62]],
  ] as const)(
    'works %s, for which the gate forbids power though the board hardly needs it',
    (contact, leanMm) => {
      const marks: Marks = { [contact]: { kind: 'lean', leanMm } }
      const t = tape().put('mark', { contacts: [contact], mark: marks[contact]! })
      const closed = gateOf(jobState(t.entries, all), socket).reasons.filter((r) => r.level === 'closed')
      expect(closed.map((r) => r.at.part)).toContain(contact)
      const [step] = orderOfWork(socket, asked(marks)).steps
      expect(step!.technique).not.toBe('leave')
      const said = weigh(socket, {
        ...ask,
        marks,
        contact,
        technique: step!.technique as Technique,
        first: marks[contact]!,
      })
      expect(said.advice).toBe('part')
      expect(said.why).toMatch(/^it may join what must not be joined/)
    },
  )
  it('leaves no contact for which the gate forbids power', () => {
    const lean = fc.record({
      kind: fc.constant('lean' as const),
      leanMm: fc
        .tuple(fc.double({ min: 0.5, max: 0.7, noNaN: true }), fc.nat(7))
        .map(
          ([mm, way]) => [mm * Math.cos((way * Math.PI) / 4), mm * Math.sin((way * Math.PI) / 4)] as const,
        ),
    })
    fc.assert(
      fc.property(fc.dictionary(fc.constantFrom(...all), lean, { minKeys: 1, maxKeys: 4 }), (marks) => {
        const forbidden = forbidPower(socket, marks)
        const left = orderOfWork(socket, asked(marks)).steps.filter((s) => s.technique === 'leave')
        expect(left.filter((s) => forbidden.has(s.contact))).toEqual([])
      }),
      { numRuns: 60 },
    )
  })
})

describe('one more stroke at a contact of a field', () => {
  it('a lone control contact off its land is pushed', () => {
    expect(weigh(socket, ask)).toMatchObject({ advice: 'push' })
  })
  it('a short elsewhere does not make it worthless: the rest is taken to be worked too', () => {
    // Ground to core rail: as it stands nothing would run, whatever this contact does.
    const marks = { ...ask.marks, C4: { kind: 'touching', touches: 'C5' } as const }
    expect(assess(socket, marks).runs).toBeLessThan(0.1)
    const [alone, beside] = [weigh(socket, ask), weigh(socket, { ...ask, marks })]
    expect(beside.advice).toBe('push')
    expect(beside.gainMinor).toBeGreaterThan(0.7 * alone.gainMinor)
  })
  it('one of many grounds is not', () => {
    const got = weigh(socket, { ...ask, contact: 'D1', marks: { D1: { kind: 'lean', leanMm: [0.35, 0] } } })
    expect([got.advice, got.why]).toEqual(['stop', expect.stringMatching(/hardly needs it/)])
  })
  it('advice changes with what the strokes do: nearer home it is tested', () => {
    const nearer = { H1: { kind: 'lean', leanMm: [0.05, 0] } } as const
    expect(weigh(socket, { ...ask, marks: nearer, strokes: 2 }).advice).toBe('test')
  })
  it('a shop whose pushes often snap is told of more risk, in the order and at the contact', () => {
    const factors = { push: 8 }
    expect(weigh(socket, { ...ask, factors }).snapsNext).toBeGreaterThan(5 * weigh(socket, ask).snapsNext)
    const order = (f: object) =>
      reckon(socket, { marks: ask.marks, looked: [], school: 'A', left: {}, strokes: {}, factors: f }).planned
    expect(order(factors).steps[0]!.snaps).toBeGreaterThan(5 * order({}).steps[0]!.snaps)
    expect(order({}).steps[0]!.ifLost).toMatch(/raise the stub or transplant/)
  })
  it('pins are fitted, land-grid contacts are not', () => {
    const marks = { C3: { kind: 'lean', leanMm: [0.5, 0] } } as const
    const asked = { marks, looked: [], school: 'A', left: {}, strokes: {} } as const
    expect(reckon(socket, asked).pins).toBeNull()
    const pins = reckon({ ...socket, kind: 'pin-grid' }, asked).pins!
    expect(pins.fit).toMatchObject({ fits: false, binding: [{ name: 'C3' }] })
    expect(pins.channels[0]).toMatchObject({ along: 'column', push: 'left', pins: ['C3'] })
  })
})

describe('which contacts that are gone are worth giving back', () => {
  const back = (marks: Marks, boardMinor = 300_000) =>
    giveBack(socket, { marks, looked: all, boardMinor, figures: usualFigures })
  const group = (g: string) => socket.contacts.filter((c) => c.group === g).map((c) => c.name)
  it('a lone signal is, one ground of many is not', () => {
    const ground = group('ground')[0]!
    const told = back({ H1: { kind: 'snapped' }, [ground]: { kind: 'snapped' } })
    expect(told.find((g) => g.contact === 'H1')).toMatchObject({ worthIt: true, way: 'transplant' })
    expect(told.find((g) => g.contact === ground)).toMatchObject({ worthIt: false })
    expect(told.find((g) => g.contact === 'H1')!.costsLeft).toBeGreaterThan(0.3)
  })
  it('for a cheap board none is; a doubtful one is not counted; of very many it does not speak', () => {
    expect(back({ H1: { kind: 'snapped' } }, 1000).every((g) => !g.worthIt)).toBe(true)
    expect(back({ H1: { kind: 'snapped', unsure: true } })).toEqual([])
    expect(
      back(Object.fromEntries(socket.contacts.slice(0, 11).map((c) => [c.name, { kind: 'snapped' }]))),
    ).toEqual([])
  })
})

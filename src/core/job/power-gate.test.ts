import { jobState } from './job-state'
import { stations } from '../board/station'
import { rails } from '../board/rail'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { smallField } from '../socket/model/field.testing'
import { powerEvidence } from './power-evidence'
import { powerGate } from './power-gate'
import { nothingSeen } from './gate-evidence'
import { limitsOf, railLimits, railState } from '../board/rail-limits'
import type { PowerEvidence } from './gate-evidence'
import { tape } from './tape.testing'

const safe: PowerEvidence = {
  ...nothingSeen,
  lookedOutside: true,
  rails: rails.map((rail) => ({ rail, ohms: 900, cpu: 'out' })),
  contacts: 60,
  cpuFitted: true,
  heatsink: true,
  supplyLimitA: 1,
  provedUnderLimit: true,
}
const chipset = { rail: 'chipset', ohmsOut: 92, ohmsIn: null, volts: 1.05 } as const
const short = { a: 'P13', b: 'P14', nets: 'core rail to ground', grade: 'gravest', odds: 1 } as const
const rank = { clear: 0, 'limit the current': 1, 'do not power': 2 } as const

describe('powerGate', () => {
  it('is clear when nothing speaks against it', () => {
    expect(powerGate(safe)).toEqual({ lamp: 'clear', reasons: [] })
  })
  it.each<[string, Partial<PowerEvidence>, keyof typeof rank, RegExp]>([
    ['a short', { shorts: [short] }, 'do not power', /P13 touches P14: core rail to ground/],
    [
      'a possible signal short',
      { shorts: [{ ...short, grade: 'signal', odds: 0.3 }] },
      'limit the current',
      /P13 may touch P14/,
    ],
    [
      'a power short that is hardly likely',
      { shorts: [{ ...short, odds: 0.16 }] },
      'do not power',
      /P13 may touch P14/,
    ],
    ['a harmless touch', { shorts: [{ ...short, grade: 'harmless' }] }, 'clear', /^$/],
    ['a fragment', { unaccounted: ['tip of A1'] }, 'do not power', /tip of A1 is not accounted for/],
    ['nothing measured', { rails: [] }, 'do not power', /No rail is measured yet/],
    ['one rail not measured', { rails: safe.rails.slice(1) }, 'do not power', /12 V rail not measured/],
    [
      'a rail at ground',
      { rails: [...safe.rails.slice(1), { rail: '12v', ohms: 2, cpu: 'out' }] },
      'do not power',
      /12 V rail is shorted to ground: 2 Ω, CPU out/,
    ],
    [
      'a low rail',
      { rails: [...safe.rails.slice(1), { rail: '12v', ohms: 30, cpu: 'out' }] },
      'limit the current',
      /12 V rail reads low/,
    ],
    ['a lost sense with a CPU in', { lostSense: ['F17'] }, 'do not power', /F17 carries voltage sense/],
    ['a lost sense without a CPU', { lostSense: ['F17'], cpuFitted: false, heatsink: false }, 'clear', /^$/],
    ['nobody looked', { notLooked: 60 }, 'do not power', /Nobody has looked at the socket yet/],
    ['a few not looked at', { notLooked: 3 }, 'limit the current', /3 of 60 contacts not inspected/],
    ['no socket chosen', { contacts: 0 }, 'limit the current', /No socket is chosen/],
    ['no heatsink', { heatsink: false }, 'do not power', /no heatsink noted/],
    [
      'power to signal at 40 in 100',
      { shorts: [{ ...short, grade: 'grave', odds: 0.4 }] },
      'do not power',
      /may touch/,
    ],
    [
      'sixty hardly likely shorts',
      {
        shorts: Array.from({ length: 60 }, (_, i) => ({
          ...short,
          a: `A${i}`,
          grade: 'signal' as const,
          odds: 0.13,
        })),
      },
      'do not power',
      /> 99 % that any of 60 close pairs touches/,
    ],
    ['one power short of 13 in 100', { shorts: [{ ...short, odds: 0.13 }] }, 'do not power', /may touch/],
    [
      'one signal short of 13 in 100',
      { shorts: [{ ...short, grade: 'signal', odds: 0.13 }] },
      'limit the current',
      /13 %/,
    ],
    ['a signal short of 1 in 100', { shorts: [{ ...short, grade: 'signal', odds: 0.03 }] }, 'clear', /^$/],
    ...(
      [
        ['gravest', 0.099, 'limit the current'],
        ['gravest', 0.1, 'do not power'],
        ['unknown', 0.1, 'do not power'],
        ['grave', 0.019, 'clear'],
        ['grave', 0.021, 'limit the current'],
        ['signal', 0.5, 'limit the current'],
        ['signal', 0.501, 'do not power'],
        ['signal', 0.049, 'clear'],
        ['signal', 0.051, 'limit the current'],
      ] as const
    ).map(([grade, odds, lamp]): [string, Partial<PowerEvidence>, keyof typeof rank, RegExp] => [
      `a ${grade} short of ${odds}`,
      { shorts: [{ ...short, grade, odds }] },
      lamp,
      /^|may touch/,
    ]),
    ['one contact looked at', { notLooked: 59 }, 'do not power', /59 of 60/],
    [
      'a contact near damage not looked at',
      { notLooked: 1, notLookedNear: ['B4'] },
      'do not power',
      /B4 close to damage/,
    ],
    ['no outside look', { lookedOutside: false }, 'do not power', /outside of the board/],
    [
      'no outside look at a machine seen running',
      { lookedOutside: false, ranHere: true },
      'limit the current',
      /outside/,
    ],
    [
      'nothing measured of a machine that just ran',
      { rails: [], runs: true },
      'limit the current',
      /No rail is measured yet; it came up at its last start/,
    ],
    [
      'rails owed of a machine that ran since',
      { railsOwed: ['12v'], runs: true },
      'limit the current',
      /12 V rail is owed again: .*; it came up/,
    ],
    [
      'a socket nobody looked at in a machine that just ran',
      { notLooked: 60, runs: true },
      'limit the current',
      /Nobody has looked at the socket yet; it came up/,
    ],
    [
      'a rail at ground in a machine that just ran',
      { rails: [{ rail: '12v', ohms: 2, cpu: 'out' }], runs: true },
      'do not power',
      /shorted to ground/,
    ],
    ['a CPU that stayed proud', { seat: 'proud' }, 'do not power', /stayed proud/],
    ['a light push on a land grid', { seat: 'light push' }, 'do not power', /light push/],
    ['a light push on a pin grid', { seat: 'light push', pinGrid: true }, 'limit the current', /light push/],
    ['something lodged', { lodged: ['C3'] }, 'do not power', /lodged at C3/],
    ['a look nobody judged', { notTold: ['outside: a spot'] }, 'do not power', /nobody has said/],
    ['rails owed again', { railsOwed: ['12v'] }, 'do not power', /12 V rail is owed again/],
    [
      'a rail of its own not measured',
      { ownRails: [chipset] },
      'do not power',
      /^chipset rail not measured$/,
    ],
    [
      'a rail of its own at ground',
      { ownRails: [chipset], rails: [...safe.rails, { rail: 'chipset', ohms: 8, cpu: 'out' }] },
      'do not power',
      /chipset rail is shorted to ground: 8 Ω/,
    ],
    [
      'a low rail of its own',
      { ownRails: [chipset], rails: [...safe.rails, { rail: 'chipset', ohms: 20, cpu: 'out' }] },
      'limit the current',
      /chipset rail reads low/,
    ],
    [
      'every rail measured, its own among them',
      { ownRails: [chipset], rails: [...safe.rails, { rail: 'chipset', ohms: 90, cpu: 'out' }] },
      'clear',
      /^/,
    ],
    [
      'a rail nobody knows at ground',
      { rails: [...safe.rails, { rail: 'vref', ohms: 0.8, cpu: 'out' }] },
      'do not power',
      /vref rail is shorted/,
    ],
    ['a clip', { clipOn: true }, 'do not power', /clip is on the firmware chip/],
    [
      'the wrong chip voltage',
      { clipOn: true, chipVolts: 1.8, programmerVolts: 3.3 },
      'do not power',
      /clip/,
    ],
    ['a burn', { hazards: ['outside: burn mark'] }, 'do not power', /burn mark/],
    ['a tripped supply', { tripped: true }, 'do not power', /tripped/],
    ['a first power', { provedUnderLimit: false }, 'limit the current', /limit 1 A, standby first/],
    [
      'a first power without a limit',
      { provedUnderLimit: false, supplyLimitA: null },
      'limit the current',
      /set a current limit/,
    ],
  ])('%s', (_, change, lamp, text) => {
    const gate = powerGate({ ...safe, ...change })
    expect(gate.lamp).toBe(lamp)
    expect(gate.reasons[0]?.text ?? '').toMatch(text)
  })
  it('never opens for one hazard more', () => {
    const evidence: fc.Arbitrary<PowerEvidence> = fc.record({
      ...Object.fromEntries(Object.entries(safe).map(([k, v]) => [k, fc.constant(v)])),
      cpuFitted: fc.boolean(),
      heatsink: fc.boolean(),
      notLooked: fc.constantFrom(0, 3, 60),
      provedUnderLimit: fc.boolean(),
      clipOn: fc.boolean(),
    }) as never
    const hazard = fc.constantFrom<Partial<PowerEvidence>>(
      { shorts: [short] },
      { unaccounted: ['x'] },
      { hazards: ['burn'] },
      { clipOn: true },
      { tripped: true },
      { heatsink: false },
      { rails: [] },
      { notLooked: 60 },
      { provedUnderLimit: false },
    )
    fc.assert(
      fc.property(evidence, hazard, (e, more) => {
        expect(rank[powerGate({ ...e, ...more }).lamp]).toBeGreaterThanOrEqual(rank[powerGate(e).lamp])
      }),
    )
  })
  it('says the gravest first and where each can be cleared', () => {
    const { reasons } = powerGate({
      ...safe,
      rails: [],
      shorts: [short],
      notLooked: 3,
      provedUnderLimit: false,
    })
    expect(reasons.map((r) => r.level)).toEqual(['closed', 'closed', 'limit', 'limit'])
    for (const r of reasons) {
      expect(stations).toContain(r.at.station)
      expect(r.at.say.length).toBeGreaterThan(5)
    }
  })
})

it('railState knows that a fitted CPU pulls the core rail down', () => {
  expect(railState({ rail: 'vcore', ohms: 1.1, cpu: 'in' }, [])).toBe('good')
  expect(railState({ rail: 'vcore', ohms: 1.1, cpu: 'out' }, [])).toBe('low')
  for (const rail of rails)
    expect(railState({ rail, ohms: railLimits[rail].shortOhm, cpu: 'out' }, [])).toBe('short')
})

it('the limits of a rail of its own follow from what a good board reads, CPU in or out', () => {
  const own = [{ ...chipset, ohmsIn: 20 }]
  expect(limitsOf('chipset', 'out', own)).toEqual({ short: 10, low: expect.closeTo(45.7, 6) as number })
  expect(limitsOf('chipset', 'in', own)).toEqual({
    short: expect.closeTo(2.4, 6) as number,
    low: expect.closeTo(9.7, 6) as number,
  })
  expect(limitsOf('chipset', 'in', [chipset])).toEqual(limitsOf('chipset', 'out', [chipset]))
  expect(limitsOf('vref', 'out', own)).toEqual({ short: 1, low: 5 })
  fc.assert(
    fc.property(fc.double({ min: 0, max: 1e6, noNaN: true }), (ohmsOut) => {
      const { short: s, low } = limitsOf('x', 'out', [{ rail: 'x', ohmsOut, ohmsIn: null, volts: null }])
      expect(s).toBeGreaterThan(0)
      expect(low).toBeGreaterThan(s)
    }),
  )
})

describe('powerEvidence', () => {
  const socket = smallField()
  const names = socket.contacts.map((c) => c.name)
  const of = (t: ReturnType<typeof tape>) => powerEvidence(jobState(t.entries, names), socket)
  it('comes from what the tape says', () => {
    const t = tape()
      .put('mark', { contacts: ['C4'], mark: { kind: 'touching', touches: 'C5' } })
      .put('look', { what: 'outside', seen: 'by the rail', clear: false, hazard: 'burnt' })
      .put('fitted', { cpu: 'x', heatsink: false })
      .put('firmware', { chipVolts: 1.8, clipOn: true })
    expect(of(t)).toMatchObject({
      notLooked: 59,
      contacts: 60,
      cpuFitted: true,
      heatsink: false,
      chipVolts: 1.8,
      clipOn: true,
      hazards: ['outside: by the rail (burnt or scorched)'],
    })
    expect(of(t).shorts[0]).toMatchObject({ a: 'C4', b: 'C5', nets: 'ground to core rail' })
  })
  it('forgets a hazard when the place was looked at again and is clear', () => {
    const t = tape()
      .put('look', { what: 'outside', seen: 'wet', clear: false, hazard: 'liquid' })
      .put('look', { what: 'outside', seen: 'nothing seen', clear: true })
      .put('look', { what: 'socket', seen: 'no burn, no liquid', clear: true })
    expect(of(t).hazards).toEqual([])
  })
  it('a trip counts until every rail is measured again', () => {
    const t = tape()
    for (const rail of rails) t.put('rail', { rail, ohms: 900, cpu: 'out' })
    t.put('baseline', {
      fans: 'off',
      current: 'trips',
      amps: null,
      lamp: 'none',
      beeps: '',
      cpuHeat: 'cold',
      codes: [],
      picture: 'none',
    })
    expect(of(t).tripped).toBe(true)
    expect(of(t.put('rail', { rail: '12v', ohms: 400, cpu: 'out' })).tripped).toBe(true)
    for (const rail of rails) t.put('rail', { rail, ohms: 900, cpu: 'out' })
    expect(of(t).tripped).toBe(false)
  })
})

import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { completions, readLine, words } from './quick-entry'
import type { Bench } from '../tape/command'
import { readNumber } from '../tables/read-number'

const body = (line: string) => {
  const read = readLine(line)
  if (!read.ok) throw new Error(`${line}: ${read.say}`)
  return read.entry
}
const fault = (line: string, bench?: Bench) => {
  const read = readLine(line, bench)
  return read.ok ? `understood as ${read.entry.kind}` : `${read.say} | ${read.example}`
}

describe('readNumber', () => {
  it.each([
    ['1.8', 1.8],
    ['1,8', 1.8],
    ['-0.5', -0.5],
    ['1.8ohm', 1.8],
    ['4.7k', 4700],
    ['4.7kΩ', 4700],
    ['1M', 1e6],
    ['250mV', 0.25],
    ['0.19mm', 0.19],
    [' 3 V ', 3],
    ['.5', 0.5],
    [',5', 0.5],
    ['4k7', 4700],
    ['2R2', 2.2],
    ['1M5', 1.5e6],
    ['1.8 Ω', 1.8],
    ['1.8 \u2126', 1.8],
    ['0,125', 0.125],
    ['1.250', 1.25],
  ])('%s is %d', (text, value) => expect(readNumber(text)).toBeCloseTo(value, 9))
  it('refuses another unit', () => {
    expect(readNumber('5V', 'Ω')).toBeNull()
    expect(readNumber('4k7', 'V')).toBeNull()
    expect(readNumber('0.2mm', 'mm')).toBe(0.2)
  })
  it.each(['', 'x', 'OL', '10,000', '1.2.3', '1e5', 'NaN', '--1', '5 apples'])('“%s” is none', (text) =>
    expect(readNumber(text)).toBeNull(),
  )
})

describe('readLine', () => {
  it('understands the example of every word', () => {
    for (const word of words) expect(readLine(word.example), word.example).toMatchObject({ ok: true })
  })
  it.each([
    ['ohm vcore 1.8 cpu out', { kind: 'rail', body: { rail: 'vcore', ohms: 1.8, cpu: 'out' } }],
    ['OHM core 0,4 in', { kind: 'rail', body: { rail: 'vcore', ohms: 0.4, cpu: 'in' } }],
    ['vbat 2.9', { kind: 'cell', body: { volts: 2.9 } }],
    ['vbat 1.9 at board', { kind: 'cell', body: { volts: 1.9, where: 'at the board' } }],
    ['vbat 3.1 at board new', { kind: 'cell', body: { volts: 3.1, where: 'at the board', isNew: true } }],
    ['code 10 4C for 240', { kind: 'codes', body: { codes: ['10', '4C'], watchedS: 240 } }],
    ['code 4c 4C 31', { kind: 'codes', body: { codes: ['4C', '4C', '31'] } }],
    ['limit off', { kind: 'supply', body: { limitA: null } }],
    [
      'mark M31 low 0.19',
      { kind: 'mark', body: { contacts: ['M31'], mark: { kind: 'low', heightMm: -0.19 } } },
    ],
    ['mark m31 tip gone', { kind: 'mark', body: { contacts: ['M31'], mark: { kind: 'tip gone' } } }],
    [
      'mark P13 touching on P14',
      { kind: 'mark', body: { contacts: ['P13'], mark: { kind: 'touching', touches: 'P14' } } },
    ],
    [
      'mark P13 lean 0.2 north',
      { kind: 'mark', body: { contacts: ['P13'], mark: { kind: 'lean', leanMm: [0, 0.2] } } },
    ],
    ['heatsink on', { kind: 'fitted', body: { heatsink: true } }],
    ['cpu out', { kind: 'fitted', body: { cpu: null } }],
    ['chip lsn-16v 1.8', { kind: 'firmware', body: { chip: 'LSN-16V', chipVolts: 1.8 } }],
    ['strike 6 probe had slipped', { kind: 'strike', body: { why: 'probe had slipped' }, strikes: 6 }],
  ])('%s', (line, wanted) => expect(body(line)).toMatchObject(wanted))
  it.each([
    ['', /type a word and a reading/],
    ['ohn vcore 1.8', /did you mean ohm\?/],
    ['ohm', /“” is no rail; rails are 12v, 5v/],
    ['ohm vcore', /how many ohms\?/],
    ['ohm vcore -3', /“-3” is not a resistance/],
    ['ohm vcore 1.8 cpu maybe', /end with cpu in or cpu out/],
    ['volt 12v 230', /not a reading up to 60 V/],
    ['vbat 12', /a coin cell reads 0 to 5 V; “12” does not/],
    ['code 4X', /“4X” is no code: two hex figures each/],
    ['mark 31 low', /“31” is no contact; say it like M31/],
    ['mark M31 sad', /what is wrong with M31\? one of intact, lean/],
    ['mark M31 lean', /how far does it lean/],
    ['mark M31 lean 9', /“9” is no distance in mm/],
    ['mark M31 touching on M31', /M31 cannot touch itself/],
    ['strike six', /“six” is no line number/],
    ['strike 6', /why is it struck/],
    ['chip LSN 230', /“230” is no chip voltage/],
  ])('teaches at “%s”', (line, say) => expect(fault(line)).toMatch(say))
  it.each<[string, Bench['cpu'], RegExp]>([
    ['ohm vcore 0.5', null, /is the CPU in or out\?/],
    ['ohm vcore 0.5 cpu in', 'out', /the CPU is noted as out/],
    ['ohm vcore 0.5 cpu out', 'in', /say first what is fitted \(cpu out\)/],
    ['ohm vcore OL', 'out', /beyond the meter’s range/],
    ['ohm vcore 10,000', 'out', /may be 10.000 or 10000/],
    ['ohm vcore 5V', 'out', /not a resistance/],
    ['ohm vcore 1.8 garbage', 'out', /not a resistance/],
    ['volt 12v 11.9 x', 'out', /not a reading/],
    ['limit 0.5 x', 'out', /not a limit/],
    ['limit off now', 'out', /“now” is not understood/],
    ['heatsink on off', 'out', /heatsink on, or heatsink off/],
    ['cpu in', 'out', /which CPU\?/],
    ['chip LSN 1.8 x', 'out', /no chip voltage/],
    ['strike 1e1 x', 'out', /is no line number/],
  ])('asks at “%s” while the CPU is %s', (line, cpu, say) => expect(fault(line, { cpu })).toMatch(say))
  it('takes CPU in or out from what is fitted, and says so', () => {
    expect(readLine('ohm chipset 90', { cpu: 'in', rails: ['chipset'] })).toMatchObject({
      entry: { kind: 'rail', body: { rail: 'chipset', ohms: 90, cpu: 'in' } },
    })
    expect(readLine('volt chipset 1.05', { cpu: 'in', rails: ['chipset'] })).toMatchObject({
      entry: { kind: 'volts', body: { rail: 'chipset', volts: 1.05 } },
    })
    expect(readLine('ohm chipset 90', { cpu: 'in' }).say).toMatch(/“chipset” is no rail; rails are 12v/)
    expect(readLine('ohm vcore 0.5', { cpu: 'in' })).toMatchObject({
      ok: true,
      entry: { body: { cpu: 'in' } },
      say: 'core rail to ground 0.5 Ω, CPU in',
    })
    expect(readLine('ohm vcore 4k7 cpu out', { cpu: 'out' })).toMatchObject({
      entry: { body: { ohms: 4700 } },
    })
  })
  it('fits no CPU called none', () => {
    for (const word of ['none', 'out', 'NO'])
      expect(body(`cpu ${word}`)).toMatchObject({ body: { cpu: null } })
  })
  it('offers a strange line as a note rather than guess', () => {
    expect(fault('zzzzzz something odd')).toMatch(/\| note zzzzzz something odd$/)
  })
  it('never throws, and says something for whatever is typed', () => {
    const typed = fc.oneof(
      fc.string(),
      fc.tuple(fc.constantFrom(...words.map((w) => w.word)), fc.string()).map(([w, s]) => `${w} ${s}`),
    )
    fc.assert(
      fc.property(typed, (line) => {
        const read = readLine(line)
        expect(read.say.length).toBeGreaterThan(0)
        for (const offer of completions(line)) expect(offer.say.length).toBeGreaterThan(0)
      }),
      { numRuns: 500 },
    )
  })
})

describe('completions', () => {
  it('offer words, then rails and kinds', () => {
    expect(completions('o').map((c) => c.text)).toEqual(['ohm '])
    expect(completions('ohm v').map((c) => c.text)).toEqual(['ohm vcore ', 'ohm vmem ', 'ohm vsys '])
    expect(completions('mark M31 t').map((c) => c.text)).toEqual([
      'mark M31 twisted ',
      'mark M31 touching ',
      'mark M31 tip gone ',
    ])
    expect(completions('cabbage x')).toEqual([])
  })
})

describe('a line that begins with a rail', () => {
  it.each([
    ['3v3 265', 'rail', { rail: '3v3', ohms: 265 }],
    ['vdimm 1.2 Ω', 'rail', { rail: 'vmem', ohms: 1.2 }],
    ['5v 5ohm', 'rail', { rail: '5v', ohms: 5 }],
    ['vdimm 221 Ω', 'rail', { rail: 'vmem', ohms: 221 }],
    ['VSA 38', 'rail', { rail: 'vsys', ohms: 38 }],
    ['vdimm 1.2 V', 'volts', { rail: 'vmem', volts: 1.2 }],
    ['12v 11.9V', 'volts', { rail: '12v', volts: 11.9 }],
    ['12v 480', 'rail', { rail: '12v', ohms: 480 }],
    ['core 0.4 ohm', 'rail', { rail: 'vcore', ohms: 0.4 }],
  ])('%s is read by its unit', (line, kind, wanted) => {
    const read = readLine(line, { cpu: 'out' })
    expect(read).toMatchObject({ ok: true, entry: { kind, body: wanted } })
  })
  it.each(['12v 11.9', '5v 5', '3.3 3.2', 'vdimm 1.2', 'core 0.9', 'core 0.4'])(
    '%s may be ohms or volts, and is asked about',
    (line) => expect(fault(line, { cpu: 'out' })).toContain('of what? end with Ω or V'),
  )
  it('asks whether the CPU is in, as the whole word would', () => {
    expect(fault('3v3 265')).toContain('is the CPU in or out?')
  })
  it('is no reading without a figure', () => {
    expect(fault('12v')).toContain('not a word of the tape')
    expect(fault('core note')).toContain('not a word of the tape')
  })
})

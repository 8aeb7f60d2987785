import { expect, it } from 'vitest'
import { rails } from '../board/rail'
import { FIRST_POWER_MOST_A } from '../board/power-history'
import { OPEN_OHM } from '../board/rail-limits'
import { smallField } from '../socket/model/field.testing'
import { gateOf } from './gate'
import { nothingSeen } from './gate-evidence'
import type { PowerEvidence } from './gate-evidence'
import { jobState } from './job-state'
import { powerGate } from './power-gate'
import { tape } from './tape.testing'

const ohms = (rail: (typeof rails)[number], read: number, cpu: 'in' | 'out' = 'out') => ({
  rails: [
    ...rails.filter((r) => r !== rail).map((r) => ({ rail: r, ohms: 900, cpu: 'out' as const })),
    { rail, ohms: read, cpu },
  ],
})
const safe: PowerEvidence = {
  ...nothingSeen,
  ...ohms('12v', 900),
  lookedOutside: true,
  contacts: 60,
  cpuFitted: true,
  heatsink: true,
  supplyLimitA: 1,
  provedUnderLimit: true,
}
const pair = (a: string, b: string, odds: number, grade: 'gravest' | 'signal' | 'harmless' = 'gravest') => ({
  a,
  b,
  odds,
  grade,
  nets: `${a}’s net to ${b}’s`,
})
const clip = { clipOn: true, chipVolts: 1.8 }
const volts = { rail: '12v', volts: 14.1, cpu: null, is: 'too high', workedOn: false } as const
const unproved = { provedUnderLimit: false }

/** Each thing that can stand against power, by itself beside what is safe: all that is said of it, to the letter. */
const cases: Readonly<Record<string, Partial<PowerEvidence>>> = {
  'a touch': { shorts: [pair('P1', 'P2', 0.999)] },
  'a touch that is hardly less than sure': { shorts: [pair('P1', 'P2', 0.998)] },
  'signals that may touch, just said': { shorts: [pair('S1', 'S2', 0.15, 'signal')] },
  'signals that hardly touch': { shorts: [pair('S1', 'S2', 0.14, 'signal')] },
  'many signals that hardly touch': {
    shorts: [
      pair('S1', 'S2', 0.1, 'signal'),
      pair('S3', 'S4', 0.14, 'signal'),
      pair('S5', 'S6', 0.12, 'signal'),
    ],
  },
  'many signals that may touch': {
    shorts: ['1', '2', '3', '4', '5'].map((n) => pair(`S${n}`, `T${n}`, 0.3, 'signal')),
  },
  'signals of which one is said, and more': {
    shorts: [pair('S1', 'S2', 0.1, 'signal'), pair('S3', 'S4', 0.2, 'signal')],
  },
  'power that hardly touches, twice': { shorts: [pair('P1', 'P2', 0.01), pair('P3', 'P4', 0.02)] },
  'power that hardly touches': { shorts: [pair('P1', 'P2', 0.02)] },
  'a harmless touch': { shorts: [pair('G1', 'G2', 1, 'harmless')] },
  'a neighbour not named': { touchesUnnamed: [{ contact: 'A1', nets: 'at worst P1, core rail to ground' }] },
  lodged: { lodged: ['A1', 'B2'] },
  'not accounted for': { unaccounted: ['tip of A1'] },
  'a question': { questions: [{ say: '12 V rail reads open', mend: 'Measure it again' }] },
  'at ground': ohms('vcore', 0.1, 'in'),
  low: ohms('12v', 30),
  'open, just': ohms('12v', OPEN_OHM),
  'not quite open': ohms('12v', OPEN_OHM - 1),
  'none measured': { rails: [] },
  'two not measured': { rails: safe.rails.slice(2) },
  'two not measured of what runs': { rails: safe.rails.slice(2), runs: true },
  'one said to be good': { rails: safe.rails.slice(1), railsToldGood: ['5v'] },
  'two said to be good': { rails: safe.rails.slice(2), railsToldGood: ['5v', '3v3'] },
  'one owed': { railsOwed: ['12v'], railsOwedWhy: 'heat' },
  'two owed of what runs': { railsOwed: ['12v', '5v'], runs: true },
  'all owed': { railsOwed: rails },
  'owed and not measured': { rails: safe.rails.slice(1), railsOwed: ['5v', '12v'] },
  'too high': { volts: [volts, { ...volts, cpu: 'out' }] },
  'too high, worked on': { volts: [{ ...volts, workedOn: true }] },
  'volts low': {
    volts: [
      { ...volts, volts: 9, is: 'low', cpu: 'in', workedOn: true },
      { ...volts, volts: 8, is: 'low' },
    ],
  },
  'seated proud': { seat: 'proud' },
  'seated with force': { seat: 'needed force' },
  turned: { seat: 'turned' },
  'a light push on a pin grid': { seat: 'light push', pinGrid: true },
  'a light push on lands': { seat: 'light push' },
  'proud on a pin grid': { seat: 'proud', pinGrid: true },
  'the socket': { socketFound: 'power contacts touch' },
  'sense lost': { lostSense: ['F1', 'F2'] },
  'sense lost, no CPU': { lostSense: ['F1'], cpuFitted: false },
  'unknown lost': { lostUnknown: ['U1'] },
  'two unknown lost': { lostUnknown: ['U1', 'U2'] },
  'unknown lost, no CPU': { lostUnknown: ['U1'], cpuFitted: false },
  'no socket': { contacts: 0 },
  'nobody looked': { notLooked: 60 },
  'nobody looked at what runs': { notLooked: 60, runs: true },
  'one in twenty not looked at': { notLooked: 3 },
  'more than one in twenty not looked at': { notLooked: 4 },
  'more than one in twenty of what runs': { notLooked: 4, runs: true },
  'not looked at near damage': { notLooked: 2, notLookedNear: ['N1', 'N2'] },
  'a hazard': { hazards: ['liquid at the slots (liquid)'] },
  'not told': { notTold: ['a mark at the slots'] },
  'outside not looked at': { lookedOutside: false },
  'outside not looked at, ran here': { lookedOutside: false, ranHere: true },
  'a damaged part': { damagedParts: ['C12'] },
  paste: { paste: ['A1', 'A2'] },
  'no heatsink': { heatsink: false },
  'no heatsink, no CPU': { heatsink: false, cpuFitted: false },
  'clip on': { clipOn: true },
  'clip on at its own volts': { ...clip, programmerVolts: 1.98 },
  'clip on, too many volts': { ...clip, programmerVolts: 1.99 },
  'clip on, chip not known': { clipOn: true, programmerVolts: 3.3 },
  'volts without a clip': { chipVolts: 1.8, programmerVolts: 3.3 },
  'chip off': { chipFault: 'The firmware chip is off the board' },
  'hot on standby': { standbyHot: true },
  tripped: { tripped: true },
  'first power, no limit': { ...unproved, supplyLimitA: null },
  'first power, limit too high': {
    ...unproved,
    supplyLimitA: FIRST_POWER_MOST_A + 0.1,
    changedWhat: 'R214 fitted',
  },
  'first power under a limit': { ...unproved, supplyLimitA: FIRST_POWER_MOST_A, changedWhat: 'R214 fitted' },
  'first power, proved nothing': { ...unproved, provedNothing: 'no CPU was in' },
  'a limit and what closes': { paste: ['A1'], standbyHot: true, lodged: ['B2'], tripped: true },
}

it('every reason is said whole: how grave, what, where it is cleared, and how', () => {
  const said = Object.entries(cases).flatMap(([name, of]) => {
    const { lamp, reasons } = powerGate({ ...safe, ...of })
    return [
      `${name}: ${lamp}`,
      ...reasons.map(
        (r) => `  ${r.level} | ${r.code} | ${r.text} | ${r.at.station} ${r.at.part} | ${r.at.say}`,
      ),
    ]
  })
  expect(said.join('\n')).toMatchInlineSnapshot(`
    "a touch: do not power
      closed | short | P1 touches P2: P1’s net to P2’s | socket P1 | Separate P1 from P2
    a touch that is hardly less than sure: do not power
      closed | short | P1 may touch P2: P1’s net to P2’s | socket P1 | Separate P1 from P2
    signals that may touch, just said: limit the current
      limit | short | S1 may touch S2: S1’s net to S2’s | socket S1 | Separate S1 from S2
    signals that hardly touch: limit the current
      limit | any short | S1 may touch S2 (14 %): S1’s net to S2’s | socket S1 | Look closer, S1 first, and part what is close
    many signals that hardly touch: limit the current
      limit | any short | 32 % that any of 3 close pairs touches; closest S3 to S4: S3’s net to S4’s | socket S3 | Look closer, S3 first, and part what is close
    many signals that may touch: do not power
      closed | any short | 83 % that any of 5 close pairs touches; closest S1 to T1: S1’s net to T1’s | socket S1 | Look closer, S1 first, and part what is close
      limit | short | S1 may touch T1: S1’s net to T1’s | socket S1 | Separate S1 from T1
      limit | short | S2 may touch T2: S2’s net to T2’s | socket S2 | Separate S2 from T2
      limit | short | S3 may touch T3: S3’s net to T3’s | socket S3 | Separate S3 from T3
      limit | short | S4 may touch T4: S4’s net to T4’s | socket S4 | Separate S4 from T4
      limit | short | S5 may touch T5: S5’s net to T5’s | socket S5 | Separate S5 from T5
    signals of which one is said, and more: limit the current
      limit | short | S3 may touch S4: S3’s net to S4’s | socket S3 | Separate S3 from S4
    power that hardly touches, twice: limit the current
      limit | any short | 3 % that any of 2 close pairs touches; closest P3 to P4: P3’s net to P4’s | socket P3 | Look closer, P3 first, and part what is close
    power that hardly touches: limit the current
      limit | any short | P1 may touch P2 (2 %): P1’s net to P2’s | socket P1 | Look closer, P1 first, and part what is close
    a harmless touch: clear
    a neighbour not named: do not power
      closed | short | A1 touches a neighbour that is not named: at worst P1, core rail to ground | socket A1 | Say which neighbour A1 touches, and separate them
    lodged: do not power
      closed | lodged | Something is lodged at A1 | socket A1 | Take it out, then look again
      closed | lodged | Something is lodged at B2 | socket B2 | Take it out, then look again
    not accounted for: do not power
      closed | unaccounted | tip of A1 is not accounted for | socket ledger | Find it, or say where it went
    a question: do not power
      closed | question | 12 V rail reads open | triage rails | Measure it again
    at ground: do not power
      closed | rail short | core rail is shorted to ground: 0.1 Ω, CPU in | triage rails | Find the short, then measure it again with the CPU in
    low: limit the current
      limit | rail low | 12 V rail reads low: 30 Ω, CPU out | triage rails | Measure again, compare with a good board
    open, just: limit the current
      limit | rail open | 12 V rail read open twice | triage rails | Find where the rail is broken off
    not quite open: clear
    none measured: do not power
      closed | rail unmeasured | No rail is measured yet | triage rails | Measure ohms to ground, unplugged
    two not measured: do not power
      closed | rail unmeasured | 5 V rail, 3.3 V rail not measured | triage rails | Measure ohms to ground, unplugged
    two not measured of what runs: limit the current
      limit | rail unmeasured | 5 V rail, 3.3 V rail not measured; it came up at its last start | triage rails | Measure ohms to ground, unplugged
    one said to be good: limit the current
      limit | rail told | 5 V rail is said to be good, without a figure | triage rails | Note the ohms that were read
    two said to be good: limit the current
      limit | rail told | 5 V rail, 3.3 V rail are said to be good, without a figure | triage rails | Note the ohms that were read
    one owed: do not power
      closed | rail owed | 12 V rail is owed again: heat | triage rails | Measure ohms to ground again, unplugged
    two owed of what runs: limit the current
      limit | rail owed | 12 V rail, 5 V rail are owed again: the board was changed; it came up at its last start | triage rails | Measure ohms to ground again, unplugged
    all owed: do not power
      closed | rail owed | Every rail is owed again: the board was changed | triage rails | Measure ohms to ground again, unplugged
    owed and not measured: do not power
      closed | rail unmeasured | 5 V rail not measured | triage rails | Measure ohms to ground, unplugged
      closed | rail owed | 12 V rail is owed again: the board was changed | triage rails | Measure ohms to ground again, unplugged
    too high: do not power
      closed | volts high | 12 V rail was at 14.1 V: too high | triage rails | Take the CPU out, put right what feeds the rail, measure every rail to ground
      closed | volts high | 12 V rail was at 14.1 V, CPU out: too high | triage rails | Take the CPU out, put right what feeds the rail, measure every rail to ground
    too high, worked on: limit the current
      limit | volts high | 12 V rail was at 14.1 V: too high | triage rails | Read its volts again under a limit, with the same fitted
    volts low: limit the current
      limit | volts low | 12 V rail was at 9 V, CPU in: low | triage rails | Read its volts again under a limit, with the same fitted
      limit | volts low | 12 V rail was at 8 V: low | triage rails | Read its volts again under a limit, with the same fitted
    seated proud: do not power
      closed | seat | The CPU stayed proud when it was last seated | socket seat | Take it out, find what holds it up, seat it again: it must fall flat by itself
    seated with force: do not power
      closed | seat | The CPU needed force when it was last seated | socket seat | Take it out, find what holds it up, seat it again: it must fall flat by itself
    turned: do not power
      closed | seat | The CPU’s mark and the socket’s did not meet | socket seat | Take it out, find what holds it up, seat it again: it must fall flat by itself
    a light push on a pin grid: limit the current
      limit | seat | The CPU wanted a light push | socket seat | Take it out, find what holds it up, seat it again: it must fall flat by itself
    a light push on lands: do not power
      closed | seat | The CPU wanted a light push | socket seat | Take it out, find what holds it up, seat it again: it must fall flat by itself
    proud on a pin grid: do not power
      closed | seat | The CPU stayed proud when it was last seated | socket seat | Take it out, find what holds it up, seat it again: it must fall flat by itself
    the socket: do not power
      closed | socket | The socket: power contacts touch | socket map | Part them, then look again
    sense lost: do not power
      closed | sense lost | F1 carries voltage sense and makes no contact | socket F1 | Repair it or take the CPU out
      closed | sense lost | F2 carries voltage sense and makes no contact | socket F2 | Repair it or take the CPU out
    sense lost, no CPU: clear
    unknown lost: limit the current
      limit | unknown lost | U1 makes no contact, and nobody knows what it carries | socket U1 | Find its function, repair it or take the CPU out
    two unknown lost: limit the current
      limit | unknown lost | U1, U2 make no contact, and nobody knows what they carry | socket U1 | Find its function, repair it or take the CPU out
    unknown lost, no CPU: clear
    no socket: limit the current
      limit | no socket | No socket is chosen, so its contacts are not judged | intake board | Choose the socket in the ticket
    nobody looked: do not power
      closed | not looked | Nobody has looked at the socket yet | socket map | Look at the whole field
    nobody looked at what runs: limit the current
      limit | not looked | Nobody has looked at the socket yet; it came up at its last start | socket map | Look at the whole field
    one in twenty not looked at: limit the current
      limit | not looked | 3 of 60 contacts not inspected | socket map | Look at the rest
    more than one in twenty not looked at: do not power
      closed | not looked | 4 of 60 contacts not inspected | socket map | Look at the rest
    more than one in twenty of what runs: limit the current
      limit | not looked | 4 of 60 contacts not inspected | socket map | Look at the rest
    not looked at near damage: do not power
      closed | not looked near | N1, N2 close to damage and not inspected | socket N1 | Look all round what is damaged
      limit | not looked | 2 of 60 contacts not inspected | socket map | Look at the rest
    a hazard: do not power
      closed | hazard | liquid at the slots (liquid) | triage look | Clean or clear it, then look again
    not told: do not power
      closed | not told | a mark at the slots: nobody has said whether it speaks against power | triage look | Look again and say what it is
    outside not looked at: do not power
      closed | outside | Nobody has looked over the outside of the board | triage look | Look over both sides before the first power
    outside not looked at, ran here: limit the current
      limit | outside | Nobody has looked over the outside of the board | triage look | Look over both sides before the first power
    a damaged part: limit the current
      limit | part damaged | C12 is damaged | parts C12 | Take it off or replace it
    paste: limit the current
      limit | paste | Heat paste on A1, A2 | socket A1 | Clean it: some pastes conduct
    no heatsink: do not power
      closed | no heatsink | CPU fitted, no heatsink noted | triage fitted | Fit the heatsink or take the CPU out
    no heatsink, no CPU: clear
    clip on: do not power
      closed | clip on | The programmer’s clip is on the firmware chip | firmware clip | Take the clip off before any power
    clip on at its own volts: do not power
      closed | clip on | The programmer’s clip is on the firmware chip | firmware clip | Take the clip off before any power
    clip on, too many volts: do not power
      closed | clip on | The programmer’s clip is on the firmware chip | firmware clip | Take the clip off before any power
      closed | chip volts | Programmer at 1.99 V on a 1.8 V chip | firmware chip | Use the right adapter
    clip on, chip not known: do not power
      closed | clip on | The programmer’s clip is on the firmware chip | firmware clip | Take the clip off before any power
    volts without a clip: clear
    chip off: do not power
      closed | chip fitted | The firmware chip is off the board | firmware refit | Fit it, and look at it point by point
    hot on standby: limit the current
      limit | standby | Standby draws too much | triage baseline | Find what gets warm on standby
    tripped: do not power
      closed | supply trips | The supply tripped | triage rails | Measure every rail again
    first power, no limit: limit the current
      limit | first power | First power after a change: set a current limit | triage baseline | Set a limit of up to 5 A, power up and note what it does
    first power, limit too high: limit the current
      limit | first power | First power after a change (R214 fitted): set a current limit | triage baseline | Set a limit of up to 5 A, power up and note what it does
    first power under a limit: limit the current
      limit | first power | First power after a change (R214 fitted): limit 5 A, standby first | triage baseline | Power up with the limit set and note what it does
    first power, proved nothing: limit the current
      limit | first power | First power after a change: limit 1 A, standby first; the last start proved nothing: no CPU was in | triage baseline | Power up with the limit set and note what it does
    a limit and what closes: do not power
      closed | lodged | Something is lodged at B2 | socket B2 | Take it out, then look again
      closed | supply trips | The supply tripped | triage rails | Measure every rail again
      limit | paste | Heat paste on A1 | socket A1 | Clean it: some pastes conduct
      limit | standby | Standby draws too much | triage baseline | Find what gets warm on standby"
  `)
})

it('is judged again by whatever bears on it, and by nothing else', () => {
  const field = smallField()
  const t = tape()
    .put('ticket', { set: { board: 'x' } })
    .put('rail', { rail: '12v', ohms: 900, cpu: 'out' })
  const state = jobState(t.entries)
  const gate = gateOf(state, field)
  expect(gateOf(state, field)).toBe(gate)
  expect(gateOf({ ...state, work: { ...state.work } }, field)).toBe(gate)
  for (const slice of ['socket', 'firmware', 'triage'] as const) {
    const before = gateOf(state, field)
    const other = gateOf({ ...state, [slice]: { ...state[slice] } }, field)
    expect(other).not.toBe(before)
    expect(other).toEqual(before)
  }
  gateOf(state, field)
  expect(gateOf(state, null).reasons.map((r) => r.code)).toContain('no socket')
})

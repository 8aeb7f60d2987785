import { nothingRound } from './advice-setting'
import { jobState } from './job-state'
import type { Bodies } from '../slices'
import { rails } from '../board/rail'
import { nothingNoted } from '../board/baseline'
import { temperatureKept } from '../proof/bodies.testing'
import { expect, it } from 'vitest'
import { smallField } from '../socket/model/field.testing'
import { speaksAgainst } from './asks-first'
import { proofStanding } from './stations-say'
import { tape } from './tape.testing'
import type { TestTape } from './tape.testing'

const socket = smallField()
const names = socket.contacts.map((c) => c.name)
const ohms = { '12v': 480, '5v': 310, '3v3': 265, standby: 720, vcore: 6.4, vmem: 221, vsys: 38 } as const
function powered(): TestTape {
  const t = tape()
    .put('look', { what: 'outside of the board', seen: 'nothing seen', clear: true })
    .put('looked', { contacts: 'all' })
  for (const rail of rails) t.put('rail', { rail, ohms: ohms[rail], cpu: 'out' })
  return t
    .put('seat', { cpu: 'Orrin 41', drop: 'flat', heatsink: true })
    .put('supply', { limitA: 2 })
    .put('baseline', { ...nothingNoted, fans: 'on', current: 'steady', amps: 0.8, cpuHeat: 'warm' })
}
const pass = (t: TestTape, test = 'system', result: Bodies['proof']['result'] = 'pass') =>
  speaksAgainst('proof', { test, result, reading: '' }, jobState(t.entries, names), socket, nothingRound)
const back = (t: TestTape, change: Partial<Bodies['hand-back']> = {}) =>
  speaksAgainst(
    'hand-back',
    { outcome: 'fixed', priceMinor: null, text: '', ...change },
    jobState(t.entries, names),
    socket,
    nothingRound,
  )

it('a test that takes power passes only where the board may be powered', () => {
  expect(pass(powered())).toEqual([])
  expect(pass(tape())[0]).toBe('it may not be powered as it stands')
  const shorted = powered().put('mark', { contacts: ['D4'], mark: { kind: 'lodged' } })
  expect(pass(shorted)).toEqual(['it may not be powered as it stands', 'Something is lodged at D4'])
})
it('so does a start that came up, and a temperature that levels off', () => {
  const says = (t: TestTape, came: boolean, mostC: number | null) => {
    const state = jobState(t.entries, names)
    return [
      speaksAgainst('cold start', { came }, state, socket, nothingRound)[0],
      speaksAgainst('temperature', { ...temperatureKept, mostC }, state, socket, nothingRound)[0],
    ]
  }
  const closed = 'it may not be powered as it stands'
  expect(says(tape(), true, 63)).toEqual([closed, closed])
  expect(says(tape(), false, null)).toEqual([undefined, undefined])
  expect(says(powered(), true, 63)).toEqual([undefined, undefined])
})
it('what takes no power, and what did not pass, is not asked about', () => {
  expect(pass(tape(), 'continuity')).toEqual([])
  expect(pass(tape(), 'system', 'fail')).toEqual([])
  expect(pass(tape(), 'system', 'cannot run here')).toEqual([])
})
it('a hand-back as fixed asks about a closed gate, a failed test and a bill over what was agreed', () => {
  expect(back(powered())).toEqual([])
  expect(back(tape())).toContain('do not power: No rail is measured yet')
  expect(back(tape(), { outcome: 'returned unrepaired' })).toEqual([])
  const failed = powered().put('proof', { test: 'system', result: 'fail', reading: 'stops' })
  expect(back(failed)).toEqual([expect.stringMatching(/^failed: /)])
  const dear = powered().put('ticket', { set: { limitMinor: 60_000 } })
  expect(back(dear, { priceMinor: 60_000 })).toEqual([])
  expect(back(dear, { priceMinor: 72_500 })).toEqual(['the bill is 125 over what was agreed'])
})
it('a board is kept as verified stock once everything owed has passed, and no more once it went dark again', () => {
  const kept = (t: TestTape) => back(t, { fate: 'verified stock' })
  const up = powered().put('baseline', {
    ...nothingNoted,
    fans: 'on',
    current: 'steady',
    amps: 1.1,
    picture: 'system loads',
  })
  const owed = () =>
    proofStanding(jobState(up.entries, names), socket, nothingRound).tests.filter((t) => t.result === null)
  expect(owed().length).toBeGreaterThan(2)
  expect(kept(up).filter((text) => text.startsWith('not proved'))).toHaveLength(owed().length)
  for (const { id } of owed()) up.put('proof', { test: id, result: 'pass', reading: 'good' })
  expect(kept(up)).toEqual([])
  up.put('baseline', { ...nothingNoted, fans: 'on', current: 'steady', amps: 0.4, picture: 'none' })
  expect(kept(up)).toEqual(['not proved: it stayed dark when it was last started'])
})

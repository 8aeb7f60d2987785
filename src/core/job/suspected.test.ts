import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { nothingNoted } from '../board/baseline'
import { faultIds } from '../triage/model/faults'
import { repairOf } from '../triage/model/repair'
import { believe } from '../triage/reason/belief'
import { nothingRound } from './advice-setting'
import type { AdviceSetting } from './advice-setting'
import { toBelieve } from './advise'
import { gateOf } from './gate'
import { jobState } from './job-state'
import type { JobState } from './job-state'
import { proofStanding, touchedBy } from './stations-say'
import { measured } from './tape.testing'

/** It came up, with a repair of what a chip was written for, and something that is still odd. */
const cameUp = () =>
  jobState(
    measured()
      .put('baseline', { ...nothingNoted, fans: 'on', picture: 'none' })
      .put('mended', { fault: 'slot A' })
      .put('cell', { volts: 2.4 })
      .put('baseline', { ...nothingNoted, fans: 'on', picture: 'maker screen' }).entries,
  )

const settings = fc.record({
  own: fc.dictionary(fc.constantFrom(...faultIds), fc.double({ min: 0.01, max: 0.5, noNaN: true })),
  earlier: fc.array(fc.record({ mended: fc.array(fc.constantFrom(...faultIds), { maxLength: 2 }) }), {
    maxLength: 2,
  }),
  repairs: fc.array(
    fc
      .tuple(fc.constantFrom(...faultIds), fc.nat(200), fc.double({ min: 0, max: 1, noNaN: true }))
      .map(([fault, tried, share]) => ({ fault, tried, took: Math.round(share * tried) })),
    { maxLength: 4 },
  ),
  references: fc.constantFrom({}, { shows: { name: '', shown: { beeper: true, lamps: false } } }),
})

/** What triage says of the same job. */
const triageSays = (state: JobState, setting: AdviceSetting) =>
  new Map(
    believe(toBelieve(state, null, gateOf(state, null), setting)).faults.map(({ say, odds }) => [say, odds]),
  )

describe('what is suspected', () => {
  it('has the odds that triage has, whatever the shop knows round the job', () => {
    const state = cameUp()
    fc.assert(
      fc.property(settings, (known) => {
        const setting = { ...nothingRound, ...known }
        const said = triageSays(state, setting)
        const { suspected } = touchedBy(state, null, setting)
        for (const { say, odds } of suspected) if (said.has(say)) expect(odds).toBeCloseTo(said.get(say)!, 12)
        // Triage says ten of them: whichever of those was never repaired and is likely enough is suspected.
        const names = new Set(suspected.map(({ say }) => say))
        for (const [say, odds] of said)
          if (odds >= 0.04 && !/slot A/.test(say)) expect(names, `${say} at ${odds}`).toContain(say)
      }),
      { numRuns: 20 },
    )
  })
  it('asks for a test of what the shop sees often, and not of what it never sees', () => {
    const state = cameUp()
    const suspects = (drive: number) =>
      touchedBy(state, null, { ...nothingRound, own: { drive } }).suspected.some(({ say }) =>
        /drive/.test(say),
      )
    expect([suspects(0.4), suspects(0.0001)]).toEqual([true, false])
  })
  it('leaves more in doubt of a repair that the record says seldom takes', () => {
    const state = cameUp()
    const left = (took: number) => {
      const repairs = [{ fault: 'slot A', tried: 200, took }]
      const { left } = proofStanding(state, null, { ...nothingRound, repairs })
      return 'odds' in left ? left.odds : null
    }
    expect(left(20)!).toBeGreaterThan(left(190)!)
    expect(repairOf('slot A').succeeds).toBeLessThan(0.95)
  })
})

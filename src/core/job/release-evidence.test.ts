import { nothingRound } from './advice-setting'
import { describe, expect, it } from 'vitest'
import { nothingNoted } from '../board/baseline'
import { believe } from '../triage/reason/belief'
import { release, starts } from '../firmware/route/support-table.testing'
import { toBelieve } from './advise'
import type { References } from './references'
import type { Shown } from '../triage/model/shows'
import { evidenceOf } from './evidence'
import { gateOf } from './gate'
import { jobState } from './job-state'
import { tape } from './tape.testing'

const references = {
  releases: { name: '', releases: [release('1.40'), release('2.04')] },
  cpus: {
    name: '',
    support: [
      starts('Orrin 44', '1.40', '1.40', { trust: 0.8 }),
      starts('Orrin 53', '2.04', null, { trust: 0.8 }),
    ],
  },
}
const version = (t: ReturnType<typeof tape>) =>
  evidenceOf(jobState(t.entries), null, references).evidence.filter((e) => e.test === 'version')
const dark = () =>
  tape()
    .put('fitted', { cpu: 'Orrin 53' })
    .put('baseline', { ...nothingNoted, fans: 'on', picture: 'none', lamp: 'cpu' })
    .put('fitted', { cpu: 'bench Orrin 44' })
    .put('firmware', { version: '1.40' })

describe('what the board’s model can show', () => {
  const shows = (shown: Shown) => ({ shows: { name: '', shown } })
  const silent = (without: readonly string[] | null, references: Partial<References>) =>
    evidenceOf(
      jobState(
        tape()
          .put('fitted', { modules: without ?? ['A1'] })
          .put('baseline', { ...nothingNoted, fans: 'on', beeps: 'none', picture: 'none' }).entries,
      ),
      null,
      references,
    ).evidence.filter((e) => e.test === 'beeps')
  it('makes silence without memory evidence where it has a beeper, and only there', () => {
    expect(silent([], shows({ beeper: true }))).toMatchObject([{ outcome: 'silent', of: 'no memory' }])
    expect(silent(['A1'], shows({ beeper: true }))).toEqual([])
    expect(silent([], shows({ beeper: false }))).toEqual([])
    expect(silent([], {})).toEqual([])
  })
  it('goes to the reasoner with the rest', () => {
    const state = jobState(tape().put('fitted', { cpu: null }).entries)
    const asked = (references: Partial<References>) =>
      toBelieve(state, null, gateOf(state, null), { ...nothingRound, references })
    expect(asked(shows({ beeper: true })).shown).toEqual({ beeper: true })
    expect(asked({})).not.toHaveProperty('shown')
  })
})

describe('what the board’s table says of the release in the chip', () => {
  it('is evidence on the CPU that stayed dark, as far as the table is believed', () => {
    expect(version(dark())).toMatchObject([{ outcome: 'does not run it', reliability: 0.9 }])
    const runs = tape().put('fitted', { cpu: 'Orrin 44' }).put('firmware', { version: '1.40' })
    expect(version(runs)).toMatchObject([{ outcome: 'runs it', reliability: 0.8 }])
  })
  it('makes a CPU that it does not run no known-good one, unless it starts', () => {
    const tried = (part: string, outcome: string, listed?: 'yes' | 'no') =>
      evidenceOf(
        jobState(
          tape()
            .put('firmware', { version: '1.40' })
            .put('swap', {
              what: 'CPU',
              part,
              place: 'this board',
              knownGood: true,
              outcome,
              ...(listed && { listed }),
            }).entries,
        ),
        null,
        references,
      ).evidence.filter((e) => e.test === 'known-good CPU')
    expect(tried('bench Orrin 44', 'fans, no lamp')).toHaveLength(1)
    expect(tried('bench Orrin 53', 'fans, no lamp')).toEqual([])
    expect(tried('bench Orrin 53', 'maker screen')).toHaveLength(1)
    // Where the table does not name it, what was said at the bench counts; the table outweighs it.
    expect(tried('bench Orrin 99', 'fans, no lamp')).toHaveLength(1)
    expect(tried('bench Orrin 99', 'fans, no lamp', 'no')).toEqual([])
    expect(tried('bench Orrin 53', 'fans, no lamp', 'yes')).toEqual([])
  })
  it('says nothing of a release or a CPU that the table does not name', () => {
    expect(version(tape().put('fitted', { cpu: 'Orrin 99' }).put('firmware', { version: '1.40' }))).toEqual(
      [],
    )
    expect(version(tape().put('fitted', { cpu: 'Orrin 44' }).put('firmware', { version: '9.9' }))).toEqual([])
    expect(evidenceOf(jobState(dark().entries), null).evidence.some((e) => e.test === 'version')).toBe(false)
  })
  it('is nothing against a start: a table that says otherwise is wrong', () => {
    const ran = tape()
      .put('fitted', { cpu: 'Orrin 53' })
      .put('firmware', { version: '1.40' })
      .put('baseline', { ...nothingNoted, fans: 'on', picture: 'maker screen' })
    const said = version(ran)
    expect(said.map((e) => e.outcome)).toEqual(['runs it'])
    expect(said[0]).not.toHaveProperty('reliability')
  })
  it('is mended by a release that runs it', () => {
    const said = version(dark().put('firmware', { wrote: '2.04' }).put('fitted', { cpu: 'Orrin 53' }))
    expect(said.map((e) => [e.outcome, e.after ?? 0])).toEqual([
      ['does not run it', 0],
      ['runs it', 1],
    ])
  })
  it('is not mended by another word for what is in the chip, nor by a write that another release came of', () => {
    const mended = (t: ReturnType<typeof tape>) =>
      evidenceOf(jobState(t.entries), null, references).mended.includes('CPU unsupported')
    expect(mended(dark().put('firmware', { version: '2.04' }))).toBe(false)
    expect(mended(dark().put('firmware', { wrote: '2.04', version: '1.40' }))).toBe(false)
    expect(mended(dark().put('firmware', { wrote: '2.04', version: '2.04' }))).toBe(true)
  })
  it('makes “this version does not run this CPU” likelier, and unlikely where it does', () => {
    const odds = (t: ReturnType<typeof tape>, known: Partial<typeof references>) => {
      const state = jobState(t.entries)
      const asked = toBelieve(state, null, gateOf(state, null), {
        ...nothingRound,
        references: known,
      })
      return believe(asked).causes.find((c) => c.faults.includes('CPU unsupported'))?.odds ?? 0
    }
    const without = odds(dark(), {})
    expect(odds(dark(), references)).toBeGreaterThan(2 * without)
  })
})

import { describe, expect, it } from 'vitest'
import { nothingNoted } from '../board/baseline'
import { nothingRound } from './advice-setting'
import { asSaid } from './as-said'
import { jobState } from './job-state'
import { proofStanding } from './stations-say'
import { measured } from './tape.testing'
import type { TestTape } from './tape.testing'
import { temperatureKept } from '../proof/bodies.testing'
import type { Bodies, Kind } from '../slices'

const up = () =>
  measured()
    .put('mended', { fault: 'slot A' })
    .put('baseline', { ...nothingNoted, fans: 'on', picture: 'system loads' })
const said = <K extends Kind>(t: TestTape, kind: K, body: Bodies[K], setting = nothingRound) =>
  asSaid(kind, body, jobState(t.entries), null, setting)
const untold = (t: TestTape, id: string) =>
  proofStanding(jobState(t.entries), null, nothingRound).tests.find((test) => test.id === id)!.untold!
const passed = (test: string) => ({ test, result: 'pass', reading: '' }) as const
describe('a line as it was said', () => {
  it('has of a test how likely it was to find something, whatever it found', () => {
    const finds = untold(up(), 'system')
    expect(finds).toBeGreaterThan(0)
    expect(said(up(), 'proof', passed('system'))).toEqual({ ...passed('system'), finds })
    const failed = { ...passed('system'), result: 'fail' } as const
    expect(said(up(), 'proof', failed)).toEqual({ ...failed, finds })
  })
  it('says nothing where nothing was known, nor of what settles nothing or was settled', () => {
    const cannot = { ...passed('system'), result: 'cannot run here' } as const
    expect(said(up(), 'proof', cannot)).toBe(cannot)
    expect(said(up(), 'proof', passed('of another plan'))).toEqual(passed('of another plan'))
    expect(said(measured(), 'proof', passed('system'))).toEqual(passed('system'))
    expect(said(up().put('proof', passed('system')), 'proof', passed('system'))).toEqual(passed('system'))
    const fails = { ...passed('system'), result: 'fail' } as const
    expect(said(up().put('proof', passed('system')), 'proof', fails)).toEqual({ ...fails, afterAll: true })
    const failed = up().put('proof', fails)
    expect(said(failed, 'proof', passed('system'))).toEqual(passed('system'))
  })
  it('says it of cold starts with the start that settles them', () => {
    const t = up()
    const { starts } = proofStanding(jobState(t.entries), null, nothingRound).tests.find(
      ({ id }) => id === 'cold starts',
    )!
    const finds = untold(t, 'cold starts')
    for (let made = 1; made < starts!; made++) {
      expect(said(t, 'cold start', { came: true })).toEqual({ came: true })
      expect(said(t, 'cold start', { came: false })).toEqual({ came: false, finds })
      t.put('cold start', { came: true })
    }
    expect(said(t, 'cold start', { came: true })).toEqual({ came: true, finds })
  })
  it('says it of a temperature that tells', () => {
    const finds = untold(up(), 'temperature')
    expect(said(up(), 'temperature', temperatureKept)).toEqual({ ...temperatureKept, finds })
    expect(said(up(), 'temperature', { ...temperatureKept, mostC: null })).toEqual({
      ...temperatureKept,
      mostC: null,
    })
  })
  it('has of a repair how often such a one takes by the shop’s record, however it was noted', () => {
    const repairs = [{ fault: 'slot B', tried: 20, took: 4 }]
    expect(said(up(), 'mended', { fault: 'slot A' }, { ...nothingRound, repairs })).toEqual({
      fault: 'slot A',
      takes: 0.46,
    })
    expect(said(up(), 'mended', { fault: 'slot A' })).toEqual({ fault: 'slot A' })
    expect(said(up(), 'mended', { fault: 'of no list' })).toEqual({ fault: 'of no list' })
    expect(said(up(), 'cell', { volts: 3 })).toEqual({ volts: 3 })
  })
})

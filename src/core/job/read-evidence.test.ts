import { describe, expect, it } from 'vitest'
import type { Bodies } from '../slices'
import { evidenceOf } from './evidence'
import { jobState } from './job-state'
import { tape } from './tape.testing'

const tried = (swap: Partial<Bodies['swap']>) =>
  evidenceOf(
    jobState(
      tape().put('swap', {
        what: 'module',
        part: 'x',
        place: 'A2',
        knownGood: true,
        outcome: 'memory lamp',
        ...swap,
      }).entries,
    ),
    null,
  ).evidence.map((e) => [e.test, e.outcome])

describe('rails of the board’s own', () => {
  const own = (name: string) => ({ rail: name, ohmsOut: 92, ohmsIn: null, volts: null })
  const read = (...ohms: readonly [rail: string, ohms: number][]) => {
    const t = tape().put('ticket', { set: { rails: [own('chipset'), own('vref')] } })
    for (const [rail, is] of ohms) t.put('rail', { rail, ohms: is, cpu: 'out' })
    return evidenceOf(jobState(t.entries), null).evidence.map((e) => `${e.test}: ${e.outcome}`)
  }
  it('are one test: the worst of them counts at once, that all are good once each was read', () => {
    expect(read(['chipset', 5])).toEqual(['ohms other: short'])
    expect(read(['chipset', 90])).toEqual([])
    expect(read(['chipset', 90], ['vref', 20])).toEqual(['ohms other: low'])
    expect(read(['chipset', 90], ['vref', 90])).toEqual(['ohms other: good'])
    expect(read(['chipset', 5], ['vref', 90])).toEqual(['ohms other: short'])
    expect(read(['chipset', 5], ['vref', 90], ['chipset', 90])).toEqual(['ohms other: good'])
  })
})

describe('where a part was tried', () => {
  it.each<[Bodies['swap']['where'], boolean, string | null]>([
    ['slot A', true, 'good in A'],
    ['slot B', true, 'good in B'],
    ['both slots', true, 'good in both'],
    ['another board', true, null],
    ['slot B', false, 'own in B'],
    ['slot A', false, null],
    ['both slots', false, null],
    ['another board', false, 'module elsewhere'],
  ])('%s, known good %s, is the test %s, whatever the place is called', (where, knownGood, test) => {
    for (const place of ['A2', 'B1', 'left', 'another board of his'])
      expect(tried({ where, knownGood, place }).map(([is]) => is)).toEqual(test ? [test] : [])
  })
  it.each<[string, boolean, string | null]>([
    ['A', true, 'good in A'],
    ['slot b2', true, 'good in B'],
    ['another board', false, 'module elsewhere'],
    ['on the left', true, null],
  ])('on older lines is read from the words “%s”', (place, knownGood, test) => {
    expect(tried({ place, knownGood }).map(([is]) => is)).toEqual(test ? [test] : [])
  })
  it('in the dark without an LED to read is evidence of a known-good part, as far as it goes', () => {
    const dark = { outcome: 'fans, dark', where: 'this board', place: 'this board' } as const
    expect(tried({ ...dark, what: 'supply' })).toEqual([['bench supply', 'fans, dark']])
    expect(tried({ ...dark, where: 'slot A' })).toEqual([['good in A', 'fans, dark']])
    expect(tried({ ...dark, what: 'CPU', where: 'another board', knownGood: false })).toEqual([])
  })
})

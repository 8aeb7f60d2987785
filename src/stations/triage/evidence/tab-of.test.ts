import { describe, expect, test } from 'vitest'
import { benchTests } from '@/core/triage/model/bench-tests'
import { testOf } from '@/core/triage/reason/hypotheses'
import { tabOf, tabOfStep } from './tab-of'

describe('the tab a test needs', () => {
  test.each([
    ['ohms vcore', 'Rails'],
    ['volts 12v', 'Rails'],
    ['outside', 'Inspection'],
    ['as it came', 'Power-up'],
    ['good in A', 'Power-up'],
    ['codes', 'POST codes'],
    ['standby current', 'Current'],
    ['cell', 'Battery'],
    ['chip id', null],
  ])('%s: %s', (id, tab) => expect(tabOf(testOf(id))).toBe(tab))

  test('a step without a test opens the part where it is done', () => {
    expect(tabOfStep({ part: 'rails' }, null)).toBe('Rails')
    expect(tabOfStep({ part: 'rails' }, testOf('cell'))).toBe('Battery')
    expect(tabOfStep({ part: 'belief' }, null)).toBeNull()
  })

  test('every start is noted at the power-up', () => {
    for (const t of benchTests.filter((t) => t.powers && !/current|volts|codes|heat/.test(t.id)))
      expect(tabOf(t), t.id).toBe('Power-up')
  })
})

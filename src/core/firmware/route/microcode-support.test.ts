import { describe, expect, it } from 'vitest'
import { microcodeSupport } from './microcode-support'
import { Support } from './support-table'
import { release, starts } from './support-table.testing'

const support = new Support({
  releases: [release('1.30'), release('1.40')],
  support: [
    starts('Orrin 41', '1.30', '1.30', { signature: 0x60a50 }),
    starts('Orrin 44', '1.30', null, { signature: 0x60a51 }),
    starts('Orrin 45', '1.30', null, { signature: 0x60a51 }),
    starts('Orrin 53', '1.40', null, { signature: 0x60b10 }),
    starts('Orrin 58', '1.40'),
  ],
})
const update = (signature: number, sumGood = true) => ({
  from: 0,
  to: 2048,
  signature,
  platforms: 1,
  revision: 0x21,
  date: '2025-03-14',
  sumGood,
})
const says = (...of: Parameters<typeof microcodeSupport>) =>
  microcodeSupport(...of).map((m) => `${m.contradicts ? '! ' : ''}${m.say}`)

describe('microcode of an image beside the table', () => {
  it('names the CPUs it is for, and contradicts the table both ways', () => {
    expect(says([update(0x60a50), update(0x60a51)], support, '1.40')).toEqual([
      '! microcode 0x21 of 2025-03-14 for CPU 60A50 (Orrin 41), which 1.40 does not run by the table',
      'microcode 0x21 of 2025-03-14 for CPU 60A51 (Orrin 44, Orrin 45)',
      '! no microcode for CPU 60B10 (Orrin 53), which 1.40 runs by the table',
    ])
    expect(says([update(0x60a50), update(0x60a51)], support, '1.30').join()).not.toContain('!')
  })
  it('does not count what does not add up, and contradicts nothing where release or table is not known', () => {
    expect(says([update(0x60a51, false)], support, '1.30')).toEqual([
      '! no microcode for CPU 60A50 (Orrin 41), which 1.30 runs by the table',
      '! no microcode for CPU 60A51 (Orrin 44), which 1.30 runs by the table',
      '! no microcode for CPU 60A51 (Orrin 45), which 1.30 runs by the table',
    ])
    for (const [s, r] of [
      [null, '1.30'],
      [support, null],
      [support, '9.9'],
    ] as const)
      expect(says([update(0x999)], s, r)).toEqual(['microcode 0x21 of 2025-03-14 for CPU 999'])
  })
})

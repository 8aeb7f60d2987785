import { describe, expect, it } from 'vitest'
import { codeVersions } from '@/core/firmware/image/owner'
import { dumpQuality } from '@/core/firmware/image/dump'
import { inspect } from '@/core/firmware/image/inspect'
import { readChip, releaseFile, soldOn } from './chip-on-board'

const versionsOf = (file: Uint8Array | null) => codeVersions(file!, inspect(file!))

describe('chips and files of the simulated maker', () => {
  it('hold the release they are called, but for the one whose label is wrong', () => {
    for (const version of ['1.20', '1.30', '1.40', '1.52'])
      expect(versionsOf(releaseFile('tw-k74', version))).toEqual([version])
    expect(versionsOf(releaseFile('br-sound-5', '1.52'))).toEqual(['1.40'])
    expect(releaseFile('tw-k74', '9.9')).toBeNull()
  })
  it('a chip of another kind is twice as large, and its reads differ', () => {
    const chip = { boardModelId: 'br-sound-7', faults: ['firmware chip' as const], seed: 7 }
    const [one, other] = [readChip(chip, 1), readChip(chip, 2)]
    expect(one.length).toBe(4 * 1024 * 1024)
    expect(Buffer.compare(one, other)).not.toBe(0)
    expect(soldOn(chip).marking).toBe('FERN-32V')
    expect(soldOn({ ...chip, faults: [] }).marking).toBe('LSN-16V')
    expect(dumpQuality(one, other).findings.map((f) => f.cause)).toContain('reads differ')
  })
})

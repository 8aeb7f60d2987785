import { describe, expect, it } from 'vitest'
import { drawSfdp, soldChips } from '@/simulated-bench/flash-chips'
import { evidenceOf } from '../../job/evidence'
import { jobState } from '../../job/job-state'
import { tape } from '../../job/tape.testing'
import { readId } from './jedec-id'
import { substitute } from './substitute'
import { chipAsRead, wantedOf } from './taken-chips'
import type { ChipTable, TakenChip } from './taken-chips'

const hexOf = (bytes: Iterable<number>) =>
  [...bytes].map((b) => b.toString(16).padStart(2, '0').toUpperCase()).join('')
const soldAs = (marking: string) => soldChips.find((c) => c.marking === marking)!
const taken = (marking: string, checksId: boolean | null): TakenChip => {
  const { sfdp, id, volts } = soldAs(marking)
  const read = readId(Uint8Array.from(id))
  const { bytes, quadEnable, addressing, erases } = sfdp
  return {
    name: marking,
    id: read.is === 'read' ? read.id : null,
    volts,
    bytes,
    package: null,
    quadEnable,
    addressing,
    erases,
    mhz: null,
    checksId,
  }
}
const table = (checksId: boolean | null): ChipTable => ({ name: '', chips: [taken('LSN-16V', checksId)] })
const asked = (marking: string) => {
  const chip = soldAs(marking)
  return tape()
    .put('firmware', { chip: marking, chipVolts: chip.volts })
    .put('firmware', { chipId: hexOf(chip.id), sfdp: hexOf(drawSfdp(chip)) })
}
const judged = (marking: string, checksId: boolean | null) => {
  const read = chipAsRead(jobState(asked(marking).entries).firmware)
  return read && substitute(wantedOf(table(checksId))!, read)
}
const idEvidence = (t: ReturnType<typeof tape>, chips: ChipTable | null) =>
  evidenceOf(jobState(t.entries), null, { chips: chips ?? null }).evidence.find((e) => e.test === 'chip id')
    ?.outcome

describe('the chip that was read, beside those the board is known to take', () => {
  it('is judged by what it said of itself; what nobody noted stays open', () => {
    expect(judged('LSN-16V', true)?.verdict).toBe('cannot tell')
    expect(
      judged('LSN-16V', true)
        ?.points.filter((p) => p.is === 'not known')
        .map((p) => p.point),
    ).toEqual(['package', 'speed'])
    const other = judged('FERN-32V', true)
    expect(other?.verdict).toBe('refuse')
    expect(other?.points.filter((p) => p.is === 'refuse').map((p) => p.point)).toContain('ID')
    expect(judged('LSN-16M', true)?.points.find((p) => p.point === 'voltage')?.is).toBe('refuse')
  })
  it('is nothing while it was not asked, or did not answer, or another was fitted since', () => {
    expect(chipAsRead(jobState(tape().put('firmware', { chip: 'X' }).entries).firmware)).toBeNull()
    expect(chipAsRead(jobState(tape().put('firmware', { chipId: 'FFFFFF' }).entries).firmware)).toBeNull()
    const since = asked('FERN-32V').put('firmware', { chip: 'LSN-16V' })
    expect(chipAsRead(jobState(since.entries).firmware)).toBeNull()
    expect(wantedOf({ name: '', chips: [] })).toBeNull()
  })
  it('is evidence: right where the board takes it, wrong only where it looks at the ID', () => {
    expect(idEvidence(asked('LSN-16V'), table(true))).toBe('right')
    expect(idEvidence(asked('FERN-32V'), table(true))).toBe('another')
    expect(idEvidence(asked('FERN-32V'), table(null))).toBeUndefined()
    expect(idEvidence(asked('FERN-32V'), table(false))).toBeUndefined()
    expect(idEvidence(asked('LSN-16V'), null)).toBeUndefined()
  })
  it('that was wrong is put right by another; a marking that was only corrected puts nothing right', () => {
    const mended = (t: ReturnType<typeof tape>) =>
      evidenceOf(jobState(t.entries), null, { chips: table(true) }).mended
    expect(mended(asked('FERN-32V'))).toEqual([])
    expect(mended(asked('FERN-32V').put('firmware', { chip: 'LSN-16V' }))).toEqual(['firmware chip'])
    expect(mended(asked('LSN-16V').put('firmware', { chip: 'LSN-16M' }))).toEqual([])
    expect(mended(tape().put('firmware', { chip: 'A' }).put('firmware', { chip: 'B' }))).toEqual([])
  })
})

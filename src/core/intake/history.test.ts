import { historyItems } from '../board/history-item'
import { describe, expect, it } from 'vitest'
import { lookFirst, risksFor, suspectsFor } from './history'

describe('history', () => {
  it('names a risk once, however many items carry it, and always says the usual', () => {
    const risks = risksFor(['CPU swap', 'cleaning', 'lightning or surge'], 'no')
    expect(new Set(risks).size).toBe(risks.length)
    expect(risks).toContain('A fatigued contact may snap while it is straightened.')
    expect(risksFor([], 'no').length).toBeGreaterThan(0)
  })
  it('warns of locked disks only while nobody has asked', () => {
    const locks = (disk: string) => risksFor([], disk).some((r) => r.includes('recovery key'))
    expect([locks('unknown'), locks('no'), locks('yes, owner told')]).toEqual([true, false, false])
  })
  it('always looks at the socket, and first where the history points', () => {
    for (const item of historyItems) expect(lookFirst([item]).at(-1)).toMatch(/the socket/)
    expect(lookFirst(['dropped something in'])[0]).toMatch(/crater/)
    expect(lookFirst([])[0]).toMatch(/everything once/)
  })
  it('puts first what several items make likelier', () => {
    expect(suspectsFor(['firmware update', 'power cut during update'])[0]).toBe('corrupt firmware')
    expect(suspectsFor(['none known'])).toEqual([])
  })
})

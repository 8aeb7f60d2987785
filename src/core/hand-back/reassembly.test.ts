import { describe, expect, it } from 'vitest'
import { failedChecks, inItsMachineFirst, notReassembled, openChecks, reassemblyChecks } from './reassembly'

const ok = { ok: true, note: '' }
const bad = { ok: false, note: '' }

describe('back in its machine', () => {
  it('owes nothing until a machine is there, and then every check', () => {
    expect(openChecks(notReassembled)).toEqual([])
    expect(openChecks({ machine: false, found: {} })).toEqual([])
    expect(openChecks({ machine: true, found: { standoffs: ok } })).toEqual(reassemblyChecks.slice(1))
    expect(failedChecks({ machine: false, found: { standoffs: bad } })).toEqual([])
  })
  it('does not start there: what was found wrong first, then what nobody looked at, then nothing it knows', () => {
    const dark = { 'starts in its machine': bad }
    expect(inItsMachineFirst({ machine: true, found: { 'front wiring': bad } })).toBeNull()
    expect(inItsMachineFirst({ machine: true, found: dark })).toBe('standoffs')
    expect(inItsMachineFirst({ machine: true, found: { ...dark, settings: bad } })).toBe('settings')
    expect(inItsMachineFirst({ machine: true, found: { ...dark, standoffs: ok } })).toBe('retention frame')
    const all = Object.fromEntries(reassemblyChecks.map((check) => [check, ok]))
    expect(inItsMachineFirst({ machine: true, found: { ...all, ...dark } })).toBeNull()
  })
})

import { describe, expect, it } from 'vitest'
import { SimulatedBoard } from '@/simulated-bench/simulated-board'
import { checkEntry } from '@/entry-schemas/entry-schema'
import { asksForPower, simulatedAsks, simulatedEntries, simulatedRequest } from './simulated-entries'
import type { SimulatedRequest } from './simulated-entries'

const asked = (request: object): SimulatedRequest => {
  const { error, value } = simulatedRequest.validate(request)
  if (error) throw error
  return value as SimulatedRequest
}
const board = new SimulatedBoard({ faults: ['module'], seed: 4, rails: null, codes: null }, [], 9)

describe('what the simulated bench is asked', () => {
  it('gives lines that the tape takes, whatever is asked', () => {
    for (const ask of simulatedAsks) {
      const lines = simulatedEntries(board, asked(ask === 'test' ? { ask, test: 'slots' } : { ask }), 2)
      expect(lines.length, ask).toBeGreaterThan(0)
      for (const { kind, body } of lines) {
        const checked = checkEntry({
          id: '00000000-0000-4000-8000-000000000001',
          kind,
          strikes: null,
          at: '2026-11-24T09:00:00.000Z',
          body,
        })
        expect(checked, `${ask}: ${JSON.stringify(checked)}`).toMatchObject({ ok: true })
      }
    }
  })
  it('asks the power gate exactly when it starts the board', () => {
    const powered = simulatedAsks.filter((ask) => ask !== 'test' && asksForPower(asked({ ask })))
    expect(powered).toEqual(['power-up', 'volts', 'codes', 'current', 'cold start', 'temperature'])
    expect(asksForPower(asked({ ask: 'test', test: 'slots' }))).toBe(false)
    expect(asksForPower(asked({ ask: 'test', test: 'good in A' }))).toBe(true)
  })
  it('is refused when it makes no sense', () => {
    expect(() => asked({ ask: 'fire' })).toThrow('ask')
    expect(() => asked({ ask: 'test', test: 'gremlins' })).toThrow('test')
    expect(() => asked({ ask: 'codes', test: 'slots' })).toThrow('test')
  })
})

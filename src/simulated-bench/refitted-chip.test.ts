import { describe, expect, it } from 'vitest'
import { jobState } from '@/core/job/job-state'
import { tape } from '@/core/job/tape.testing'
import { chipPins, lineIs } from '@/core/firmware/chip/refit'
import type { Bodies } from '@/core/slices'
import { jointOpen, readLines } from './refitted-chip'

type Tape = ReturnType<typeof tape>
const on = (by: Bodies['chip moved']['by'] = 'iron') =>
  tape().put('chip moved', { to: 'off', by, despite: [] }).put('chip moved', { to: 'on', by, despite: [] })
const open = (t: Tape, seed: number) => jointOpen(seed, jobState(t.entries).firmware)
const seeds = Array.from({ length: 400 }, (_, i) => i + 1)
const share = (t: Tape) => seeds.filter((seed) => open(t, seed)).length / seeds.length

describe('a chip fitted again on the simulated bench', () => {
  it('has a joint open one time in five, never by hand, and none before it was off', () => {
    expect(share(on())).toBeGreaterThan(0.14)
    expect(share(on())).toBeLessThan(0.26)
    expect(share(on('hand'))).toBe(0)
    expect(share(tape())).toBe(0)
  })
  it('stays as it is until it is reflowed, and is drawn anew then', () => {
    const seed = seeds.find((s) => open(on(), s))!
    const found = () => on().put('refit', { lines: { CS: null } })
    expect(open(found(), seed)).toBe(true)
    expect(open(found().put('refit', { pads: 'whole' }), seed)).toBe(true)
    const over = (seed: number) => open(found().put('refit', { reflowed: true, joints: 'sound' }), seed)
    const bad = seeds.filter((s) => open(on(), s))
    expect(bad.filter(over).length).toBeLessThan(bad.length / 2)
  })
  it('reads open where a part or a joint is, and through everywhere else', () => {
    const wrong = (faults: Parameters<typeof readLines>[0], seed: number) => {
      const lines = readLines(faults, seed, 3)
      return chipPins.filter((pin) => lineIs(pin, lines[pin]) === 'open')
    }
    for (const seed of seeds.slice(0, 40)) {
      expect(wrong([], seed)).toEqual([])
      expect(wrong(['chip resistor'], seed)).toHaveLength(1)
      expect(wrong(['chip joint'], seed)).toHaveLength(1)
      expect(wrong(['chip supply part'], seed)).toEqual(['VCC'])
    }
  })
})

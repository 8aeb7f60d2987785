import { jobState } from './job-state'
import { nothingNoted } from '../board/baseline'
import { describe, expect, it } from 'vitest'
import { tape } from './tape.testing'
import { practiceSteps } from './practice-steps'

describe('the steps of a practice board', () => {
  const t = tape()
    .put('rail', { rail: 'vmem', ohms: 2, cpu: 'out' })
    .put('mended', { fault: 'memory rail short' })
    .put('baseline', { ...nothingNoted, fans: 'on', lamp: 'memory', cpuHeat: 'warm' })
    .put('trial', { test: 'slots', outcome: 'slot A' })
  const reference = {}
  it('come in order; what one power-up shows is one test and its company', () => {
    expect(practiceSteps(jobState(t.entries), reference)).toEqual([
      { do: 'test', test: 'ohms vmem', outcome: 'short' },
      { do: 'mend', fault: 'memory rail short' },
      { do: 'test', test: 'as it came', outcome: 'memory lamp' },
      { do: 'test', test: 'warmth', outcome: 'warm', along: true },
      { do: 'test', test: 'slots', outcome: 'slot A' },
    ])
  })
  it('carry where the gate was shut', () => {
    const steps = practiceSteps(jobState(t.entries), reference, (line) => line > 2)
    expect(steps[0]).toMatchObject({ mayPower: false })
    expect(steps[2]).not.toHaveProperty('mayPower')
  })
})

import { describe, expect, it } from 'vitest'
import { runsRight } from './runs-right'

const states = (...args: Parameters<typeof runsRight>) => runsRight(...args).map((l) => l.state)

describe('runs, but right?', () => {
  it('asks for each of the three until it is looked at', () => {
    expect(states(null)).toEqual(['not looked at', 'not looked at', 'not looked at'])
    expect(states({ ratedMTs: null, seenMTs: 2133, startS: 12, settingsKept: true })).toEqual([
      'not looked at',
      'right',
      'right',
    ])
  })
  it('is not right with memory below its rating, slow starts or settings that go', () => {
    const poor = { ratedMTs: 2667, seenMTs: 2133, startS: 95, settingsKept: false }
    expect(states(poor)).toEqual(['not right', 'not right', 'not right'])
    expect(
      runsRight(poor)
        .map((l) => l.say)
        .join('; '),
    ).toContain('2133 of 2667 MT/s')
  })
  it('takes a figure rounded on the screen, and the board’s own usual start', () => {
    const right = { ratedMTs: 2667, seenMTs: 2666, startS: 95, settingsKept: true }
    expect(states(right, 70)).toEqual(['right', 'right', 'right'])
    expect(states(right)[1]).toBe('not right')
  })
  it('says that it can be the release’s, where a newer one stands in the table', () => {
    const poor = { ratedMTs: 2667, seenMTs: 2133, startS: 95, settingsKept: null }
    const say = (newer: readonly string[]) =>
      runsRight(poor, undefined, { now: '1.40', newer }).map((l) => l.say)
    expect(say(['1.52']).filter((s) => s.includes('1.40 is in the chip, 1.52 is newer'))).toHaveLength(2)
    expect(say([]).join()).not.toContain('release')
  })
})

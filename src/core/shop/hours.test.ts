import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { readHours, typedHours, weekHours } from './hours'
import { usualHours } from './promise'

const usual = typedHours(usualHours)

describe('bench hours', () => {
  it('are read as they are typed: an empty weekday is closed, a stretch of days is every day of it', () => {
    const { hours, faults } = readHours({
      week: [['9:00', '16.30'], ['', ''], ...usual.week.slice(2)],
      closed: '2026-12-24 to 2026-12-26\n2027-01-01',
      people: '3',
    })
    expect(faults).toEqual({})
    expect(hours).toEqual({
      week: [[540, 990], null, [540, 960], [540, 960], [540, 960], null, null],
      closed: ['2026-12-24', '2026-12-25', '2026-12-26', '2027-01-01'],
      people: 3,
    })
    expect(weekHours(hours!)).toBeCloseTo(3 * (7.5 + 21), 9)
  })
  it('say what is wrong by its field', () => {
    const wrong = readHours({
      week: [
        ['nine', '16:00'],
        ['16:00', '09:00'],
        ['09:00', ''],
        ['25:00', '26:00'],
        ...usual.week.slice(4),
      ],
      closed: '2026-02-30',
      people: '0',
    })
    expect(wrong.hours).toBeNull()
    expect(Object.keys(wrong.faults)).toEqual([
      'Monday',
      'Tuesday',
      'Wednesday',
      'Thursday',
      'closed',
      'people',
    ])
    expect(wrong.faults.Monday).toContain('“nine” is no time')
    expect(wrong.faults.closed).toContain('“2026-02-30” is no day')
    expect(readHours({ ...usual, closed: '2026-12-26 to 2026-12-24' }).faults.closed).toContain(
      'before it begins',
    )
    expect(readHours({ ...usual, closed: '2026-01-01 to 2036-01-01' }).faults.closed).toContain('over a year')
    expect(readHours({ ...usual, people: '1.5' }).faults.people).toContain('1 to 50')
    expect(readHours({ ...usual, week: [] }).faults.Monday).toContain('nothing is ever ready')
  })
  it('stand in their fields as they were read', () => {
    const day = fc
      .integer({ min: 0, max: 700 })
      .map((n) => new Date(Date.UTC(2026, 0, 1 + n)).toISOString().slice(0, 10))
    const open = fc.option(
      fc
        .tuple(fc.integer({ min: 0, max: 1439 }), fc.integer({ min: 1, max: 1440 }))
        .filter(([from, to]) => from < to),
      { nil: null },
    )
    fc.assert(
      fc.property(
        fc.array(open, { minLength: 7, maxLength: 7 }).filter((week) => week.some((o) => o !== null)),
        fc.uniqueArray(day, { maxLength: 12 }),
        fc.integer({ min: 1, max: 50 }),
        (week, closed, people) => {
          const hours = { week, closed: [...closed].sort(), people }
          expect(readHours(typedHours(hours))).toEqual({ hours, faults: {} })
        },
      ),
    )
  })
})

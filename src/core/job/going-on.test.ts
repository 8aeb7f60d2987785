import { expect, it } from 'vitest'
import { smallField } from '../socket/model/field.testing'
import { usualFigures } from '../socket/straighten/bench-figures'
import { nothingRound } from './advice-setting'
import { goingOn } from './going-on'
import { jobState } from './job-state'
import { tape } from './tape.testing'

it('going on takes a stroke for each damaged contact, by the shop’s own figures', () => {
  const field = smallField()
  const [a, b] = field.contacts.map((c) => c.name)
  const state = jobState(tape().put('mark', { contacts: [a!, b!], mark: { kind: 'low' } }).entries)
  const minutes = (strokeMinutes: number) => {
    const figures = { ...usualFigures, strokeMinutes }
    return goingOn(state, field, { ...nothingRound, figures }).weighed.ways.map((way) => way.minutes)
  }
  // Two contacts, half an hour each, and a start before and after.
  expect(minutes(30)).toContain(68)
  expect(minutes(1)).not.toContain(68)
})

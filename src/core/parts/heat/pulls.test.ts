import { expect, it } from 'vitest'
import { noPulls, sayPulls } from './pulls'

it('pulls say how many came whole, and how little a few of them tell', () => {
  expect(sayPulls(noPulls)).toMatch(/^None yet/)
  expect(sayPulls({ whole: 2, bent: 1, broken: 0 })).toMatch(
    /^2 of 3 came whole; the next does in \d+ % to \d+ %\.$/,
  )
  const span = (whole: number, broken: number) => {
    const [, low, high] = /in (\d+) % to (\d+) %/.exec(sayPulls({ whole, bent: 0, broken }))!
    return Number(high) - Number(low)
  }
  expect(span(2, 1)).toBeGreaterThan(2 * span(40, 20))
  expect(sayPulls({ whole: 0, bent: 2, broken: 1 })).toMatch(/^0 of 3/)
})

import { describe, expect, it } from 'vitest'
import { normalDraw, seeded } from './seeded'

const draws = (seed: number, n: number) => {
  const uniform = seeded(seed)
  return Array.from({ length: n }, uniform)
}

describe('seeded', () => {
  it('gives the same stream for the same seed and another for another', () => {
    expect(draws(7, 20)).toEqual(draws(7, 20))
    expect(draws(7, 20)).not.toEqual(draws(8, 20))
  })
  it('is even over [0, 1)', () => {
    const bins = new Array<number>(10).fill(0)
    for (const u of draws(3, 50_000)) bins[Math.floor(u * 10)]!++
    for (const n of bins) expect(Math.abs(n - 5000)).toBeLessThan(300)
  })
})

it('normalDraw has mean 0 and variance 1', () => {
  const uniform = seeded(11)
  const values = Array.from({ length: 40_000 }, () => normalDraw(uniform))
  const mean = values.reduce((a, b) => a + b, 0) / values.length
  const variance = values.reduce((a, b) => a + (b - mean) ** 2, 0) / values.length
  expect(Math.abs(mean)).toBeLessThan(0.02)
  expect(Math.abs(variance - 1)).toBeLessThan(0.03)
})

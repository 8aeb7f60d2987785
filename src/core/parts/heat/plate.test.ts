import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { benchPlate, noExchange, PlateHeat } from './plate'
import type { Plate } from './plate'

const plate = (nx: number, ny: number, cellMm: number): Plate => ({ ...benchPlate, nx, ny, cellMm })
const capacity = (benchPlate.holds * benchPlate.thicknessMm) / 1000
const diffusivity = benchPlate.conducts / benchPlate.holds
const run = (of: Plate, start: number, h: number, to: number, seconds: number, dt: number) => {
  const heat = new PlateHeat(of, new Float64Array(of.nx * of.ny).fill(start))
  const exchange = noExchange(of)
  exchange.h.fill(h)
  exchange.hTo.fill(h * to)
  for (let s = 0; s < seconds - 1e-9; s += dt) heat.step(exchange, dt)
  return heat
}

describe('heat in a plate', () => {
  it('cools as a lump does, exp(−h·t/(ρ·c·d)), within 1 %', () => {
    const { t } = run(plate(8, 6, 2), 200, 20, 25, 120, 1)
    const exact = 25 + 175 * Math.exp((-20 * 120) / capacity)
    for (const is of t) expect(Math.abs(is - exact) / (exact - 25)).toBeLessThan(0.01)
  })
  it('spreads an instant source as exp(−r²/4αt)/(4παt), within 1 %', () => {
    const of = plate(161, 161, 1)
    const heat = new PlateHeat(of, new Float64Array(161 * 161))
    const joules = 20
    const middle = 80 * 161 + 80
    // From the moment it is as wide as six cells on, where the grid can hold it.
    const width = (seconds: number) => 4 * diffusivity * seconds
    const exact = (r2: number, seconds: number) =>
      (joules / capacity / (Math.PI * width(seconds))) * Math.exp(-r2 / width(seconds))
    const begin = 2
    for (let j = 0; j < 161; j++)
      for (let i = 0; i < 161; i++) heat.t[j * 161 + i] = exact(((i - 80) ** 2 + (j - 80) ** 2) * 1e-6, begin)
    for (let s = 0; s < 80; s++) heat.step(noExchange(of), 0.1)
    for (const [i, j] of [
      [0, 0],
      [5, 0],
      [0, 10],
      [8, 8],
      [-12, 6],
    ] as const) {
      const is = heat.t[middle + j * 161 + i]!
      expect(is / exact((i * i + j * j) * 1e-6, begin + 8)).toBeCloseTo(1, 2)
    }
  })
  it('stands as a fin heated at one end does, Q·cosh(m·(L − x))/(k·d·m·sinh(m·L)), within 1 %', () => {
    const of = plate(120, 1, 1)
    const heat = new PlateHeat(of, new Float64Array(120))
    const exchange = noExchange(of)
    const h = 40
    exchange.h.fill(h)
    const flux = 20_000
    exchange.flux[0] = flux
    for (let s = 0; s < 3000; s++) heat.step(exchange, 1, 1)
    const spreads = (benchPlate.conducts * benchPlate.thicknessMm) / 1000
    const m = Math.sqrt(h / spreads)
    const length = 0.12
    // What goes into the first cell a metre of width, W.
    const q = flux * 0.001
    for (const i of [3, 10, 30, 60, 119]) {
      const x = (i + 0.5) / 1000
      const exact = (q * Math.cosh(m * (length - x))) / (spreads * m * Math.sinh(m * length))
      expect(heat.t[i]! / exact).toBeCloseTo(1, 2)
    }
  })
  it('keeps all the heat there is where nothing is exchanged', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 0, max: 300, noNaN: true }), { minLength: 35, maxLength: 35 }),
        fc.double({ min: 0.01, max: 1000, noNaN: true }),
        fc.constantFrom(0.5, 1),
        (start, dt, theta) => {
          const of = plate(7, 5, 3)
          const heat = new PlateHeat(of, Float64Array.from(start))
          const sum = (t: Iterable<number>) => [...t].reduce((a, b) => a + b, 0)
          for (let s = 0; s < 5; s++) heat.step(noExchange(of), dt, theta)
          expect(sum(heat.t)).toBeCloseTo(sum(start), 6)
        },
      ),
    )
  })
  it('is stable at any step: never hotter than the hottest nor colder than the coldest, damped', () => {
    fc.assert(
      fc.property(
        fc.array(fc.double({ min: 20, max: 300, noNaN: true }), { minLength: 30, maxLength: 30 }),
        fc.double({ min: 0.01, max: 1e4, noNaN: true }),
        (start, dt) => {
          const of = plate(6, 5, 1)
          const heat = new PlateHeat(of, Float64Array.from(start))
          const exchange = noExchange(of)
          exchange.h.fill(15)
          exchange.hTo.fill(15 * 25)
          for (let s = 0; s < 200; s++) heat.step(exchange, dt, 1)
          for (const t of heat.t) {
            expect(Number.isFinite(t)).toBe(true)
            expect(Math.abs(t)).toBeLessThan(700)
          }
        },
      ),
    )
  })
  it('comes to the same by half the step and half the cell', () => {
    const at = (cellMm: number, dt: number) => {
      const n = Math.round(60 / cellMm)
      const of = plate(n, n, cellMm)
      const heat = new PlateHeat(of, new Float64Array(n * n).fill(25))
      const exchange = noExchange(of)
      for (let j = 0; j < n; j++)
        for (let i = 0; i < n; i++) {
          const r2 = ((i + 0.5) * cellMm - 30) ** 2 + ((j + 0.5) * cellMm - 30) ** 2
          const h = 15 + 150 * Math.exp(-r2 / 36)
          exchange.h[j * n + i] = h
          exchange.hTo[j * n + i] = 15 * 25 + (h - 15) * 350
        }
      for (let s = 0; s < 60 / dt - 1e-9; s++) heat.step(exchange, dt, s < 2 ? 1 : 0.5)
      const [a, b] = [n / 2 - 1, n / 2]
      return (heat.t[a * n + a]! + heat.t[a * n + b]! + heat.t[b * n + a]! + heat.t[b * n + b]!) / 4
    }
    const fine = at(1, 0.25)
    expect(Math.abs(at(1, 0.5) - fine)).toBeLessThan(0.01 * (fine - 25))
    expect(Math.abs(at(2, 0.5) - fine)).toBeLessThan(0.01 * (fine - 25))
  })
})

import { describe, expect, it } from 'vitest'
import { normalDraw, seeded } from '../maths/seeded'
import { drawMachine, levelOf, logOf } from '@/simulated-bench/thermometer'
import {
  fitTemperature,
  keptTemperature,
  readTemperature,
  sayTemperature,
  temperatureColumns,
  verdictOf,
} from './temperature'

type Pair = readonly [s: number, c: number]
const rowsOf = (pairs: readonly Pair[]) => pairs.map(([s, c]) => ({ s: String(s), c: String(c) }))
const read = (pairs: readonly Pair[]) => readTemperature(rowsOf(pairs), temperatureColumns)
const every = (seconds: number, step: number, at: (s: number) => number): Pair[] =>
  Array.from({ length: Math.floor(seconds / step) + 1 }, (_, i) => [i * step, at(i * step)])
const fit = (pairs: readonly Pair[], bears?: number) => {
  const { log } = read(pairs)
  const kept = keptTemperature('log.csv', log!, bears)
  return { ...kept, offK: fitTemperature(log!).offK, verdict: verdictOf(kept), say: sayTemperature(kept) }
}

describe('a temperature under load', () => {
  it('levels off where its exponential does, whatever came of it so far', () => {
    const draw = seeded(3)
    for (const [level, tau] of [
      [62, 120],
      [71, 200],
      [48, 90],
    ] as const) {
      const noisy = every(450, 2, (s) => level - (level - 24) * Math.exp(-s / tau) + 0.3 * normalDraw(draw))
      const is = fit(noisy)
      expect(Math.abs(is.levelC - level)).toBeLessThan(2)
      expect(is.leastC).toBeLessThan(level)
      expect(is.mostC!).toBeGreaterThan(level)
      expect(is.verdict).toBe('levels off')
      expect(is.offK).toBeLessThan(0.6)
    }
  })
  it('that is far too hot is said so before it gets there', () => {
    const hot = fit(every(200, 2, (s) => 118 - 94 * Math.exp(-s / 110)))
    expect(hot.verdict).toBe('too hot')
    expect(hot.say).toMatch(/^gets too hot.*85 °C is the most/)
    const warm = every(300, 5, (s) => 57 - 20 * Math.exp(-s / 40))
    expect(fit(warm).verdict).toBe('levels off')
    expect(fit(warm, 60).verdict).toBe('too hot')
  })
  it('that never warms proves no load, and readings that are all alike no sensor', () => {
    const draw = seeded(9)
    const noise = () => 0.3 * normalDraw(draw)
    for (const c of [0, 23, 57]) {
      const stuck = fit(every(300, 5, () => c))
      expect(stuck.verdict).toBe('not yet')
      expect(stuck.say).toMatch(/every reading is -?\d+ °C\. Does the sensor stand still/)
      const idle = fit(every(600, 5, () => c + noise()))
      expect(idle.verdict).toBe('not yet')
      expect(idle.say).toMatch(/nothing warms from 0 s on\. Was the load on, and the sensor in its place\?/)
    }
    // Begun after the load, as its seconds say, it need not warm any more.
    const late = every(600, 5, () => 57 + noise()).map(([s, c]) => [s + 900, c] as const)
    expect(fit(late).verdict).toBe('levels off')
  })
  it('whose readings stop while it climbs is a sensor that stands still, whatever its steps', () => {
    const stopped = (at: number, tau: number, step: number) =>
      every(600, 2, (s) => Math.round((64 - 40 * Math.exp(-Math.min(s, at) / tau)) / step) * step)
    for (const at of [8, 40, 90, 160])
      for (const tau of [90, 200])
        for (const step of [0.1, 1]) {
          const still = fit(stopped(at, tau, step))
          expect(still.verdict, `${at} s, τ ${tau} s, steps of ${step}`).toBe('not yet')
          expect(still.say).toMatch(/reads the same from \d+ s on. Does the sensor stand still|nothing warms/)
        }
    // One that is there soon, and read without scatter, stands as still: it came to it gently.
    for (const tau of [8, 15, 20, 30, 60])
      for (const every_ of [2, 5, 10])
        for (const step of [0.001, 1])
          expect(
            fit(every(600, every_, (s) => Math.round((64 - 40 * Math.exp(-s / tau)) / step) * step)).verdict,
            `τ ${tau} s every ${every_} s, steps of ${step}`,
          ).toBe('levels off')
    for (const tau of [60, 90, 120])
      expect(fit(stopped(600, tau, 1)).verdict, `τ ${tau} s`).toBe('levels off')
  })
  it('that climbs steadily is not called level, and how long it takes to tell is said', () => {
    const climbs = fit(every(300, 5, (s) => 40 + 0.1 * s))
    expect(climbs.verdict).not.toBe('levels off')
    const early = fit(every(70, 2, (s) => 80 - 56 * Math.exp(-s / 220)))
    expect(early.verdict).toBe('not yet')
    expect(early.say).toMatch(/About \d+ min more would tell/)
  })
  it('that was too hot already is too hot, wherever it goes from there', () => {
    const over = fit(every(600, 2, (s) => 78 + 30 * Math.exp(-s / 90) - 68 * Math.exp(-s / 20)))
    expect(over.verdict).toBe('too hot')
    expect(over.say).toMatch(/it was at \d+ °C, 85 °C is the most/)
  })
  it('that cools while it is watched proves nothing: nobody loads it any more', () => {
    const left = fit(
      every(600, 2, (s) => (s < 250 ? 62 - 38 * Math.exp(-s / 60) : 30 + 32 * Math.exp(-(s - 250) / 80))),
    )
    expect(left.verdict).toBe('not yet')
    expect(left.say).toMatch(/it cools from 2\d\d s on\. Was the load held to the end\?/)
    // Fans that speed up take a few degrees: that is a load all the same.
    const fans = fit(
      every(900, 2, (s) => 62 - 38 * Math.exp(-s / 60) - (s < 200 ? 0 : 4 * (1 - Math.exp(-(s - 200) / 60)))),
    )
    expect(fans.verdict).toBe('levels off')
  })
  it('is right from half of a quarter of an hour, by machines it does not know; and its range holds as often as it says', () => {
    let [right, wrong, within] = [0, 0, 0]
    const machines = 60
    for (let seed = 400; seed < 400 + machines; seed++) {
      const machine = drawMachine(seed)
      const level = levelOf(machine)
      const is = fit(logOf(machine, seed, 450).map(({ s, c }) => [s, c] as const))
      const should = level <= 85 ? 'levels off' : 'too hot'
      if (is.verdict === should) right++
      else if (is.verdict !== 'not yet') wrong++
      if (level >= is.leastC && level <= (is.mostC ?? Infinity)) within++
    }
    expect(right / machines).toBeGreaterThanOrEqual(0.95)
    expect(wrong).toBe(0)
    expect(within / machines).toBeGreaterThanOrEqual(0.88)
  })
  it('of a sensor that stops is never taken for that of a machine that gets too hot', () => {
    let seen = 0
    for (let seed = 700; seed < 740; seed++) {
      const machine = drawMachine(seed)
      const whole = logOf(machine, seed, 450)
      const stops = Math.floor(whole.length * (0.1 + 0.015 * (seed - 700)))
      const is = fit(whole.map(({ s, c }, i) => [s, i > stops ? whole[stops]!.c : c] as const))
      if (is.verdict === 'not yet') seen++
      if (levelOf(machine) > 85) expect(is.verdict).not.toBe('levels off')
    }
    expect(seen).toBeGreaterThanOrEqual(30)
  })
  it('is read with gaps and slips of the sensor, and says so', () => {
    const warm = every(400, 2, (s) => 60 - 36 * Math.exp(-s / 100))
    const odd = warm
      .filter(([s]) => s < 120 || s > 180)
      .map(([s, c]) => [s, s === 50 || s === 300 ? 127 : c] as const)
    const { log, findings } = read(odd)
    expect(findings.map((f) => f.text).join()).toContain('nothing was read from 118 to 182 s')
    expect(findings.map((f) => f.text).join()).toContain('2 readings that jump')
    expect(findings.every((f) => f.level === 'warning')).toBe(true)
    expect(Math.abs(fitTemperature(log!).levelC - 60)).toBeLessThan(1.5)
    // A way up in a few readings is no slip; a first reading that is off alone is one.
    const fast = every(600, 10, (s) => 64 - 40 * Math.exp(-s / 8))
    expect(read(fast).findings).toEqual([])
    const slipped = every(600, 10, (s) => (s === 0 ? 127 : 40 + 0.02 * s))
    expect(
      read(slipped)
        .findings.map((f) => f.text)
        .join(),
    ).toContain('1 readings that jump')
  })
  it.each<[string, readonly Pair[], RegExp]>([
    ['too few', every(300, 100, () => 50), /4 readings are too few/],
    ['of a few seconds', every(30, 1, () => 50), /spans 30 s; at least 60/],
    [
      'backwards',
      [...every(200, 5, () => 50), [100, 50]],
      /time stands or runs backwards: 100 s after 200 s/,
    ],
    ['no temperature', every(200, 5, () => 900), /are these °C/],
  ])('%s is refused, with the mend', (_, pairs, text) => {
    const { log, findings } = read(pairs)
    expect(log).toBeNull()
    expect(findings.map((f) => f.text).join()).toMatch(text)
  })
  it('with words for figures or columns by other names is refused by line and field', () => {
    const bad = readTemperature(
      [...rowsOf(every(200, 5, () => 50)), { s: '205', c: 'warm' }],
      temperatureColumns,
    )
    expect(bad.findings[0]).toMatchObject({ line: 43, field: 'c', level: 'error' })
    expect(readTemperature([], ['time', 'temp']).findings[0]!.text).toContain('the header needs s,c')
  })
  it('is kept thin, with what was read and how it goes on', () => {
    const kept = keptTemperature('log.csv', read(every(900, 1, (s) => 60 - 36 * Math.exp(-s / 100))).log!)
    expect(kept).toMatchObject({ name: 'log.csv', readings: 901, bearsC: 95 })
    expect(kept.read.s.length).toBeLessThanOrEqual(162)
    expect(kept.curve.s.at(-1)!).toBeGreaterThan(900)
  })
})

describe('a simulated machine', () => {
  it('levels off where the heat through its parts says, started from anywhere', () => {
    for (const seed of [1, 2, 3, 9]) {
      const machine = drawMachine(seed)
      const end = logOf(machine, seed, 4000)
        .slice(-30)
        .map((r) => r.c)
      const mean = end.reduce((a, b) => a + b, 0) / end.length
      expect(Math.abs(mean - levelOf(machine))).toBeLessThan(4)
    }
  })
})

import { runHeat } from '@/core/parts/heat/heat-run'
import { searchHeat } from '@/core/parts/heat/heat-search'
import { benchPlate, noExchange, PlateHeat } from '@/core/parts/heat/plate'
import type { HeatStep, SetUp } from '@/core/parts/heat/set-up'
import { runToEnd } from '@/core/run-to-end'
import { line, percent, timed } from './figure'
import type { Figure } from './figure'

const chip: SetUp = {
  board: { wideMm: 200, highMm: 200 },
  target: 'firmware chip',
  solder: 'lead-free',
  nozzleMm: 10,
  distanceMm: 8,
  roomC: 23,
  spared: [{ what: 'the socket', atMm: 25, bearsC: 200 }],
  air: 1,
  preheater: 1,
}
const steps: readonly HeatStep[] = [
  { seconds: 180, airC: null, flow: 0, preheatWm2: 2000 },
  { seconds: 120, airC: 380, flow: 60, preheatWm2: 2000 },
]

/** Worst error against what can be written down: a plate that cools, an instant source, a fin. As a share of the greatest rise. */
function closedForms(): void {
  const { thicknessMm, conducts, holds } = benchPlate
  const capacity = (holds * thicknessMm) / 1000
  const cools = () => {
    const plate = { ...benchPlate, nx: 10, ny: 10, cellMm: 2 }
    const [heat, exchange] = [new PlateHeat(plate, new Float64Array(100).fill(220)), noExchange(plate)]
    exchange.h.fill(30)
    exchange.hTo.fill(30 * 20)
    let worst = 0
    for (let i = 1; i <= 300; i++) {
      heat.step(exchange, 1)
      worst = Math.max(worst, Math.abs(heat.t[42]! - (20 + 200 * Math.exp((-30 * i) / capacity))))
    }
    return worst / 200
  }
  const source = () => {
    const n = 201
    const plate = { ...benchPlate, nx: n, ny: n, cellMm: 1 }
    const heat = new PlateHeat(plate, new Float64Array(n * n))
    const joules = 20
    const per = (joules / (4 * Math.PI * conducts)) * (1000 / thicknessMm)
    const at = (r2: number, s: number) => (per / s) * Math.exp((-r2 * holds) / (4 * conducts * s))
    const from = 4
    for (let j = 0; j < n; j++)
      for (let i = 0; i < n; i++) heat.t[j * n + i] = at(((i - 100) ** 2 + (j - 100) ** 2) * 1e-6, from)
    const none = noExchange(plate)
    for (let i = 0; i < 40; i++) heat.step(none, 0.5)
    let worst = 0
    for (let i = 0; i < 40; i++)
      worst = Math.max(worst, Math.abs(heat.t[100 * n + 100 + i]! - at(i * i * 1e-6, from + 20)))
    return worst / at(0, from + 20)
  }
  const fin = () => {
    const n = 120
    const plate = { ...benchPlate, nx: n, ny: 1, cellMm: 1 }
    const [heat, exchange] = [new PlateHeat(plate, new Float64Array(n)), noExchange(plate)]
    const h = 20
    exchange.h.fill(h)
    exchange.flux[0] = 50_000
    for (let i = 0; i < 20_000; i++) heat.step(exchange, 2, i < 2 ? 1 : 0.5)
    const m = Math.sqrt(h / ((conducts * thicknessMm) / 1000))
    const length = n / 1000
    const q = (50_000 * 0.001) / ((conducts * thicknessMm * m) / 1000)
    const at = (x: number) => (q * Math.cosh(m * (length - x))) / Math.sinh(m * length)
    let worst = 0
    for (let i = 1; i < n; i++) worst = Math.max(worst, Math.abs(heat.t[i]! - at((i + 0.5) / 1000)))
    return worst / at(0)
  }
  line('heat: a plate that cools, worst error', percent(cools()), '≤ 1 %')
  line('heat: an instant source, worst error', percent(source()), '≤ 1 %')
  line('heat: a fin heated at its end, worst error', percent(fin()), '≤ 1 %')
}

export function heatFigures(): Figure[] {
  closedForms()
  const plate = { ...benchPlate, nx: 200, ny: 200, cellMm: 1 }
  const [whole, exchange] = [new PlateHeat(plate, new Float64Array(40_000).fill(23)), noExchange(plate)]
  exchange.h.fill(20)
  exchange.hTo.fill(20 * 23)
  return [
    timed('heat: board of 200 × 200 mm in cells of 1 mm, 300 s', 2000, () => runHeat(chip, steps), 5),
    timed(
      '  the conduction of 200 × 200 cells alone, 300 steps',
      2000,
      () => {
        for (let i = 0; i < 300; i++) whole.step(exchange, 1)
      },
      5,
    ),
    timed('heat: search of a recipe, 50 ways', 20_000, () => runToEnd(searchHeat(chip)), 2),
  ]
}

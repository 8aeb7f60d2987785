// Temperatures under load, from half of their logs: machines as heat flows, none of the fit’s assumptions in them.
import { keptTemperature, readTemperature, temperatureColumns, verdictOf } from '@/core/proof/temperature'
import { seeded } from '@/core/maths/seeded'
import { drawMachine, levelOf, logOf } from '@/simulated-bench/thermometer'
import { line, percent } from './figure'

export function temperatureFigures(machines = 400, from = 50_000): void {
  for (const seconds of [900, 480, 300]) {
    let [right, wrong, within] = [0, 0, 0]
    for (let seed = from; seed < from + machines; seed++) {
      const machine = drawMachine(seed)
      const level = levelOf(machine)
      const rows = logOf(machine, seed, seconds / 2).map(({ s, c }) => ({ s: String(s), c: String(c) }))
      const { log } = readTemperature(rows, temperatureColumns)
      if (!log) continue
      const fit = keptTemperature('a machine', log)
      const verdict = verdictOf(fit)
      if (verdict === (level <= 85 ? 'levels off' : 'too hot')) right++
      else if (verdict !== 'not yet') wrong++
      if (level >= fit.leastC && level <= (fit.mostC ?? Infinity)) within++
    }
    const share = right / machines
    line(
      `temperature: right from half of ${seconds / 60} min, ${machines} machines`,
      percent(share),
      seconds === 900 ? `≥ 95 %: ${share >= 0.95 ? 'met' : 'MISSED'}` : '',
    )
    line('  wrong; level within its range', `${percent(wrong / machines)}; ${percent(within / machines)}`)
  }
  stoppedSensors(machines / 2, from + 40_000)
}

/** Sensors that stand still somewhere between a tenth and seven tenths of their log. */
function stoppedSensors(machines: number, from: number): void {
  let [seen, wrong] = [0, 0]
  for (let seed = from; seed < from + machines; seed++) {
    const machine = drawMachine(seed)
    const whole = logOf(machine, seed, 450)
    const stops = Math.floor(whole.length * (0.1 + 0.6 * seeded(seed)()))
    const rows = whole.map(({ s, c }, i) => ({ s: String(s), c: String(i > stops ? whole[stops]!.c : c) }))
    const { log } = readTemperature(rows, temperatureColumns)
    if (!log) continue
    const verdict = verdictOf(keptTemperature('a machine', log))
    if (verdict === 'not yet') seen++
    else if (verdict === 'levels off' && levelOf(machine) > 85) wrong++
  }
  line(`temperature: a sensor that stops, ${machines} machines: seen`, percent(seen / machines))
  line('  said to level off, and it would be too hot', percent(wrong / machines))
}

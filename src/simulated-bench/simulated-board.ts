import { keptTemperature, readTemperature, temperatureColumns } from '@/core/proof/temperature'
import type { KeptTemperature } from '@/core/proof/temperature'
import { drawMachine, logOf } from './thermometer'
import { hasPicture, nothingNoted } from '@/core/board/baseline'
import type { OwnRail, Rail, UsualRail } from '@/core/board/rail'
import type { Baseline } from '@/core/board/baseline'
import { isUsual, railsOf } from '@/core/board/rail'
import { limitsOf } from '@/core/board/rail-limits'
import { pick } from '@/core/maths/pick'
import { normalDraw, seeded } from '@/core/maths/seeded'
import type { Uniform } from '@/core/maths/seeded'
import type { CodeTable, CodesSeen } from '@/core/triage/instruments/code-tape'
import type { Trace } from '@/core/triage/instruments/current-trace'
import type { CodeReader, Meter, Senses, Supply } from '@/core/triage/instruments/devices'
import type { FaultId } from '@/core/triage/model/faults'
import { testOf } from '@/core/triage/reason/hypotheses'
import { ownRailsOf, usualVolts } from '@/core/triage/instruments/rail-table'
import type { RailReference } from '@/core/triage/instruments/rail-table'
import { asItCame } from '@/core/triage/model/setup'
import { showsCodes, testsOf } from '@/core/triage/model/shows'
import type { Shows } from '@/core/triage/model/shows'
import { stages, startTables } from '@/core/triage/model/stage'
import { stopsIn } from '@/core/triage/model/start-model'

/** What a simulated board is: its faults, its noise, and how a good one of its model measures. */
export interface Hidden {
  readonly faults: readonly FaultId[]
  readonly seed: number
  readonly rails: RailReference | null
  readonly codes: CodeTable | null
  /** What it can show; anything where it is not known. */
  readonly shows?: Shows | null
}

/** Ohms of a good board without a reference, CPU out and in (bench default). */
const goodOhms: Readonly<Record<UsualRail, readonly [out: number, inside: number]>> = {
  '12v': [480, 460],
  '5v': [310, 300],
  '3v3': [265, 250],
  standby: [720, 700],
  vcore: [6.4, 1.1],
  vmem: [221, 190],
  vsys: [38, 9],
}

/** FNV-1a of some words: a seed of its own for each question at each place of the tape. */
function seedOf(...words: readonly (string | number)[]): number {
  let hash = 0x811c9dc5
  for (const letter of words.join('\n')) hash = Math.imul(hash ^ letter.charCodeAt(0), 0x01000193)
  return hash >>> 0
}

/**
 * A board with hidden faults, seen only through instruments. What each shows follows from the start model: the faults
 * that are left decide where a start stops, the stage decides what is seen, and a reading lies where its outcome does,
 * with noise. The same question at the same line of the tape always has the same answer.
 */
export class SimulatedBoard implements Meter, Supply, CodeReader, Senses {
  private readonly left: readonly FaultId[]

  /** @param line of the tape at which it is asked: a later look is a new draw of the noise */
  constructor(
    private readonly hidden: Hidden,
    mended: readonly FaultId[],
    private readonly line: number,
  ) {
    this.left = hidden.faults.filter((id) => !mended.includes(id))
  }

  private get shown() {
    return this.hidden.shows?.shown ?? {}
  }

  private get own(): readonly OwnRail[] {
    return ownRailsOf(this.hidden.rails)
  }

  /** The rail of its own that is shorted; null where none is. */
  private badOwn(): Rail | null {
    if (!this.left.includes('other rail short') || this.own.length === 0) return null
    const at = seedOf(this.hidden.seed, 'which rail') % this.own.length
    return this.own[at]!.rail
  }

  /** Rails that can be measured on it. */
  get rails(): readonly Rail[] {
    return railsOf(this.own)
  }

  private draw(what: string): Uniform {
    return seeded(seedOf(this.hidden.seed, this.line, what))
  }

  /** Carries a test of the reasoner's list out. @throws RangeError for a test that is not in the list */
  carryOut(id: string): string {
    const test = testsOf(this.shown).find((t) => t.id === id) ?? testOf(id)
    return test.outcomes[pick(test.odds(this.left), this.draw(id))]!
  }

  /** Whether it comes to a picture. */
  starts(limitA: number | null = null): boolean {
    return hasPicture(this.powerUp(limitA))
  }

  /** Quarter of an hour under load, by its own sensor: hot where the cooler or the mounting is at fault. */
  temperature(): KeptTemperature {
    const machine = { ...drawMachine(seedOf(this.hidden.seed, 'machine') % 100_000), watts: 65 }
    const [mount, fins, room] = machine.passes
    const poor = this.left.includes('cooling') || this.left.includes('pressure')
    const passes = [poor ? 0.9 : Math.max(4, mount), Math.max(4, fins), Math.max(9, room)] as const
    const log = logOf({ ...machine, passes }, seedOf(this.hidden.seed, this.line, 'sensor') % 100_000, 900)
    const rows = log.map(({ s, c }) => ({ s: String(s), c: String(c) }))
    return keptTemperature('simulated sensor', readTemperature(rows, temperatureColumns).log!)
  }

  private stage(): number {
    return pick(stopsIn(this.left, asItCame), this.draw('start'))
  }

  ohms(rail: Rail, cpu: 'in' | 'out'): number {
    const outcome = isUsual(rail)
      ? this.carryOut(`ohms ${rail}`)
      : rail === this.badOwn()
        ? this.carryOut('ohms other')
        : 'good'
    const draw = this.draw(`ohms of ${rail}`)
    const good = this.hidden.rails?.rails[rail]
    const usual = isUsual(rail) ? goodOhms[rail][cpu === 'in' ? 1 : 0] : (good?.ohmsOut ?? 200)
    const base = (cpu === 'in' ? good?.ohmsIn : good?.ohmsOut) ?? usual
    const { short, low: lowest } = limitsOf(rail, cpu, this.own)
    const low = Math.min(lowest, 0.4 * base)
    const ohms =
      outcome === 'short'
        ? short * (0.1 + 0.75 * draw())
        : outcome === 'low'
          ? short * 1.1 + (low - short * 1.1) * (0.2 + 0.6 * draw())
          : base * Math.exp(0.05 * normalDraw(draw))
    return figures(ohms)
  }

  volts(rail: Rail): number {
    const draw = this.draw(`volts of ${rail}`)
    const should = this.hidden.rails?.rails[rail]?.volts ?? (isUsual(rail) ? usualVolts[rail] : 1)
    const missing = isUsual(rail)
      ? this.carryOut(`volts ${rail}`) === 'missing'
      : rail === this.badOwn() || this.stage() <= stages.indexOf('rails')
    return Number((should * (missing ? 0.15 * draw() : 1 + 0.012 * normalDraw(draw))).toFixed(2))
  }

  cell(where: 'by itself' | 'at the board', isNew: boolean): number {
    const test = where === 'by itself' ? 'cell' : isNew ? 'new cell under load' : 'cell under load'
    const draw = this.draw('cell volts')
    const low = this.carryOut(test) === 'low' && !(isNew && where === 'by itself')
    return Number((low ? 1.6 + 1.1 * draw() : 3.02 + 0.05 * normalDraw(draw)).toFixed(2))
  }

  powerUp(limitA: number | null): Baseline {
    const stage = this.stage()
    const draw = this.draw('power-up')
    const seen = <T extends string>(table: Readonly<Record<string, readonly number[]>>) => {
      const words = Object.keys(table)
      return words[
        pick(
          words.map((w) => table[w]![stage]!),
          draw,
        )
      ] as T
    }
    const picture = seen<Baseline['picture']>(startTables.picture)
    const fans = picture === 'none' ? seen<Baseline['fans']>(startTables.fans) : 'on'
    const current = this.pattern()
    const on = { none: 0, standby: 0.06, steady: 0.5 + 0.12 * stage, cycling: 0.6, trips: 2.8 }[current]
    return {
      ...nothingNoted,
      fans,
      current,
      amps: Number(Math.min(limitA ?? Infinity, on * (1 + 0.03 * normalDraw(draw))).toFixed(2)),
      lamp:
        this.shown['debug LEDs'] === false
          ? 'not noted'
          : fans === 'on'
            ? seen<Baseline['lamp']>(startTables.lamp)
            : 'none',
      cpuHeat: seen<Baseline['cpuHeat']>(startTables.cpuHeat),
      codes: [...this.codes().codes].slice(-6),
      picture,
    }
  }

  private pattern() {
    const words = Object.keys(startTables.current) as (keyof typeof startTables.current)[]
    const stage = this.stage()
    const at = pick(
      words.map((w) => startTables.current[w]![stage]!),
      this.draw('current'),
    )
    return words[at] as 'none' | 'standby' | 'steady' | 'cycling' | 'trips'
  }

  /** Sixty seconds at 100 samples a second: mains on, the button at 6 s. */
  current(limitA: number | null): Trace {
    const draw = this.draw('trace')
    const stage = this.stage()
    const pattern = this.pattern()
    const leaks = this.left.some((id) => id === 'standby rail short') ? 4 : 1
    const standby = pattern === 'none' ? 0 : 0.055 * leaks * Math.exp(0.08 * normalDraw(draw))
    const plateau = 0.5 + 0.12 * stage
    const periodS = 1.2 + 4 * draw() + 0.4 * stage
    const level = (s: number): number => {
      if (s < 6 || pattern === 'none' || pattern === 'standby') return standby
      const since = s - 6
      if (pattern === 'trips') return since < 0.2 ? 3.2 : since < 3 ? 0.004 : standby * 0.5
      if (pattern === 'cycling') return since % periodS < 0.45 * periodS ? plateau : standby + 0.03
      if (since < 0.4) return 2.2 * plateau
      // Each stage that is reached draws a little more; training and running are uneven.
      const reached = Math.min(plateau, 0.5 + 0.12 * Math.min(stage, 3 + since / 2.5))
      return reached + (stage >= 7 ? 0.04 * Math.sin(since * 1.7) : 0)
    }
    const seconds = Float64Array.from({ length: 6000 }, (_, i) => i / 100)
    const amps = seconds.map((s) => Math.min(limitA ?? 60, Math.max(0, level(s) + 0.006 * normalDraw(draw))))
    return { seconds, amps: amps.map((a) => Number(a.toFixed(4))) }
  }

  codes(): CodesSeen {
    const stage = this.stage()
    const draw = this.draw('codes')
    const table = this.hidden.codes?.codes ?? []
    const shows = draw() < startTables.codes.some![stage]!
    const run = shows && showsCodes(this.shown) ? table.filter((c) => stages.indexOf(c.stage) <= stage) : []
    const round = [...run].sort((a, b) => stages.indexOf(a.stage) - stages.indexOf(b.stage))
    const rounds = run.length > 1 && this.pattern() === 'cycling' ? 4 : 1
    const codes: string[] = []
    const atS: number[] = []
    let s = 0.6 + draw()
    for (let i = 0; i < rounds; i++)
      for (const c of round) {
        codes.push(c.code)
        atS.push(Number(s.toFixed(1)))
        s += Math.min(c.restS, 3) * (0.2 + 0.5 * draw()) + 0.3
      }
    const last = round.at(-1)
    return { codes, atS, watchedS: Math.ceil(s + 1.4 * (last?.restS ?? 20)) }
  }

  /** All its rails, as they are measured one after another. */
  allOhms(
    cpu: 'in' | 'out',
  ): readonly { readonly rail: Rail; readonly ohms: number; readonly cpu: 'in' | 'out' }[] {
    return this.rails.map((rail) => ({ rail, ohms: this.ohms(rail, cpu), cpu }))
  }
}

/** Three figures, as a meter shows them. */
const figures = (value: number): number => Number(value.toPrecision(3))

// A board as the bench knows it, written from what its parts do and not from the reasoner's start model: the second judge.
import type { Uniform } from '@/core/maths/seeded'
import type { BenchTest } from '@/core/triage/model/bench-test'
import { asItCame } from '@/core/triage/model/setup'
import type { Setup } from '@/core/triage/model/setup'
import type { BoardOnBench } from '@/core/triage/reason/board-on-bench'
import type { FaultId } from '@/core/triage/model/faults'
import { BOOT, CPU, FETCH, GOOD, MEMORY, parts, RAILS, REQUEST, RESET, RUNS, STANDBY } from './second-parts'

/** What is otherwise in this world than the reasoner takes it for; each is an arm of its own. */
export interface World {
  /** Chance that a start shows what the last one of the same set-up showed. */
  readonly likeness: number
  /** Chance that one of this board's lamps means another stage. */
  readonly lampError: number
  /** What was cleared, waited out, seated or changed stays so. */
  readonly curesLast: boolean
  /** Chance that a repair does not take. */
  readonly repairFails: number
  /** Chance that modules are not home after they were moved. */
  readonly benchMakes: number
  /** Chance that what is wrong stands in no list. */
  readonly outside: number
  /** Chance that a reading is noted as another. */
  readonly misread: number
  /** How far the log-odds of this board's figures lie from the usual, either way. */
  readonly off: number
}

/** How often a look finds what is not there. */
const FALSE_ALARM = 0.02

type Picked<T> = readonly (readonly [T, number])[]
function pick<T>(draw: Uniform, from: Picked<T>): T {
  let u = draw() * from.reduce((sum, [, w]) => sum + w, 0)
  for (const [value, weight] of from) if ((u -= weight) <= 0) return value
  return from.at(-1)![0]
}

/** What each stop looks like on a board whose lamps are in order: fans, then the lamp. */
const looksLike: readonly Picked<string>[] = [
  [
    ['nothing', 0.96],
    ['twitches', 0.04],
  ],
  [
    ['nothing', 0.75],
    ['twitches', 0.22],
    ['fans, no lamp', 0.03],
  ],
  [
    ['nothing', 0.25],
    ['twitches', 0.5],
    ['fans, no lamp', 0.2],
    ['CPU lamp', 0.05],
  ],
  [
    ['nothing', 0.05],
    ['twitches', 0.2],
    ['fans, no lamp', 0.42],
    ['CPU lamp', 0.33],
  ],
  [
    ['twitches', 0.06],
    ['fans, no lamp', 0.3],
    ['CPU lamp', 0.64],
  ],
  [
    ['fans, no lamp', 0.22],
    ['CPU lamp', 0.76],
    ['memory lamp', 0.02],
  ],
  [
    ['fans, no lamp', 0.1],
    ['CPU lamp', 0.7],
    ['memory lamp', 0.18],
    ['maker screen', 0.02],
  ],
  [
    ['fans, no lamp', 0.07],
    ['CPU lamp', 0.06],
    ['memory lamp', 0.85],
    ['maker screen', 0.02],
  ],
  [
    ['fans, no lamp', 0.07],
    ['memory lamp', 0.04],
    ['graphics lamp', 0.8],
    ['maker screen', 0.09],
  ],
  [
    ['boot lamp', 0.1],
    ['maker screen', 0.88],
    ['fans, no lamp', 0.02],
  ],
  [
    ['system loads', 0.92],
    ['maker screen', 0.06],
    ['fans, no lamp', 0.02],
  ],
]
const lamps = ['CPU lamp', 'memory lamp', 'graphics lamp', 'boot lamp']

/** What is lastingly changed by a test. */
const lasting: Readonly<Record<string, Partial<Setup>>> = {
  'settings cleared': { settings: 'cleared' },
  'new cell': { cell: 'new', settings: 'cleared' },
  trained: { wait: 'out' },
  reseated: { seat: 'reseated' },
  eased: { seat: 'eased' },
}
/** Tests for which modules are moved, and put back as they stood before the board is judged again. */
const movesModules = /^(no memory|own in B|good in)/

const comesUp: Readonly<Record<string, number>> = {
  standby: STANDBY,
  '12v': REQUEST,
  '5v': REQUEST,
  '3v3': REQUEST,
  vcore: RAILS,
  vmem: RAILS,
  vsys: RAILS,
}

/** A board of this world: what is wrong with it, how it shows that, and what is done to it. */
export class SecondBoard implements BoardOnBench {
  /** What is wrong and can be named; what stands in no list is `unknown`. */
  readonly wrong: FaultId[]
  private readonly unknown: number | null
  get unlisted(): boolean {
    return this.unknown !== null
  }
  private readonly moods = new Map<string, boolean>()
  private readonly shifts = new Map<string, number>()
  private readonly odd: readonly [lamp: string, means: string] | null
  private readonly putRight = new Set<FaultId>()
  private stays: Partial<Setup> = {}

  constructor(
    private readonly world: World,
    private readonly draw: Uniform,
    faults: readonly FaultId[],
  ) {
    const stranger = draw() < world.outside
    this.unknown = stranger ? Math.floor(draw() * BOOT) : null
    this.wrong = stranger ? [] : [...faults]
    const at = Math.floor(draw() * lamps.length)
    this.odd =
      draw() < world.lampError ? [lamps[at]!, lamps[(at + 1 + Math.floor(draw() * 3)) % lamps.length]!] : null
  }

  /** A chance as it is on this board: its log-odds lie up to `off` from the usual, once and for all. */
  private chance(key: string, p: number): boolean {
    let shift = this.shifts.get(key)
    if (shift === undefined) this.shifts.set(key, (shift = this.world.off * (2 * this.draw() - 1)))
    const safe = Math.min(1 - 1e-6, Math.max(1e-6, p))
    return this.draw() < 1 / (1 + Math.exp(-Math.log(safe / (1 - safe)) - shift))
  }

  /** Whether a fault keeps this start back; starts of one set-up are alike with the world's likeness. */
  private keepsBack(fault: FaultId, setup: Setup): boolean {
    const { blocks, out } = parts[fault]
    if (out?.(setup)) return false
    const key = `${fault} ${Object.values(setup).join()}`
    const last = this.moods.get(key)
    if (last !== undefined && this.draw() < this.world.likeness) return last
    const mood = this.chance(`blocks ${fault}`, blocks)
    this.moods.set(key, mood)
    return mood
  }

  /** The stage a start of this set-up stops in. */
  private start(asked: Setup): number {
    const setup = { ...asked, ...this.stays, ...changed(asked) }
    let stop = RUNS
    const upTo = (at: number) => (stop = Math.min(stop, at))
    if (setup.cpu === 'none') upTo(FETCH)
    if (setup.memory === 'none') upTo(MEMORY)
    if (setup.drive === 'none') upTo(BOOT)
    if (this.unknown !== null) upTo(this.unknown)
    for (const fault of this.wrong) if (this.keepsBack(fault, setup)) upTo(parts[fault].at)
    return stop
  }

  private looks(stop: number): string {
    const seen = pick(this.draw, looksLike[stop]!)
    return this.odd && seen === this.odd[0] ? this.odd[1] : seen
  }

  /** What a test shows; what it changes stays changed where cures last. */
  see(test: BenchTest): string {
    const notHome = this.wrong.includes('module seat')
    // Seated anew before the start, or after it when they go back: home now, or not.
    if (test.id === 'memory reseated') this.seatModules()
    const outcome = this.outcomeOf(test)
    if (movesModules.test(test.id)) this.seatModules()
    if (!this.world.curesLast && notHome && !this.wrong.includes('module seat'))
      this.wrong.push('module seat')
    if (this.world.curesLast && lasting[test.id]) {
      this.stays = { ...this.stays, ...lasting[test.id] }
      // What was cured by it is gone for good.
      for (const fault of [...this.wrong])
        if (parts[fault].out?.({ ...test.setup, ...this.stays }) && cured.has(fault)) this.gone(fault)
    }
    if (this.draw() >= this.world.misread) return outcome
    const others = test.outcomes.filter((o) => o !== outcome)
    return others[Math.floor(this.draw() * others.length)]!
  }

  private seatModules(): void {
    if (this.wrong.includes('module seat')) this.gone('module seat')
    if (this.draw() < this.world.benchMakes) this.wrong.push('module seat')
  }

  private outcomeOf(test: BenchTest): string {
    const { id, outcomes } = test
    if (id.startsWith('ohms ')) return this.ohms(id.slice(5))
    if (id.startsWith('volts ')) {
      const rail = id.slice(6)
      const off = this.wrong.some((f) => parts[f].rail?.[0] === rail)
      const comes = this.start(test.setup) > comesUp[rail]!
      return this.chance(`volts ${rail}`, off ? 0.96 : comes ? 0.02 : 0.95) ? 'missing' : 'there'
    }
    if (outcomes.includes('system loads')) return this.looks(this.start(test.setup))
    const probed = probes[id]
    if (probed) return pick(this.draw, probed(this.start(test.setup)))
    for (const fault of this.wrong) {
      const seen = parts[fault].seen?.[id]
      if (!seen || (id === 'settings kept' && this.stays.cell === 'new' && fault === 'cell weak')) continue
      if (this.chance(`${id} ${fault}`, seen[1])) return outcomes.includes(seen[0]) ? seen[0] : outcomes[0]!
    }
    const clear = outcomes.at(-1)!
    if (this.draw() >= FALSE_ALARM) return clear
    return outcomes[Math.floor(this.draw() * (outcomes.length - 1))]!
  }

  private ohms(rail: string): string {
    const is = this.wrong.map((f) => parts[f].rail).filter((r) => r?.[0] === rail)
    if (is.some((r) => r![1] === 'short'))
      return pick(this.draw, [
        ['short', 0.82],
        ['low', 0.16],
        ['good', 0.02],
      ])
    if (is.length > 0)
      return pick(this.draw, [
        ['good', 0.82],
        ['low', 0.13],
        ['short', 0.05],
      ])
    return pick(this.draw, [
      ['good', 0.98],
      ['low', 0.016],
      ['short', 0.004],
    ])
  }

  mend(fault: FaultId): boolean {
    const there = this.wrong.includes(fault)
    if (there && this.draw() >= this.world.repairFails) this.gone(fault)
    return there || this.putRight.has(fault)
  }

  private gone(fault: FaultId): void {
    this.wrong.splice(this.wrong.indexOf(fault), 1)
    this.putRight.add(fault)
  }
}

/** What a test puts right for good by what it does. */
const cured: ReadonlySet<FaultId> = new Set([
  'settings',
  'training',
  'cell weak',
  'CPU seat',
  'pressure',
  'cooling',
])

/** What a test changes of the set-up, beside what stands already. */
const changed = (setup: Setup): Partial<Setup> =>
  Object.fromEntries(Object.entries(setup).filter(([k, v]) => v !== asItCame[k as keyof Setup]))

const yes = (first: string, p: number, second: string): Picked<string> => [
  [first, p],
  [second, 1 - p],
]
/** What is read of a start while it is powered, by where it stops. */
const probes: Readonly<Record<string, (stop: number) => Picked<string>>> = {
  'standby current': (s) => yes('none', s > STANDBY ? 0.02 : 0.8, 'as it should be'),
  current: (s) =>
    s > MEMORY
      ? [
          ['steady', 0.95],
          ['cycles', 0.04],
          ['nothing', 0.01],
        ]
      : s > FETCH
        ? [
            ['steady', 0.6],
            ['cycles', 0.38],
            ['trips', 0.02],
          ]
        : s > RAILS
          ? [
              ['steady', 0.72],
              ['cycles', 0.2],
              ['trips', 0.05],
              ['nothing', 0.03],
            ]
          : s > REQUEST
            ? [
                ['trips', 0.5],
                ['nothing', 0.18],
                ['cycles', 0.17],
                ['steady', 0.15],
              ]
            : [
                ['nothing', 0.95],
                ['steady', 0.03],
                ['trips', 0.02],
              ],
  warmth: (s) => yes('cold', s > FETCH ? 0.08 : s > RESET ? 0.42 : s > RAILS ? 0.68 : 0.98, 'warm'),
  codes: (s) =>
    s > MEMORY
      ? [
          ['late', 0.9],
          ['memory', 0.06],
          ['none', 0.04],
        ]
      : s > CPU
        ? [
            ['memory', 0.88],
            ['early', 0.06],
            ['none', 0.06],
          ]
        : s > FETCH
          ? [
              ['early', 0.82],
              ['none', 0.13],
              ['memory', 0.05],
            ]
          : [
              ['none', 0.94],
              ['early', 0.05],
              ['memory', 0.01],
            ],
  reset: (s) =>
    s > CPU
      ? [
          ['released once', 0.94],
          ['toggles', 0.05],
          ['held', 0.01],
        ]
      : s > RESET
        ? [
            ['released once', 0.58],
            ['toggles', 0.4],
            ['held', 0.02],
          ]
        : [
            ['held', 0.96],
            ['released once', 0.03],
            ['toggles', 0.01],
          ],
  'power-good': (s) => yes('missing', s > GOOD ? 0.02 : 0.94, 'there'),
  'chip selected': (s) =>
    s > FETCH
      ? [
          ['read once', 0.92],
          ['read and read again', 0.06],
          ['silent', 0.02],
        ]
      : s > RESET
        ? [
            ['read and read again', 0.7],
            ['read once', 0.18],
            ['silent', 0.12],
          ]
        : [
            ['silent', 0.96],
            ['read once', 0.03],
            ['read and read again', 0.01],
          ],
  'fans settle': (s) =>
    s > CPU
      ? [
          ['settle', 0.9],
          ['full speed', 0.1],
        ]
      : s > GOOD
        ? [
            ['full speed', 0.62],
            ['settle', 0.38],
          ]
        : s > REQUEST
          ? [
              ['do not turn', 0.5],
              ['full speed', 0.3],
              ['settle', 0.2],
            ]
          : [
              ['do not turn', 0.96],
              ['settle', 0.04],
            ],
  beeps: (s) => yes('silent', s > CPU ? 0.08 : 0.96, 'beeps or memory code'),
}

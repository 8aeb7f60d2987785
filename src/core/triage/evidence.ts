import { rails } from '../job/entry'
import type { Baseline, Rail } from '../job/entry'
import { railState } from '../job/power-gate'
import { currentPass } from '../job/state'
import type { JobState } from '../job/state'
import { functionLaw } from '../socket/function-law'
import { isDamage } from '../socket/mark'
import { shorts } from '../socket/short'
import { fieldOf } from '../socket/socket'
import type { FunctionGroup, Socket } from '../socket/socket'
import { faultIds } from './fault'
import type { FaultId } from './fault'
import type { Evidence } from './odds'
import { testOf } from './odds'
import { cellState } from './stage'

/** Volts a rail should have, and the share below which it counts as missing (bench default). */
const usualVolts: Readonly<Record<Rail, number>> = {
  '12v': 12,
  '5v': 5,
  '3v3': 3.3,
  standby: 5,
  vcore: 1.1,
  vmem: 1.2,
  vsys: 1,
}
const MISSING_SHARE = 0.3

export interface Dated extends Evidence {
  /** Line of the tape it comes from. */
  readonly seq: number
}

/** What a power-up comes to, or null when too little of it was noted. */
export function startOutcome(b: Baseline): string | null {
  if (b.picture === 'maker screen' || b.picture === 'system loads') return b.picture
  if (b.fans === 'off') return 'nothing'
  if (b.fans === 'twitch') return 'twitches'
  if (b.lamp === 'not noted') return null
  return b.lamp === 'none' ? 'fans, no lamp' : `${b.lamp === 'cpu' ? 'CPU' : b.lamp} lamp`
}

const currentSays = {
  none: 'nothing',
  standby: 'nothing',
  steady: 'steady',
  cycling: 'cycles',
  trips: 'trips',
} as const

/** What was found by looking, in the words of the tests; null when it says nothing the reasoner knows. */
function lookSays(
  what: string,
  seen: string,
  clear: boolean,
): readonly [test: string, outcome: string] | null {
  if (what === 'outside of the board') {
    if (clear) return ['outside', 'clear']
    if (/burn|scorch/i.test(seen)) return ['outside', 'scorched at a rail']
    if (/cell|holder/i.test(seen)) return ['outside', 'cell holder green']
    if (/missing|gone/i.test(seen)) return ['outside', 'a part missing']
  }
  if (what === 'round the firmware chip') {
    if (clear) return ['round the chip', 'clear']
    return ['round the chip', /resistor/i.test(seen) ? 'a resistor gone' : 'another part gone']
  }
  if (what === 'wiring, supply, cooler') {
    if (clear) return ['front wiring', 'right']
    if (/cooler|pump/i.test(seen)) return ['outside', 'cooler loose']
  }
  return null
}

const offSays: Readonly<Partial<Record<FunctionGroup, string>>> = {
  sense: 'sense contact off',
  control: 'control contact off',
  clock: 'control contact off',
  reset: 'control contact off',
  'memory A': 'memory A contact off',
  'memory B': 'memory B contact off',
  display: 'display contact off',
  'card lanes': 'card contacts off',
}
/** The gravest first: what a single look at the map is told by. */
const gravity = { danger: 0, dead: 1, function: 2, width: 3, nothing: 4 } as const

/** What the map of the socket says as one look over it; null while too little of it was looked at. */
export function mapSays(state: JobState, socket: Socket | null): string | null {
  const pass = currentPass(state)
  if (!socket || !pass) return null
  const { named } = fieldOf(socket)
  const grave = shorts(socket, pass.marks).filter((s) => s.odds > 0.5 && s.grade !== 'harmless')
  if (grave.some((s) => s.grade === 'gravest')) return 'power contacts touch'
  if (grave.length > 0) return 'signal contacts touch'
  const groups = Object.entries(pass.found).flatMap(([name, mark]) =>
    isDamage(mark) ? [named.get(name)?.group ?? 'unknown'] : [],
  )
  const worst = groups
    .filter((g) => offSays[g])
    .sort((a, b) => gravity[functionLaw[a].effect] - gravity[functionLaw[b].effect])[0]
  if (worst) return offSays[worst]!
  const power = groups.filter((g) => functionLaw[g].kind === 'parallel').length
  if (power >= 8) return 'power contacts open'
  const looked = socket.contacts.filter((c) => pass.looked[c.name]).length
  return looked >= socket.contacts.length * 0.98 ? 'clear' : null
}

/**
 * The tape as evidence of the reasoner: readings, power-ups, looks, the map and the tests carried out, each with what
 * had been mended by then. Of the same test between two mends only the last counts. Limits: a power-up is taken as
 * made with the board as it came; of a map only its gravest finding counts.
 */
export function evidenceOf(state: JobState, socket: Socket | null): Dated[] {
  const mends = state.mended.filter((m): m is typeof m & { fault: FaultId } =>
    faultIds.includes(m.fault as FaultId),
  )
  const found = new Map<string, Dated>()
  const put = (seq: number, test: string, outcome: string) => {
    const mended = mends.filter((m) => m.seq < seq).map((m) => m.fault)
    const key = `${test} after ${mended.length}`
    if ((found.get(key)?.seq ?? -1) <= seq) found.set(key, { seq, test, outcome, mended })
  }
  for (const reading of state.railLog) put(reading.seq, `ohms ${reading.rail}`, railState(reading))
  for (const rail of rails) {
    const reading = state.volts[rail]
    if (reading)
      put(
        reading.seq,
        `volts ${rail}`,
        Math.abs(reading.volts) < usualVolts[rail] * MISSING_SHARE ? 'missing' : 'there',
      )
  }
  for (const cell of state.cellLog)
    put(cell.seq, 'cell', cellState(cell.volts).state === 'good' ? 'good' : 'low')
  for (const look of state.looks) {
    const said = lookSays(look.what, look.seen, look.clear)
    if (said) put(look.seq, ...said)
  }
  for (const b of state.baselines) {
    const outcome = startOutcome(b)
    if (outcome) put(b.seq, 'as it came', outcome)
    if (b.current !== 'not noted') put(b.seq, 'current', currentSays[b.current])
    if (b.cpuHeat !== 'not noted') put(b.seq, 'warmth', b.cpuHeat === 'cold' ? 'cold' : 'warm')
  }
  for (const seat of state.seats) put(seat.seq, 'CPU proud', seat.drop === 'flat' ? 'flush' : 'proud')
  const map = mapSays(state, socket)
  if (map) put(state.lastMapped, 'socket', map)
  for (const trial of state.trials)
    if (testOf(trial.test).outcomes.includes(trial.outcome)) put(trial.seq, trial.test, trial.outcome)
  return [...found.values()].sort((a, b) => a.seq - b.seq)
}

import type { ProofState } from './slice'
import type { FunctionGroup } from '../board/function-group'
import type { Touched } from '../board/station-says'
import { CERTAIN, coldStartsFor, shareOf } from './cold-starts'
import type { StartsCounted } from './cold-starts'
import { sayTemperature, verdictOf } from './temperature'

/** One thing to prove before hand-back. */
export interface ProofTest {
  readonly id: string
  readonly test: string
  readonly why: string
  readonly limit: string
  readonly minutes: number
  /** Cold starts: how many clean ones. */
  readonly starts?: number
}

const settingsKept = (t: Touched) =>
  [
    'settings',
    'Clock and settings kept over ten minutes without mains',
    t.cell ? 'the cell was at fault or changed' : 'firmware was changed',
    'time and settings are kept',
    12,
  ] as const

/** A new cell and nothing else that was touched or came and went: it owes no hour of load. */
const onlyTheCell = ({ cellAlone, contacts, groups, firmware, parts, intermittent }: Touched): boolean =>
  cellAlone && contacts === 0 && groups.length === 0 && !firmware && !parts && !intermittent

/** The list of what has to be proved, from the functions that were damaged or touched. */
export function proofPlan(t: Touched): ProofTest[] {
  const tests: ProofTest[] = []
  const add = (id: string, test: string, why: string, limit: string, minutes: number) =>
    tests.push({ id, test, why, limit, minutes })
  const addStarts = (starts: number, why: string) =>
    tests.push({
      id: 'cold starts',
      test: `${starts} cold starts, mains off a minute before each`,
      why,
      limit: `${starts} of ${starts} reach the picture`,
      minutes: starts * 3,
      starts,
    })
  if (onlyTheCell(t)) {
    addStarts(2, 'the cell was changed, and nothing else')
    add(...settingsKept(t))
    return tests
  }
  const has = (...groups: FunctionGroup[]) => groups.some((g) => t.groups.includes(g))
  addStarts(
    coldStartsFor(CERTAIN, shareOf(t.intermittent)),
    t.intermittent ? 'the fault came and went' : 'one lucky start proves little',
  )
  add(
    'temperature',
    'Temperature under load for 15 minutes',
    'mounting and power contacts',
    'levels off well below the limit',
    15,
  )
  add(
    'memory amount',
    'One module, then two: amount and dual channel',
    has('memory A', 'memory B', 'memory power')
      ? 'memory contacts were touched'
      : 'half-seen memory is easily missed',
    'the full amount, dual channel',
    6,
  )
  if (has('memory A'))
    add(
      'memory A slots',
      'A module in each slot of channel A',
      'contacts of channel A were damaged',
      'each slot seen at rated speed',
      8,
    )
  if (has('memory B'))
    add(
      'memory B slots',
      'A module in each slot of channel B',
      'contacts of channel B were damaged',
      'each slot seen at rated speed',
      8,
    )
  if (has('memory A', 'memory B', 'memory power'))
    add('memory test', 'Memory test, one pass', 'a weak contact shows under load', 'no error', 20)
  if (has('card lanes'))
    add(
      'card width',
      'A card in the slot: link width read out',
      'card-lane contacts were damaged',
      'full width',
      5,
    )
  if (has('storage lanes'))
    add(
      'storage ports',
      'A drive on each port',
      'storage contacts were damaged',
      'each port sees the drive',
      6,
    )
  if (has('display'))
    add(
      'own graphics',
      'Picture from the CPU’s own graphics',
      'display contacts were damaged',
      t.ownGraphics ? 'picture on each output' : 'needs a CPU with graphics',
      4,
    )
  if (has('core power', 'io power', 'ground'))
    add(
      'load',
      'All cores under load for 20 minutes',
      'power or ground contacts were damaged',
      'no error, no restart',
      20,
    )
  if (has('sense'))
    add(
      'core volts',
      'Core volts at rest and under load',
      'a voltage-sense contact was damaged',
      'within 5 % of what is asked for',
      5,
    )
  if (has('control', 'reset', 'clock'))
    add('restart', 'Restart from the system, five times', 'a control contact was damaged', 'five of five', 8)
  if (has('reserved', 'unknown'))
    add(
      'ports',
      'Network, USB and sound, one of each',
      'contacts without a known function were damaged',
      'each works',
      6,
    )
  if (t.firmware)
    add(
      'version',
      'Version shown after a start with mains off',
      'firmware was changed',
      'the version that was meant',
      3,
    )
  if (t.cell || t.firmware) add(...settingsKept(t))
  if (t.parts)
    add(
      'continuity',
      'Continuity from pin to far end of each part fitted',
      'small parts were fitted',
      'below 1 Ω, or the part’s value',
      5,
    )
  add(
    'system',
    'An operating system loads',
    'the owner needs more than a POST',
    'desktop or log-in appears',
    5,
  )
  return tests
}

/** A test and how it stands; one proved before the last change to socket or parts is owed again. */
export interface StandingTest extends ProofTest {
  readonly result: 'pass' | 'fail' | 'cannot run here' | null
  readonly reading: string
  readonly again: boolean
  /** Cold starts made since anything could have undone them. */
  readonly counted?: StartsCounted
}

export interface ProofStanding {
  readonly tests: readonly StandingTest[]
  readonly owed: number
  readonly failed: number
}

/** Line of each kind of change that could have undone a test. */
export interface ChangedAt {
  /** Of socket or parts: it undoes every test. */
  readonly lastTouched: number
  readonly changed: Readonly<Record<'firmware' | 'cpu' | 'cell', number>>
}

/** Tests that another CPU, other firmware or another cell could undo; a change to socket or parts undoes them all. */
const undoes: Readonly<Record<keyof ChangedAt['changed'], (test: string) => boolean>> = {
  firmware: (test) => test !== 'continuity',
  cpu: (test) => !['continuity', 'settings', 'version'].includes(test),
  cell: (test) => ['settings', 'cold starts'].includes(test),
}

/** Line of the last change that could have undone a test. */
const undoneAt = (test: string, { changed, lastTouched }: ChangedAt): number =>
  Math.max(
    lastTouched,
    ...(Object.keys(undoes) as (keyof typeof undoes)[])
      .filter((what) => undoes[what](test))
      .map((what) => changed[what]),
  )

/** What a temperature log says of its test; one that does not tell yet leaves it owed. */
const temperatureSays = { 'levels off': 'pass', 'too hot': 'fail', 'not yet': null } as const

/** Cold starts since a line of the tape. */
function countedSince(starts: ProofState['starts'], line: number): StartsCounted {
  const since = starts.filter((s) => s.seq > line)
  return {
    made: since.length,
    failed: since.filter((s) => !s.came).length,
  }
}

/** What is owed of a plan, by the results so far, the starts that were counted and what was changed since. */
export function standingOf(
  planned: readonly ProofTest[],
  { results, starts, temperatures }: Pick<ProofState, 'results' | 'starts' | 'temperatures'>,
  changed: ChangedAt,
): ProofStanding {
  const tests = planned.map((test): StandingTest => {
    const undone = undoneAt(test.id, changed)
    const done = results[test.id]
    if (test.starts !== undefined) {
      // Counted anew from what was said of all of them together; those are whole or owed by what was said then.
      const counted = countedSince(starts, Math.max(undone, done?.seq ?? 0))
      const { made, failed } = counted
      const result = failed > 0 ? 'fail' : made >= test.starts ? 'pass' : null
      if (made > 0 && (result !== null || !done || done.seq < undone))
        return { ...test, result, reading: `${made - failed} of ${made}`, again: false, counted }
    }
    const log = test.id === 'temperature' ? temperatures.at(-1) : undefined
    if (log && log.seq > Math.max(undone, done?.seq ?? 0))
      return { ...test, result: temperatureSays[verdictOf(log)], reading: sayTemperature(log), again: false }
    if (!done) return { ...test, result: null, reading: '', again: false }
    const again = done.seq < undone
    return { ...test, result: again ? null : done.result, reading: done.reading, again }
  })
  return {
    tests,
    owed: tests.filter((t) => t.result === null).length,
    failed: tests.filter((t) => t.result === 'fail').length,
  }
}

/** Tests that are made without power. */
const unpowered: ReadonlySet<string> = new Set(['continuity'])
export const isUnpowered = (test: string): boolean => unpowered.has(test)

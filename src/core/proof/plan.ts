import type { ProofState } from './slice'
import type { FunctionGroup } from '../board/function-group'
import { voltsOf } from '../board/proved'
import type { Proved } from '../board/proved'
import { sayRail } from '../board/rail'
import type { Rail } from '../board/rail'
import type { ShelfItem } from '../board/shelf-items'
import type { Touched } from '../board/station-says'
import { CERTAIN, coldStartsFor, shareOf } from './cold-starts'
import type { StartsCounted } from './cold-starts'
import { afterPass, anyBad, doubtsOf, findsSomething, inOrder, onlyTheCell } from './doubt'
import type { Doubts, Placed, Shows } from './doubt'
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
  /** What it needs that a shelf may lack. */
  readonly needs: readonly ShelfItem[]
  /** What it shows when it is bad, with the chance of it. */
  readonly shows: Shows
  /** Chance that it finds something, the tests before it having passed. */
  readonly finds: number
}

/** A test that can be part of a proof, and when a board owes it. */
interface Kind extends Placed {
  readonly test: string
  readonly limit: string
  readonly starts?: number
  readonly needs: readonly ShelfItem[]
  /** Why a board owes it; null where it does not. */
  readonly owed: (t: Touched, has: (...groups: FunctionGroup[]) => boolean) => string | null
}

const when = (is: boolean, why: string): string | null => (is ? why : null)

/** Every test of a proof by what it shows (chances: bench defaults). */
const kinds: readonly Kind[] = [
  {
    id: 'continuity',
    test: 'Continuity from pin to far end of each part fitted',
    limit: 'below 1 Ω, or the part’s value',
    minutes: 5,
    needs: ['meter'],
    shows: { joints: 0.85 },
    unpowered: true,
    owed: (t) => when(t.parts, 'small parts were fitted'),
  },
  {
    id: 'temperature',
    test: 'Temperature under load for 15 minutes',
    limit: 'levels off well below the limit',
    minutes: 15,
    needs: [],
    shows: { cooling: 0.95, 'core power': 0.5, ground: 0.4 },
    after: 'system',
    owed: () => 'mounting and power contacts',
  },
  {
    id: 'memory amount',
    test: 'One module, then two: amount and dual channel',
    limit: 'the full amount, dual channel',
    minutes: 6,
    needs: ['known-good module', 'second known-good module'],
    shows: { 'memory A': 0.8, 'memory B': 0.8, 'memory power': 0.4 },
    owed: (t, has) =>
      has('memory A', 'memory B', 'memory power')
        ? 'memory contacts were touched'
        : t.exchanged.includes('module')
          ? 'a module was exchanged'
          : 'half-seen memory is easily missed',
  },
  {
    id: 'memory A slots',
    test: 'A module in each slot of channel A',
    limit: 'each slot seen at rated speed',
    minutes: 8,
    needs: ['known-good module'],
    shows: { 'memory A': 0.95 },
    owed: (t, has) =>
      has('memory A')
        ? 'contacts of channel A were damaged'
        : when(repaired(t, 'memory A'), 'channel A was repaired'),
  },
  {
    id: 'memory B slots',
    test: 'A module in each slot of channel B',
    limit: 'each slot seen at rated speed',
    minutes: 8,
    needs: ['known-good module'],
    shows: { 'memory B': 0.95 },
    owed: (t, has) =>
      has('memory B')
        ? 'contacts of channel B were damaged'
        : when(repaired(t, 'memory B'), 'channel B was repaired'),
  },
  {
    id: 'memory test',
    test: 'Memory test, one pass',
    limit: 'no error',
    minutes: 20,
    needs: [],
    shows: { 'memory A': 0.9, 'memory B': 0.9, 'memory power': 0.8 },
    owed: (t, has) =>
      has('memory A', 'memory B', 'memory power')
        ? 'a weak contact shows under load'
        : when(t.exchanged.includes('module'), 'a module was exchanged'),
  },
  {
    id: 'CPU named',
    test: 'CPU named, with all its cores and its rated speed',
    limit: 'as on its lid',
    minutes: 2,
    needs: [],
    shows: { CPU: 0.9 },
    owed: (t) => when(t.exchanged.includes('CPU'), 'the CPU was exchanged'),
  },
  {
    id: 'card width',
    test: 'A card in the slot: picture and link width',
    limit: 'picture, and full width',
    minutes: 5,
    needs: ['known-good card'],
    shows: { 'card lanes': 0.95, 'io power': 0.5 },
    owed: (t, has) =>
      has('card lanes')
        ? 'card-lane contacts were damaged'
        : has('io power')
          ? 'contacts of io power were damaged'
          : t.exchanged.includes('card')
            ? 'the card was exchanged'
            : when(repaired(t, 'card lanes'), 'the card slot was repaired'),
  },
  {
    id: 'storage ports',
    test: 'A drive on each port',
    limit: 'each port sees the drive',
    minutes: 6,
    needs: ['known-good drive'],
    shows: { 'storage lanes': 0.95 },
    owed: (t, has) =>
      has('storage lanes')
        ? 'storage contacts were damaged'
        : t.exchanged.includes('drive')
          ? 'the drive was exchanged'
          : when(repaired(t, 'storage lanes'), 'storage was repaired'),
  },
  {
    id: 'own graphics',
    test: 'Picture from the CPU’s own graphics',
    limit: 'picture on each output',
    minutes: 4,
    needs: [],
    shows: { display: 0.95 },
    owed: (t, has) =>
      has('display') ? 'display contacts were damaged' : when(repaired(t, 'display'), 'display was repaired'),
  },
  {
    id: 'load',
    test: 'All cores under load for 20 minutes',
    limit: 'no error, no restart',
    minutes: 20,
    needs: [],
    shows: { 'core power': 0.85, ground: 0.85, 'io power': 0.6, 'memory power': 0.5, cooling: 0.6, CPU: 0.5 },
    after: 'system',
    owed: (t, has) =>
      has('core power', 'io power', 'ground')
        ? 'power or ground contacts were damaged'
        : when(repaired(t, 'core power'), 'the core supply was repaired'),
  },
  {
    id: 'core volts',
    test: 'Core volts at rest and under load',
    limit: 'within 5 % of what is asked for',
    minutes: 5,
    needs: ['meter'],
    shows: { sense: 0.95, 'core power': 0.5 },
    owed: (_, has) => when(has('sense'), 'a voltage-sense contact was damaged'),
  },
  {
    id: 'restart',
    test: 'Restart from the system, five times',
    limit: 'five of five',
    minutes: 8,
    needs: [],
    shows: { control: 0.8, reset: 0.8, clock: 0.6, starts: 0.3 },
    after: 'system',
    owed: (_, has) => when(has('control', 'reset', 'clock'), 'a control contact was damaged'),
  },
  {
    id: 'ports',
    test: 'Network, USB and sound, one of each',
    limit: 'each works',
    minutes: 6,
    needs: [],
    shows: { ports: 0.9, 'io power': 0.3 },
    after: 'system',
    owed: (_, has) =>
      has('reserved', 'unknown')
        ? 'contacts without a known function were damaged'
        : when(has('io power'), 'contacts of io power were damaged'),
  },
  {
    id: 'version',
    test: 'Version shown after a start with mains off',
    limit: 'the version that was meant',
    minutes: 3,
    needs: [],
    shows: { version: 0.98 },
    owed: (t) => when(t.firmware, 'firmware was changed'),
  },
  {
    id: 'settings',
    test: 'Clock and settings kept over ten minutes without mains',
    limit: 'time and settings are kept',
    minutes: 12,
    needs: [],
    shows: { 'settings kept': 0.95 },
    owed: (t) =>
      t.cell
        ? 'the cell was at fault or changed'
        : t.firmware
          ? 'firmware was changed'
          : when(repaired(t, 'settings kept'), 'what keeps the settings was repaired'),
  },
  {
    id: 'system',
    test: 'An operating system loads',
    limit: 'desktop or log-in appears',
    minutes: 5,
    needs: ['known-good drive'],
    shows: { system: 0.95, 'storage lanes': 0.4, 'memory A': 0.3, 'memory B': 0.3, version: 0.3 },
    owed: () => 'the owner needs more than a POST',
  },
]

const repaired = ({ repaired: all }: Touched, what: Proved): boolean => all.some(({ of }) => of === what)

const coldStarts = (starts: number, share: number, why: string): Kind => ({
  id: 'cold starts',
  test: `${starts} cold starts, mains off a minute before each`,
  limit: `${starts} of ${starts} reach the picture`,
  minutes: starts * 3,
  starts,
  needs: [],
  shows: { starts: 1 - (1 - share) ** starts, control: 0.5, 'core power': 0.3, 'memory power': 0.3 },
  owed: () => why,
})

const voltsUnderLoad = (rail: Rail): Kind => ({
  id: voltsOf(rail),
  test: `Volts of the ${sayRail(rail)} at rest and under load`,
  limit: 'within 5 % at rest, and no lower than that under load',
  minutes: 4,
  needs: ['meter'],
  shows: { [voltsOf(rail)]: 0.95 },
  owed: () => 'it had read short or low, or its supply was repaired',
})

/** What has to be proved, from what was damaged, touched, changed and repaired; what saves most per minute first. */
export function proofPlan(t: Touched): ProofTest[] {
  const has = (...groups: FunctionGroup[]) => groups.some((g) => t.groups.includes(g))
  const share = shareOf(t.intermittent)
  const alone = onlyTheCell(t)
  const all = alone
    ? [
        coldStarts(2, share, 'the cell was changed, and nothing else'),
        ...kinds.filter((k) => k.id === 'settings'),
      ]
    : [
        coldStarts(
          coldStartsFor(CERTAIN, share),
          share,
          t.intermittent ? 'the fault came and went' : 'one lucky start proves little',
        ),
        ...t.rails.map(voltsUnderLoad),
        ...kinds,
      ]
  const owed = all.flatMap(({ owed: asks, ...kind }) => {
    const why = asks(t, has)
    return why === null ? [] : [{ ...kind, why }]
  })
  return inOrder(owed, doubtsOf(t)).map(({ unpowered: _, after: __, ...test }) =>
    test.id === 'own graphics' && !t.ownGraphics ? { ...test, limit: 'needs a CPU with graphics' } : test,
  )
}

/** A test and how it stands; one proved before the last change to socket or parts is owed again. */
export interface StandingTest extends ProofTest {
  readonly result: 'pass' | 'fail' | 'cannot run here' | null
  readonly reading: string
  readonly again: boolean
  /** What it needs and is neither at hand nor on the board. */
  readonly lacks: readonly ShelfItem[]
  /** One that has not passed: chance that it would find something still, all that passed having passed; null where not known. */
  readonly untold: number | null
  /** Cold starts made since anything could have undone them. */
  readonly counted?: StartsCounted
}

/** One thing that may still be bad. */
export interface StillInDoubt {
  readonly what: Proved
  readonly odds: number
}

/** Chance that something is wrong after what has passed, and of what; why it is not known where it is not. */
export type Left =
  { readonly odds: number; readonly of: readonly StillInDoubt[] } | { readonly notKnown: string }

export interface ProofStanding {
  readonly tests: readonly StandingTest[]
  readonly owed: number
  readonly failed: number
  readonly left: Left
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

/** How one test of a plan stands by itself, and the line that says so. */
function resultOf(
  test: ProofTest,
  { results, starts, temperatures }: Results,
  undone: number,
): Pick<StandingTest, 'result' | 'reading' | 'again' | 'counted'> & { readonly seq: number } {
  const done = results[test.id]
  if (test.starts !== undefined) {
    // Counted anew from what was said of all of them together; those are whole or owed by what was said then.
    const counted = countedSince(starts, Math.max(undone, done?.seq ?? 0))
    const { made, failed } = counted
    const result = failed > 0 ? 'fail' : made >= test.starts ? 'pass' : null
    if (made > 0 && (result !== null || !done || done.seq < undone))
      return {
        result,
        reading: `${made - failed} of ${made}`,
        again: false,
        counted,
        seq: starts.at(-1)!.seq,
      }
  }
  const log = test.id === 'temperature' ? temperatures.at(-1) : undefined
  if (log && log.seq > Math.max(undone, done?.seq ?? 0))
    return {
      result: temperatureSays[verdictOf(log)],
      reading: sayTemperature(log),
      again: false,
      seq: log.seq,
    }
  if (!done) return { result: null, reading: '', again: false, seq: 0 }
  const again = done.seq < undone
  return { result: again ? null : done.result, reading: done.reading, again, seq: done.seq }
}

/** How the board itself stands. */
interface AsItStands {
  /** The last start since it was changed, and whether it came to a picture; null where there was none. */
  readonly start: { readonly seq: number; readonly came: boolean } | null
  /** The power gate is closed. */
  readonly closed?: boolean
  /** What is at hand or on the board; everything when left out. */
  readonly atHand?: ReadonlySet<ShelfItem>
}

type Results = Pick<ProofState, 'results' | 'starts' | 'temperatures'>

/** What is said of things that are in doubt: no smaller odds than this. */
const WORTH_SAYING = 0.005

/**
 * What is owed of a plan, by the results so far, the starts that were counted and what was changed since.
 * @param doubts what could be bad before any of it
 */
export function standingOf(
  planned: readonly ProofTest[],
  doubts: Doubts,
  results: Results,
  changed: ChangedAt,
  { start, closed = false, atHand }: AsItStands,
): ProofStanding {
  const stand = planned.map((test) => ({ ...test, ...resultOf(test, results, undoneAt(test.id, changed)) }))
  const now = stand.filter((t) => t.result === 'pass').reduce((left, t) => afterPass(left, t.shows), doubts)
  const failed = stand.filter((t) => t.result === 'fail').length
  const passed = stand.filter((t) => t.result === 'pass' && !isUnpowered(t.id)).map((t) => t.seq)
  const notKnown = notKnownOf(failed, closed, start, Math.max(0, ...passed))
  const left = notKnown === null ? leftOf(now) : { notKnown }
  return {
    tests: stand.map(({ seq: _, ...test }) => ({
      ...test,
      lacks: atHand ? test.needs.filter((item) => !atHand.has(item)) : [],
      untold: test.result === 'pass' ? 0 : 'notKnown' in left ? null : findsSomething(now, test.shows),
    })),
    owed: stand.filter((t) => t.result === null).length,
    failed,
    left,
  }
}

/**
 * Why it is not known what may be bad: of a board that fails, may not be powered or is dark, more is wrong than what a proof is
 * made for. Null where it is known.
 * @param passed the last line that says of a test with power that it passed; 0 for none
 */
function notKnownOf(
  failed: number,
  closed: boolean,
  start: AsItStands['start'],
  passed: number,
): string | null {
  if (failed > 0) return 'a test has failed: what that was comes first'
  if (closed) return 'it may not be powered as it stands'
  if (start && !start.came && start.seq > passed) return 'it stayed dark when it was last started'
  return start === null && passed === 0 ? 'it has not come up since it was last changed' : null
}

const leftOf = (now: Doubts): Left => ({
  odds: anyBad(now),
  of: [...now]
    .flatMap(([what, odds]) => (odds >= WORTH_SAYING ? [{ what, odds }] : []))
    .sort((a, b) => b.odds - a.odds),
})

/** Whether a test is made without power. */
export const isUnpowered = (test: string): boolean => kinds.some((kind) => kind.id === test && kind.unpowered)

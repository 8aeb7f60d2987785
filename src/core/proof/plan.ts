import type { ProofState } from './slice'
import type { FunctionGroup } from '../board/function-group'
import { railOf } from '../board/proved'
import type { Proved } from '../board/proved'
import type { ShelfItem } from '../board/shelf-items'
import type { Touched } from '../board/station-says'
import { CERTAIN, coldStartsFor, shareOf } from './cold-starts'
import type { StartsCounted } from './cold-starts'
import { afterPass, anyBad, doubtsOf, findsSomething, inOrder, onlyTheCell } from './doubt'
import type { Doubts, Placed, Shows } from './doubt'
import { coldStarts, kinds, voltsUnderLoad } from './kinds'
import type { Kind } from './kinds'
import { temperatureSays } from './line-says'
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

/** A test that shows a thing at least so often when it is bad is enough where it is only suspected. */
const SHOWS_IT = 0.5

/**
 * What has to be proved, from what was damaged, touched, changed, repaired and suspected; what saves most per minute first.
 * @param made tests that were made already: they stay, so that one that failed is never lost with what it was owed for
 */
export function proofPlan(t: Touched, made: readonly string[] = []): ProofTest[] {
  const has = (...groups: FunctionGroup[]) => groups.some((g) => t.groups.includes(g))
  const share = shareOf(t.intermittent)
  const alone = onlyTheCell(t)
  const all = alone
    ? [
        coldStarts(2, share, 'the cell was changed, and nothing else'),
        ...t.rails.map(voltsUnderLoad),
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
  const plain = all.flatMap(({ owed: asks, ...kind }) => {
    const why = asks(t, has)
    return why === null ? [] : [{ ...kind, why }]
  })
  const owed = t.suspected.reduce<readonly (Omit<Kind, 'owed'> & { readonly why: string })[]>(
    (some, { of, say }) => {
      const shown = (kind: Placed) => kind.shows[of] ?? 0
      if (some.some((test) => shown(test) >= SHOWS_IT)) return some
      const before = kinds.find((kind) => made.includes(kind.id) && shown(kind) >= SHOWS_IT)
      const better = (a: Kind, b: Kind) => (shown(b) / b.minutes > shown(a) / a.minutes ? b : a)
      const rail = railOf(of)
      const { owed: _, ...test } = before ?? (rail ? voltsUnderLoad(rail) : kinds.reduce(better))
      return shown(test) > 0 ? [...some, { ...test, why: `suspected and never repaired: ${say}` }] : some
    },
    plain,
  )
  const volts = made.flatMap((id) => railOf(id) ?? []).map(voltsUnderLoad)
  const stay = [...volts, ...kinds].flatMap(({ owed: _, ...kind }) =>
    made.includes(kind.id) && !owed.some(({ id }) => id === kind.id)
      ? [{ ...kind, why: 'it was made already' }]
      : [],
  )
  return inOrder([...owed, ...stay], doubtsOf(t)).map(({ unpowered: _, after: __, ...test }) =>
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

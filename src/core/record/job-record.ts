import type { School } from '../socket/straighten/plan'
import type { JobState } from '../job/job-state'
import { faultIds } from '../triage/model/faults'
import { repairOf } from '../triage/model/repair'
import { startsOf } from '../job/starts-seen'
import { benchSeconds } from '../work/slice'
import type { Said } from './calibration'
import type { Took } from './factor'

/**
 * What odds were of: a contact snapping, a picture at the next start, what an owner says holding, a repair taking, a decision to go
 * on ending with a board that is fixed, a test of the proof finding something, a promise being kept, and nothing being wrong any
 * more of a board that was handed back.
 */
export const saidOf = [
  'snaps',
  'picture',
  'claims',
  'repairs',
  'going on',
  'proof',
  'promise',
  'holds',
] as const
/** Odds of a finished job that have come true or not. */
export interface RecordedOdds extends Said {
  readonly of: (typeof saidOf)[number]
  /** Reckoned here, or said by somebody before it was known. */
  readonly source: 'reckoned' | 'said aloud'
  /** Who worked, or said it. */
  readonly by: string
  /** Of which kind: the damage of a contact, how the owner knows, what was repaired, which test. */
  readonly kind: string
  /** In which order the contacts were worked; none for what is no stroke. */
  readonly school?: School
}

/** What work here can have done to a board, as the tape tells it. */
export const harmsOf = [
  'contact snapped',
  'contact pulled out beside another',
  'replacement that does not hold',
  'CPU forced in',
] as const

/** What a finished job leaves for the record: derived from its tape, never edited. */
export interface JobRecord {
  readonly odds: readonly RecordedOdds[]
  /** Minutes agreed and worked of one that was fixed; null for any other, and where either is not known. */
  readonly time: (Took & { readonly by: string }) | null
  /** Minutes from the last decision to go on to the end, against those it was decided by; null where nobody decided so. */
  readonly wentOn: Took | null
  /** Contacts that were worked on here, and what the work did to the board, by kind. */
  readonly worked: number
  readonly harms: Readonly<Record<(typeof harmsOf)[number], number>>
  /** Whether a repair held when it was asked after; null where nobody asked, or nothing was fixed. */
  readonly held: boolean | null
}

/** Who wrote most of the lines that tell who worked. */
function worker({ socket: { strokes }, board: { baselines }, handBack }: JobState): string {
  const by = new Map<string, number>()
  for (const line of [...strokes, ...baselines]) by.set(line.by, (by.get(line.by) ?? 0) + 1)
  return [...by].sort((a, b) => b[1] - a[1])[0]?.[0] ?? handBack.done?.by ?? ''
}

const reckoned = (
  of: RecordedOdds['of'],
  by: string,
  odds: number,
  came: boolean,
  kind = '',
): RecordedOdds => ({
  of,
  source: 'reckoned',
  by,
  kind,
  odds: Math.min(1, Math.max(0, odds)),
  came,
})

/** Repairs as the shop’s record counts them: one that was made again did not take, the last took where the job ended fixed. */
function repairOdds({ triage: { mended } }: JobState, fixed: boolean): RecordedOdds[] {
  return mended.flatMap((repair, i) => {
    const fault = faultIds.find((id) => id === repair.fault)
    const again = mended.some((later, k) => k > i && later.fault === repair.fault)
    return fault && (again || fixed)
      ? [reckoned('repairs', repair.by, repair.takes ?? repairOf(fault).succeeds, !again, fault)]
      : []
  })
}

/** What was promised, told by when the clock stopped last; one that was moved before its time was said again, and counts no more. */
function promiseOdds({ intake: { promises }, work: { clock } }: JobState, endedAt: string): RecordedOdds[] {
  const readyAt = Date.parse(clock.stoppedAt ?? endedAt)
  return promises.flatMap(({ promisedAt, kept, by }, i) => {
    const [due, next] = [Date.parse(promisedAt ?? ''), promises[i + 1]]
    const moved = next !== undefined && Date.parse(next.at) <= due
    return promisedAt === null || kept === null || moved
      ? []
      : [reckoned('promise', by, kept, readyAt <= due)]
  })
}

/**
 * What a finished job leaves for the record; null while it is open. Odds of a picture are told by the first power-up after
 * them of which it was noted whether there was one; odds that were said again before it are replaced.
 */
export function jobRecord(state: JobState): JobRecord | null {
  const { done, lateOutcomes: late } = state.handBack
  if (!done || done.outcome === 'parked' || done.outcome === 'withdrawn') return null
  const { strokes, replaced, seats } = state.socket
  const told = strokes.filter((s) => s.predictedSnaps !== null)
  const snaps = told.map((s): RecordedOdds => ({
    ...reckoned('snaps', s.by, s.predictedSnaps!, s.result === 'snapped', s.damage ?? 'not known'),
    school: s.school,
  }))
  const starts = startsOf(state)
  const pictures = starts.flatMap((start, i): RecordedOdds[] => {
    const said = state.triage.said.findLast(
      (line) => line.seq < start.seq && line.seq > (starts[i - 1]?.seq ?? 0),
    )
    if (!said) return []
    return [
      { ...reckoned('picture', said.by, said.odds, start.came), source: 'said aloud' },
      ...(said.reckoned === null ? [] : [reckoned('picture', said.by, said.reckoned, start.came)]),
    ]
  })
  const claims = state.intake.claims.flatMap(({ by, weighed, checked }): RecordedOdds[] =>
    weighed && checked && checked.verdict !== 'cannot tell'
      ? [reckoned('claims', by, weighed.reliability, checked.verdict === 'holds', weighed.knows)]
      : [],
  )
  const expected = state.intake.ticket.minutesPromised
  const took = benchSeconds(state.work, done.at).all / 60
  const fixed = done.outcome === 'fixed'
  const decided = state.work.decidedToGoOn
  const after = decided ? took - decided.spentMinutes : 0
  const holds = fixed ? (late.at(-1)?.holds ?? null) : null
  return {
    odds: [
      ...snaps,
      ...pictures,
      ...claims,
      ...repairOdds(state, fixed),
      ...(decided?.runs === undefined ? [] : [reckoned('going on', decided.by, decided.runs, fixed)]),
      ...state.proof.told.map(({ by, odds, found, test }) => reckoned('proof', by, odds, found, test)),
      ...(done.outcome === 'sent out' ? [] : promiseOdds(state, done.at)),
      ...(holds === null || done.left === undefined
        ? []
        : [reckoned('holds', done.by, 1 - done.left, holds)]),
    ],
    time:
      fixed && expected !== null && expected > 0 && took > 0 ? { expected, took, by: worker(state) } : null,
    wentOn:
      fixed && decided && decided.minutes > 0 && after > 0
        ? { expected: decided.minutes, took: after }
        : null,
    worked: new Set([...strokes, ...replaced].map((s) => s.contact)).size,
    harms: {
      'contact snapped': new Set(strokes.filter((s) => s.result === 'snapped').map((s) => s.contact)).size,
      'contact pulled out beside another': new Set(replaced.flatMap((r) => r.pulledOut)).size,
      'replacement that does not hold': replaced.filter((r) => !r.holds).length,
      'CPU forced in': seats.filter((s) => s.drop === 'needed force').length,
    },
    held: holds,
  }
}

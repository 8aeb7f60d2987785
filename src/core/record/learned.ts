import { knownBy } from '../intake/known-by'
import type { KnownBy } from '../intake/known-by'
import { timeFactor } from './factor'
import type { Factor, Took } from './factor'
import type { JobRecord } from './job-record'

/** What the record says for the work of today. */
export interface Learned {
  /** Claims of each sort that were checked, and how many held. */
  readonly claims: Readonly<Partial<Record<KnownBy, { readonly held: number; readonly checked: number }>>>
  /** Minutes at the bench against those agreed, of jobs that were fixed. */
  readonly agreed: Factor
  /** Minutes from a decision to go on, against those it was decided by. */
  readonly goingOn: Factor
}

/** What the record says for the work of today; of one without a job it says what the bench defaults do. */
export function learnedFrom(records: readonly Pick<JobRecord, 'odds' | 'time' | 'wentOn'>[]): Learned {
  const claims: Partial<Record<KnownBy, { held: number; checked: number }>> = {}
  for (const { of, kind, came } of records.flatMap((r) => r.odds)) {
    const knows = knownBy.find((k) => k === kind)
    if (of !== 'claims' || knows === undefined) continue
    const one = (claims[knows] ??= { held: 0, checked: 0 })
    one.checked++
    if (came) one.held++
  }
  const times = (of: (record: (typeof records)[number]) => Took | null) =>
    timeFactor(records.flatMap((r) => of(r) ?? []))
  return { claims, agreed: times((r) => r.time), goingOn: times((r) => r.wentOn) }
}

export const nothingLearned: Learned = learnedFrom([])

import { calibrate } from './calibration'
import type { Calibration } from './calibration'
import { timeFactor } from './factor'
import type { School } from '../socket/straighten/plan'
import type { Factor } from './factor'
import { harmsOf } from './job-record'
import type { JobRecord, RecordedOdds } from './job-record'
import { learnedFrom } from './learned'
import type { Learned } from './learned'

/** Odds of one sort, of all or of one person, kind or order of work. */
export interface OddsGroup {
  readonly of: RecordedOdds['of']
  readonly source: RecordedOdds['source']
  /** All of the sort where all three are null. */
  readonly by: string | null
  readonly kind: string | null
  readonly school: School | null
  readonly calibration: Calibration
}

/** What was predicted against what came, over the jobs of the record. */
export interface TrackRecord {
  readonly jobs: number
  readonly groups: readonly OddsGroup[]
  readonly timeBy: readonly { readonly by: string; readonly factor: Factor }[]
  /** Contacts that were worked on here, and what the work did to boards, by kind. */
  readonly worked: number
  readonly harms: JobRecord['harms']
  /** Repairs that were asked after, and how many held. */
  readonly held: { readonly held: number; readonly asked: number }
  readonly learned: Learned
}

const schools = ['A', 'B'] as const satisfies readonly School[]

function grouped<T>(of: readonly T[], key: (one: T) => string): ReadonlyMap<string, readonly T[]> {
  const groups = new Map<string, T[]>()
  for (const one of of) {
    const k = key(one)
    const group = groups.get(k)
    if (group) group.push(one)
    else groups.set(k, [one])
  }
  return new Map([...groups].sort(([a], [b]) => (a < b ? -1 : 1)))
}

/** What was predicted against what came, by sort, by person, by kind and by the order of work. */
export function trackRecord(records: readonly JobRecord[]): TrackRecord {
  const odds = records.flatMap((r) => r.odds)
  const groups = [...grouped(odds, (o) => `${o.of} ${o.source}`).values()].flatMap((sort): OddsGroup[] => {
    const { of, source } = sort[0]!
    const group = (
      all: readonly RecordedOdds[],
      part: Partial<Pick<OddsGroup, 'by' | 'kind' | 'school'>> = {},
    ): OddsGroup => ({
      of,
      source,
      by: null,
      kind: null,
      school: null,
      ...part,
      calibration: calibrate(all),
    })
    return [
      group(sort),
      ...[...grouped(sort, (o) => o.by)].map(([by, all]) => group(all, { by })),
      ...[...grouped(sort, (o) => o.kind)]
        .filter(([kind]) => kind !== '')
        .map(([kind, all]) => group(all, { kind })),
      ...schools.flatMap((school) => {
        const all = sort.filter((o) => o.school === school)
        return all.length > 0 ? [group(all, { school })] : []
      }),
    ]
  })
  const times = records.flatMap((r) => r.time ?? [])
  const asked = records.filter((r) => r.held !== null)
  return {
    jobs: records.length,
    groups,
    timeBy: [...grouped(times, (t) => t.by)].map(([by, all]) => ({ by, factor: timeFactor(all) })),
    worked: records.reduce((sum, r) => sum + r.worked, 0),
    harms: Object.fromEntries(
      harmsOf.map((harm) => [harm, records.reduce((sum, r) => sum + r.harms[harm], 0)]),
    ) as JobRecord['harms'],
    held: { held: asked.filter((r) => r.held).length, asked: asked.length },
    learned: learnedFrom(records),
  }
}

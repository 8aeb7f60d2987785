import { calibrate } from './calibration'
import type { Calibration } from './calibration'
import { timeFactor } from './factor'
import type { Factor } from './factor'
import type { JobRecord, RecordedOdds } from './job-record'
import { learnedFrom } from './learned'
import type { Learned } from './learned'

/** Odds of one sort, of all or of one person or kind. */
export interface OddsGroup {
  readonly of: RecordedOdds['of']
  readonly source: RecordedOdds['source']
  /** All of the sort where both are null. */
  readonly by: string | null
  readonly kind: string | null
  readonly calibration: Calibration
}

/** What was predicted against what came, over the jobs of the record. */
export interface TrackRecord {
  readonly jobs: number
  readonly groups: readonly OddsGroup[]
  readonly timeBy: readonly { readonly by: string; readonly factor: Factor }[]
  /** Contacts that broke here, of those that were worked on. */
  readonly broke: { readonly snapped: number; readonly worked: number }
  /** Repairs that were asked after, and how many held. */
  readonly held: { readonly held: number; readonly asked: number }
  readonly learned: Learned
}

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

/** What was predicted against what came, by sort, by person and by kind. */
export function trackRecord(records: readonly JobRecord[]): TrackRecord {
  const odds = records.flatMap((r) => r.odds)
  const groups = [...grouped(odds, (o) => `${o.of} ${o.source}`).values()].flatMap((sort): OddsGroup[] => {
    const { of, source } = sort[0]!
    const group = (all: readonly RecordedOdds[], by: string | null, kind: string | null): OddsGroup => ({
      of,
      source,
      by,
      kind,
      calibration: calibrate(all),
    })
    return [
      group(sort, null, null),
      ...[...grouped(sort, (o) => o.by)].map(([by, all]) => group(all, by, null)),
      ...[...grouped(sort, (o) => o.kind)]
        .filter(([kind]) => kind !== '')
        .map(([kind, all]) => group(all, null, kind)),
    ]
  })
  const times = records.flatMap((r) => r.time ?? [])
  const asked = records.filter((r) => r.held !== null)
  return {
    jobs: records.length,
    groups,
    timeBy: [...grouped(times, (t) => t.by)].map(([by, all]) => ({ by, factor: timeFactor(all) })),
    broke: {
      snapped: records.reduce((sum, r) => sum + r.broke.snapped, 0),
      worked: records.reduce((sum, r) => sum + r.broke.worked, 0),
    },
    held: { held: asked.filter((r) => r.held).length, asked: asked.length },
    learned: learnedFrom(records),
  }
}

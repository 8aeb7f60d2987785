import type { FirmwareState } from '../slice'
import { namedIn, releasesKnown } from './on-route'
import { supportOf } from './support-table'
import type { SupportTable } from './support-table'

export interface Tables {
  readonly releases?: Pick<SupportTable, 'releases'> | null
  readonly cpus?: Pick<SupportTable, 'support'> | null
}

/**
 * Whether what was in the chip at a line of the tape runs a CPU, by the board’s table; null where the table names neither,
 * or nobody knew what was in the chip.
 */
export function listedAt(
  firmware: FirmwareState,
  { releases = null, cpus = null }: Tables,
  cpu: string,
  seq: number,
): { readonly listed: 'yes' | 'no'; readonly cpu: string; readonly release: string } | null {
  const support = supportOf({ releases, cpus })
  const named =
    support &&
    namedIn(
      cpu,
      support.cpus.map((c) => c.cpu),
    )
  const release = releasesKnown(firmware).findLast((k) => k.seq <= seq)?.release ?? null
  const at = release === null ? undefined : support?.releaseAt.get(release)
  if (!support || !named || release === null || at === undefined) return null
  return { listed: support.rowOf(at, named) ? 'yes' : 'no', cpu: named, release }
}

/** The release in the chip beside those that are newer in the board’s table and can be written; null where it names it not. */
export function newerThan(
  release: string | null,
  releases: Tables['releases'],
): { readonly now: string; readonly newer: readonly string[] } | null {
  const all = releases?.releases ?? []
  const at = all.findIndex((r) => r.name === release)
  if (at < 0) return null
  const newer = all.slice(at + 1).filter((r) => !r.withdrawn && !r.unstable)
  return { now: release!, newer: newer.map((r) => r.name) }
}

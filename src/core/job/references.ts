import type { ChipTable } from '../firmware/chip/taken-chips'
import type { CpuTable, ReleaseTable, WayTable } from '../firmware/route/table-csv'
import type { Shows } from '../triage/model/shows'
import type { CodeTable } from '../triage/instruments/code-tape'
import type { CurrentReference } from '../triage/instruments/current-trace'
import type { RailReference } from '../triage/instruments/rail-table'

/**
 * What is known of a board model: what it can show, what its codes mean, the rails and the current of a good one; its releases, the CPUs
 * they start, the ways by which they get into the chip, and the chips it takes.
 */
export interface References {
  readonly shows: Shows | null
  readonly codes: CodeTable | null
  readonly rails: RailReference | null
  readonly current: CurrentReference | null
  readonly releases: ReleaseTable | null
  readonly cpus: CpuTable | null
  readonly ways: WayTable | null
  readonly chips: ChipTable | null
}
export const noReferences: References = {
  shows: null,
  codes: null,
  rails: null,
  current: null,
  releases: null,
  cpus: null,
  ways: null,
  chips: null,
}
export type ReferenceKind = keyof References
export const referenceKinds = Object.keys(noReferences) as ReferenceKind[]

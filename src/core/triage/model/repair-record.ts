import type { TriageBodies } from '../bodies'
import { faultIds } from './faults'
import type { FaultId } from './faults'
import { repairOf } from './repair'

/** What the shop's tapes say of repairs of one fault: how often it was repaired, and how often that was all it took. */
export interface RepairTally {
  readonly fault: string
  readonly tried: number
  readonly took: number
}

/** A fault put right, as it goes on the tape: with how often such a repair takes by the record, where that says anything. */
export function repaired(fault: FaultId, record: readonly RepairTally[]): TriageBodies['mended'] {
  const takes = Math.round(100 * succeeds(fault, record)) / 100
  return takes === repairOf(fault).succeeds ? { fault } : { fault, takes }
}

/**
 * Chance that a repair on the tape took. A tape alone has what the record said when it was made; a shop knows what it says now.
 * @param noted what the tape has of it
 */
export const takesNow = (
  fault: FaultId,
  noted: number | undefined,
  record: readonly RepairTally[],
): number => (record.length === 0 && noted !== undefined ? noted : succeeds(fault, record))

/** How many repairs the bench default is worth against the record (bench default). */
const PRIOR_REPAIRS = 20

/**
 * Chance that a repair of this fault takes, with the shop’s record. Beta-binomial: the bench default p₀ stands for 20
 * repairs, so (20·p₀ + took) / (20 + tried). Faults that are repaired alike (a chip written, a small part, …) are counted
 * together: of a single one a shop sees few.
 * @throws RangeError if more took than were tried
 */
export function succeeds(fault: FaultId, record: readonly RepairTally[]): number {
  const repair = repairOf(fault)
  let [tried, took] = [0, 0]
  for (const tally of record) {
    const of = faultIds.find((id) => id === tally.fault)
    if (!of || repairOf(of) !== repair) continue
    if (!(tally.took >= 0 && tally.took <= tally.tried))
      throw new RangeError(`${tally.took} of ${tally.tried} repairs cannot have taken`)
    tried += tally.tried
    took += tally.took
  }
  return (PRIOR_REPAIRS * repair.succeeds + took) / (PRIOR_REPAIRS + tried)
}

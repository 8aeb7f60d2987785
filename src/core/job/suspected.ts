import type { Touched } from '../board/station-says'
import type { Socket } from '../socket/model/socket'
import { faultIds, faults } from '../triage/model/faults'
import { provedBy } from '../triage/model/repair'
import { faultOdds, posterior, priorOdds, standing, withMends } from '../triage/reason/odds'
import { evidenceOf } from './evidence'
import { historyOf } from './history-told'
import type { JobState } from './job-state'

/** Chance of a fault from which on it is suspected (bench default). */
const SUSPECTED = 0.04

/** The last answer for each job as it stood: several stations ask for it at once. */
const answered = new WeakMap<JobState, { readonly field: Socket | null; readonly is: Touched['suspected'] }>()

/**
 * Faults that everything noted of the board as it stands leaves likely, and that nobody repaired, likeliest first. By the bench’s
 * own odds of faults; none as long as nothing is known of the board.
 */
export function suspectedOf(state: JobState, field: Socket | null): Touched['suspected'] {
  const known = answered.get(state)
  if (known?.field === field) return known.is
  const is = reckon(state, field)
  answered.set(state, { field, is })
  return is
}

function reckon(state: JobState, field: Socket | null): Touched['suspected'] {
  const { evidence, changes, mended } = evidenceOf(state, field)
  if (evidence.length === 0) return []
  const prior = withMends(priorOdds(historyOf(state)), changes)
  const odds = faultOdds(standing(posterior(prior, evidence, changes), changes))
  return faultIds
    .flatMap((fault, i) =>
      odds[i]! < SUSPECTED || mended.includes(fault)
        ? []
        : [{ of: provedBy(fault), odds: odds[i]!, say: faults[fault].say }],
    )
    .sort((a, b) => b.odds - a.odds)
}

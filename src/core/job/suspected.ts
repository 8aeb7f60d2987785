import type { Touched } from '../board/station-says'
import type { Socket } from '../socket/model/socket'
import { faultIds, faults } from '../triage/model/faults'
import { mendedBy, provedBy } from '../triage/model/repair'
import { oddsFrom } from '../triage/reason/belief'
import { faultOdds } from '../triage/reason/odds'
import type { AdviceSetting } from './advice-setting'
import { knownOf } from './known'
import type { JobState } from './job-state'

/** Chance of a fault from which on it is suspected (bench default). */
const SUSPECTED = 0.04

/** The last answer for each job as it stood: several stations ask for it at once. */
const answered = new WeakMap<
  JobState,
  {
    readonly field: Socket | null
    readonly setting: AdviceSetting
    readonly is: Touched['suspected']
  }
>()

/**
 * Faults that everything noted of the board as it stands leaves likely, and that nobody repaired, likeliest first: by the odds
 * that triage has. None as long as nothing is known of the board.
 */
export function suspectedOf(
  state: JobState,
  field: Socket | null,
  setting: AdviceSetting,
): Touched['suspected'] {
  const known = answered.get(state)
  if (known?.field === field && known.setting === setting) return known.is
  const is = reckon(state, field, setting)
  answered.set(state, { field, setting, is })
  return is
}

function reckon(state: JobState, field: Socket | null, setting: AdviceSetting): Touched['suspected'] {
  const known = knownOf(state, field, setting)
  if (known.evidence.length === 0) return []
  const odds = faultOdds(oddsFrom(known).now)
  const mended = mendedBy(known.changes ?? [])
  return faultIds
    .flatMap((fault, i) =>
      odds[i]! < SUSPECTED || mended.includes(fault)
        ? []
        : [{ of: provedBy(fault), odds: odds[i]!, say: faults[fault].say }],
    )
    .sort((a, b) => b.odds - a.odds)
}

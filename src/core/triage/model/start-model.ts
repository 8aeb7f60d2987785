import { faults } from './faults'
import type { FaultId } from './faults'
import { matches } from './setup'
import type { Setup } from './setup'
import { startTables, stages } from './stage'
import type { Stage } from './stage'

/** Chance that a fault blocks a start with this setup that gets as far as its stage. */
export function blocks(id: FaultId, setup: Setup): number {
  const { quiet, shows } = faults[id]
  return quiet.some((when) => matches(setup, when)) ? 0 : shows
}

/** A stage at which something that is in no list may stop a start. */
export type UnknownStage = Exclude<Stage, 'running'>
/** How often that stops a start which gets so far (bench default). */
const UNKNOWN_SHOWS = 0.9

/** What the setup itself keeps from starting: without a drive nothing is loaded, without memory nothing trains, without a CPU nothing is fetched. */
function passes(setup: Setup): Float64Array {
  const pass = new Float64Array(stages.length).fill(1)
  if (setup.memory === 'none') pass[stages.indexOf('memory training')] = 0
  if (setup.drive === 'none') pass[stages.indexOf('boot device')] = 0
  if (setup.cpu === 'none') pass[stages.indexOf('first fetch')] = 0
  return pass
}

/**
 * Chance that a board with these faults stops in each stage; the last is that it runs.
 * The stages follow one another and each fault blocks its own, independently: P(stops in i) = Π_{j<i} p_j · (1 − p_i),
 * p_j = Π (1 − shows) over the faults that act there.
 * @param unknown a stage at which something in no list stops it, whatever the setup
 */
export function stopsIn(ids: readonly FaultId[], setup: Setup, unknown?: UnknownStage): Float64Array {
  const pass = passes(setup)
  if (unknown) pass[stages.indexOf(unknown)]! *= 1 - UNKNOWN_SHOWS
  for (const id of ids) {
    const i = stages.indexOf(faults[id].stage)
    pass[i] = pass[i]! * (1 - blocks(id, setup))
  }
  const odds = new Float64Array(stages.length)
  let reached = 1
  for (let i = 0; i < stages.length - 1; i++) {
    odds[i] = reached * (1 - pass[i]!)
    reached *= pass[i]!
  }
  odds[stages.length - 1] = reached
  return odds
}

/** What one look at a start comes to; told apart by fans, last lamp and picture. */
export const startOutcomes = [
  'nothing',
  'twitches',
  'fans, no lamp',
  'CPU lamp',
  'memory lamp',
  'graphics lamp',
  'boot lamp',
  'maker screen',
  'system loads',
] as const

const lit = ['CPU lamp', 'memory lamp', 'graphics lamp', 'boot lamp'] as const
/** What is noted of a start that leaves open which of several it came to: no lamp to read, or none that stands still. */
export const openOutcomes: Readonly<Record<string, readonly (typeof startOutcomes)[number][]>> = {
  'fans, dark': ['fans, no lamp', ...lit],
  'fans turn': ['fans, no lamp', ...lit, 'maker screen', 'system loads'],
  'lamps in turn': ['fans, no lamp', 'memory lamp', 'graphics lamp', 'boot lamp'],
  restarts: ['twitches', 'fans, no lamp', 'CPU lamp', 'memory lamp'],
  'settings screen': ['maker screen', 'system loads'],
}

/** Chance of each outcome of a start, by the stage it stops in: summed from the tables of fans, lamp and picture. */
export const outcomeByStage: readonly Float64Array[] = startOutcomes.map((outcome) =>
  Float64Array.from(stages, (_, i) => {
    const { fans, lamp, picture } = startTables
    const seen = picture['maker screen']![i]! + picture['system loads']![i]!
    const dark = 1 - seen
    const lit =
      outcome.endsWith('lamp') && outcome !== 'fans, no lamp' ? outcome.slice(0, -5).toLowerCase() : null
    if (outcome === 'maker screen' || outcome === 'system loads') return picture[outcome]![i]!
    if (outcome === 'nothing') return dark * fans.off![i]!
    if (outcome === 'twitches') return dark * fans.twitch![i]!
    return dark * fans.on![i]! * lamp[lit ?? 'none']![i]!
  }),
)

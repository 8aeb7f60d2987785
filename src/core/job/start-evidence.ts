import { hasPicture } from '../board/baseline'
import type { Baseline } from '../board/baseline'
import { isLentCpu } from '../board/slice'
import { listedAt } from '../firmware/route/listed'
import type { JobState } from './job-state'
import type { References } from './references'

/** What a power-up comes to, or null when too little of it was noted. */
export function startOutcome(b: Baseline): string | null {
  if (hasPicture(b)) return b.picture
  if (b.fans === 'off') return 'nothing'
  if (b.fans === 'twitch') return 'twitches'
  if (b.fans === 'restarts') return 'restarts'
  if (b.lamp === 'in turn') return 'lamps in turn'
  if (b.lamp === 'not noted' || b.lamp === 'flashing')
    return b.fans === 'not noted' ? null : b.picture === 'none' ? 'fans, dark' : 'fans turn'
  return b.lamp === 'none' ? 'fans, no lamp' : `${b.lamp === 'cpu' ? 'CPU' : b.lamp} lamp`
}

/** A start by what was in the board: without a part it is another test, and so it is with a known-good CPU. */
export function startedAs(
  { seq, cpu, without }: Pick<JobState['board']['baselines'][number], 'seq' | 'cpu' | 'without'>,
  { firmware }: JobState,
  reference: Partial<References>,
): string {
  if (without.includes('CPU')) return 'no CPU'
  if (without.includes('modules')) return 'no memory'
  if (without.includes('drive')) return 'no drive'
  return isLentCpu(cpu) && listedAt(firmware, reference, cpu, seq)?.listed !== 'no'
    ? 'known-good CPU'
    : 'as it came'
}

/** What a recorded current comes to. */
export const currentSays = {
  none: 'nothing',
  standby: 'nothing',
  steady: 'steady',
  cycling: 'cycles',
  trips: 'trips',
} as const

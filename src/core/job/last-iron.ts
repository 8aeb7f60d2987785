import type { Iron } from '../parts/before-iron'
import type { JobState } from './job-state'

/** When the iron or hot air was last at the board: a small part lifted or soldered, or the firmware chip. */
export function lastIron({ parts, firmware }: Pick<JobState, 'parts' | 'firmware'>): Iron | null {
  const part = parts.noted.findLast((p) => p.did === 'taken off' || p.did === 'fitted')
  const chip = firmware.moves.findLast((m) => m.by !== 'hand')
  if (chip && chip.seq > (part?.seq ?? 0))
    return { seq: chip.seq, what: `the firmware chip was ${chip.to === 'off' ? 'taken off' : 'fitted'}` }
  return part ? { seq: part.seq, what: `${part.ref} was ${part.did}` } : null
}

import { chipOff } from './chip/refit'
import { lastNoted } from './slice'
import type { FirmwareState } from './slice'

/** A supply this far above what a chip works at is too much for it. */
const MOST = 1.1

/** That the programmer gives the chip more than it bears; null when it does not, or nobody has said. */
export function tooMuch(firmware: FirmwareState): string | null {
  const chipVolts = lastNoted(firmware, 'chipVolts')
  const programmerVolts = lastNoted(firmware, 'programmerVolts')
  return chipVolts !== undefined && programmerVolts !== undefined && programmerVolts > chipVolts * MOST
    ? `The programmer gives ${programmerVolts} V to a ${chipVolts} V chip: put the adapter between before the clip goes on.`
    : null
}

/** Why the chip may not be read or written by a programmer as things are noted, with the mend; null when it may. */
export function clipFault(firmware: FirmwareState): string | null {
  const chipVolts = lastNoted(firmware, 'chipVolts')
  const programmerVolts = lastNoted(firmware, 'programmerVolts')
  if (chipVolts === undefined) return 'Note first which voltage the chip works at: 3.3 V destroys some.'
  if (programmerVolts === undefined) return 'Note first which voltage the programmer gives.'
  const over = tooMuch(firmware)
  if (over) return over
  if (programmerVolts < chipVolts / MOST)
    return `The programmer gives ${programmerVolts} V to a ${chipVolts} V chip: it would not be read rightly.`
  // Off the board it stands in the programmer’s own holder.
  if (lastNoted(firmware, 'clipOn') !== true && !chipOff(firmware))
    return 'The clip is off: unplugged, coin cell out, then put it on.'
  return null
}

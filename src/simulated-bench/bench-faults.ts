import type { SpiFaults } from './spi-nor'

/** What can be made to go wrong at the simulated programmer, to see what comes of it. */
export const benchFaults = [
  'none',
  'loose clip',
  'stuck line',
  'write protected',
  'supply lost half-way',
] as const
export type BenchFault = (typeof benchFaults)[number]

/** @param bytes size of the chip: the supply goes when an eighth of it was changed */
export function spiFaults(fault: BenchFault, bytes: number): SpiFaults {
  switch (fault) {
    case 'loose clip':
      return { badClip: 0.00002 }
    case 'stuck line':
      return { stuckBit: 4 }
    case 'write protected':
      return { writeProtect: true }
    case 'supply lost half-way':
      return { powerLostAfter: Math.floor(bytes / 8) }
    case 'none':
      return {}
  }
}

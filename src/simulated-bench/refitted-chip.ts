import { chipPins } from '@/core/firmware/chip/refit'
import type { ChipPin } from '@/core/firmware/chip/refit'
import type { FirmwareState } from '@/core/firmware/slice'
import { seeded } from '@/core/maths/seeded'
import type { FaultId } from '@/core/triage/model/faults'

/** How often a chip that was soldered on again has an open joint. */
const OPEN = 0.2

/** The line on which its joints were last soldered: fitted, or reflowed; 0 where they never were, or a hand did it. */
function soldered({ moves, refits }: Pick<FirmwareState, 'moves' | 'refits'>): number {
  const moved = moves.at(-1)
  if (!moved || moved.to === 'off' || moved.by === 'hand') return 0
  return Math.max(moved.seq, ...refits.filter((r) => r.reflowed).map((r) => r.seq))
}

/** Whether a joint of the chip is open since it was soldered here; each time it is reflowed it is drawn anew. */
export function jointOpen(seed: number, firmware: Pick<FirmwareState, 'moves' | 'refits'>): boolean {
  const at = soldered(firmware)
  return at > 0 && seeded(seed * 7907 + at)() < OPEN
}

/** What a meter reads from each pin to the far end of its line: a resistor in the lines of data, a pull-up on two more. */
export function readLines(
  faults: readonly FaultId[],
  seed: number,
  line: number,
): Readonly<Record<ChipPin, number | null>> {
  const draw = seeded(seed * 104_729 + line)
  const board = seeded(seed)
  const usual: Readonly<Record<ChipPin, number>> = {
    CS: 33,
    DO: 33,
    WP: 4700,
    GND: 0.3,
    DI: 33,
    CLK: 33,
    HOLD: 4700,
    VCC: 0.4,
  }
  const data = ['CS', 'DO', 'DI', 'CLK'] as const
  const gone = new Set<ChipPin>([
    ...(faults.includes('chip resistor') ? [data[Math.floor(board() * 4)]!] : []),
    ...(faults.includes('chip joint') ? [chipPins[Math.floor(board() * 8)]!] : []),
    ...(faults.includes('chip supply part') ? (['VCC'] as const) : []),
  ])
  return Object.fromEntries(
    chipPins.map((pin) => [
      pin,
      gone.has(pin) ? null : Number((usual[pin] * (1 + 0.03 * (draw() - 0.5))).toPrecision(3)),
    ]),
  ) as Record<ChipPin, number | null>
}

import type { Rail } from '../../board/rail'
import type { BoardBodies } from '../../board/bodies'
import type { Baseline } from '../../board/baseline'
import type { CodesSeen } from './code-tape'
import type { Trace } from './current-trace'

/** A meter on the board: ohms to ground unplugged, volts while it tries to start, the coin cell. */
export interface Meter {
  ohms(rail: Rail, cpu: 'in' | 'out'): number
  volts(rail: Rail): number
  cell(where: NonNullable<BoardBodies['cell']['where']>, isNew: boolean): number
}

/** A supply that records what the board draws: standby, the button, and what follows. */
export interface Supply {
  current(limitA: number | null): Trace
}

/** The code display, read with a clock. */
export interface CodeReader {
  codes(): CodesSeen
}

/** Fans, lamps, warmth, beeper and picture at one power-up. */
export interface Senses {
  powerUp(limitA: number | null): Baseline
}

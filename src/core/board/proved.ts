import type { FunctionGroup } from './function-group'
import { sayRail } from './rail'
import type { Rail } from './rail'

/** What of a board has to work when it goes back. */
export type Proved =
  | Exclude<FunctionGroup, 'reserved' | 'unknown'>
  | 'starts'
  | 'cooling'
  | 'ports'
  | 'settings kept'
  | 'version'
  | 'joints'
  | 'system'
  | 'CPU'
  | VoltsOf
type VoltsOf = `volts ${Rail}`

export const voltsOf = (rail: Rail): VoltsOf => `volts ${rail}`
/** The rail whose volts are meant; null for anything else. */
export const railOf = (what: string): Rail | null =>
  isVolts(what) ? (what.slice('volts '.length) as Rail) : null
const isVolts = (what: string): what is VoltsOf => what.startsWith('volts ')

const words: Readonly<Record<Exclude<Proved, VoltsOf>, string>> = {
  'core power': 'core power',
  'memory power': 'memory power',
  'io power': 'power of inputs and outputs',
  ground: 'ground',
  'memory A': 'memory channel A',
  'memory B': 'memory channel B',
  'card lanes': 'the card slot',
  'storage lanes': 'storage ports',
  display: 'the CPU’s own graphics',
  clock: 'clock',
  reset: 'reset',
  sense: 'core voltage sense',
  control: 'control lines',
  starts: 'starting every time',
  cooling: 'cooling',
  ports: 'network, USB and sound',
  'settings kept': 'clock and settings',
  version: 'firmware version',
  joints: 'joints of the parts fitted',
  system: 'the system',
  CPU: 'the CPU as rated',
}
export const sayProved = (what: Proved): string =>
  isVolts(what) ? `volts of the ${sayRail(what.slice('volts '.length))}` : words[what]

/**
 * What it costs, beside the minutes of a test, when a thing turns out bad at its owner’s and not here, minutes of the bench (bench
 * defaults): a board that comes back is an hour and a half; one whose core volts are unguarded takes the CPU with it.
 */
const harm: Readonly<Partial<Record<Proved, number>>> = {
  sense: 600,
  'core power': 300,
  ground: 300,
  cooling: 200,
  starts: 120,
  'settings kept': 45,
  version: 60,
  display: 60,
}
export const harmMinutes = (what: Proved): number => (isVolts(what) ? 300 : (harm[what] ?? 90))

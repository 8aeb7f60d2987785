import type { OwnRail, Rail } from '../board/rail'
import type { RailSeen } from '../board/rail-limits'
import type { NamedShort } from './gate-shorts'

/** What the gate looks at; nothing else moves it. */
export interface PowerEvidence {
  /** Rails of this board beyond the usual ones. */
  readonly ownRails: readonly OwnRail[]
  readonly rails: readonly RailSeen[]
  /** Rails that were said to be good, where no figure stands. */
  readonly railsToldGood: readonly Rail[]
  /** Rails measured once that are owed again, and why. */
  readonly railsOwed: readonly Rail[]
  readonly railsOwedWhy: string
  /** Readings that contradict something or can not be: each is asked about and counts for nothing. */
  readonly questions: readonly { readonly say: string; readonly mend: string }[]
  /** Volts out of range that no later reading under the same conditions has cleared. */
  readonly volts: readonly {
    readonly rail: Rail
    readonly volts: number
    readonly cpu: 'in' | 'out' | null
    readonly is: 'too high' | 'low'
    /** Something was put right and the rails measured since. */
    readonly workedOn: boolean
  }[]
  readonly shorts: readonly NamedShort[]
  /** Places in the socket where a foreign piece sits. */
  readonly lodged: readonly string[]
  readonly paste: readonly string[]
  /** Contacts that touch or lie over a neighbour nobody has named and that could be harmful: the gravest it could be. */
  readonly touchesUnnamed: readonly { readonly contact: string; readonly nets: string }[]
  /** Voltage-sense contacts that do not reach the CPU, and lost contacts of which nobody knows what they carry. */
  readonly lostSense: readonly string[]
  readonly lostUnknown: readonly string[]
  /** Contacts not looked at in this pass, and how many there are; zero of zero when there is no map of this socket. */
  readonly notLooked: number
  readonly contacts: number
  /** Contacts close to damage that nobody has looked at. */
  readonly notLookedNear: readonly string[]
  /** What a look at the socket found in the words of a test, while no look has cleared it. */
  readonly socketFound: string
  readonly cpuFitted: boolean
  readonly heatsink: boolean
  /** How the CPU last went in, while that speaks against power; an even light push is for pin grids only. */
  readonly seat: 'proud' | 'needed force' | 'turned' | 'light push' | null
  readonly pinGrid: boolean
  readonly unaccounted: readonly string[]
  /** What was seen that speaks against power, or of which nobody has said whether it does. */
  readonly hazards: readonly string[]
  readonly notTold: readonly string[]
  readonly damagedParts: readonly string[]
  readonly lookedOutside: boolean
  /** It was seen running here, with a picture. */
  readonly ranHere: boolean
  /** It came up at its last start here, and nothing was done since that could have put a rail to ground. */
  readonly runs: boolean
  readonly standbyHot: boolean
  readonly chipVolts: number | null
  readonly programmerVolts: number | null
  readonly clipOn: boolean
  /** What forbids power of a firmware chip that is off the board, or was fitted again; empty where nothing does. */
  readonly chipFault: string
  readonly supplyLimitA: number | null
  /** A start under a limit went well after the last change to the board. */
  readonly provedUnderLimit: boolean
  /** The last change, and why the last start proved nothing; empty where there is none. */
  readonly changedWhat: string
  readonly provedNothing: string
  /** The supply tripped and not every rail was measured since. */
  readonly tripped: boolean
}

/** Evidence of which nothing is known yet. */
export const nothingSeen: PowerEvidence = {
  ownRails: [],
  rails: [],
  railsToldGood: [],
  railsOwed: [],
  railsOwedWhy: '',
  questions: [],
  volts: [],
  shorts: [],
  lodged: [],
  paste: [],
  touchesUnnamed: [],
  lostSense: [],
  lostUnknown: [],
  notLooked: 0,
  contacts: 0,
  notLookedNear: [],
  socketFound: '',
  cpuFitted: false,
  heatsink: false,
  seat: null,
  pinGrid: false,
  unaccounted: [],
  hazards: [],
  notTold: [],
  damagedParts: [],
  lookedOutside: false,
  ranHere: false,
  runs: false,
  standbyHot: false,
  chipVolts: null,
  programmerVolts: null,
  clipOn: false,
  chipFault: '',
  supplyLimitA: null,
  provedUnderLimit: false,
  changedWhat: '',
  provedNothing: '',
  tripped: false,
}

import type { ChipPin } from './chip/refit'
import type { RouteLeg } from './route/on-route'
import type { Pair } from './route/route'
import type { ProgrammerBy } from './route/way'
import type { Weighting } from './route/search'
import type { Run } from './image/compare'
import type { Verdict } from './image/same-code'

/** What an image is to the job: read of the chip, or the maker's file of a release. */
export const imageRoles = ['read', 'release', 'older release'] as const
export type ImageRole = (typeof imageRoles)[number]

/** With what a chip is taken off and fitted; by hand where it stands in a socket. */
export const movedBy = ['hot air', 'iron', 'hand'] as const

export interface FirmwareBodies {
  firmware: {
    readonly version?: string
    readonly chip?: string
    readonly chipVolts?: number
    readonly programmerVolts?: number
    readonly clipOn?: boolean
    /** Bytes of its ID as they were read, hexadecimal. */
    readonly chipId?: string
    /** The table it describes itself with, hexadecimal. */
    readonly sfdp?: string
    readonly did?: string
    /** The release that was written, by its label. */
    readonly wrote?: string
    /** How the programmer got to the chip, where it was one: that is work on the board. */
    readonly wroteBy?: ProgrammerBy
  }
  /** The firmware chip taken off the board, or fitted again. */
  'chip moved': {
    readonly to: 'off' | 'on'
    readonly by: (typeof movedBy)[number]
    /** What stood open before it, and was seen to. */
    readonly despite: readonly string[]
  }
  /** What was looked at and measured of a chip that was fitted again. */
  refit: {
    readonly orientation?: 'right' | 'turned'
    readonly pads?: 'whole' | 'lifted'
    readonly joints?: 'sound' | 'open or bridged'
    /** Whatever was moved for the work sits home again: modules, cards, plugs. */
    readonly seated?: boolean
    /** Pads or joints were reflowed. */
    readonly reflowed?: true
    /** Ohms from a pin to the far end of its line; null where it reads open. */
    readonly lines?: Readonly<Partial<Record<ChipPin, number | null>>>
  }
  /** What is wanted of the firmware, and the way there that was chosen; the steps are followed on the tape. */
  route: {
    readonly want: Pair
    readonly by: Weighting
    /** CPUs at hand, and the ways, in words. */
    readonly hand: readonly string[]
    readonly ways: readonly string[]
    readonly steps: readonly RouteLeg[]
    readonly minutes: number
    readonly risk: number
    readonly price: number
    readonly trust: number
    readonly unstable: boolean
  }
  image: {
    readonly file: string
    readonly name: string
    readonly bytes: number
    readonly role: ImageRole
    /** Versions that stand in it as text. */
    readonly versions: readonly string[]
    /** It was fetched from its maker here; left out where nobody has said where it comes from. */
    readonly source?: 'maker'
  }
  /** The chip's contents, as read, beside a release. */
  compared: {
    readonly original: string
    readonly second: string | null
    readonly release: string
    readonly older: string | null
    readonly label: string | null
    readonly verdict: Verdict
    readonly say: string
    readonly why: readonly string[]
    /** Where on the chip it is broken off or damaged. */
    readonly places: readonly Run[]
  }
  /** The chip was written, and read back byte for byte. */
  written: {
    readonly image: string
    /** The file of the release it was built from; null where the backup was put back. */
    readonly release: string | null
    readonly backup: string | null
    readonly id: string
    readonly erased: number
    readonly programmed: number
    /** What stood open before it, and was seen to. */
    readonly despite: readonly string[]
  }
}

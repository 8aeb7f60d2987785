import type { MissingPart } from './missing/infer'
import type { PartDamage, PartPlace } from './found'

export interface PartsBodies {
  /** What was read of the two pads of a part that is not there; the last of a part stands. */
  pads: MissingPart & { readonly ref: string }
  part: {
    readonly ref: string
    readonly did: 'found missing' | 'found damaged' | 'taken off' | 'fitted' | 'measured'
    readonly value?: string
    readonly side?: 'top' | 'bottom'
    readonly text?: string
    /** What is wrong with one that was found damaged. */
    readonly how?: PartDamage
    readonly place?: PartPlace
    /** A net it is on, off a board map or by the meter. */
    readonly net?: string
  }
}

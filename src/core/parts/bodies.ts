import type { MissingPart } from './missing/infer'
import type { HeatReading } from './heat/heat-fit'
import type { PullResult } from './heat/pulls'
import type { HeatStep, SetUp } from './heat/set-up'
import type { PartDamage, PartPlace } from './found'

export interface PartsBodies {
  /** What was read of the two pads of a part that is not there; the last of a part stands. */
  pads: MissingPart & { readonly ref: string }
  /** A heat recipe that was kept; `ref` is what it is for, where it has a name. It floats at so many seconds, or never. */
  recipe: Omit<SetUp, 'air' | 'preheater'> & {
    readonly ref?: string
    readonly steps: readonly HeatStep[]
    readonly floatsAtS: number | null
  }
  /** A thermocouple read while the recipe ran that was kept last. */
  thermocouple: HeatReading
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
    /** What it was taken from the shelf as, where it came from there. */
    readonly stock?: string
  }
  /** Small parts at a place, counted; `of` is how many there should be, by an earlier count or the board map. */
  'parts counted': { readonly place: PartPlace; readonly count: number; readonly of?: number }
  /** Work that was seen to be needed and left for later. */
  deferred: { readonly text: string }
  /** It was done after all, or somebody answers for leaving it. */
  'deferred settled': {
    readonly deferred: number
    readonly how: 'done' | 'signed off'
    readonly why: string
  }
  /** A thing that was ordered or is awaited, and the day it is expected; null while nobody knows. */
  awaited: { readonly what: string; readonly expectedOn: string | null }
  'awaited settled': { readonly awaited: number; readonly how: 'arrived' | 'not coming' }
  /** A contact pulled out of a donor socket for practice, before a transplant. */
  pull: { readonly came: PullResult; readonly donor?: string }
  /** One piece of a thing of the shelf, for this job. */
  stock: {
    readonly item: string
    readonly did: 'reserved' | 'released' | 'used'
  }
}

import type { Anchor } from '@/core/socket/photo/anchors'
import type { LocateAnswer } from '@/core/socket/photo/locate'
import type { Part } from '@/core/socket/photo/clicks'
import type { Tilt } from '@/core/socket/photo/tip-height'

/** A photo being made into a map. */
export interface PhotoInHand {
  readonly id: string
  readonly name: string
  readonly file: Blob
  readonly url: string
  /** Null while it is being opened, or when it cannot be. */
  readonly size: { readonly widthPx: number; readonly heightPx: number } | null
  readonly fault: string
  /** It hangs on the job already. */
  readonly kept: boolean
  /** From the side, for heights; null for one from straight above. */
  readonly side: Tilt | null
  readonly mirrored: boolean
  /** What of the field it shows. */
  readonly part: Part
  readonly anchors: readonly Anchor[]
  /** Share read; null when it is not being read. */
  readonly progress: number | null
  readonly answer: LocateAnswer | null
}

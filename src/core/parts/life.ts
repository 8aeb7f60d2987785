import { isFound } from './found'
import { inferMissing } from './missing/infer'
import type { Inference } from './missing/infer'
import type { PartsState } from './slice'
import { readValue } from './value/quantity'

/** What was read across a part that was fitted, beside what had to be read. */
export interface Across {
  readonly ohms: number
  readonly fits: boolean
  readonly say: string
}

/** What one part has gone through, and what is known of it. */
export interface PartLife {
  readonly ref: string
  readonly noted: PartsState['noted']
  readonly last: PartsState['noted'][number]
  /** It was found missing or broken. */
  readonly found: boolean
  readonly inference: Inference | null
  /** The last reading across it since it was fitted; null where none counts. */
  readonly across: Across | null
}

/** The parts that were noted, each once, as they came. */
export const refsOf = ({ noted }: Pick<PartsState, 'noted'>): readonly string[] => [
  ...new Set(noted.map((p) => p.ref)),
]

/** The life of a part that was noted. */
export function lifeOf({ noted, pads }: PartsState, ref: string): PartLife {
  const own = noted.filter((p) => p.ref === ref)
  const read = pads[ref]
  const inference = read ? inferMissing(read) : null
  const fitted = own.findLast((p) => p.did === 'fitted')?.seq ?? Infinity
  const measured = own.findLast((p) => p.did === 'measured' && p.seq > fitted && p.value !== undefined)
  return {
    ref,
    noted: own,
    last: own.at(-1)!,
    found: own.some(isFound),
    inference,
    across: measured ? acrossOf(measured.value!, inference?.expects ?? null) : null,
  }
}

function acrossOf(written: string, expects: Inference['expects']): Across | null {
  const ohms = /^open$/i.test(written.trim()) ? Infinity : readValue('resistor', written)
  if (ohms === null || !expects) return null
  const fits = ohms >= expects.least && ohms <= expects.most
  const why = fits
    ? 'as it must'
    : ohms > expects.most
      ? 'too much: a poor joint, or another value'
      : 'too little: bridged, or another value'
  return { ohms, fits, say: `${why}; ${expects.say}` }
}

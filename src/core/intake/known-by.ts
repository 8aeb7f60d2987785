/** How an owner knows what they say. */
export const ownersKnow = ['heard of it', 'saw it', 'did it, knows how'] as const
/** How whoever says something knows it: an owner, or whoever gave a second opinion by photos. */
export const knownBy = [...ownersKnow, 'judges by photos'] as const
export type KnownBy = (typeof knownBy)[number]

/** How often it is so, before the shop’s record says (bench default), and how many claims that is worth against it. */
const usually: Readonly<Record<KnownBy, number>> = {
  'heard of it': 0.25,
  'saw it': 0.5,
  'did it, knows how': 0.75,
  'judges by photos': 0.5,
}
const WORTH = 10
/** A word is never believed as much as what was seen here (bench default). */
const MOST = 0.9

/** How far a claim is believed: the bench default against what claims of its sort came to, (10·r₀ + held) / (10 + checked), at most 0.9. */
export function believedOf(
  knows: KnownBy,
  record: { readonly held: number; readonly checked: number } | undefined,
): number {
  const { held, checked } = record ?? { held: 0, checked: 0 }
  if (!(held >= 0 && held <= checked)) throw new RangeError(`${held} of ${checked} claims cannot have held`)
  return Math.min(MOST, (WORTH * usually[knows] + held) / (WORTH + checked))
}

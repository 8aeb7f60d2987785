import type { PartsState } from './slice'

/**
 * Why a photo is taken before the iron: there is none, or none since a part was last lifted or soldered. Compared afterwards,
 * it shows what went missing meanwhile. Null where there is one.
 */
export function photoOwed(photos: readonly { readonly seq: number }[], { noted }: PartsState): string | null {
  const last = photos.at(-1)?.seq ?? 0
  if (last === 0) return 'No photo of this board yet'
  const iron = noted.findLast((p) => p.did === 'taken off' || p.did === 'fitted')
  return iron && iron.seq > last ? `No photo since ${iron.ref} was ${iron.did}` : null
}

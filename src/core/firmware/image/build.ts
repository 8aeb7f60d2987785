import { headerOf, inspect } from './inspect'
import { layOn } from './laid'
import { placementOf } from './placement'
import { fileFaults } from './soundness'

/** Where the bytes of a range of the image to write come from. */
export interface BuiltRange {
  readonly from: number
  readonly to: number
  readonly source: 'release' | 'original'
  readonly why: string
}

export interface Built {
  readonly image: Uint8Array
  /** Every byte of it once, in order. */
  readonly ranges: readonly BuiltRange[]
  /** Bytes taken from the release that differ on the chip and might be the board's own: nobody knows. */
  readonly doubtful: number
}

/**
 * The image to write on a chip: the maker's release with the board's own data carried over from the original, every byte
 * from one of the two. What is outside of the release stays the original's; a stretch of its own that is erased there is
 * taken from the release, where it says something. The originals are not changed.
 * @param own stretches of the release that are known to be the board's
 * @returns a sentence where it cannot be built: where the file belongs must be known, never assumed
 */
export function buildImage(
  original: Uint8Array,
  release: Uint8Array,
  own: readonly { readonly from: number; readonly to: number }[] = [],
): Built | string {
  const file = inspect(release)
  if (fileFaults(file).length > 0) return 'The release’s own file is damaged or cut off: fetch it again.'
  const { at, why } = placementOf(inspect(original), file)
  if (at === null) return `It is not known where the file belongs on this chip: ${why}.`
  const laid = layOn(original, release, file, at, own)
  const image = original.slice()
  const ranges: BuiltRange[] = []
  let doubtful = 0
  const put = (from: number, to: number, source: BuiltRange['source'], because: string) => {
    if (to <= from) return
    const last = ranges.at(-1)
    if (last?.source === source && last.why === because && last.to === from)
      ranges[ranges.length - 1] = { ...last, to }
    else ranges.push({ from, to, source, why: because })
  }
  put(0, at, 'original', 'outside of the release')
  for (const { owner, differing, ...s } of laid.stretches) {
    const [from, to] = [s.from + at, s.to + at]
    const bytes = laid.release.subarray(s.from, s.to)
    const lost =
      owner === 'own' && bytes.some((b) => b !== 0xff) && original.subarray(from, to).every((b) => b === 0xff)
    if (owner === 'own' && !lost) {
      put(from, to, 'original', 'the board’s own')
      continue
    }
    image.set(bytes, from)
    if (owner === 'unknown') doubtful += differing
    put(
      from,
      to,
      'release',
      lost
        ? 'the board’s own, erased on the chip'
        : owner === 'unknown'
          ? 'neither code nor the board’s own'
          : owner,
    )
  }
  put(at + release.length - headerOf(file), image.length, 'original', 'outside of the release')
  return { image, ranges, doubtful }
}

import { inspect } from './inspect'
import { ownersOf } from './owner'
import { placementOf } from './placement'
import { unsoundIn } from './soundness'

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
  const [chip, file] = [inspect(original), inspect(release)]
  if (release.length === 0 || unsoundIn(file).length > 0)
    return 'The release’s own file is damaged: fetch it again.'
  const { at, why } = placementOf(chip, file)
  if (at === null) return `It is not known where the file belongs on this chip: ${why}.`
  const header = file.capsule?.headerBytes ?? 0
  const image = original.slice()
  const ranges: BuiltRange[] = []
  const put = (from: number, to: number, source: BuiltRange['source'], because: string) => {
    if (to <= from) return
    const last = ranges.at(-1)
    if (last?.source === source && last.why === because && last.to === from)
      ranges[ranges.length - 1] = { ...last, to }
    else ranges.push({ from, to, source, why: because })
  }
  put(0, at, 'original', 'outside of the release')
  for (const stretch of ownersOf(release, file, own)) {
    const [from, to] = [stretch.from - header + at, stretch.to - header + at]
    const bytes = release.subarray(stretch.from, stretch.to)
    if (stretch.owner !== 'own') {
      image.set(bytes, from)
      put(
        from,
        to,
        'release',
        stretch.owner === 'unknown' ? 'neither code nor the board’s own' : stretch.owner,
      )
      continue
    }
    const erased = original.subarray(from, to).every((b) => b === 0xff)
    if (erased && bytes.some((b) => b !== 0xff)) {
      image.set(bytes, from)
      put(from, to, 'release', 'the board’s own, erased on the chip')
    } else put(from, to, 'original', 'the board’s own')
  }
  put(at + release.length - header, image.length, 'original', 'outside of the release')
  return { image, ranges }
}

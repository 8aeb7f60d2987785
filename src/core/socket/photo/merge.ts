import type { Located } from './locate'
import type { TipHeight } from './tip-height'
import { DISPLACED_MM } from './work'
import type { SeenAs, TipSeen } from './work'
import type { Point } from '../../photo/projection'

/** One photo that was read: a name to speak of it by. */
export interface Read {
  readonly name: string
  readonly located: Located
}

/** What the photos together say of a contact. */
export interface MergedTip {
  readonly name: string
  readonly as: SeenAs
  readonly offsetMm: Point | null
  readonly confidence: number
  readonly shine: number
  readonly heightMm: number | null
  readonly over?: string
  readonly why?: string
  /** The photo that shows it best, and where, for a crop; null where none shows its place. */
  readonly photo: string | null
  readonly px: Point
}

export interface Disagreement {
  readonly name: string
  readonly said: readonly { readonly photo: string; readonly as: SeenAs; readonly offsetMm: Point | null }[]
}

export interface Merged {
  readonly tips: readonly MergedTip[]
  readonly disagreements: readonly Disagreement[]
  /** Contacts that some photo shows. */
  readonly seen: number
}

/** Two photos that put a tip this far apart do not agree, mm: four times the scatter of a good photo and more. */
const DISAGREE_MM = 0.08

/**
 * Several photos of one field as one: a contact that only some show is taken from those; where several show it their
 * offsets are averaged by 1/spread²; where they do not agree it is ambiguous, and what each says is listed.
 * A photo that is sure outweighs one that is in doubt; what no photo shows is not seen.
 * @param heights from a tilted photo, if there is one
 * @throws RangeError without photos, or if they are not of the same socket
 */
export function mergePhotos(photos: readonly Read[], heights: readonly TipHeight[] = []): Merged {
  const first = photos[0]
  if (!first) throw new RangeError('there is no photo to merge')
  const height = new Map(heights.map((h) => [h.name, h.heightMm]))
  const disagreements: Disagreement[] = []
  const tips = first.located.tips.map(({ name }, i): MergedTip => {
    const views = photos.map(({ name: photo, located }) => {
      const tip = located.tips[i]
      if (tip?.name !== name)
        throw new RangeError(`the photos are not of one socket: ${name} has no place in ${photo}`)
      return { photo, tip, spreadMm: located.spreadMm, sharp: located.pxPerMm }
    })
    const shown = views.filter(({ tip }) => tip.as !== 'not seen')
    const heightMm = height.get(name) ?? null
    if (shown.length === 0) return { ...bare(first.located.tips[i]!), heightMm, photo: null }
    const sure = shown.filter(({ tip }) => tip.as !== 'ambiguous')
    const heard = sure.length > 0 ? sure : shown
    const best = heard.reduce((a, b) => (b.tip.confidence * b.sharp > a.tip.confidence * a.sharp ? b : a))
    const found = heard.filter(({ tip }) => tip.offsetMm)
    const mean = weighedMean(found)
    const apart = Math.max(
      0,
      ...found.map(({ tip }) => Math.hypot(tip.offsetMm![0] - mean![0], tip.offsetMm![1] - mean![1])),
    )
    const split = (found.length > 0 && found.length < heard.length) || apart > DISAGREE_MM / 2 + 0.03
    if (split && heard.length > 1) {
      disagreements.push({
        name,
        said: heard.map(({ photo, tip }) => ({ photo, as: tip.as, offsetMm: tip.offsetMm })),
      })
      return {
        ...bare(best.tip),
        as: 'ambiguous',
        confidence: 0.5,
        heightMm,
        photo: best.photo,
        why: 'the photos do not agree',
      }
    }
    if (!mean || sure.length === 0) return { ...bare(best.tip), heightMm, photo: best.photo }
    const confidence = 1 - heard.reduce((p, { tip }) => p * (1 - tip.confidence), 1)
    const as = Math.hypot(...mean) >= DISPLACED_MM ? 'displaced' : 'in place'
    return { ...bare(best.tip), as, offsetMm: mean, confidence, heightMm, photo: best.photo }
  })
  return { tips, disagreements, seen: tips.filter((t) => t.as !== 'not seen').length }
}

const bare = ({ name, as, offsetMm, confidence, shine, px, over, why }: TipSeen) => ({
  name,
  as,
  offsetMm,
  confidence,
  shine,
  px,
  ...(over ? { over } : {}),
  ...(why ? { why } : {}),
})

function weighedMean(found: readonly { readonly tip: TipSeen; readonly spreadMm: number }[]): Point | null {
  if (found.length === 0) return null
  let [x, y, sum] = [0, 0, 0]
  for (const { tip, spreadMm } of found) {
    const weight = 1 / (spreadMm * spreadMm)
    x += weight * tip.offsetMm![0]
    y += weight * tip.offsetMm![1]
    sum += weight
  }
  return [x / sum, y / sum]
}

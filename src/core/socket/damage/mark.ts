import { micrometre } from '../../maths/units'

/** What is wrong with a contact; every kind has its own shape on the map. */
export const damageKinds = [
  'intact',
  'lean',
  'low',
  'high',
  'twisted',
  'folded',
  'touching',
  'tip gone',
  'snapped',
  'scuffed',
  'lodged',
  'paste',
] as const
export type DamageKind = (typeof damageKinds)[number]

/** What was seen of one contact. Lean is the tip's displacement, seen from above; height is up. */
export interface Mark {
  readonly kind: DamageKind
  readonly leanMm?: readonly [number, number]
  /** Below zero is low, above is high. */
  readonly heightMm?: number
  /** Name of the neighbour it touches or lies over. */
  readonly touches?: string
  readonly twistDeg?: number
  readonly unsure?: boolean
  /** What else it may be: missing or folded? Kept open until a look settles it. */
  readonly maybe?: DamageKind
  /** Its measures are the usual ones of the kind, set by a key and not measured. */
  readonly about?: true
}

export type Marks = Readonly<Record<string, Mark>>

/** How a kind is said at the bench, on its own and with a swath. */
export const damageWords: Readonly<
  Record<DamageKind, { readonly word: string; readonly land: string; readonly pin: string }>
> = {
  intact: { word: 'sound', land: 'stands as its neighbours do', pin: 'stands straight' },
  lean: { word: 'leaning', land: 'tip dragged sideways', pin: 'leans out of line' },
  low: { word: 'low', land: 'pressed below the others', pin: 'pushed in' },
  high: { word: 'high', land: 'stands above the others', pin: 'pulled out' },
  twisted: { word: 'twisted', land: 'tip turned about its beam', pin: 'turned' },
  folded: { word: 'folded flat', land: 'lies back over a neighbour', pin: 'lies flat' },
  touching: { word: 'touching', land: 'rests against a neighbour', pin: 'rests against a neighbour' },
  'tip gone': { word: 'tip gone', land: 'the tip broke off, the beam stands', pin: 'the end broke off' },
  snapped: { word: 'snapped off', land: 'nothing left above the housing', pin: 'missing' },
  scuffed: { word: 'housing scuffed', land: 'plastic scuffed or melted here', pin: 'body scuffed here' },
  lodged: { word: 'something lodged', land: 'a foreign piece sits here', pin: 'a foreign piece sits here' },
  paste: { word: 'paste', land: 'heat paste on the contact', pin: 'heat paste on the pin' },
}

export const isDamage = (mark: Mark | undefined): boolean => mark !== undefined && mark.kind !== 'intact'

/** Nothing of it can reach the land any more. */
export const isGone = (mark: Mark): boolean =>
  mark.kind === 'snapped' || mark.kind === 'tip gone' || mark.kind === 'folded'

/** The lean of a contact that is only said to lean; one that touches another is at least so far off (bench default, mm). */
export const USUAL_LEAN_MM = 0.2
const TOUCHING_LEAN_MM = 0.4

/** The lean to reckon with: measured if measured, else the usual for the kind; which way is then not known. */
export function usualLeanMm(mark: Mark): readonly [number, number] {
  if (mark.leanMm) return mark.leanMm
  return mark.kind === 'lean' ? [USUAL_LEAN_MM, 0] : [0, 0]
}

/** How far its tip is off sideways, mm: what touches a neighbour is off its land, however it was measured. */
export const leanSizeMm = (mark: Mark): number =>
  Math.max(Math.hypot(...usualLeanMm(mark)), mark.kind === 'touching' ? TOUCHING_LEAN_MM : 0)

/** The twist to reckon with, degrees from straight, 0 to 180. */
export function usualTwistDeg(mark: Mark): number {
  const deg = mark.twistDeg ?? (mark.kind === 'twisted' ? 30 : 0)
  const turned = Math.abs(deg) % 360
  return Math.min(turned, 360 - turned)
}

/** Height off level to reckon with, mm: measured if measured, else the usual for the kind (bench default). */
export function usualHeightMm(mark: Mark): number {
  if (mark.heightMm !== undefined) return mark.heightMm
  if (mark.kind === 'low') return -0.15
  if (mark.kind === 'high') return 0.12
  if (mark.kind === 'twisted') return -0.05 * Math.min(1, usualTwistDeg(mark) / 30)
  return 0
}

/** What is left of an offset after a stroke that fell short, and what it comes to the other way if it went past (bench default). */
export const LEFT_SHORT = 0.35
export const GONE_PAST = -0.3

/** How a contact stands after a stroke, as far as it can be told before it is measured again; null where nothing is wrong any more. */
export function afterStroke(
  mark: Mark | undefined,
  { result, touches }: { readonly result: string; readonly touches?: string },
): Mark | null {
  if (result === 'there') return null
  if (result === 'snapped') return { kind: 'snapped' }
  if (result === 'touching') {
    // Whom it touched before says nothing of whom it touches now.
    const { touches: _, ...rest } = mark ?? {}
    return { ...rest, kind: 'touching', ...(touches ? { touches } : {}) }
  }
  const share = result === 'still short' ? LEFT_SHORT : result === 'past' ? GONE_PAST : 1
  if (!mark || share === 1) return mark ?? null
  const { leanMm, heightMm, touches: _, ...rest } = mark
  const height = heightMm ?? (mark.kind === 'low' || mark.kind === 'high' ? usualHeightMm(mark) : undefined)
  const freed = mark.kind === 'touching' || mark.kind === 'folded' ? ('lean' as const) : mark.kind
  const left = height === undefined ? undefined : micrometre(height * share)
  const kind =
    left !== undefined && (freed === 'low' || freed === 'high') ? (left < 0 ? 'low' : 'high') : freed
  return {
    ...rest,
    kind,
    ...(leanMm
      ? {
          leanMm: [micrometre(leanMm[0] * share), micrometre(leanMm[1] * share)] as const,
        }
      : {}),
    ...(left === undefined ? {} : { heightMm: left }),
  }
}

/** One line for the tape: “low by 0.19 mm, leaning 0.14 mm”; what is not measured is said as about. */
export function sayMark(mark: Mark): string {
  const about = mark.about ? 'about ' : ''
  const lean = mark.leanMm ? Math.hypot(...mark.leanMm) : 0
  const height = mark.heightMm
    ? `${mark.heightMm < 0 ? 'low' : 'high'} by ${about}${Math.abs(mark.heightMm).toFixed(2)} mm`
    : mark.kind === 'low' || mark.kind === 'high'
      ? `${mark.kind} by about ${Math.abs(usualHeightMm(mark)).toFixed(2)} mm`
      : ''
  const isHeight = mark.kind === 'low' || mark.kind === 'high'
  const said = [isHeight && height ? height : damageWords[mark.kind].word]
  if (mark.maybe) said[0] += ` or ${damageWords[mark.maybe].word}`
  if (lean > 0.004)
    said.push(
      mark.kind === 'lean' ? `${about}${lean.toFixed(2)} mm` : `leaning ${about}${lean.toFixed(2)} mm`,
    )
  else if (mark.kind === 'lean') said.push(`about ${USUAL_LEAN_MM.toFixed(2)} mm`)
  if (mark.kind === 'twisted')
    said.push(
      mark.twistDeg === undefined
        ? `about ${usualTwistDeg(mark)}°`
        : `${about}${Math.round(usualTwistDeg(mark))}°`,
    )
  if (height && !isHeight) said.push(height)
  if ((mark.kind === 'touching' || mark.kind === 'folded') && !mark.touches)
    said.push('which neighbour is not said')
  if (mark.touches) said.push(`${mark.kind === 'folded' ? 'over' : 'on'} ${mark.touches}`)
  if (mark.unsure) said.push('not sure')
  return said.join(', ')
}

import { unknownContact, fieldOf } from '../model/socket'
import type { Socket } from '../model/socket'
import { fromPairs, project, scaleAt } from '../../photo/projection'
import type { Pair, Point, Projection } from '../../photo/projection'

/** A contact somebody clicked on, and where. */
export interface Anchor {
  readonly contact: string
  readonly px: Point
}

/** Why a photo cannot be read, or should be read with care: the field it is about, what is wrong, the mend. */
export interface PhotoFault {
  readonly field: 'anchors' | 'photo' | 'socket'
  readonly text: string
}

/** Twice the area of a triangle, positive when its corners run anticlockwise (y up). */
const turn = (a: Point, b: Point, c: Point) => (b[0] - a[0]) * (c[1] - a[1]) - (b[1] - a[1]) * (c[0] - a[0])

/** The thinnest height of the triangles three by three, over the widest distance: 0 when all are in a line. */
function spread(points: readonly Point[]): number {
  let widest = 0
  for (const a of points)
    for (const b of points) widest = Math.max(widest, Math.hypot(a[0] - b[0], a[1] - b[1]))
  let most = 0
  for (let i = 0; i < points.length; i++)
    for (let j = i + 1; j < points.length; j++)
      for (let k = j + 1; k < points.length; k++) {
        let thinnest = Infinity
        const [a, b, c] = [points[i]!, points[j]!, points[k]!]
        for (const [p, q] of [
          [a, b],
          [b, c],
          [c, a],
        ] as const)
          thinnest = Math.min(
            thinnest,
            Math.abs(turn(a, b, c)) / Math.max(1e-9, Math.hypot(p[0] - q[0], p[1] - q[1])),
          )
        most = Math.max(most, thinnest)
      }
  return widest === 0 ? 0 : most / widest
}

/**
 * The field laid through the clicks, or what is wrong with them: too few, a stranger, two on one spot, in one line,
 * mirrored, two exchanged, or a picture that would have to be taken from an impossible side.
 * @param mirrored true when the photo is known to show the field mirrored
 */
export function layThrough(
  socket: Socket,
  anchors: readonly Anchor[],
  widthPx: number,
  heightPx: number,
  mirrored = false,
):
  | { readonly projection: Projection; readonly fault: null }
  | { readonly projection: null; readonly fault: PhotoFault } {
  const bad = (text: string, field: PhotoFault['field'] = 'anchors') => ({
    projection: null,
    fault: { field, text },
  })
  if (anchors.length < 4)
    return bad(`${anchors.length} contacts are clicked; four are needed, far apart, not in one line`)
  const names = anchors.map((a) => a.contact)
  const stranger = unknownContact(socket, names)
  if (stranger) return bad(stranger)
  const twice = names.find((name, i) => names.indexOf(name) !== i)
  if (twice) return bad(`${twice} is clicked twice; click another contact instead`)
  const outside = anchors.find(({ px: [x, y] }) => !(x >= 0 && y >= 0 && x <= widthPx && y <= heightPx))
  if (outside)
    return bad(`the click for ${outside.contact} lies outside the picture of ${widthPx} × ${heightPx} px`)
  const { named } = fieldOf(socket)
  const pairs = anchors.map(({ contact, px }): Pair => {
    const c = named.get(contact)!
    return { mm: [c.xMm, c.yMm], px }
  })
  for (let i = 0; i < pairs.length; i++)
    for (let j = 0; j < i; j++)
      if (Math.hypot(pairs[i]!.px[0] - pairs[j]!.px[0], pairs[i]!.px[1] - pairs[j]!.px[1]) < 8)
        return bad(`${names[j]} and ${names[i]} are clicked on the same spot; click each on its own tip`)
  if (spread(pairs.map((p) => p.mm)) < 0.08 || spread(pairs.map((p) => p.px)) < 0.08)
    return bad('the clicked contacts lie in one line; take one of them from another side of the field')
  // Seen from above a triangle runs the other way round in the picture (y is down there); from below or mirrored, not.
  let plain = 0
  let other = 0
  for (let i = 0; i < pairs.length; i++)
    for (let j = i + 1; j < pairs.length; j++)
      for (let k = j + 1; k < pairs.length; k++) {
        const [a, b, c] = [pairs[i]!, pairs[j]!, pairs[k]!]
        const onField = turn(a.mm, b.mm, c.mm)
        const inPhoto = turn(a.px, b.px, c.px)
        const size = Math.abs(onField) / socket.pitchMm ** 2
        if (size < 4) continue
        if (onField * inPhoto < 0) plain++
        else other++
      }
  if (mirrored) [plain, other] = [other, plain]
  if (other > 0 && plain > 0)
    return bad(
      'two of the clicked contacts seem to be exchanged: going round them, photo and socket do not agree; click them again, each on its own tip',
    )
  if (other > 0)
    return bad(
      mirrored
        ? 'the clicks lie the right way round, though the photo is said to be mirrored; take “mirrored” off'
        : 'the clicks lie mirrored: the photo shows the field as in a mirror, or left and right were exchanged; say that it is mirrored, or click again',
    )
  const projection = fromPairs(pairs, widthPx, heightPx)
  const far = pairs.findIndex(({ mm, px }) => {
    const at = project(projection, mm[0], mm[1])
    return (
      Math.hypot(at[0] - px[0], at[1] - px[1]) > 0.35 * socket.pitchMm * scaleAt(projection, mm[0], mm[1])
    )
  })
  if (far >= 0)
    return bad(`the click for ${names[far]} does not fit the others; click it again on its own tip`)
  const scales = corners(socket).map(([x, y]) => scaleAt(projection, x, y))
  const widest = Math.max(...scales) / Math.min(...scales)
  const [right, away] = stretch(projection)
  if (!(widest < 2.2) || Math.max(right / away, away / right) > 2)
    return bad(
      'no camera could stand so that the clicks lie like that: two are exchanged, or this is another socket',
    )
  return { projection, fault: null }
}

/** The four corners of the field, mm. */
export function corners(socket: Socket): readonly Point[] {
  const xs = socket.contacts.map((c) => c.xMm)
  const ys = socket.contacts.map((c) => c.yMm)
  const [l, r, b, t] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)]
  return [
    [l, t],
    [r, t],
    [r, b],
    [l, b],
  ]
}

/** Pixels per mm at the middle of the field, to the right and away. */
export function stretch(p: Projection): readonly [number, number] {
  const at = project(p, 0, 0)
  const of = (x: number, y: number) => {
    const to = project(p, x, y)
    return Math.hypot(to[0] - at[0], to[1] - at[1]) / 0.1
  }
  return [of(0.1, 0), of(0, 0.1)]
}

import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { between } from '../../maths/between.testing'
import { generateField } from '../model/generate'
import type { Marks } from '../damage/mark'
import type { Anchor } from './anchors'
import { nextToClick, parts, roughly, whereIs } from './clicks'
import type { ClickQuestion } from './clicks'
import type { Point } from '../../photo/projection'

const socket = generateField({
  id: 'f',
  name: 'field',
  kind: 'land-grid',
  pitchMm: 1,
  rows: 20,
  columns: 20,
  holes: [{ rows: [8, 11], columns: [8, 11] }],
  beamDeg: [45, 225],
  regions: [],
})
const at = (name: string): Point => {
  const c = socket.contacts.find((o) => o.name === name)!
  return [c.xMm, c.yMm]
}
const question: ClickQuestion = {
  part: 'whole',
  anchors: [],
  mirrored: false,
  widthPx: 1600,
  heightPx: 1600,
}
/** A camera straight above: turned, so many pixels to a millimetre, its middle somewhere. */
const camera =
  (turnDeg: number, pxPerMm: number, [mx, my]: Point, mirrored: boolean) =>
  ([x, y]: Point): Point => {
    const [u, v] = [(mirrored ? -x : x) * pxPerMm, -y * pxPerMm]
    const [c, s] = [Math.cos((turnDeg * Math.PI) / 180), Math.sin((turnDeg * Math.PI) / 180)]
    return [mx + c * u - s * v, my + s * u + c * v]
  }
const anyCamera = fc.record({
  turnDeg: between(-180, 180),
  pxPerMm: between(20, 90),
  middle: fc.tuple(between(-500, 3000), between(-500, 3000)),
  mirrored: fc.boolean(),
})
/** Clicks one contact after another, each where the camera has it, until nothing more is asked for. */
function clickAll(lens: (mm: Point) => Point, change: Partial<ClickQuestion>, marks: Marks = {}): Anchor[] {
  const anchors: Anchor[] = [...(change.anchors ?? [])]
  for (let i = 0; i < 9; i++) {
    const next = nextToClick(socket, marks, { ...question, ...change, anchors })
    if (!next) return anchors
    anchors.push({ contact: next.contact, px: lens(at(next.contact)) })
  }
  throw new Error('it never ends')
}

describe('about where contacts are', () => {
  it('two clicks tell it to a hair for a camera straight above, mirrored or not', () => {
    fc.assert(
      fc.property(
        anyCamera,
        fc.uniqueArray(fc.constantFrom(...socket.contacts.map((c) => c.name)), {
          minLength: 3,
          maxLength: 6,
        }),
        ({ turnDeg, pxPerMm, middle, mirrored }, names) => {
          const lens = camera(turnDeg, pxPerMm, middle, mirrored)
          const [last, ...clicked] = names.reverse()
          const place = roughly(
            socket,
            clicked.map((contact) => ({ contact, px: lens(at(contact)) })),
            mirrored,
          )!
          const [x, y] = place(at(last!))
          expect(Math.hypot(x - lens(at(last!))[0], y - lens(at(last!))[1])).toBeLessThan(1e-6 * pxPerMm)
        },
      ),
    )
  })
  it('one click, two on one spot, or a stranger tell nothing', () => {
    expect(roughly(socket, [{ contact: 'A1', px: [3, 3] }], false)).toBeNull()
    const twice: Anchor[] = [
      { contact: 'A1', px: [3, 3] },
      { contact: 'A9', px: [3, 3] },
    ]
    expect(roughly(socket, twice, false)).toBeNull()
    expect(roughly(socket, [...twice.slice(1), { contact: 'ZZ9', px: [9, 9] }], false)).toBeNull()
  })
})

describe('what to click', () => {
  it('the four corners of the whole field, sound ones, going round', () => {
    const lens = camera(3, 70, [800, 800], false)
    expect(clickAll(lens, {}).map((a) => a.contact)).toEqual(['A1', 'A20', 'Y20', 'Y1'])
    expect(clickAll(lens, {}, { A1: { kind: 'low' } }).map((a) => a.contact)).not.toContain('A1')
    // Clicked as in a mirror, not said to be: the corners are asked for all the same.
    const mirror = camera(0, 70, [800, 800], true)
    expect(clickAll(mirror, {}).map((a) => a.contact)).toEqual(['A1', 'A20', 'Y20', 'Y1'])
  })
  it.each([
    ['far left', [1500, 1500], 'A1'],
    ['far right', [100, 1500], 'A20'],
    ['near left', [1500, 100], 'Y1'],
    ['near right', [100, 100], 'Y20'],
  ] as const)(
    'a photo of the %s: its own corner first, then what the picture shows, all within it',
    (part, middle, first) => {
      const lens = camera(0, 140, middle, false)
      const anchors = clickAll(lens, { part })
      expect(anchors[0]!.contact).toBe(first)
      expect(anchors).toHaveLength(4)
      for (const { px } of anchors.slice(2))
        for (const v of px) {
          expect(v).toBeGreaterThan(0)
          expect(v).toBeLessThan(1600)
        }
    },
  )
  it('two clicks on a part, whichever they are, are enough to ask for what is in it, and to show about where', () => {
    const lens = camera(8, 150, [-300, 1900], false)
    const anchors = ['A16', 'B20'].map((contact) => ({ contact, px: lens(at(contact)) }))
    const next = nextToClick(socket, {}, { ...question, part: 'far right', anchors })!
    const [x, y] = lens(at(next.contact))
    expect(x > 0 && y > 0 && x < 1600 && y < 1600).toBe(true)
    expect(Math.hypot(next.aboutPx![0] - x, next.aboutPx![1] - y)).toBeLessThan(1)
  })
  it('whatever is clicked, it asks for a contact that is not clicked, or for none, and soon for none', () => {
    fc.assert(
      fc.property(
        anyCamera,
        fc.constantFrom(...parts),
        fc.uniqueArray(fc.constantFrom(...socket.contacts.map((c) => c.name)), { maxLength: 3 }),
        ({ turnDeg, pxPerMm, middle, mirrored }, part, names) => {
          const lens = camera(turnDeg, pxPerMm, middle, mirrored)
          const anchors = names.map((contact) => ({ contact, px: lens(at(contact)) }))
          const all = clickAll(lens, { part, anchors, mirrored })
          expect(new Set(all.map((a) => a.contact)).size).toBe(all.length)
          expect(all.length).toBeGreaterThanOrEqual(4)
          expect(all.length).toBeLessThanOrEqual(8)
        },
      ),
    )
  })
})

describe('where a contact is', () => {
  it.each([
    ['A1', 'far row, leftmost'],
    ['Y20', 'near row, rightmost'],
    ['B3', '2nd row from the far side, 3rd from the left'],
    ['W18', '2nd row from the near side, 3rd from the right'],
    ['ZZ1', 'no such contact'],
  ])('%s is in the %s', (name, words) => expect(whereIs(socket, name)).toBe(words))
})

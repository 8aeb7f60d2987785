import { describe, expect, it } from 'vitest'
import { drawDamage, usualDamage } from '@/simulated-bench/drawn-damage'
import { plainLook, plainShot, takePhoto } from '@/simulated-bench/microscope-camera'
import type { Photo, Shot } from '@/simulated-bench/microscope-camera'
import { generateField } from '../model/generate'
import type { Marks } from '../damage/mark'
import type { Contact, Socket } from '../model/socket'
import type { Anchor } from './anchors'
import { locate } from './locate'
import type { LocateAnswer } from './locate'

const field = (beamDeg: readonly [number, number], gaps: readonly string[] = []): Socket => {
  const made = generateField({
    id: 'f',
    name: 'test field',
    kind: 'land-grid',
    pitchMm: 0.9,
    rows: 18,
    columns: 18,
    holes: [{ rows: [7, 10], columns: [7, 10] }],
    beamDeg,
    regions: [],
  })
  return { ...made, contacts: made.contacts.filter((c) => !gaps.includes(c.name)) }
}
/** Left and right alike when turned by half a turn: only the pin-1 mark tells. */
const even = field([45, 225])
/** One corner and a notch without contacts. */
const keyed = field([45, 225], ['A1', 'A2', 'A3', 'B1', 'B2', 'C1', 'V9', 'V10', 'U9', 'U10'])

const shot: Shot = {
  ...plainShot,
  widthPx: 1360,
  heightPx: 1320,
  pxPerMm: 71,
  tiltDeg: 4,
  noise: 0.03,
  gradient: 0.2,
  seed: 51,
}
function runToEnd<T>(work: Generator<number, T>): T {
  let step = work.next()
  while (!step.done) step = work.next()
  return step.value
}
const take = (of: Socket, marks: Marks = {}, change: Partial<Shot> = {}) =>
  runToEnd(takePhoto(of, marks, { ...shot, ...change }))
/** Four that are there however the field is turned. */
const names = ['D4', 'D15', 'R15', 'R4']
/** Clicks on tips, named as if the field lay otherwise. */
function clicks(photo: Photo, of: Socket, as: (x: number, y: number) => readonly [number, number]): Anchor[] {
  return names.map((name) => {
    const at = photo.tips.find((t) => t.name === name)!
    const c = of.contacts.find((o) => o.name === name)!
    const [x, y] = as(c.xMm, c.yMm)
    const called = of.contacts.reduce((a, b) =>
      Math.hypot(b.xMm - x, b.yMm - y) < Math.hypot(a.xMm - x, a.yMm - y) ? b : a,
    )
    return { contact: called.name, px: at.px }
  })
}
const read = (of: Socket, photo: Photo, anchors: readonly Anchor[], mirrored = false): LocateAnswer =>
  runToEnd(locate(of, photo.image, anchors, { mirrored }))
const right = (x: number, y: number) => [x, y] as const
const half = (x: number, y: number) => [-x, -y] as const
const quarter = (x: number, y: number) => [-y, x] as const
const mirror = (x: number, y: number) => [-x, y] as const

describe('a photo whose contacts are named for another turn of the field', () => {
  const photo = take(keyed)
  it('is read when they are named rightly, without a question', () => {
    const { located, ask } = read(keyed, photo, clicks(photo, keyed, right))
    expect(located?.fitted).toBeGreaterThan(0.9)
    expect(ask).toEqual([])
  })
  it.each([
    ['half a turn', half, false, /turned by 180°/],
    ['a quarter turn', quarter, false, /turned by 90°/],
    ['a mirror image that is called one', mirror, true, /mirrored/],
  ] as const)('%s is refused before any map', (_, as, mirrored, text) => {
    const { located, faults } = read(keyed, photo, clicks(photo, keyed, as), mirrored)
    expect(located).toBeNull()
    expect(faults[0]).toMatchObject({ field: 'anchors', text: expect.stringMatching(text) })
  })
  it('is refused though the field is badly hurt and dimly lit', () => {
    const marks = drawDamage(keyed, 7, { ...usualDamage, leaning: 12, swaths: 2, folded: 4, gone: 4 })
    const hurt = take(keyed, marks, {
      gradient: 0.25,
      noise: 0.04,
      glare: 1,
      look: { ...plainLook, strip: [0.2, 0.3] },
    })
    const turned = read(keyed, hurt, clicks(hurt, keyed, half))
    expect(turned.located).toBeNull()
    expect(read(keyed, hurt, clicks(hurt, keyed, right)).located).not.toBeNull()
  })
  it('two turns that fit alike are asked about', () => {
    const same = take(even)
    expect(read(even, same, clicks(same, even, right)).ask).toEqual(['turned by 180°'])
    expect(read(even, same, clicks(same, even, half))).toMatchObject({
      located: expect.anything(),
      ask: ['turned by 180°'],
    })
    expect(read(even, same, clicks(same, even, quarter)).located).toBeNull()
  })
})

describe('a table that is not of this socket', () => {
  const photo = take(even)
  const of = (contacts: readonly Contact[]): Socket => ({ ...even, contacts })
  it.each<[string, Socket, RegExp]>([
    ['another of the same size', keyed, /stand where the table of test field has no contact/],
    [
      'without its second column',
      of(even.contacts.filter((c) => !/^[A-Z]+2$/.test(c.name))),
      /stand where the table/,
    ],
    [
      'without beam_deg',
      of(even.contacts.map((c) => ({ ...c, beamDeg: 0 }))),
      /run at \d+° and \d+°.*it has no beam_deg/,
    ],
  ])('%s is said, before any map', (_, table, text) => {
    const { located, faults } = read(table, photo, clicks(photo, table, right))
    expect(located).toBeNull()
    expect(faults[0]).toMatchObject({ field: 'socket', text: expect.stringMatching(text) })
  })
  it('a hurt field is not taken for another table', () => {
    for (let seed = 1; seed <= 4; seed++) {
      const marks = drawDamage(even, seed, {
        ...usualDamage,
        leaning: 20,
        swaths: 3,
        folded: 6,
        gone: 8,
        snapped: 6,
      })
      const hurt = take(even, marks, { seed })
      expect(read(even, hurt, clicks(hurt, even, right)).faults.filter((f) => f.field === 'socket')).toEqual(
        [],
      )
    }
  })
})

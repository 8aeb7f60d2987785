import { beforeAll, describe, expect, it } from 'vitest'
import { drawDamage, usualDamage } from '@/simulated-bench/drawn-damage'
import { plainLook, plainShot, takePhoto } from '@/simulated-bench/microscope-camera'
import type { Photo, Shot } from '@/simulated-bench/microscope-camera'
import { generateField } from '../model/generate'
import type { Marks } from '../damage/mark'
import type { Socket } from '../model/socket'
import type { Anchor } from './anchors'
import { locate } from './locate'
import type { LocateAnswer, LocateOptions, Located } from './locate'
import { displacementPath } from './displacement'
import { mergePhotos } from './merge'
import { feetOf } from './strip'
import type { ToClaim } from './strip'
import { project } from '../../photo/projection'
import { suspects } from './suspect'
import { tipHeights } from './tip-height'

const field = (pitchMm: number, rows = 18): Socket =>
  generateField({
    id: 'f',
    name: 'test field',
    kind: 'land-grid',
    pitchMm,
    rows,
    columns: rows,
    holes: [{ rows: [7, 10], columns: [7, 10] }],
    beamDeg: [45, 225],
    regions: [],
  })
const socket = field(0.9)

function runToEnd<T>(work: Generator<number, T>): T {
  let last = 0
  for (;;) {
    const { done, value } = work.next()
    if (done) return value
    expect(value).toBeGreaterThanOrEqual(last)
    last = value
  }
}
const shot: Shot = {
  ...plainShot,
  widthPx: 1360,
  heightPx: 1320,
  pxPerMm: 71,
  tiltDeg: 5,
  lens: 0.012,
  noise: 0.04,
  gradient: 0.25,
  glare: 1,
  seed: 41,
}
const take = (marks: Marks, change: Partial<Shot> = {}, of = socket) =>
  runToEnd(takePhoto(of, marks, { ...shot, ...change }))
const click = (photo: Photo, names: readonly string[], offPx = 3): Anchor[] =>
  names.map((contact, i) => {
    const { px } = photo.tips.find((t) => t.name === contact)!
    return { contact, px: [px[0] + (i % 2 ? offPx : -offPx), px[1] + (i > 1 ? offPx : -offPx) / 2] }
  })
const cornerNames = ['A1', 'A18', 'V18', 'V1']
const read = (photo: Photo, anchors: readonly Anchor[], options?: LocateOptions, of = socket): LocateAnswer =>
  runToEnd(locate(of, photo.image, anchors, options))

/** Makes of contacts and housings unlike the demo's: little contrast, long tips, wide dull ones. */
const makes = {
  pale: { ...plainLook, housing: 0.2, strip: [0.28, 0.38], tip: 0.5, tipMm: 0.09, glint: 0.25 },
  long: { ...plainLook, housing: 0.08, strip: [0.15, 0.32], tip: 0.42, tipMm: 0.085, longer: 0.5 },
  wide: { ...plainLook, strip: [0.22, 0.4], tip: 0.52, tipMm: 0.115, glint: 0.2, gloss: 0.14 },
} as const

describe('a field badly hurt, of contacts of another make', () => {
  const damage = {
    ...usualDamage,
    leaning: 6,
    swaths: 3,
    touching: 5,
    folded: 8,
    gone: 10,
    snapped: 4,
    dirty: 0,
    mostMm: 0.6,
  }
  it.each([
    ['pale', 3],
    ['pale', 4],
    ['wide', 5],
    ['long', 6],
  ] as const)(
    '%s, drawn %i: what is gone hardly has a tip, what is folded none elsewhere, nearly all is found',
    (make, seed) => {
      const marks = Object.fromEntries(
        Object.entries(drawDamage(socket, seed, damage)).filter(([name]) => !cornerNames.includes(name)),
      )
      const photo = take(marks, { look: makes[make], glare: 0, seed })
      const { tips } = read(photo, click(photo, cornerNames)).located!
      const of = (kind: (i: number) => boolean) => photo.tips.map((_, i) => i).filter(kind)
      const off = (i: number) => Math.hypot(...photo.tips[i]!.offsetMm)
      const displaced = of((i) => !photo.tips[i]!.gone && off(i) >= 0.15)
      const found = displaced.filter((i) => tips[i]!.as === 'displaced')
      expect(found.length / displaced.length).toBeGreaterThan(0.9)
      const made = of((i) => photo.tips[i]!.gone && tips[i]!.as === 'displaced')
      expect(made.length).toBeLessThanOrEqual(1)
      const apart = found.flatMap((i) => {
        const { offsetMm, name } = tips[i]!
        const [x, y] = photo.tips[i]!.offsetMm
        const mm = offsetMm ? Math.hypot(offsetMm[0] - x, offsetMm[1] - y) : 0
        return mm > 0.3 ? [`${name} ${marks[name]?.kind}: ${mm.toFixed(2)}`] : []
      })
      expect(apart).toEqual([])
    },
  )
})

describe('a photo from somewhat aside', () => {
  it.each([
    [12, 0],
    [9, 250],
    [15, 120],
  ])(
    'tilted by %i° towards %i°: the feet are looked for where a lower point is seen',
    (tiltDeg, towardsDeg) => {
      const photo = take({}, { tiltDeg, tiltTowardsDeg: towardsDeg, glare: 0 })
      const { projection } = read(photo, click(photo, cornerNames)).located!
      const [x, y] = feetOf({ projection, socket } as ToClaim)
      const [angle, far] = [(towardsDeg * Math.PI) / 180, 0.65 * Math.tan((tiltDeg * Math.PI) / 180)]
      expect(Math.hypot(x - far * Math.cos(angle), y - far * Math.sin(angle))).toBeLessThan(0.04)
    },
  )
})

describe('a photo of a damaged field', () => {
  const damage = {
    ...usualDamage,
    leaning: 8,
    swaths: 1,
    heights: 3,
    twisted: 1,
    touching: 1,
    folded: 1,
    gone: 2,
    snapped: 2,
    dirty: 1,
  }
  const marks = Object.fromEntries(
    Object.entries(drawDamage(socket, 8, damage)).filter(([name]) => !cornerNames.includes(name)),
  )
  let photo: Photo
  let located: Located
  beforeAll(() => {
    photo = take(marks)
    located = read(photo, click(photo, cornerNames)).located!
  })

  it('shows every tip that is off, where it is, the swath among them', () => {
    photo.tips.forEach((truth, i) => {
      const tip = located.tips[i]!
      const off = Math.hypot(...truth.offsetMm)
      if (truth.gone)
        expect([tip.name, tip.as]).toEqual([truth.name, expect.stringMatching(/missing|ambiguous/)])
      else if (off >= 0.15) {
        expect([tip.name, tip.as]).toEqual([truth.name, 'displaced'])
        if (tip.offsetMm)
          expect(
            Math.hypot(tip.offsetMm[0] - truth.offsetMm[0], tip.offsetMm[1] - truth.offsetMm[1]),
          ).toBeLessThan(0.06)
        else expect(tip.why).toMatch(/lie over|its strip/)
      } else if (off < 0.09 && !['paste', 'lodged'].includes(marks[tip.name]?.kind ?? ''))
        expect([tip.name, tip.as]).toEqual([truth.name, 'in place'])
    })
  })
  it('draws each displacement from where the tip should be, four times as long', () => {
    const strokes = displacementPath(socket, located).split('M').slice(1)
    expect(strokes).toHaveLength(located.tips.filter((t) => t.offsetMm).length)
    const measured = located.tips.flatMap((t, i) => (t.offsetMm ? [{ t, c: socket.contacts[i]! }] : []))
    measured.forEach(({ t, c }, k) => {
      const [x0, y0, x1, y1] = strokes[k]!.split(/[L ]/).map(Number) as [number, number, number, number]
      const home = project(located.projection, c.xMm, c.yMm)
      expect(Math.hypot(x0 - home[0], y0 - home[1])).toBeLessThan(0.2)
      const long = Math.hypot(x1 - x0, y1 - y0) / located.pxPerMm
      expect(long).toBeCloseTo(4 * Math.hypot(...t.offsetMm!), 0)
    })
  })
  it('claims no spot twice', () => {
    const spots = located.tips.filter((t) => t.shine > 0).map((t) => t.px.join())
    expect(new Set(spots).size).toBe(spots.length)
  })
  it('asks about those only, and says why', () => {
    const asked = suspects(socket, mergePhotos([{ name: 'a', located }]))
    const names = new Set(asked.map((s) => s.name))
    for (const [name, mark] of Object.entries(marks))
      if (mark.kind === 'snapped' || mark.kind === 'tip gone')
        expect(asked.find((s) => s.name === name)?.mark.unsure).toBe(true)
    const healthy = socket.contacts.filter((c) => !marks[c.name])
    expect(healthy.filter((c) => names.has(c.name)).length).toBeLessThan(4)
    expect(asked.every((s) => s.say.length > 5)).toBe(true)
  })
  it.each(Object.entries(makes))(
    'contacts of another make, %s, are read too: foot and broken end are no tips',
    (_, look) => {
      const other = take(marks, { look })
      const { tips } = read(other, click(other, cornerNames)).located!
      const wrong = other.tips.flatMap((truth, i) => {
        const [tip, off] = [tips[i]!, Math.hypot(...truth.offsetMm)]
        const right = truth.gone
          ? tip.as === 'missing'
          : off >= 0.15
            ? tip.as === 'displaced'
            : off > 0.09 || tip.as === 'in place' || marks[truth.name] !== undefined
        const apart =
          tip.offsetMm && !truth.gone
            ? Math.hypot(tip.offsetMm[0] - truth.offsetMm[0], tip.offsetMm[1] - truth.offsetMm[1])
            : 0
        return right && apart < 0.12 ? [] : [`${truth.name} ${marks[truth.name]?.kind}: ${tip.as} ${apart}`]
      })
      expect(wrong).toEqual([])
    },
  )
  it('a photo from the side adds heights, to a twentieth of a millimetre', () => {
    const side = take(marks, { tiltDeg: 35, tiltTowardsDeg: 90, seed: 77, glare: 0 })
    const answer = read(side, click(side, cornerNames), { known: located })
    const heights = tipHeights(socket, located, answer.located!, { tiltDeg: 35, towardsDeg: 90 })
    const off = heights.map((h) => h.heightMm - side.tips.find((t) => t.name === h.name)!.heightMm)
    expect(heights.length).toBeGreaterThan(280)
    expect(Math.sqrt(off.reduce((a, b) => a + b * b, 0) / off.length)).toBeLessThan(0.05)
    expect(() => tipHeights(socket, located, located, { tiltDeg: 10, towardsDeg: 0 })).toThrow(RangeError)
  })
  it('two photos of it, each half, make one map; what neither shows is not seen', () => {
    const half = (x: number, seed: number) => take(marks, { centreMm: [x, 0], widthPx: 700, seed, glare: 0 })
    const [left, right] = [half(-4.6, 5), half(4.6, 6)]
    const a = read(left, click(left, ['A1', 'A8', 'V8', 'V1']))
    const b = read(right, click(right, ['A11', 'A18', 'V18', 'V11']))
    expect(a.faults[0]?.text).toMatch(/outside the picture: they are not inspected/)
    const whole = mergePhotos([
      { name: 'left', located: a.located! },
      { name: 'right', located: b.located! },
    ])
    const one = mergePhotos([{ name: 'left', located: a.located! }])
    expect(whole.seen).toBeGreaterThan(one.seen + 100)
    expect(one.tips.find((t) => t.name === 'J18')!.as).toBe('not seen')
    expect(suspects(socket, one).some((s) => s.name === 'J18')).toBe(false)
  })
  it('photos that do not agree are said to, and the contact is ambiguous', () => {
    const name = 'E5'
    const moved = take({ ...marks, [name]: { kind: 'lean', leanMm: [0.3, 0] } }, { seed: 9 })
    const other = read(moved, click(moved, cornerNames)).located!
    const merged = mergePhotos([
      { name: 'first', located },
      { name: 'second', located: other },
    ])
    expect(merged.disagreements.map((d) => d.name)).toContain(name)
    expect(merged.tips.find((t) => t.name === name)).toMatchObject({
      as: 'ambiguous',
      why: 'the photos do not agree',
    })
    expect(() => mergePhotos([])).toThrow(RangeError)
  })
  it('what lies in glare is not seen, and not asked about; what is beside it is read as ever', () => {
    const grey = photo.image.grey.slice()
    const { px } = photo.tips.find((t) => t.name === 'E5')!
    const [x0, y0] = [Math.round(px[0]), Math.round(px[1])]
    for (let y = y0 - 40; y <= y0 + 40; y++)
      grey.fill(255, y * shot.widthPx + x0 - 40, y * shot.widthPx + x0 + 40)
    const answer = read({ ...photo, image: { ...photo.image, grey } }, click(photo, cornerNames))
    const at = (name: string) => answer.located!.tips.find((t) => t.name === name)!
    expect(at('E5')).toMatchObject({ as: 'not seen', why: 'glare', offsetMm: null })
    expect(at('E8').as).toBe(located.tips.find((t) => t.name === 'E8')!.as)
    expect(answer.faults[0]?.text).toMatch(
      /cannot be seen for glare, shadow or the edge: they are not inspected/,
    )
    const merged = mergePhotos([{ name: 'a', located: answer.located! }])
    expect(suspects(socket, merged).some((s) => s.name === 'E5')).toBe(false)
  })
  it('can be dropped on the way', () => {
    const work = locate(socket, photo.image, click(photo, cornerNames))
    work.next()
    expect(work.return({ located: null, faults: [] }).done).toBe(true)
    expect(work.next().done).toBe(true)
  })
})

describe('what cannot be read is said, and no map is made up', () => {
  let photo: Photo
  beforeAll(() => {
    photo = take({}, { glare: 0 })
  })
  const refused = (answer: LocateAnswer, field: string, text: RegExp) => {
    expect(answer.located).toBeNull()
    expect([answer.faults[0]?.field, answer.faults[0]?.text]).toEqual([field, expect.stringMatching(text)])
  }
  const at = (names: readonly string[], places = names) => {
    const right = click(photo, places)
    return names.map((contact, i): Anchor => ({ contact, px: right[i]!.px }))
  }

  it.each([
    ['too few', ['A1', 'A18', 'V18'], undefined, /3 contacts are clicked; four are needed/],
    ['mirrored', cornerNames, ['A18', 'A1', 'V1', 'V18'], /mirror/],
    [
      'exchanged',
      cornerNames,
      ['A18', 'A1', 'V18', 'V1'],
      /two of the clicked contacts seem to be exchanged/,
    ],
    ['in one line', ['A1', 'A6', 'A12', 'A18'], undefined, /one line/],
    ['a contact twice', ['A1', 'A1', 'V18', 'V1'], ['A1', 'A18', 'V18', 'V1'], /clicked twice/],
    ['a stranger', ['A1', 'A18', 'V18', 'ZZ9'], cornerNames, /no contact ZZ9/],
    [
      'one far off',
      ['A1', 'A18', 'V18', 'V1', 'J1'],
      ['A1', 'A18', 'V18', 'V1', 'J5'],
      /does not fit the others|exchanged/,
    ],
  ])('clicks %s', (_, names, places, text) =>
    refused(read(photo, at(names, places ?? names)), 'anchors', text),
  )
  it('clicks outside the picture, or on one spot', () => {
    const good = click(photo, cornerNames)
    refused(
      read(photo, [{ contact: 'A1', px: [-4, 10] }, ...good.slice(1)]),
      'anchors',
      /outside the picture/,
    )
    refused(read(photo, [{ contact: 'A1', px: good[1]!.px }, ...good.slice(1)]), 'anchors', /same spot/)
  })
  it('a field said to be mirrored that is not, and one that is', () => {
    refused(read(photo, click(photo, cornerNames), { mirrored: true }), 'anchors', /take “mirrored” off/)
    const other = take({}, { mirrored: true, glare: 0 })
    expect(read(other, click(other, cornerNames), { mirrored: true }).located?.fitted).toBeGreaterThan(0.95)
  })
  it('another socket', () => {
    const other = field(0.8, 20)
    const seen = take({}, { glare: 0 }, other)
    const names = ['A1', 'A20', 'Y20', 'Y1'].map((n) => seen.tips.find((t) => t.name === n)!.px)
    refused(
      read(
        seen,
        cornerNames.map((contact, i) => ({ contact, px: names[i]! })),
      ),
      'socket',
      /mm apart/,
    )
  })
  it('one click a row off is put right by the other tips, and said', () => {
    const { located, faults } = read(photo, at(['B2', 'A18', 'V18', 'V1'], cornerNames))
    expect(faults[0]).toMatchObject({
      field: 'anchors',
      text: expect.stringMatching(/click for B2 lay on A1/) as string,
    })
    const tip = located!.tips[0]!
    expect(Math.hypot(tip.px[0] - photo.tips[0]!.px[0], tip.px[1] - photo.tips[0]!.px[1])).toBeLessThan(3)
  })
  it('all clicks a row off are not: the field has an edge', () => {
    refused(
      read(photo, at(['B1', 'B17', 'V17', 'V1'], ['A1', 'A17', 'U17', 'U1'])),
      'anchors',
      /one row nearer|one row away/,
    )
    refused(
      read(photo, at(['A2', 'A18', 'V18', 'V2'], ['A1', 'A17', 'V17', 'V1'])),
      'anchors',
      /one column to the left|one column to the right/,
    )
  })
  it('a photo of something else', () => {
    const grey = Uint8Array.from(
      { length: 1360 * 1320 },
      (_, i) => 110 + 60 * Math.sin(i / 7000) + 30 * Math.sin((i % 1360) / 90),
    )
    refused(
      read({ ...photo, image: { widthPx: 1360, heightPx: 1320, grey } }, click(photo, cornerNames)),
      'photo',
      /no even field of tips/,
    )
  })
  it('a photo that is pure white', () => {
    const white = { ...photo, image: { ...photo.image, grey: new Uint8Array(1360 * 1320).fill(255) } }
    refused(read(white, click(photo, cornerNames)), 'photo', /pure white/)
  })
  it('a photo from too far, and one too large', () => {
    const far = take({}, { pxPerMm: 15, glare: 0 })
    refused(read(far, click(far, cornerNames, 0)), 'photo', /15 px per mm/)
    refused(
      runToEnd(locate(socket, { widthPx: 6000, heightPx: 5000, grey: new Uint8Array(30_000_000) }, [])),
      'photo',
      /24 MP/,
    )
    expect(() => runToEnd(locate(socket, { widthPx: 5, heightPx: 5, grey: new Uint8Array(3) }, []))).toThrow(
      RangeError,
    )
  })
})

import { describe, expect, it } from 'vitest'
import { runToEnd } from '@/core/run-to-end'
import { takeBoardPhoto } from './board-camera'
import { plainBoardShot } from './board-eye'
import type { CameraShot } from './camera-shot'
import { boardPhoto } from './board-photos'
import { drawScene, placedOn } from './board-scene'

const scene = drawScene(14, 40, 30)
const board = { seed: 3, missing: new Set<string>(), shifted: new Map(), placedMm: 0.05 }
const still: CameraShot = {
  ...plainBoardShot,
  widthPx: 480,
  heightPx: 360,
  pxPerMm: 12,
  centreMm: [20, 15],
  tiltDeg: 0,
  turnDeg: 0,
  lens: 0,
  noise: 0,
  glare: 0,
}
const photo = (shot: Partial<CameraShot> = {}, missing: readonly string[] = []) =>
  runToEnd(takeBoardPhoto(scene, { ...board, missing: new Set(missing) }, { ...still, ...shot }))

describe('the camera over a board', () => {
  it('sees each place where a pinhole sees it: from straight above as far apart as it is', () => {
    const { places } = photo()
    const at = new Map(places.map((p) => [p.ref, p.px]))
    const [a, b] = [scene.bodies[0]!, scene.bodies.at(-1)!]
    const [p, q] = [at.get(a.ref)!, at.get(b.ref)!]
    expect(Math.hypot(p[0] - q[0], p[1] - q[1])).toBeCloseTo(12 * Math.hypot(a.xMm - b.xMm, a.yMm - b.yMm), 6)
    const turned = photo({ turnDeg: 90 }).places.find((x) => x.ref === a.ref)!.px
    expect(Math.hypot(turned[0] - 240, turned[1] - 180)).toBeCloseTo(Math.hypot(p[0] - 240, p[1] - 180), 6)
  })
  it('shows the pads where a part is gone, and everything else as it was', () => {
    const small = scene.bodies.find(
      (b) =>
        (b.look === 'capacitor' || b.look === 'resistor') &&
        b.xMm > 5 &&
        b.xMm < 35 &&
        b.yMm > 5 &&
        b.yMm < 25,
    )!
    const [whole, bare] = [photo(), photo({}, [small.ref])]
    const [x, y] = whole.places.find((p) => p.ref === small.ref)!.px
    let [near, far] = [0, 0]
    whole.image.rgba.forEach((v, i) => {
      const d = Math.abs(v - bare.image.rgba[i]!)
      const [px, py] = [(i >> 2) % 480, Math.floor((i >> 2) / 480)]
      if (Math.hypot(px - x, py - y) < 12 * small.longMm) near = Math.max(near, d)
      else far = Math.max(far, d)
    })
    expect(near).toBeGreaterThan(40)
    expect(far).toBeLessThan(12)
  })
  it('draws boards of one model alike but for where parts sit a little, and what is wrong with one', () => {
    const other = placedOn(scene, {
      ...board,
      seed: 8,
      missing: new Set(['R1']),
      shifted: new Map([['R2', [1, 0, 0]]]),
    })
    expect(other.length).toBe(scene.bodies.length - 1)
    for (const body of other) {
      const is = scene.bodies.find((b) => b.ref === body.ref)!
      const off = Math.hypot(body.xMm - is.xMm, body.yMm - is.yMm)
      if (body.ref === 'R2') expect(off).toBeGreaterThan(0.7)
      else expect(off).toBeLessThan(0.35)
    }
  })
  it('takes this board and a good one of the same model, by the job’s own seed', () => {
    const [mine, good] = [boardPhoto(416, 'this'), boardPhoto(416, 'good')]
    expect(mine.scene).toEqual(good.scene)
    expect(good.board.missing.size).toBe(0)
    expect(mine.board.missing.size).toBeGreaterThan(0)
    expect(boardPhoto(416, 'this')).toEqual(mine)
    expect(boardPhoto(417, 'this').scene).not.toEqual(mine.scene)
  })
})

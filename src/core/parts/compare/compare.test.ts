import { describe, expect, it } from 'vitest'
import { takeBoardPhoto } from '@/simulated-bench/board-camera'
import { plainBoardShot } from '@/simulated-bench/board-eye'
import type { BoardPhoto } from '@/simulated-bench/board-camera'
import type { CameraShot } from '@/simulated-bench/camera-shot'
import { drawScene } from '@/simulated-bench/board-scene'
import { runToEnd } from '../../run-to-end'
import { compareBoards } from './compare'
import type { Compared } from './compare'

const [WIDE, DEEP, PX] = [60, 46, 20]
const green = (seed: number) => ({ ...drawScene(seed, WIDE, DEEP), mask: [0.06, 0.3, 0.14] as const })
const photoOf = (
  scene: ReturnType<typeof green>,
  board: number,
  shot: Partial<CameraShot>,
  missing: readonly string[] = [],
) =>
  runToEnd(
    takeBoardPhoto(
      scene,
      { seed: board, missing: new Set(missing), shifted: new Map(), placedMm: 0.05 },
      {
        ...plainBoardShot,
        widthPx: WIDE * PX,
        heightPx: DEEP * PX,
        pxPerMm: PX,
        centreMm: [WIDE / 2, DEEP / 2],
        glare: 0,
        ...shot,
      },
    ),
  )
const compared = (photo: BoardPhoto, other: BoardPhoto): Compared => {
  const { compared: is, fault } = runToEnd(compareBoards(photo.image, other.image, PX))
  expect(fault).toBeNull()
  return is!
}
const at = (photo: BoardPhoto, ref: string) => photo.places.find((p) => p.ref === ref)!.px
const finds = ({ marks }: Compared, [x, y]: readonly [number, number]) =>
  marks.find((m) => Math.abs(m.px[0] - x) < m.sizePx[0] && Math.abs(m.px[1] - y) < m.sizePx[1])

describe('two photos of a board compared', () => {
  const scene = green(14)
  const gone = scene.bodies
    .filter(
      (b) =>
        (b.look === 'capacitor' || b.look === 'resistor') &&
        b.xMm > 6 &&
        b.yMm > 6 &&
        b.xMm < WIDE - 6 &&
        b.yMm < DEEP - 6,
    )
    .filter((_, i) => i % 5 === 1)
    .map((b) => b.ref)
  const good = photoOf(scene, 1, { tiltDeg: 3, tiltTowardsDeg: 40, lightDeg: 50, seed: 3 })
  const mine = photoOf(
    scene,
    2,
    { turnDeg: 7, tiltDeg: 3, tiltTowardsDeg: 220, lightDeg: 200, seed: 5 },
    gone,
  )
  const result = compared(mine, good)

  it('mark what is gone, where it is on both', () => {
    expect(gone.length).toBeGreaterThan(2)
    const marked = gone.filter((ref) => finds(result, at(mine, ref)))
    // One in twenty is not told from print beside it.
    expect(marked.length).toBeGreaterThanOrEqual(gone.length - 1)
    for (const ref of marked) {
      const [x, y] = at(good, ref)
      const { otherPx } = finds(result, at(mine, ref))!
      expect(Math.hypot(otherPx[0] - x, otherPx[1] - y), ref).toBeLessThan(16)
    }
  })
  it('mark little else, and give the surest first', () => {
    const others = result.marks.filter(
      (m) => !gone.some((ref) => finds({ ...result, marks: [m] }, at(mine, ref))),
    )
    expect(others.length).toBeLessThanOrEqual(3)
    const odds = result.marks.map((m) => m.odds)
    expect(odds).toEqual([...odds].sort((a, b) => b - a))
    expect(result.share).toBeGreaterThan(0.8)
    expect(result.fitPx).toBeLessThan(1)
  })
  it('find next to nothing on a board that lacks nothing', () => {
    const sound = photoOf(scene, 4, { turnDeg: -4, tiltDeg: 2, lightDeg: 120, seed: 8 })
    expect(compared(sound, good).marks.length).toBeLessThanOrEqual(3)
  })
  it('say what is wrong with them: another board, mirrored, too far away', () => {
    const other = photoOf(green(31), 1, { seed: 4 })
    const fault = (photo: typeof good.image, beside: typeof good.image, px = PX) =>
      runToEnd(compareBoards(photo, beside, px)).fault
    expect(fault(mine.image, other.image)).toMatchObject({
      field: 'other',
      text: expect.stringMatching(/do not lie over/),
    })
    const { widthPx, heightPx, rgba } = good.image
    const mirrored = rgba.map((_, i) => {
      const pixel = i >> 2
      const [x, y] = [pixel % widthPx, Math.floor(pixel / widthPx)]
      return rgba[4 * (y * widthPx + widthPx - 1 - x) + (i & 3)]!
    })
    expect(fault(mine.image, { widthPx, heightPx, rgba: mirrored })).toMatchObject({ field: 'other' })
    expect(fault(mine.image, good.image, 9)).toMatchObject({
      field: 'pxPerMm',
      text: expect.stringMatching(/take it nearer/),
    })
    expect(fault(mine.image, good.image, NaN)).toMatchObject({ field: 'pxPerMm' })
  })
})

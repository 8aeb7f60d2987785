import { seeded } from '@/core/maths/seeded'
import { plainBoardShot } from './board-eye'
import type { CameraShot } from './camera-shot'
import { drawScene } from './board-scene'
import type { BoardScene, OneBoard } from './board-scene'

/** What of the board the camera shows: its width and depth, mm. */
export const SHOWN_MM = [84, 63] as const
const PX_PER_MM = 20

export const boardPhotos = ['this', 'good'] as const
export type BoardPhotoOf = (typeof boardPhotos)[number]

/** A photo of a simulated board, or of a good one of its model: from the same make, lot, light and hand alike never quite. */
export function boardPhoto(
  seed: number,
  of: BoardPhotoOf,
): { readonly scene: BoardScene; readonly board: OneBoard; readonly shot: CameraShot } {
  const [wide, deep] = SHOWN_MM
  // Light green: what a photo shows best.
  const scene: BoardScene = { ...drawScene(seed, wide + 6, deep + 6), mask: [0.06, 0.3, 0.14] }
  const draw = seeded(seed * 53 + 11)
  const small = scene.bodies.filter((b) => b.look === 'resistor' || b.look === 'capacitor')
  const inside = small.filter((b) => b.xMm > 9 && b.yMm > 9 && b.xMm < wide - 3 && b.yMm < deep - 3)
  const some = () => inside[Math.floor(draw() * inside.length)]!.ref
  const missing = new Set([some(), some(), some()])
  const off = inside.find((b) => !missing.has(b.ref) && b.longMm > 1.5)
  const shifted = new Map(off ? [[off.ref, [0.5, 0.7, 25] as const]] : [])
  const good = of === 'good'
  return {
    scene,
    board: {
      seed: seed * 2 + (good ? 1 : 2),
      missing: good ? new Set<string>() : missing,
      shifted: good ? new Map() : shifted,
      placedMm: 0.05,
    },
    shot: {
      ...plainBoardShot,
      widthPx: wide * PX_PER_MM,
      heightPx: deep * PX_PER_MM,
      pxPerMm: PX_PER_MM,
      centreMm: [wide / 2 + (good ? 4 : 2.5), deep / 2 + (good ? 2 : 3)],
      turnDeg: good ? -5 : 2,
      tiltDeg: good ? 3 : 2,
      tiltTowardsDeg: good ? 40 : 220,
      lightDeg: good ? 60 : 190,
      seed: seed + (good ? 7 : 3),
    },
  }
}

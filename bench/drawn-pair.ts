// Two boards of one model drawn at random, some small parts of the second gone or off their pads, and a photo of each.
import { seeded } from '@/core/maths/seeded'
import { runToEnd } from '@/core/run-to-end'
import { takeBoardPhoto } from '@/simulated-bench/board-camera'
import type { BoardPhoto } from '@/simulated-bench/board-camera'
import { plainBoardShot } from '@/simulated-bench/board-eye'
import { drawScene } from '@/simulated-bench/board-scene'
import type { BoardScene } from '@/simulated-bench/board-scene'

type Range = readonly [from: number, to: number]

/** How boards are drawn and photographed: what those that are measured and those that are fitted on differ by. */
export interface PairSettings {
  readonly sizeMm: readonly [wide: number, deep: number]
  readonly sizePx: readonly [wide: number, high: number]
  /** How many parts are gone, and off their pads; how far those are moved, mm, and turned, degrees. */
  readonly gone: number
  readonly beside: number
  readonly farMm: Range
  readonly askewDeg: Range
  /** Spread of where parts sit, mm; drawn anew for each pair where it is a range. */
  readonly placedMm: number | Range
  readonly turnDeg: Range
  readonly pxPerMm: Range
  readonly offMm: Range
  readonly tiltDeg: Range
  readonly lens: Range
  readonly blurPx: Range
  readonly noise: Range
  readonly gradient: Range
  readonly glare: Range
  readonly glareStrength: Range
}

export interface DrawnPair {
  readonly scene: BoardScene
  readonly gone: ReadonlySet<string>
  readonly beside: ReadonlySet<string>
  readonly photo: BoardPhoto
  readonly good: BoardPhoto
  /** Of the photo. */
  readonly pxPerMm: number
}

/** @param boards seed of the good board; that of the other is one more */
export function drawnPair(seed: number, scene: BoardScene, boards: number, s: PairSettings): DrawnPair {
  const draw = seeded(seed)
  const within = ([from, to]: Range) => from + (to - from) * draw()
  const small = scene.bodies.filter((b) => b.look === 'resistor' || b.look === 'capacitor')
  const some = (many: number) =>
    Array.from({ length: many }, () => small[Math.floor(draw() * small.length)]!.ref)
  const gone = new Set(some(s.gone))
  const shifted = new Map(
    some(s.beside)
      .filter((ref) => !gone.has(ref))
      .map((ref) => {
        const [way, far] = [within([0, 2 * Math.PI]), within(s.farMm)]
        return [ref, [far * Math.cos(way), far * Math.sin(way), within(s.askewDeg)] as const]
      }),
  )
  const placedMm = typeof s.placedMm === 'number' ? s.placedMm : within(s.placedMm)
  const shot = (turnDeg: number) => ({
    ...plainBoardShot,
    widthPx: s.sizePx[0],
    heightPx: s.sizePx[1],
    pxPerMm: within(s.pxPerMm),
    centreMm: [scene.wideMm / 2 + within(s.offMm), scene.deepMm / 2 + within(s.offMm)] as const,
    tiltDeg: within(s.tiltDeg),
    tiltTowardsDeg: within([0, 360]),
    turnDeg,
    lens: within(s.lens),
    blurPx: within(s.blurPx),
    noise: within(s.noise),
    gradient: within(s.gradient),
    lightDeg: within([0, 360]),
    glare: Math.floor(within(s.glare)),
    glareStrength: within(s.glareStrength),
    seed: Math.floor(within([0, 1e6])),
  })
  const board = { placedMm, missing: new Set<string>(), shifted: new Map() }
  const good = runToEnd(takeBoardPhoto(scene, { ...board, seed: boards }, shot(within([-180, 180]))))
  const mine = shot(within(s.turnDeg))
  const photo = runToEnd(takeBoardPhoto(scene, { ...board, missing: gone, shifted, seed: boards + 1 }, mine))
  return { scene, gone, beside: new Set(shifted.keys()), photo, good, pxPerMm: mine.pxPerMm }
}

export const isBlack = ({ mask }: BoardScene): boolean => mask[0] === mask[1]
export const sceneOf = (seed: number, { sizeMm }: PairSettings): BoardScene => drawScene(seed, ...sizeMm)

// Photos of two boards of one model from the simulated camera, some small parts gone from one: what the comparison marks.
import { compareBoards } from '@/core/parts/compare/compare'
import { seeded } from '@/core/maths/seeded'
import { runToEnd } from '@/core/run-to-end'
import { takeBoardPhoto } from '@/simulated-bench/board-camera'
import { plainBoardShot } from '@/simulated-bench/board-eye'
import { drawScene } from '@/simulated-bench/board-scene'
import { line, mean, percent, quantile } from './figure'

const [WIDE, DEEP] = [100, 75]

interface Compared {
  readonly black: boolean
  readonly gone: number
  readonly found: number
  readonly beside: number
  readonly besideFound: number
  readonly others: number
  readonly ms: number
  readonly failed: boolean
}

/** One pair by seeds of its own; the odds of a mark were fitted on scenes 700 to 725. */
function pair(seed: number): Compared {
  const draw = seeded(seed)
  const between = (a: number, b: number) => a + (b - a) * draw()
  const scene = drawScene(seed * 3 + 1, WIDE, DEEP)
  const small = scene.bodies.filter((b) => b.look === 'resistor' || b.look === 'capacitor')
  const some = () => small[Math.floor(draw() * small.length)]!.ref
  const gone = new Set(Array.from({ length: 6 }, some))
  const beside = Array.from({ length: 2 }, some).filter((ref) => !gone.has(ref))
  const shifted = new Map(
    beside.map((ref) => {
      const [way, far] = [between(0, 2 * Math.PI), between(0.5, 1)]
      return [ref, [far * Math.cos(way), far * Math.sin(way), between(-40, 40)] as const]
    }),
  )
  const shot = (turnDeg: number) => ({
    ...plainBoardShot,
    widthPx: 2200,
    heightPx: 1650,
    pxPerMm: between(20, 24),
    centreMm: [WIDE / 2 + between(-4, 4), DEEP / 2 + between(-4, 4)] as const,
    tiltDeg: between(0, 8),
    tiltTowardsDeg: between(0, 360),
    turnDeg,
    lens: between(-0.012, 0.012),
    blurPx: between(0.8, 1.5),
    noise: between(0.015, 0.04),
    gradient: between(0, 0.25),
    lightDeg: between(0, 360),
    glare: Math.floor(between(0, 3)),
    glareStrength: between(0.15, 0.5),
    seed: Math.floor(between(0, 1e6)),
  })
  const board = { placedMm: 0.05, missing: new Set<string>(), shifted: new Map() }
  const good = runToEnd(takeBoardPhoto(scene, { ...board, seed: 2 * seed }, shot(between(-180, 180))))
  const mine = shot(between(-15, 15))
  const photo = runToEnd(
    takeBoardPhoto(scene, { ...board, missing: gone, shifted, seed: 2 * seed + 1 }, mine),
  )
  const began = performance.now()
  const { compared } = runToEnd(compareBoards(photo.image, good.image, mine.pxPerMm))
  const ms = performance.now() - began
  const seen = (refs: Iterable<string>) =>
    [...refs].flatMap((ref) => {
      const [here, there] = [photo, good].map((p) => p.places.find((q) => q.ref === ref)!)
      return here!.inside && there!.inside ? [here!.px] : []
    })
  const marks = compared?.marks ?? []
  const covers = ({ px, sizePx }: (typeof marks)[number], [x, y]: readonly [number, number]) =>
    Math.abs(px[0] - x) < sizePx[0] / 2 + 12 && Math.abs(px[1] - y) < sizePx[1] / 2 + 12
  const found = (places: ReturnType<typeof seen>) =>
    places.filter((at) => marks.some((m) => covers(m, at))).length
  const [missing, off] = [seen(gone), seen(beside)]
  return {
    black: scene.mask[0] === scene.mask[1],
    gone: missing.length,
    found: found(missing),
    beside: off.length,
    besideFound: found(off),
    others: marks.filter((m) => ![...missing, ...off].some((at) => covers(m, at))).length,
    ms,
    failed: !compared,
  }
}

/** Figures of the comparison on pairs nobody looked at while it was made. */
export function compareFigures(pairs: number): void {
  const all = Array.from({ length: pairs }, (_, i) => pair(40_000 + i))
  const sum = (some: readonly Compared[], of: (c: Compared) => number) => some.reduce((n, c) => n + of(c), 0)
  const recall = (some: readonly Compared[]) =>
    sum(some, (c) => c.found) /
    Math.max(
      1,
      sum(some, (c) => c.gone),
    )
  line(
    `board photos, ${pairs} pairs: parts gone that are marked`,
    percent(recall(all)),
    `≥ 95 %: ${recall(all) >= 0.95 ? 'met' : 'MISSED'}`,
  )
  for (const [what, black] of [
    ['on green and blue boards', false],
    ['on black boards', true],
  ] as const) {
    const some = all.filter((c) => c.black === black)
    line(`  ${what}, of ${sum(some, (c) => c.gone)}`, percent(recall(some)))
  }
  const off = sum(all, (c) => c.beside)
  line(
    `  parts off their pads that are marked, of ${off}`,
    percent(sum(all, (c) => c.besideFound) / Math.max(1, off)),
  )
  const others = mean(all.map((c) => c.others))
  line('  other marks on a picture', others.toFixed(1), `≤ 2: ${others <= 2 ? 'met' : 'MISSED'}`)
  line('  pairs that were not laid over one another', String(all.filter((c) => c.failed).length))
  const took = all.map((c) => c.ms).sort((a, b) => a - b)
  line(
    '  median and p95, s',
    `${(quantile(took, 0.5) / 1000).toFixed(1)} ${(quantile(took, 0.95) / 1000).toFixed(1)}`,
    `≤ 10: ${quantile(took, 0.95) <= 10_000 ? 'met' : 'MISSED'}`,
  )
}

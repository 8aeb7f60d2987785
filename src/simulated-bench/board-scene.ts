import { normalDraw, seeded } from '@/core/maths/seeded'
import type { Uniform } from '@/core/maths/seeded'

/** What a part of a board looks like. */
export type BodyLook = 'resistor' | 'capacitor' | 'chip' | 'can' | 'connector' | 'coil'

/** A part of a board: a box, or a can, of its size; turned about its middle. */
export interface SceneBody {
  readonly ref: string
  readonly look: BodyLook
  readonly xMm: number
  readonly yMm: number
  readonly turnDeg: number
  readonly longMm: number
  readonly wideMm: number
  readonly highMm: number
}

/** One side of a board model: what all boards of it have in common. */
export interface BoardScene {
  readonly wideMm: number
  readonly deepMm: number
  readonly bodies: readonly SceneBody[]
  /** Traces, vias and print follow from it. */
  readonly seed: number
  /** Colour of the solder mask, each 0 to 1. */
  readonly mask: readonly [red: number, green: number, blue: number]
}

/** How one board of a model differs from the others. */
export interface OneBoard {
  /** What lot codes, shades and where exactly each part was placed follow from. */
  readonly seed: number
  readonly missing: ReadonlySet<string>
  /** Parts that sit elsewhere than they should: how far, and turned. */
  readonly shifted: ReadonlyMap<string, readonly [dxMm: number, dyMm: number, turnDeg: number]>
  /** Spread of where parts sit, mm. */
  readonly placedMm: number
}

type Size = readonly [longMm: number, wideMm: number, highMm: number]
const smallSizes: Readonly<Record<'0402' | '0603' | '0805' | '1206', Size>> = {
  '0402': [1, 0.5, 0.35],
  '0603': [1.6, 0.8, 0.45],
  '0805': [2, 1.25, 0.6],
  '1206': [3.2, 1.6, 0.7],
}

/** A board drawn at random: chips, rows of small parts round them, cans, connectors, coils. */
export function drawScene(seed: number, wideMm: number, deepMm: number): BoardScene {
  const draw = seeded(seed)
  const bodies: SceneBody[] = []
  const taken: { x: number; y: number; r: number }[] = []
  const free = (x: number, y: number, r: number) =>
    x - r > 0 &&
    y - r > 0 &&
    x + r < wideMm &&
    y + r < deepMm &&
    taken.every((t) => Math.hypot(t.x - x, t.y - y) > t.r + r)
  const counts = new Map<string, number>()
  const add = (look: BodyLook, letter: string, x: number, y: number, turnDeg: number, size: Size) => {
    const n = (counts.get(letter) ?? 0) + 1
    counts.set(letter, n)
    const [longMm, wide, highMm] = size
    bodies.push({ ref: `${letter}${n}`, look, xMm: x, yMm: y, turnDeg, longMm, wideMm: wide, highMm })
    taken.push({ x, y, r: Math.hypot(longMm, wide) / 2 + 0.25 })
  }
  const somewhere = (r: number, place: (x: number, y: number) => void) => {
    for (let tries = 0; tries < 40; tries++) {
      const [x, y] = [r + draw() * (wideMm - 2 * r), r + draw() * (deepMm - 2 * r)]
      if (free(x, y, r)) return place(x, y)
    }
  }
  const area = (wideMm * deepMm) / 1000
  const some = (perThousand: number) => Math.max(1, Math.round(area * perThousand * (0.7 + 0.6 * draw())))
  const square = () => 90 * Math.floor(4 * draw())
  for (let i = some(0.25); i > 0; i--)
    somewhere(13, (x, y) => add('connector', 'J', x, y, square(), [22, 5, 6 + 5 * draw()]))
  for (let i = some(0.5); i > 0; i--)
    somewhere(4.5, (x, y) => add('can', 'C', x, y, 0, [6.3 + draw(), 6.3, 6 + 3 * draw()]))
  for (let i = some(0.4); i > 0; i--) somewhere(5.5, (x, y) => add('coil', 'L', x, y, square(), [7, 6.6, 3]))
  for (let i = some(1.2); i > 0; i--) {
    const long = 4 + 7 * draw()
    somewhere(long * 0.75 + 1, (x, y) =>
      add('chip', 'U', x, y, square(), [long, long * (0.6 + 0.4 * draw()), 1]),
    )
  }
  // Small parts come in rows.
  for (let i = some(9); i > 0; i--) {
    const size = pick<keyof typeof smallSizes>(draw, [
      ['0402', 0.6],
      ['0603', 0.22],
      ['0805', 0.12],
      ['1206', 0.06],
    ])
    const [long, wide, high] = smallSizes[size]
    const look = draw() < 0.5 ? 'resistor' : 'capacitor'
    const upright = draw() < 0.5
    const many = 1 + Math.floor(5 * draw() * draw())
    const apart = wide + 0.5 + 0.4 * draw()
    somewhere(Math.hypot(long, wide) / 2 + 0.25, (x0, y0) => {
      for (let k = 0; k < many; k++) {
        const [x, y] = upright ? [x0 + k * apart, y0] : [x0, y0 + k * apart]
        const r = Math.hypot(long, wide) / 2
        const row = taken.slice(0, taken.length - k)
        if (x + r > wideMm || y + r > deepMm) break
        if (!row.every((t) => Math.hypot(t.x - x, t.y - y) > t.r + r + 0.1)) break
        add(look, look === 'resistor' ? 'R' : 'K', x, y, upright ? 90 : 0, [long, wide, high])
      }
    })
  }
  const mask = pick(draw, [
    [[0.06, 0.3, 0.14] as const, 0.4],
    [[0.05, 0.12, 0.28] as const, 0.3],
    [[0.1, 0.1, 0.11] as const, 0.3],
  ])
  return { wideMm, deepMm, bodies, seed, mask }
}

function pick<T>(draw: Uniform, from: readonly (readonly [T, number])[]): T {
  let u = draw()
  for (const [value, share] of from) if ((u -= share) <= 0) return value
  return from.at(-1)![0]
}

/** Where each part of one board really sits, missing ones left out. */
export function placedOn(scene: BoardScene, board: OneBoard): readonly SceneBody[] {
  const draw = seeded(board.seed * 31 + 7)
  return scene.bodies.flatMap((body) => {
    const [dx, dy, turn] = [
      board.placedMm * normalDraw(draw),
      board.placedMm * normalDraw(draw),
      1.2 * normalDraw(draw),
    ]
    if (board.missing.has(body.ref)) return []
    const [sx, sy, st] = board.shifted.get(body.ref) ?? [0, 0, 0]
    const high = body.highMm > 4
    // What stands in holes does not move on its pads.
    return [
      {
        ...body,
        xMm: body.xMm + sx + (high ? 0 : dx),
        yMm: body.yMm + sy + (high ? 0 : dy),
        turnDeg: body.turnDeg + st + (high ? 0 : turn),
      },
    ]
  })
}

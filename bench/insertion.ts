// Best-fit insertion against a linear programme solved by HiGHS, and the stopping policy's speed.
import highsLoader from 'highs'
import { normalDraw, seeded } from '@/core/maths/seeded'
import { bestFit } from '@/core/socket/seat/insertion'
import type { PinAndHole } from '@/core/socket/seat/insertion'
import { demoSockets } from '../demo/sockets'
import { line } from './figure'

type Highs = Awaited<ReturnType<typeof highsLoader>>

/** A CPU with some pins bent, shifted and turned a little. */
function bentPins(seed: number): PinAndHole[] {
  const draw = seeded(seed)
  const [turn, sx, sy] = [0.01 * (draw() - 0.5), 0.2 * (draw() - 0.5), 0.2 * (draw() - 0.5)]
  const [c, s] = [Math.cos(turn), Math.sin(turn)]
  return demoSockets.pg906.contacts.map(({ name, xMm, yMm }) => {
    const bend = draw() < 0.05 ? 0.25 : 0.02
    const [x, y] = [xMm + bend * normalDraw(draw), yMm + bend * normalDraw(draw)]
    return { name, hole: [xMm, yMm], pin: [c * x - s * y + sx, s * x + c * y + sy] }
  })
}

/**
 * The same minimum by cutting planes: minimise r with u·(p + θ·Jp + t − h) ≤ r, the direction u of each pin that is
 * farther than r being added until none is; the turn is linear, so it is done again about the turn that was found.
 */
function byLinearProgramme(highs: Highs, pins: readonly PinAndHole[]): number {
  let turn = 0
  let worst = Infinity
  for (let round = 0; round < 4; round++) {
    const [c, s] = [Math.cos(turn), Math.sin(turn)]
    const at = pins.map(({ pin }) => [c * pin[0] - s * pin[1], s * pin[0] + c * pin[1]] as const)
    const cuts: string[] = []
    const cut = (i: number, ux: number, uy: number) => {
      const [x, y] = at[i]!
      const { hole } = pins[i]!
      const theta = -y * ux + x * uy
      const right = -(ux * (x - hole[0]) + uy * (y - hole[1]))
      cuts.push(` c${cuts.length}: ${signed(theta)} a ${signed(ux)} x ${signed(uy)} y - r <= ${right}`)
    }
    pins.forEach((_, i) => {
      for (let k = 0; k < 4; k++) cut(i, Math.cos((k * Math.PI) / 2), Math.sin((k * Math.PI) / 2))
    })
    let angle = 0
    for (let pass = 0; pass < 40; pass++) {
      const solved = highs.solve(
        `Minimize\n obj: r\nSubject To\n${cuts.join('\n')}\nBounds\n a free\n x free\n y free\nEnd\n`,
      )
      const value = (name: string) => (solved.Columns[name] as { Primal: number }).Primal
      const [x, y, r] = [value('x'), value('y'), value('r')]
      angle = value('a')
      let most = 0
      at.forEach(([px, py], i) => {
        const [dx, dy] = [px - angle * py + x - pins[i]!.hole[0], py + angle * px + y - pins[i]!.hole[1]]
        const far = Math.hypot(dx, dy)
        most = Math.max(most, far)
        if (far > r + 1e-10) cut(i, dx / far, dy / far)
      })
      worst = most
      if (most < r + 1e-9) break
    }
    turn += angle
  }
  return worst
}
const signed = (value: number) => `${value < 0 ? '-' : '+'} ${Math.abs(value)}`

/** The farthest that best fit and linear programme lie apart, on CPUs drawn from seeds that tuned nothing. */
export async function insertionFigures(cases: number): Promise<void> {
  const highs = await highsLoader()
  let most = 0
  let took = 0
  for (let k = 0; k < cases; k++) {
    const pins = bentPins(810_000 + k)
    const began = performance.now()
    const { worstMm } = bestFit(pins, 0.2)
    took += performance.now() - began
    most = Math.max(most, Math.abs(worstMm - byLinearProgramme(highs, pins)))
  }
  line(
    `best-fit insertion of 906 pins, ${cases} CPUs: apart from HiGHS, mm`,
    most.toExponential(1),
    `≤ 1e-6: ${most <= 1e-6 ? 'met' : 'MISSED'}`,
  )
  line('  one fit, mean, ms', (took / cases).toFixed(1))
}

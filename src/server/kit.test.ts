import { describe, expect, it } from 'vitest'
import { seeded } from '@/core/maths/seeded'
import { drawAsk } from '@/core/firmware/route/route-judge.testing'
import { kit } from '@/core/firmware/route/kit'
import type { KitBoard, KitCpu } from '@/core/firmware/route/kit'
import { coverSolver } from './solve-cover'

/** Whether a CPU starts on a release, from the words of the table. */
function starts({ table }: KitBoard, release: string, cpu: string): boolean {
  const age = (name: string) => table.releases.findIndex((r) => r.name === name)
  return table.support.some(
    (s) => s.cpu === cpu && age(s.from) <= age(release) && (s.until === null || age(release) <= age(s.until)),
  )
}

/** Whether some CPUs carry all that any can, and do so without the dropped family where another could. */
function carries(
  boards: readonly KitBoard[],
  all: readonly KitCpu[],
  some: readonly KitCpu[],
  dropped: string,
) {
  return boards.every((b) =>
    b.mayHold.every((release) =>
      [all, all.filter((c) => c.family !== dropped)].every((of) => {
        const can = of.filter((c) => starts(b, release, c.cpu))
        return can.length === 0 || can.some((c) => some.includes(c))
      }),
    ),
  )
}
const subsets = <T>(of: readonly T[]): T[][] =>
  Array.from({ length: 2 ** of.length }, (_, mask) => of.filter((_, i) => (mask >> i) & 1))
const price = (of: readonly KitCpu[]) => of.reduce((a, c) => a + c.price, 0)

describe('a bench-CPU kit', () => {
  it('is the cheapest and smallest there is, by trying every set; what each is worth is what trying says', async () => {
    const solve = await coverSolver()
    const draw = seeded(60_080)
    for (let i = 0; i < 60; i++) {
      const boards = Array.from({ length: 1 + Math.floor(draw() * 4) }, (_, b): KitBoard => {
        const { table } = drawAsk(draw)
        return {
          board: `b${b}`,
          table,
          mayHold: table.releases.filter(() => draw() < 0.5).map((r) => r.name),
        }
      })
      const cpus = Array.from({ length: 6 }, (_, c): KitCpu => ({
        cpu: `c${c}`,
        family: `f${c % 3}`,
        price: draw() < 0.3 ? 0 : 5 * Math.ceil(8 * draw()),
      }))
      const good = subsets(cpus).filter((s) => carries(boards, cpus, s, 'f0'))
      const least = Math.min(...good.map(price))
      const fewest = Math.min(...good.filter((s) => price(s) === least).map((s) => s.length))
      const got = kit(boards, cpus, 'f0', solve)
      const chosen = cpus.filter((c) => got.members.some((m) => m.cpu === c.cpu))
      expect(carries(boards, cpus, chosen, 'f0')).toBe(true)
      expect([got.cost, price(chosen), chosen.length]).toEqual([least, least, fewest])
      const fewer = good.filter((s) => s.length < fewest)
      expect(got.oneLess).toBe(fewer.length ? Math.min(...fewer.map(price)) : null)
      for (const m of got.members) {
        const others = good.filter((s) => !s.some((c) => c.cpu === m.cpu))
        expect(m.without).toBe(others.length ? Math.min(...others.map(price)) - least : null)
      }
      for (const { board, release } of got.notCarried)
        expect(
          cpus.some((c) =>
            starts(
              boards.find((b) => b.board === board)!,
              release,
              c.cpu,
            ),
          ),
        ).toBe(false)
    }
  })

  it('of nothing is nothing, and costs nothing', async () => {
    expect(kit([], [], null, await coverSolver())).toEqual({
      members: [],
      cost: 0,
      notNeeded: [],
      oneLess: null,
      notCarried: [],
      notRobust: [],
    })
  })
})

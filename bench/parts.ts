import { inferMissing } from '@/core/parts/missing/infer'
import { boardWithPartGone } from '@/simulated-bench/missing-part'
import { indexMap, near } from '@/core/parts/board-map/board-map'
import { readNetlist } from '@/core/parts/board-map/netlist'
import { line, percent, timed } from './figure'
import type { Figure } from './figure'

/** Right roles, and values tried where none may be, over circuits of seeds of their own. */
export function missingFigures(count: number, from = 7_000_000, whole = true) {
  let right = 0
  let guessed = 0
  let wrongly = 0
  let mayBe = 0
  const missed = new Map<string, number>()
  for (let i = 0; i < count; i++) {
    const { role, never, part } = boardWithPartGone(from + i, whole)
    const found = inferMissing(part)
    if (found.roles[0]!.role === role) right++
    else {
      const key = `${role} taken for ${found.roles[0]!.role}`
      missed.set(key, (missed.get(key) ?? 0) + 1)
    }
    if (!never) mayBe++
    if (found.value) {
      guessed++
      if (never) wrongly++
    }
  }
  return {
    right: right / count,
    guessed: guessed / mayBe,
    wrongly,
    missed: [...missed].sort((a, b) => b[1] - a[1]),
  }
}

/** A netlist of so many records, made by hand: parts of two to forty pins on a grid. */
function netlist(records: number): string {
  const lines = ['P  UNITS CUST 1']
  for (let i = 0; i < records; i++) {
    const net = `NET${String(i % 9000).padStart(5, '0')}`.padEnd(17)
    const ref = `U${Math.floor(i / 20)}`.padEnd(6)
    const at = (mm: number) => `+${String(mm).padStart(6, '0')}`
    lines.push(
      `327${net}${ref}-${String(i % 20).padEnd(4)}       A0${1 + (i % 2)}X${at((i % 600) * 500)}Y${at(Math.floor(i / 600) * 500)}X0300Y0400R000`,
    )
  }
  return [...lines, '999'].join('\n')
}

export function mapFigures(): Figure[] {
  const text = netlist(100_000)
  const { map } = readNetlist(text)
  const of = indexMap(map!)
  return [
    timed('netlist of 100,000 records read', 1500, () => readNetlist(text), 8),
    timed('  and its parts and nets gathered', 1500, () => indexMap(map!), 8),
    timed('  parts within 20 mm of one', null, () => near(of, 'U2500', 20), 8),
  ]
}

export function partsFigures(count = 5000): void {
  const { right, guessed, wrongly } = missingFigures(count)
  line(`right role of a missing part, ${count} circuits, 5 % slips`, percent(right), '≥ 95 %')
  line('  values tried on power, feedback, sense, straps, resets, clocks', String(wrongly), '0')
  line('  values tried where they may be', percent(guessed))
}

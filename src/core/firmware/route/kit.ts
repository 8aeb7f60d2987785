import { Support } from './support-table'
import type { SupportTable } from './support-table'

/** A board that the shop sees, and the releases it may come with. */
export interface KitBoard {
  readonly board: string
  readonly table: SupportTable
  readonly mayHold: readonly string[]
}
export interface KitCpu {
  readonly cpu: string
  readonly family: string
  /** 0 for one that the shop owns. */
  readonly price: number
}

/** A set cover: choose columns so that each row has one of its own, for the least cost; at most so many, if that is said. */
export interface Cover {
  readonly costs: readonly number[]
  readonly rows: readonly (readonly number[])[]
  readonly atMost: number | null
  /** What it may cost in all, by other costs. */
  readonly within: { readonly costs: readonly number[]; readonly most: number } | null
}
/** Solves a cover exactly; null when there is none. */
export type SolveCover = (cover: Cover) => readonly number[] | null

export interface KitMember {
  readonly cpu: string
  readonly owned: boolean
  /** Boards that it carries, and those that none but it carries. */
  readonly carries: readonly string[]
  readonly only: readonly string[]
  /** What more the kit costs if this one cannot be had; null: then not all boards are carried. */
  readonly without: number | null
}

export interface Kit {
  readonly members: readonly KitMember[]
  readonly cost: number
  /** Owned, and in no board's way. */
  readonly notNeeded: readonly string[]
  /** What the cheapest kit of one CPU fewer costs; null when none carries all. */
  readonly oneLess: number | null
  /** A board with a release that no CPU here starts. */
  readonly notCarried: readonly { readonly board: string; readonly release: string }[]
  /** A board with a release that only the family starts which may be dropped. */
  readonly notRobust: readonly { readonly board: string; readonly release: string }[]
}

/**
 * The least costly bench CPUs with which every board starts on whatever release it may come with, and still does when one
 * family is dropped. A set cover with two rows for each board and release: a CPU that starts there, and one of another
 * family than the dropped one, where there is such. Least cost first, then fewest CPUs.
 *
 * @param dropped the family that releases to come may drop; null for none
 */
export function kit(
  boards: readonly KitBoard[],
  cpus: readonly KitCpu[],
  dropped: string | null,
  solve: SolveCover,
): Kit {
  const index = cpus.map((_, i) => i)
  const needs = boards.flatMap(({ board, table, mayHold }) => {
    const support = new Support(table)
    return mayHold.map((release) => {
      const at = support.releaseAt.get(release)!
      const starts = index.filter((i) => support.rowOf(at, cpus[i]!.cpu) !== null)
      return { board, release, starts, robust: starts.filter((i) => cpus[i]!.family !== dropped) }
    })
  })
  const where = (n: (typeof needs)[number]) => ({ board: n.board, release: n.release })
  const rows = distinct(needs.flatMap((n) => [n.starts, n.robust]).filter((r) => r.length > 0))
  const costs = cpus.map((c) => Math.round(c.price * 100))
  const costOf = (chosen: readonly number[]) => chosen.reduce((a, i) => a + costs[i]!, 0)
  const least = (allowed: readonly number[], atMost: number | null): readonly number[] | null =>
    solve({
      costs,
      rows: allowed.length === cpus.length ? rows : rows.map((r) => r.filter((i) => allowed.includes(i))),
      atMost,
      within: null,
    })
  const cheapest = least(index, null) ?? []
  const cost = costOf(cheapest)
  const chosen =
    solve({ costs: cpus.map(() => 1), rows, atMost: null, within: { costs, most: cost } }) ?? cheapest
  const members = chosen.map((i): KitMember => {
    const carried = needs.filter((n) => n.starts.includes(i))
    const alone = needs.filter(
      (n) =>
        (n.starts.includes(i) && !chosen.some((k) => k !== i && n.starts.includes(k))) ||
        (n.robust.includes(i) && !chosen.some((k) => k !== i && n.robust.includes(k))),
    )
    const other = least(
      index.filter((k) => k !== i),
      null,
    )
    return {
      cpu: cpus[i]!.cpu,
      owned: cpus[i]!.price === 0,
      carries: [...new Set(carried.map((n) => n.board))],
      only: [...new Set(alone.map((n) => n.board))],
      without: other && (costOf(other) - cost) / 100,
    }
  })
  const fewer = chosen.length > 0 ? least(index, chosen.length - 1) : null
  return {
    members,
    cost: cost / 100,
    notNeeded: cpus.filter((c, i) => c.price === 0 && !chosen.includes(i)).map((c) => c.cpu),
    oneLess: fewer && costOf(fewer) / 100,
    notCarried: needs.filter((n) => n.starts.length === 0).map(where),
    notRobust: needs.filter((n) => n.starts.length > 0 && n.robust.length === 0).map(where),
  }
}

/** Rows once each, and none that another row stands for already. */
function distinct(rows: readonly (readonly number[])[]): readonly (readonly number[])[] {
  const once = [...new Map(rows.map((r) => [r.join(), r] as const)).values()].sort(
    (a, b) => a.length - b.length,
  )
  const kept: { row: readonly number[]; set: ReadonlySet<number> }[] = []
  for (const row of once) {
    const set = new Set(row)
    if (!kept.some((k) => k.row.every((i) => set.has(i)))) kept.push({ row, set })
  }
  return kept.map((k) => k.row)
}

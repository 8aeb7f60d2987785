import type { Finding } from '@/core/tables/finding'

/** A release of a board's firmware, as its maker names it. */
export interface Release {
  readonly name: string
  readonly date: string | null
  readonly unstable: boolean
  /** Taken back: it is not written any more, but may be what the chip holds. */
  readonly withdrawn: boolean
  /** Stepping rule: the chip must hold this release or a later one before this is written. */
  readonly needs: string | null
  /** The release that its file really holds, where that is known to be another. */
  readonly holds: string | null
  readonly source: string
  readonly trust: number
}

/** Releases of which one CPU starts: from one, to another or to the last. */
export interface SupportRow {
  readonly cpu: string
  readonly family: string
  readonly from: string
  readonly until: string | null
  readonly unstable: boolean
  readonly source: string
  readonly date: string | null
  /** How likely it is that the row is right, 0 to 1. */
  readonly trust: number
  /** Family, model and stepping as the CPU itself gives them, where they are known. */
  readonly signature?: number
}

/** Releases, oldest first, and the CPUs they start. */
export interface SupportTable {
  readonly releases: readonly Release[]
  readonly support: readonly SupportRow[]
}

export const cells = ['dark', 'starts', 'unstable', 'not known'] as const
export type Cell = (typeof cells)[number]

/** A support table ready to be asked. */
export class Support {
  readonly releaseAt: ReadonlyMap<string, number>
  private readonly rows = new Map<string, { from: number; until: number; row: SupportRow }[]>()

  constructor(readonly table: SupportTable) {
    this.releaseAt = new Map(table.releases.map((r, i) => [r.name, i]))
    for (const row of table.support) {
      const from = this.releaseAt.get(row.from)!
      const until = row.until === null ? table.releases.length - 1 : this.releaseAt.get(row.until)!
      this.rows.set(row.cpu, [...(this.rows.get(row.cpu) ?? []), { from, until, row }])
    }
  }

  /** The row by which a CPU starts on a release. */
  rowOf(release: number, cpu: string): SupportRow | null {
    return this.rows.get(cpu)?.find((r) => r.from <= release && release <= r.until)?.row ?? null
  }

  /** What a release does with a CPU; a CPU that the table does not name is not known, and never taken to start. */
  cell(release: number, cpu: string): Cell {
    const row = this.rowOf(release, cpu)
    if (row) return row.unstable || this.table.releases[release]!.unstable ? 'unstable' : 'starts'
    return this.rows.has(cpu) ? 'dark' : 'not known'
  }

  /** 1 where release `v` starts CPU `c` of some, at `v * cpus.length + c`. */
  starting(cpus: readonly string[]): Uint8Array {
    const starts = new Uint8Array(this.table.releases.length * cpus.length)
    cpus.forEach((cpu, c) => {
      for (const { from, until } of this.rows.get(cpu) ?? [])
        for (let v = from; v <= until; v++) starts[v * cpus.length + c] = 1
    })
    return starts
  }

  /** The releases that start a CPU, by index, stretch by stretch. */
  windows(cpu: string): readonly { readonly from: number; readonly until: number }[] {
    return this.rows.get(cpu) ?? []
  }

  /** CPUs whose signature is known. */
  get signatures(): readonly { readonly cpu: string; readonly signature: number }[] {
    return [...this.rows].flatMap(([cpu, rows]) => {
      const signature = rows.find(({ row }) => row.signature !== undefined)?.row.signature
      return signature === undefined ? [] : [{ cpu, signature }]
    })
  }

  knows(cpu: string): boolean {
    return this.rows.has(cpu)
  }

  /** Every CPU that the table names, with its family. */
  get cpus(): readonly { readonly cpu: string; readonly family: string }[] {
    return [...this.rows].map(([cpu, rows]) => ({ cpu, family: rows[0]!.row.family }))
  }
}

/** The support table of a board, where both its releases and its CPUs are known. */
export const supportOf = (of: {
  readonly releases: Pick<SupportTable, 'releases'> | null
  readonly cpus: Pick<SupportTable, 'support'> | null
}): Support | null => (of.releases && of.cpus ? new Support({ ...of.releases, ...of.cpus }) : null)

/**
 * What is wrong in a table: names that stand twice or nowhere, windows that end before they begin, two windows of one CPU
 * that overlap, stepping rules that can never be met. A table with an error is not planned with.
 */
export function tableFaults({ releases, support }: SupportTable): readonly Finding[] {
  const at = new Map<string, number>()
  const error = (line: number, field: string, text: string): Finding => ({
    level: 'error',
    line,
    field,
    text,
  })
  const faults: Finding[] = []
  releases.forEach((r, i) => {
    if (at.has(r.name))
      faults.push(error(i + 2, 'release', `${r.name} stands twice: take one of the two out`))
    else at.set(r.name, i)
  })
  if (releases.length === 0) faults.push(error(0, 'releases', 'there is no release in it: name at least one'))
  releases.forEach((r, i) => {
    const line = i + 2
    if (r.holds !== null && !at.has(r.holds))
      faults.push(error(line, 'holds', `${r.name} is said to hold ${r.holds}, which is no release here`))
    else if (r.holds === r.name)
      faults.push(error(line, 'holds', `${r.name} holds itself: leave this empty where the label is right`))
    if (r.needs === null) return
    const needed = at.get(r.needs)
    if (needed === undefined)
      faults.push(error(line, 'needs', `${r.name} needs ${r.needs}, which is no release here`))
    else if (needed >= i)
      faults.push(
        error(
          line,
          'needs',
          `${r.name} needs ${r.needs}, which is not older than it: the steps go round in a circle. Oldest first, and a step needs an older one`,
        ),
      )
  })
  const seen = new Map<string, { from: number; until: number; line: number; family: string }[]>()
  support.forEach((row, i) => {
    const line = i + 2
    const from = at.get(row.from)
    const until = row.until === null ? releases.length - 1 : at.get(row.until)
    if (from === undefined) faults.push(error(line, 'from', `${row.from} is no release here`))
    if (until === undefined) faults.push(error(line, 'until', `${row.until} is no release here`))
    if (from === undefined || until === undefined) return
    if (until < from) {
      faults.push(
        error(
          line,
          'until',
          `${row.cpu} ends with ${row.until} before it begins with ${row.from}: turn them round`,
        ),
      )
      return
    }
    const others = seen.get(row.cpu) ?? []
    const over = others.find((o) => o.from <= until && from <= o.until)
    if (over)
      faults.push(
        error(
          line,
          'from',
          `${row.cpu} is said twice of the same releases, in line ${over.line} as well: keep one`,
        ),
      )
    if (others[0] && others[0].family !== row.family)
      faults.push(error(line, 'family', `${row.cpu} was of ${others[0].family} in line ${others[0].line}`))
    seen.set(row.cpu, [...others, { from, until, line, family: row.family }])
  })
  return faults
}

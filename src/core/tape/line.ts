/** One line of a job's tape: what was written, by whom, when, and which line it corrects. */
export interface Line<K extends string = string, B = unknown> {
  /** Made by the client, so that a retry never doubles it. */
  readonly id: string
  /** Place on the job's tape, from 1; 0 while it is not saved yet. */
  readonly seq: number
  readonly at: string
  readonly by: string
  readonly kind: K
  /** Version of the body; older ones are read through `upcast`. */
  readonly v: number
  readonly body: B
  /** The line this one corrects or undoes. */
  readonly strikes: number | null
}

/** Where something stands on the tape. */
export interface Noted {
  readonly seq: number
  readonly at: string
  readonly by: string
}

export const notedOf = ({ seq, at, by }: Noted): Noted => ({ seq, at, by })

/** The item that stands on a line; lists stand in the order of the tape. */
export function onLine<T extends Noted>(list: T[], seq: number): T | null {
  let [low, high] = [0, list.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if (list[middle]!.seq < seq) low = middle + 1
    else high = middle
  }
  return list[low]?.seq === seq ? list[low]! : null
}

/** Sequence numbers that no longer count (in SQL: the view tape_standing): struck, unless the strike itself is struck (that is how redo works). */
export function struckBy(lines: readonly Line[]): ReadonlyMap<number, number> {
  const struck = new Map<number, number>()
  for (let i = lines.length - 1; i >= 0; i--) {
    const line = lines[i]!
    if (line.strikes !== null && !struck.has(line.seq)) struck.set(line.strikes, line.seq)
  }
  return struck
}

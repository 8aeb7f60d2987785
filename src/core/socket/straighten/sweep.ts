import { clusters } from '../damage/cluster'
import { isDamage } from '../damage/mark'
import type { Marks } from '../damage/mark'
import type { Pass } from '../damage/pass'
import type { Contact, Socket } from '../model/socket'

/** A run of contacts in one row that the eye takes in at one look. */
export interface Stretch {
  readonly contacts: readonly string[]
  /** Why it comes before the rest; empty for the rest. */
  readonly why: string
}

/** Contacts taken in at one look (bench default). */
export const AT_ONE_LOOK = 10

/**
 * Contacts that were looked at in an earlier pass, found good there, and found damaged in a later one without having
 * been worked on: what the eye has missed.
 */
export function missedBefore(
  passes: readonly Pass[],
  strokes: readonly { readonly contact: string }[],
): readonly string[] {
  const worked = new Set(strokes.map((s) => s.contact))
  const missed = new Set<string>()
  passes.forEach((pass, i) => {
    for (const later of passes.slice(i + 1))
      for (const [name, mark] of Object.entries(later.found))
        if (isDamage(mark) && pass.looked[name] && !isDamage(pass.found[name]) && !worked.has(name))
          missed.add(name)
  })
  return [...missed]
}

/**
 * The way over the whole field that proves every contact looked at: rows there and back, ten at a look. What was missed
 * before comes first, then what lies round known damage (it is seldom alone), then the rest.
 * Every contact is in exactly one stretch.
 */
export function sweepOrder(socket: Socket, marks: Marks, missed: readonly string[] = []): Stretch[] {
  const rows = new Map<string, Contact[]>()
  for (const c of socket.contacts) {
    const key = c.yMm.toFixed(2)
    rows.set(key, [...(rows.get(key) ?? []), c])
  }
  const hot = new Set(missed)
  const near = (c: Contact) =>
    boxes.some(
      ([left, low, right, high]) =>
        c.xMm >= left - reach && c.xMm <= right + reach && c.yMm >= low - reach && c.yMm <= high + reach,
    )
  const reach = 2.1 * socket.pitchMm
  const boxes = clusters(socket, marks).map((k) => k.box)
  const first: Stretch[] = []
  const second: Stretch[] = []
  const rest: Stretch[] = []
  const ordered = [...rows].sort((a, b) => Number(b[0]) - Number(a[0]))
  ordered.forEach(([, row], r) => {
    const along = [...row].sort((a, b) => (r % 2 === 0 ? a.xMm - b.xMm : b.xMm - a.xMm))
    for (const run of runs(along, socket.pitchMm)) {
      const contacts = run.map((c) => c.name)
      const again = contacts.filter((name) => hot.has(name))
      if (again.length > 0) first.push({ contacts, why: `${again.join(', ')} was missed before` })
      else if (run.some(near)) second.push({ contacts, why: 'close to damage that is known' })
      else rest.push({ contacts, why: '' })
    }
  })
  return [...first, ...second, ...rest]
}

/** A row cut where it has a gap, and into looks of ten. */
function runs(row: readonly Contact[], pitchMm: number): Contact[][] {
  const found: Contact[][] = []
  row.forEach((c, i) => {
    const before = row[i - 1]
    const last = found.at(-1)
    if (!last || last.length >= AT_ONE_LOOK || (before && Math.abs(c.xMm - before.xMm) > 2.5 * pitchMm))
      found.push([c])
    else last.push(c)
  })
  return found
}

/** The first stretch that is not wholly looked at, and how much is left. */
export function nextStretch(
  order: readonly Stretch[],
  looked: Readonly<Record<string, true>>,
): { readonly stretch: Stretch | null; readonly left: number; readonly contactsLeft: number } {
  const open = order.filter((s) => s.contacts.some((name) => !looked[name]))
  const contactsLeft = open.reduce((n, s) => n + s.contacts.filter((name) => !looked[name]).length, 0)
  return { stretch: open[0] ?? null, left: open.length, contactsLeft }
}

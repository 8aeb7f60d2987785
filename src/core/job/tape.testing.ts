import type { Entry } from './job-state'
import type { Bodies, Kind } from '../slices'

/** Lays lines one after another, a minute apart, as one person writes them. */
export class TestTape {
  readonly entries: Entry[] = []
  private by = 'Maren'

  put<K extends Kind>(kind: K, body: Bodies[K], strikes: number | null = null): this {
    const seq = this.entries.length + 1
    const at = new Date(Date.UTC(2026, 10, 24, 9, seq)).toISOString()
    const id = `00000000-0000-4000-8000-${String(seq).padStart(12, '0')}`
    this.entries.push({ id, seq, at, by: this.by, kind, v: 1, body, strikes } as unknown as Entry)
    return this
  }

  as(by: string): this {
    this.by = by
    return this
  }
}

export const tape = () => new TestTape()

/** A board that was looked over and measured, without a fault: it may be started. */
export const measured = () => {
  const t = tape().put('look', { what: 'outside of the board', seen: 'nothing seen', clear: true })
  const ohms = { '12v': 480, '5v': 310, '3v3': 265, standby: 720, vcore: 6.4, vmem: 221, vsys: 38 }
  for (const [rail, at] of Object.entries(ohms)) t.put('rail', { rail, ohms: at, cpu: 'out' })
  return t
}

/** One stroke that brought a contact home. */
export const lifted = (contact: string): Bodies['stroke'] => ({
  contact,
  technique: 'lift',
  tool: 'needle',
  from: null,
  strokes: 1,
  result: 'there',
  predictedSnaps: null,
})

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

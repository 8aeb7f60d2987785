import type { Station } from '@/core/board/station'
import type { Rail } from '@/core/board/rail'
import type { Entry } from '@/core/job/job-state'
import type { Bodies, Kind } from '@/core/slices'
import { createHash } from 'node:crypto'
import type { Mark } from '@/core/socket/damage/mark'

/** The same words always give the same id, so that a demo shop laid twice is the same shop. */
export function steadyId(words: string): string {
  const hex = createHash('sha256').update(words).digest('hex')
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-8${hex.slice(17, 20)}-${hex.slice(20, 32)}`
}

/** Writes a job's tape line by line, each some minutes after the last. */
export class TapeWriter {
  private readonly lines: Entry[] = []
  private at: number

  constructor(
    readonly tag: string,
    private by: string,
    startIso: string,
  ) {
    this.at = Date.parse(startIso)
  }

  /** Time passes. */
  wait(minutes: number): this {
    this.at += minutes * 60_000
    return this
  }

  /** Somebody else takes over. */
  as(by: string): this {
    this.by = by
    return this
  }

  put<K extends Kind>(kind: K, body: Bodies[K], strikes: number | null = null): this {
    const seq = this.lines.length + 1
    const at = new Date(this.at).toISOString()
    this.lines.push({
      id: steadyId(`${this.tag} ${seq}`),
      seq,
      at,
      by: this.by,
      kind,
      v: 1,
      body,
      strikes,
    } as unknown as Entry)
    return this.wait(0.7)
  }

  says(...claims: readonly string[]): this {
    for (const text of claims) this.put('claim', { text })
    return this
  }

  rails(cpu: 'in' | 'out', ohms: Readonly<Record<Rail, number>>): this {
    for (const [rail, value] of Object.entries(ohms)) this.put('rail', { rail, ohms: value, cpu })
    return this
  }

  mark(contacts: string | readonly string[], mark: Mark): this {
    return this.put('mark', { contacts: typeof contacts === 'string' ? [contacts] : contacts, mark })
  }

  /** A line for a picture whose bytes are made when the shop is laid. */
  photo(caption: string): this {
    return this.put('photo', {
      file: '0'.repeat(64),
      name: 'field.png',
      type: 'image/png',
      bytes: 0,
      caption,
    })
  }

  settle(...stations: readonly Station[]): this {
    for (const station of stations) this.put('station', { station, mark: 'settled', why: '' })
    return this
  }

  pass(station: Station, why: string): this {
    return this.put('station', { station, mark: 'passed over', why })
  }

  /** Number of the newest line. */
  get last(): number {
    return this.lines.length
  }

  get entries(): readonly Entry[] {
    return this.lines
  }
}

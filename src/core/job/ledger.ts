import type { Noted } from './state'

/** Something loose: the line that made it and which of that line's items it is, “12/0”. */
export interface LedgerItem extends Noted {
  readonly id: string
  readonly what: string
  readonly from: string
  readonly where: string | null
  /** The contact it broke off, where it did. */
  readonly contact?: string
  /** It was found broken, rather than broken here. */
  readonly found?: true
}

/** An item of the ledger by its id; older lines name the line alone, which means its first. */
export const itemId = (item: number | string): string => (typeof item === 'number' ? `${item}/0` : item)

const keys = ({ id, what, contact }: LedgerItem) => [
  `id ${id}`,
  `what ${what}`,
  ...(contact === undefined ? [] : [`contact ${contact}`]),
]

/** The ledger while a tape is folded: what a line asks for is found at once, however many items there are. */
export class OpenLedger {
  private readonly all: (LedgerItem | null)[] = []
  private readonly places = new Map<string, number[]>()

  add(item: LedgerItem): void {
    const place = this.all.push(item) - 1
    for (const key of keys(item)) {
      const known = this.places.get(key)
      if (known) known.push(place)
      else this.places.set(key, [place])
    }
  }

  /** Whether something of a contact is asked for, or was. */
  hasOf(contact: string): boolean {
    return this.at(`contact ${contact}`).length > 0
  }

  account(id: string, where: string): void {
    for (const place of this.at(`id ${id}`)) this.put(place, where)
  }

  /** A part that was taken off is on the board again. */
  refit(ref: string): void {
    const key = `what part ${ref}`
    for (const place of this.at(key)) if (this.all[place]?.where === null) this.put(place, 'fitted again')
    this.places.delete(key)
  }

  /** It is all there after all: what was only found missing of a contact is not asked for any more. */
  withdraw(contact: string): void {
    const key = `contact ${contact}`
    const found = this.at(key).filter((place) => this.all[place]?.found)
    if (found.length === 0) return
    for (const place of found) this.all[place] = null
    this.places.set(
      key,
      this.at(key).filter((place) => this.all[place]),
    )
  }

  /** Another contact stands in its place, or in every place: what breaks off that is asked for anew. */
  renew(contact?: string): void {
    if (contact !== undefined) this.places.delete(`contact ${contact}`)
    else for (const key of this.places.keys()) if (key.startsWith('contact ')) this.places.delete(key)
  }

  list(): LedgerItem[] {
    return this.all.filter((item) => item !== null)
  }

  private at(key: string): readonly number[] {
    return this.places.get(key) ?? []
  }

  private put(place: number, where: string): void {
    const item = this.all[place]
    if (item) this.all[place] = { ...item, where }
  }
}

import type { Draft } from 'immer'
import type { Noted } from '../tape/line'
import type { Loose, LooseSettled } from '../tape/slice'

/** Something loose: the line that made it and which of that line's items it is, “12/0”. */
export interface LedgerItem extends Noted, Loose {
  readonly id: string
  /** Where it was found or went; null while nobody has said. */
  readonly where: string | null
}

/** The ledger: items in the order they came, null where one is not asked for any more, and where to find them. */
export interface LooseItems {
  readonly items: readonly (LedgerItem | null)[]
  readonly byId: Readonly<Record<string, readonly number[]>>
  readonly byContact: Readonly<Record<string, readonly number[]>>
  readonly byWhat: Readonly<Record<string, readonly number[]>>
}
export const nothingLoose: LooseItems = { items: [], byId: {}, byContact: {}, byWhat: {} }

/** An item of the ledger by its id; older lines name the line alone, which means its first. */
export const itemId = (item: number | string): string => (typeof item === 'number' ? `${item}/0` : item)

type LooseDraft = Draft<LooseItems>

const remember = (index: Record<string, number[]>, key: string, place: number) => {
  const known = index[key]
  if (known) known.push(place)
  else index[key] = [place]
}

const says = (loose: LooseDraft, place: number, where: string) => {
  const item = loose.items[place]
  if (item) item.where = where
}

/** What a line leaves loose; what was only found broken of a contact is asked for once. */
export function addLoose(loose: LooseDraft, noted: Noted, left: readonly Loose[]): void {
  let n = 0
  for (const item of left) {
    if (item.found && item.contact !== undefined && loose.byContact[item.contact]?.length) continue
    const id = `${noted.seq}/${n++}`
    const place = loose.items.push({ ...noted, id, where: null, ...item }) - 1
    remember(loose.byId, id, place)
    remember(loose.byWhat, item.what, place)
    if (item.contact !== undefined) remember(loose.byContact, item.contact, place)
  }
}

export function settleLoose(loose: LooseDraft, settled: readonly LooseSettled[]): void {
  for (const s of settled) {
    if ('withdraw' in s) {
      const at = loose.byContact[s.withdraw]
      if (!at?.some((place) => loose.items[place]?.found)) continue
      for (const place of at) if (loose.items[place]?.found) loose.items[place] = null
      loose.byContact[s.withdraw] = at.filter((place) => loose.items[place])
    } else if ('renew' in s) {
      if (s.renew === 'all') loose.byContact = {}
      else delete loose.byContact[s.renew]
    } else {
      const key = `part ${s.refit}`
      for (const place of loose.byWhat[key] ?? [])
        if (loose.items[place]?.where === null) says(loose, place, s.where ?? 'fitted again')
      delete loose.byWhat[key]
    }
  }
}

export function account(loose: LooseDraft, id: string, where: string): void {
  for (const place of loose.byId[id] ?? []) says(loose, place, where)
}

/** Everything that was ever loose and is still asked for, or was accounted for. */
export const ledgerOf = ({ items }: LooseItems): readonly LedgerItem[] => items.filter((i) => i !== null)

/** What tests need from the shelf. */
export const shelfItems = [
  'known-good module',
  'second known-good module',
  'known-good CPU',
  'known-good card',
  'bench supply',
  'new coin cell',
  'known-good drive',
  'second chip',
  'chip reader',
  'firmware file',
  'another board',
  'code card',
  'meter',
  'scope',
] as const
export type ShelfItem = (typeof shelfItems)[number]

/** Things that are a second piece of another. */
export const secondOf: Readonly<Partial<Record<ShelfItem, ShelfItem>>> = {
  'second known-good module': 'known-good module',
}

/** Things that a counted piece can serve for. */
export const servable = shelfItems.filter((item) => secondOf[item] === undefined)

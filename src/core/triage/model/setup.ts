/** What is fitted and how, when the board is powered. */
export interface Setup {
  readonly cpu: 'own' | 'known-good' | 'none'
  /** Where known-good modules stand, or the owner's own as they came. */
  readonly memory:
    'own' | 'own, reseated' | 'own in slot B' | 'good in A' | 'good in B' | 'good in both' | 'none'
  readonly graphics: 'as it came' | 'known-good card' | 'own graphics'
  readonly settings: 'as they were' | 'cleared'
  readonly cell: 'own' | 'new'
  readonly supply: 'own' | 'bench supply'
  readonly chip: 'first' | 'second'
  /** all: as it came; needed: CPU, memory and nothing else; bridged: the same, and the power pins bridged by hand. */
  readonly fitted: 'all' | 'needed' | 'bridged'
  readonly seat: 'as it came' | 'reseated' | 'eased'
  readonly wait: 'a minute' | 'out'
  readonly drive: 'own' | 'known-good' | 'none'
}

export const asItCame: Setup = {
  cpu: 'own',
  memory: 'own',
  graphics: 'as it came',
  settings: 'as they were',
  cell: 'own',
  supply: 'own',
  chip: 'first',
  fitted: 'all',
  seat: 'as it came',
  wait: 'a minute',
  drive: 'own',
}

/** Whether a setup has one of the listed values in every listed field. */
export const matches = (setup: Setup, wanted: SetupMatch): boolean =>
  Object.entries(wanted).every(([field, values]) =>
    (values as readonly string[]).includes(setup[field as keyof Setup]),
  )

/** Values a setup may have, by field; a field that is not named may have any. */
export type SetupMatch = { readonly [K in keyof Setup]?: readonly Setup[K][] }

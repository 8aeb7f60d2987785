/** Rails that every board has. */
export const rails = ['12v', '5v', '3v3', 'standby', 'vcore', 'vmem', 'vsys'] as const
export type UsualRail = (typeof rails)[number]

/** A rail by its name: one that every board has, or one of the board’s own. */
export type Rail = string

export const isUsual = (rail: Rail): rail is UsualRail => rails.some((r) => r === rail)

export const railWords: Readonly<Record<UsualRail, string>> = {
  '12v': '12 V rail',
  '5v': '5 V rail',
  '3v3': '3.3 V rail',
  standby: 'standby rail',
  vcore: 'core rail',
  vmem: 'memory rail',
  vsys: 'system-agent rail',
}

/** A rail in words. */
export const sayRail = (rail: Rail): string =>
  isUsual(rail) ? railWords[rail] : rail === 'other' ? 'another rail' : `${rail} rail`

/** A rail of a board model beyond the usual ones, with what a good board reads of it. */
export interface OwnRail {
  readonly rail: Rail
  /** Ohms to ground with the CPU out, and in where that is another. */
  readonly ohmsOut: number
  readonly ohmsIn: number | null
  readonly volts: number | null
}

/** What a rail of a board’s own may be called; one word is no name, because every record has it. */
export const OWN_RAIL = /^(?!constructor$)[a-z][a-z0-9.]{0,15}$/
export const MOST_OWN_RAILS = 24

/** Every rail of a board: the usual ones, then its own. */
export const railsOf = (own: readonly OwnRail[]): readonly Rail[] => [...rails, ...own.map((r) => r.rail)]

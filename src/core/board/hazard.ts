/** What a look can come upon that speaks against power; `harmless` is said, never assumed. */
export const lookHazards = [
  'harmless',
  'burnt',
  'smoke',
  'liquid',
  'corroded',
  'swollen',
  'solder or metal',
  'cracked',
  'part gone',
] as const
export type LookHazard = (typeof lookHazards)[number]

/** How a hazard is said at the bench. */
export const hazardWords: Readonly<Record<LookHazard, string>> = {
  harmless: 'nothing against power',
  burnt: 'burnt or scorched',
  smoke: 'smoke or a burnt smell',
  liquid: 'liquid or its residue',
  corroded: 'corrosion',
  swollen: 'a swollen part',
  'solder or metal': 'loose solder or metal',
  cracked: 'a cracked part',
  'part gone': 'a part is gone',
}

const earlierWork =
  /\bflux\b|re-?work|re-?heat|re-?solder|soldered (again|before|by hand)|(burnt|melted) header|worked on (before|by)/i
/** What is said not to be there, up to the next comma or stop. */
const denied = /\b(no|not|never|none|nothing|without)\b[^,.;]*/gi

/** Whether a look found that somebody had worked on the board before: flux, a part that was heated again, a burnt header. */
export const tellsOfRework = ({ seen, clear }: { readonly seen: string; readonly clear: boolean }): boolean =>
  !clear && earlierWork.test(seen.replace(denied, ''))

/** Places are told by their names, whole, however they are written: “outside, left edge” is a place of its own. What the reasoner calls “outside” is the whole outside. */
export function placeOf(what: string): string {
  const place = what.trim().toLowerCase()
  if (/^(the )?outside( of the board)?$/.test(place)) return 'outside of the board'
  if (place === 'round the chip') return 'round the firmware chip'
  return place
}

/** What a test of the reasoner's list finds, told as a look: the place and the hazard. */
const testSees: Readonly<Record<string, Readonly<Record<string, LookHazard>>>> = {
  outside: {
    clear: 'harmless',
    'scorched at a rail': 'burnt',
    'scorched at a controller': 'burnt',
    'a plugged-in part burnt': 'burnt',
    'cell holder green': 'corroded',
    'cooler loose': 'harmless',
    'a part missing': 'part gone',
  },
  'round the chip': {
    clear: 'harmless',
    'a resistor gone': 'part gone',
    'another part gone': 'part gone',
    'chip reworked': 'harmless',
  },
  'round the socket': {
    clear: 'harmless',
    'part broken at the regulator': 'cracked',
    'traces scratched': 'harmless',
  },
}

/** Tests that are looks at a place. */
export const testsThatLook: readonly string[] = Object.keys(testSees)

/** The look a test amounts to, or null when it is none. */
export const seenByTest = (test: string, outcome: string): LookHazard | null =>
  testSees[test] ? (testSees[test][outcome] ?? 'burnt') : null

import { percent } from '../../maths/percent'
import type { SwapPart } from '../bodies'
import { openOutcomes, startOutcomes } from '../model/start-model'

/** One part tried in one place, and what the start came to. */
export interface Swap {
  readonly what: SwapPart
  /** Which one: a name the bench gives it. */
  readonly part: string
  /** The slot, or the board. */
  readonly place: string
  /** Known to be good from elsewhere. */
  readonly knownGood: boolean
  readonly outcome: string
  /** Of a CPU: whether the release in the chip runs it, by the maker’s list. */
  readonly listed?: 'yes' | 'no' | 'not known'
}

/** The first outcome that shows a part of this kind to work (a picture shows all of them to). */
const worksFrom: Readonly<Record<SwapPart, (typeof startOutcomes)[number]>> = {
  supply: 'fans, no lamp',
  CPU: 'memory lamp',
  module: 'graphics lamp',
  card: 'boot lamp',
  drive: 'system loads',
}

/** Whether each start that the outcome may stand for came further than a part of this kind could hold it. */
const cameFurther = ({ what, outcome }: Pick<Swap, 'what' | 'outcome'>): readonly boolean[] =>
  (openOutcomes[outcome] ?? [outcome]).map(
    (meant) => startOutcomes.findIndex((o) => o === meant) >= startOutcomes.indexOf(worksFrom[what]),
  )

/** Whether a trial came further than a part of this kind could hold it. */
export const swapWorks = (swap: Pick<Swap, 'what' | 'outcome'>): boolean => cameFurther(swap).every(Boolean)

/**
 * Whether a trial shows anything: a CPU that the release in the chip does not run fails in any board, and a start in the
 * dark does not say how far it came where there was no LED to read.
 */
export const swapTells = (swap: Pick<Swap, 'what' | 'outcome' | 'listed'>): boolean =>
  swapWorks(swap) || (swap.listed !== 'no' && !cameFurther(swap).some(Boolean))

export interface Blame {
  readonly what: 'part' | 'place' | 'neither'
  readonly name: string
  readonly odds: number
}
export interface GridReading {
  readonly what: SwapPart
  readonly parts: readonly string[]
  readonly places: readonly string[]
  /** Likeliest first. */
  readonly blame: readonly Blame[]
  readonly say: string
  /** The empty cell that would tell most, if one would. */
  readonly tryNext: { readonly part: string; readonly place: string; readonly bits: number } | null
}

/** Odds that a part, a known-good part, a place is bad, and that something else holds every trial (bench default). */
const PART_BAD = 0.12
const GOOD_PART_BAD = 0.01
const PLACE_BAD = 0.12
const OTHERWISE = 0.2
/** Chance that a trial fails with something bad in it, and without (bench default). */
const FAILS = 0.95
const FAILS_ANYWAY = 0.03
/** More bits than this are not enumerated: the least tried go first. */
const MOST = 14

/**
 * What the pattern of trials says: each part and each place is good or bad, or something else holds all of them;
 * exact Bayes over all 2ⁿ cases. A trial fails with chance 0.95 when its part or place is bad, or something else is.
 * A trial that shows nothing (`swapTells`) is left out. Limits: parts and places fail on their own; a pair that only fails together looks like neither.
 */
export function readGrid(what: SwapPart, swaps: readonly Swap[]): GridReading {
  const all = swaps.filter((s) => s.what === what)
  const mine = all.filter(swapTells)
  const count = (of: (s: Swap) => string) => {
    const seen = new Map<string, number>()
    for (const s of mine) seen.set(of(s), (seen.get(of(s)) ?? 0) + 1)
    return [...seen].sort((a, b) => b[1] - a[1]).map(([name]) => name)
  }
  const allParts = count((s) => s.part)
  const allPlaces = count((s) => s.place)
  const parts = allParts.slice(0, Math.max(1, MOST - 1 - Math.min(6, allPlaces.length)))
  const places = allPlaces.slice(0, MOST - 1 - parts.length)
  const bits = parts.length + places.length + 1
  const good = new Set(mine.filter((s) => s.knownGood).map((s) => s.part))
  const prior = [
    ...parts.map((p) => (good.has(p) ? GOOD_PART_BAD : PART_BAD)),
    ...places.map(() => PLACE_BAD),
    OTHERWISE,
  ]
  const trials = mine.flatMap((s) => {
    const [p, q] = [parts.indexOf(s.part), places.indexOf(s.place)]
    return p < 0 || q < 0 ? [] : [{ mask: maskOf(p, q), works: swapWorks(s) }]
  })
  function maskOf(p: number, q: number) {
    return (1 << p) | (1 << (parts.length + q)) | (1 << (bits - 1))
  }
  const odds = new Float64Array(1 << bits)
  for (let state = 0; state < odds.length; state++) {
    let p = 1
    for (let i = 0; i < bits; i++) p *= state & (1 << i) ? prior[i]! : 1 - prior[i]!
    for (const t of trials) {
      const fails = state & t.mask ? FAILS : FAILS_ANYWAY
      p *= t.works ? 1 - fails : fails
    }
    odds[state] = p
  }
  const total = odds.reduce((a, b) => a + b, 0)
  const each = prior.map((_, i) => odds.reduce((sum, p, s) => (s & (1 << i) ? sum + p : sum), 0) / total)
  const blame: Blame[] = [
    ...parts.map((name, i) => ({ what: 'part' as const, name, odds: each[i]! })),
    ...places.map((name, i) => ({ what: 'place' as const, name, odds: each[parts.length + i]! })),
    { what: 'neither' as const, name: 'something else', odds: each.at(-1)! },
  ].sort((a, b) => b.odds - a.odds)
  const tried = new Set(mine.map((s) => `${s.part}\n${s.place}`))
  let tryNext: GridReading['tryNext'] = null
  parts.forEach((part, p) =>
    places.forEach((place, q) => {
      if (tried.has(`${part}\n${place}`)) return
      const told = tells(odds, total, maskOf(p, q))
      if (told > 0.02 && told > (tryNext?.bits ?? 0)) tryNext = { part, place, bits: told }
    }),
  )
  return { what, parts, places, blame, say: sayGrid(what, all, blame), tryNext }
}

/** What one more trial would tell about the whole, bits: entropy of its outcome less the noise that is in it anyway. */
function tells(odds: Float64Array, total: number, mask: number): number {
  let bad = 0
  for (let s = 0; s < odds.length; s++) if (s & mask) bad += odds[s]!
  bad /= total
  const h = (p: number) => (p <= 0 || p >= 1 ? 0 : -p * Math.log2(p) - (1 - p) * Math.log2(1 - p))
  return h(bad * FAILS + (1 - bad) * FAILS_ANYWAY) - bad * h(FAILS) - (1 - bad) * h(FAILS_ANYWAY)
}

function sayGrid(what: SwapPart, swaps: readonly Swap[], blame: readonly Blame[]): string {
  if (swaps.length === 0) return `no ${what} was tried anywhere yet`
  const silent = swaps.filter((s) => !swapTells(s))
  const partsOf = (of: readonly Swap[]) => [...new Set(of.map((s) => s.part))].join(', ')
  const unlisted = partsOf(silent.filter((s) => s.listed === 'no'))
  const dark = partsOf(silent.filter((s) => s.listed !== 'no'))
  return [
    ...(unlisted ? [`what is in the chip does not run ${unlisted}: that it stayed dark shows nothing`] : []),
    ...(dark ? [`how far it came with ${dark} was not to be seen: that shows nothing`] : []),
    ...[sayBlame(what, swaps.filter(swapTells), blame)].filter(Boolean),
  ].join('; ')
}

function sayBlame(what: SwapPart, swaps: readonly Swap[], blame: readonly Blame[]): string {
  if (swaps.length === 0) return ''
  const sure = blame.filter((b) => b.odds >= 0.8)
  const name = (b: Blame) => (b.what === 'place' ? b.name : b.what === 'part' ? `${what} ${b.name}` : '')
  if (sure.some((b) => b.what === 'neither'))
    return `it fails whatever ${what} stands where: neither the ${what} nor its place`
  if (sure.length > 0)
    return `${sure.map(name).join(' and ')} ${sure.length > 1 ? 'fail' : 'fails'}, the rest is innocent`
  const top = blame[0]!
  if (top.odds < 0.2 && swaps.every(swapWorks))
    return `every trial came through: nothing speaks against a ${what} or its place`
  return `not told apart yet: likeliest ${top.what === 'neither' ? 'something else' : name(top)} (${percent(top.odds)})`
}

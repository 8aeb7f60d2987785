import { isPicture, nothingNoted } from '../board/baseline'
import type { Baseline } from '../board/baseline'
import { seenByTest } from '../board/hazard'
import { rails } from '../board/rail'
import type { Rail } from '../board/rail'
import type { BoardBodies } from '../board/bodies'
import type { SwapPart, SwapPlace, TriageBodies } from './bodies'
import { swapTells, swapWorks } from './instruments/swap-grid'

type Bodies = BoardBodies & TriageBodies
type MeasuredKind = 'rail' | 'volts' | 'cell' | 'look' | 'baseline' | 'swap' | 'trial'
/** What was measured or seen, as the line of its own kind. */
export type TestLine = { [K in MeasuredKind]: { readonly kind: K; readonly body: Bodies[K] } }[MeasuredKind]

/** Where a part was tried, called what it is. */
const inPlace = (where: SwapPlace) => ({ place: where, where })

/** Parts that are tried in a place, by the test that tries them. */
const tried: Readonly<Record<string, Omit<Bodies['swap'], 'outcome'>>> = {
  'good in A': { what: 'module', part: 'known-good module', ...inPlace('slot A'), knownGood: true },
  'good in B': { what: 'module', part: 'known-good module', ...inPlace('slot B'), knownGood: true },
  'own in B': { what: 'module', part: 'owner’s module', ...inPlace('slot B'), knownGood: false },
  'known-good CPU': { what: 'CPU', part: 'known-good CPU', ...inPlace('this board'), knownGood: true },
  card: { what: 'card', part: 'known-good card', ...inPlace('this board'), knownGood: true },
  'bench supply': { what: 'supply', part: 'bench supply', ...inPlace('this board'), knownGood: true },
  'good drive': { what: 'drive', part: 'known-good drive', ...inPlace('this board'), knownGood: true },
} satisfies Record<string, Omit<Bodies['swap'], 'outcome'>>

const lookedAt: Readonly<Record<string, string>> = {
  outside: 'outside of the board',
  'round the chip': 'round the firmware chip',
  'round the socket': 'round the socket',
}

const lampOf = /^(CPU|memory|graphics|boot) lamp$/

/** What is noted of a start that came to an outcome, beside lamps and pictures, which are noted by their names. */
const noted: Readonly<Record<string, Partial<Baseline>>> = {
  nothing: { fans: 'off' },
  twitches: { fans: 'twitch' },
  restarts: { fans: 'restarts' },
  'fans, no lamp': { fans: 'on', lamp: 'none' },
  'fans, dark': { fans: 'on', picture: 'none' },
  'fans turn': { fans: 'on' },
  'lamps in turn': { fans: 'on', lamp: 'in turn' },
}

/** A start as it was told in the list of tests: how far it got, and nothing else noted. */
function startTold(outcome: string): Baseline | null {
  if (isPicture(outcome)) return { ...nothingNoted, picture: outcome }
  const lamp = lampOf.exec(outcome)?.[1]?.toLowerCase() as Baseline['lamp'] | undefined
  const seen = lamp ? { fans: 'on' as const, lamp } : noted[outcome]
  return seen ? { ...nothingNoted, ...seen } : null
}

const railOf = (test: string, quantity: 'ohms' | 'volts'): Rail | undefined =>
  rails.find((rail) => test === `${quantity} ${rail}`)

/**
 * A test that was answered in words, as the line of what it measures: a reading is one kind of line however it came.
 * Tests that have no line of their own stay what they are.
 */
export function lineOfTest({ test, outcome }: Bodies['trial']): TestLine {
  const ohms = railOf(test, 'ohms')
  if (ohms && (outcome === 'short' || outcome === 'low' || outcome === 'good'))
    return { kind: 'rail', body: { rail: ohms, ohms: null, is: outcome, cpu: null } }
  const volts = railOf(test, 'volts')
  if (volts && (outcome === 'missing' || outcome === 'there'))
    return { kind: 'volts', body: { rail: volts, volts: null, is: outcome } }
  if (outcome === 'low' || outcome === 'good') {
    if (test === 'cell') return { kind: 'cell', body: { volts: null, is: outcome } }
    if (test === 'cell under load')
      return { kind: 'cell', body: { volts: null, is: outcome, where: 'at the board' } }
    if (test === 'new cell under load')
      return { kind: 'cell', body: { volts: null, is: outcome, where: 'at the board', isNew: true } }
  }
  const place = lookedAt[test]
  const hazard = place === undefined ? null : seenByTest(test, outcome)
  if (place !== undefined && hazard !== null)
    return { kind: 'look', body: { what: place, seen: outcome, clear: outcome === 'clear', hazard, test } }
  const start = test === 'as it came' ? startTold(outcome) : null
  if (start) return { kind: 'baseline', body: start }
  const part = tried[test]
  return part ? { kind: 'swap', body: { ...part, outcome } } : { kind: 'trial', body: { test, outcome } }
}

/** Where a part was tried, on lines that say it in words alone. */
function placeRead(words: string): SwapPlace {
  const place = words.trim().toLowerCase()
  if (/another|other board/.test(place)) return 'another board'
  return /^(slot )?b/.test(place) ? 'slot B' : /^(slot )?a/.test(place) ? 'slot A' : 'this board'
}

const elsewhere: Readonly<Partial<Record<SwapPart, readonly [test: string, works: string, fails: string]>>> =
  {
    CPU: ['CPU elsewhere', 'starts', 'fails'],
    module: ['module elsewhere', 'good', 'fails'],
  }

/** A part tried in a place, in the words of the tests; null when it says nothing the reasoner knows. */
export function testOfSwap(swap: Bodies['swap']): Bodies['trial'] | null {
  const { what, knownGood, outcome, where = placeRead(swap.place) } = swap
  if (where === 'another board') {
    const of = knownGood || !swapTells(swap) ? undefined : elsewhere[what]
    return of ? { test: of[0], outcome: swapWorks(swap) ? of[1] : of[2] } : null
  }
  if (what === 'module' && knownGood && where === 'both slots') return { test: 'good in both', outcome }
  const test = Object.keys(tried).find((id) => {
    const of = tried[id]!
    return of.what === what && of.knownGood === knownGood && (what !== 'module' || of.where === where)
  })
  return test === undefined ? null : { test, outcome }
}

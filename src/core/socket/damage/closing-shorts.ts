import type { ShortGrade } from '../contact/function-law'
import { shortGrade } from '../contact/function-law'
import { fieldOf } from '../model/socket'
import type { Contact, Socket } from '../model/socket'
import type { Marks } from './mark'
import { shorts } from './short'

/** Two contacts that may touch, judged for power. */
export interface PossibleShort {
  readonly a: string
  readonly b: string
  readonly grade: ShortGrade
  readonly odds: number
}

/**
 * Odds from which possible shorts forbid power, and from which they limit the current: between supplies, or of what
 * nobody knows, one in ten is too much; between signals it takes more than half (bench default).
 */
const closesAt = { harmful: 0.1, signal: 0.5 } as const
const limitsAt = { harmful: 0.02, signal: 0.05 } as const
type Harm = keyof typeof closesAt
export const harms = ['harmful', 'signal'] as const satisfies readonly Harm[]

const harmOf = (grade: ShortGrade): Harm => (grade === 'signal' ? 'signal' : 'harmful')
const closes = (harm: Harm, odds: number) =>
  harm === 'signal' ? odds > closesAt.signal : odds >= closesAt.harmful

/** Chance that at least one of several is so, taken as independent. */
const anyOf = (odds: readonly number[]) => 1 - odds.reduce((none, p) => none * (1 - p), 1)

/** Those that alone would not forbid power, taken together. */
export interface Together<S extends PossibleShort> {
  readonly pairs: readonly S[]
  readonly any: number
  readonly level: 'closed' | 'limit' | 'nothing'
}

/** Which possible shorts forbid power by themselves, and what the others come to together. */
export function weighShorts<S extends PossibleShort>(
  possible: readonly S[],
): { readonly alone: readonly S[]; readonly together: Readonly<Record<Harm, Together<S>>> } {
  const grave = possible.filter((s) => s.grade !== 'harmless')
  const alone = grave.filter((s) => closes(harmOf(s.grade), s.odds))
  const together = (harm: Harm): Together<S> => {
    const pairs = grave.filter((s) => harmOf(s.grade) === harm && !closes(harm, s.odds))
    const any = anyOf(pairs.map((s) => s.odds))
    const level = closes(harm, any) ? 'closed' : any >= limitsAt[harm] ? 'limit' : 'nothing'
    return { pairs, any, level }
  }
  return { alone, together: { harmful: together('harmful'), signal: together('signal') } }
}

/** That two share a net is believed of a table, not of a painted region. */
export function gradeForPower(a: Contact, b: Contact): ShortGrade {
  const guessed = [a, b].some((c) => c.trust === 'region' || c.trust === 'none')
  const grade = shortGrade(a, b)
  return grade === 'harmless' && guessed ? 'unknown' : grade
}

/** Pairs of a field that touch or may touch, judged for power; those that reach for nobody named are told elsewhere. */
export function possibleShorts(socket: Socket, marks: Marks): PossibleShort[] {
  const { named } = fieldOf(socket)
  return shorts(socket, marks)
    .filter((s) => s.how !== 'reach')
    .map(({ a, b, odds }) => ({ a, b, odds, grade: gradeForPower(named.get(a)!, named.get(b)!) }))
}

/** Contacts for which the board may not be powered as they stand: they are parted, however little the board needs them. */
export function forbidPower(socket: Socket, marks: Marks): ReadonlySet<string> {
  const { alone, together } = weighShorts(possibleShorts(socket, marks))
  const closing = [
    ...alone,
    ...harms.flatMap((harm) => (together[harm].level === 'closed' ? together[harm].pairs : [])),
  ]
  return new Set(closing.flatMap(({ a, b }) => [a, b]))
}

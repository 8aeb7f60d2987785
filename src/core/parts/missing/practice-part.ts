import { inferMissing } from './infer'
import type { Inference, MissingPart, Role } from './infer'
import type { PadSeen } from './pad'

/** What can be read of a pad here, and the bench minutes it takes. */
export const reads = { ground: 1, diode: 1, rails: 2, pins: 3 } as const
export type Read = keyof typeof reads
export const readKinds = Object.keys(reads) as Read[]
export type PadRead = `${'a' | 'b'} ${Read}`
const allReads = (['a', 'b'] as const).flatMap((pad) => readKinds.map((of): PadRead => `${pad} ${of}`))

const readOf = (asked: ReadonlySet<PadRead>, pad: 'a' | 'b', seen: PadSeen): PadSeen => ({
  ...(asked.has(`${pad} ground`) && seen.groundOhm !== undefined ? { groundOhm: seen.groundOhm } : {}),
  ...(asked.has(`${pad} diode`) && seen.diodeV !== undefined ? { diodeV: seen.diodeV } : {}),
  ...(asked.has(`${pad} rails`) && seen.rails ? { rails: seen.rails } : {}),
  ...(asked.has(`${pad} pins`) && seen.pins ? { pins: seen.pins } : {}),
})

/** The part as far as its pads were read. */
export const asRead = (part: MissingPart, asked: ReadonlySet<PadRead>): MissingPart => ({
  ...part,
  a: readOf(asked, 'a', part.a),
  b: readOf(asked, 'b', part.b),
})

export const minutesOf = (asked: Iterable<PadRead>): number =>
  [...asked].reduce((sum, key) => sum + reads[key.split(' ')[1] as Read], 0)

/** What was there; `ohm` where a value may be tried. */
export interface PartTruth {
  readonly role: Role
  readonly never: boolean
  readonly ohm: number | null
  readonly part: MissingPart
}
/** What somebody says it was; null for a value that is not guessed. */
export interface PartSaid {
  readonly role: Role
  readonly ohm: number | null
}

export interface PartPracticeResult {
  readonly score: number
  readonly rightRole: boolean
  /** What is to be said of the value. */
  readonly value: 'right' | 'far off' | 'not tried' | 'rightly not guessed' | 'never guessed'
  readonly minutes: number
  /** Least minutes of readings with which it would have been sure; null where these readings never are. */
  readonly leastMinutes: number | null
  /** What the bench makes of the same readings. */
  readonly bench: Inference
}

/** How far a value tried in a row of data lines or on a pull may be off, as a ratio. */
const NEAR = 2.2
/** From here on a role counts as known. */
const KNOWN = 0.9

/** The cheapest set of readings that makes the right role sure, by trying them all. */
function leastOf({ part, role }: PartTruth): number | null {
  let least: number | null = null
  for (let set = 0; set < 1 << allReads.length; set++) {
    const asked = new Set(allReads.filter((_, i) => (set >> i) & 1))
    const minutes = minutesOf(asked)
    if (least !== null && minutes >= least) continue
    const [top] = inferMissing(asRead(part, asked)).roles
    if (top && top.role === role && top.odds >= KNOWN) least = minutes
  }
  return least
}

const valueSaid = ({ never, ohm }: PartTruth, said: PartSaid): PartPracticeResult['value'] => {
  if (said.ohm === null) return never ? 'rightly not guessed' : 'not tried'
  if (never || ohm === null) return 'never guessed'
  const ratio = said.ohm > 0 ? Math.max(said.ohm / ohm, ohm / said.ohm) : Infinity
  return ratio <= NEAR ? 'right' : 'far off'
}
const valuePoints: Readonly<Record<PartPracticeResult['value'], number>> = {
  right: 30,
  'rightly not guessed': 30,
  'not tried': 20,
  'far off': 0,
  'never guessed': 0,
}

/**
 * 50 points for what it did, 30 for its value (or for not guessing it), 20 for taking no more readings than it needs. A value
 * tried where none may be is worth nothing at all: that is what kills a board.
 */
export function scorePart(truth: PartTruth, asked: ReadonlySet<PadRead>, said: PartSaid): PartPracticeResult {
  const minutes = minutesOf(asked)
  const leastMinutes = leastOf(truth)
  const rightRole = said.role === truth.role
  const value = valueSaid(truth, said)
  const thrift = minutes === 0 ? 0 : Math.min(1, (leastMinutes ?? minutes) / minutes)
  return {
    score:
      value === 'never guessed'
        ? 0
        : Math.round(
            (rightRole ? 50 + 20 * thrift : 0) + (rightRole || truth.never ? valuePoints[value] : 0),
          ),
    rightRole,
    value,
    minutes,
    leastMinutes,
    bench: inferMissing(asRead(truth.part, asked)),
  }
}

import { sameId, sayId } from './jedec-id'
import type { ChipId } from './jedec-id'
import type { EraseType, QuadEnable } from './sfdp'

/** A flash chip as far as it is known; null is not known. */
export interface FlashChip {
  readonly name: string
  readonly id: ChipId | null
  readonly volts: number | null
  readonly bytes: number | null
  readonly package: string | null
  readonly quadEnable: QuadEnable | null
  readonly addressing: '3 bytes' | '3 or 4 bytes' | '4 bytes' | 'reserved' | null
  readonly erases: readonly EraseType[] | null
  readonly mhz: number | null
}

/** What a board wants of its chip; null is not known. */
export interface ChipWanted extends Omit<FlashChip, 'name' | 'id'> {
  /** Whether its firmware looks at the ID. */
  readonly checksId: boolean | null
  /** IDs it is known to take. */
  readonly takes: readonly ChipId[]
  /** Whether it reads over four lines. */
  readonly usesQuad: boolean | null
}

export type PointVerdict = 'fits' | 'with change' | 'refuse' | 'not known'
export interface SubstitutePoint {
  readonly point:
    'voltage' | 'size' | 'package' | 'ID' | 'quad enable' | 'addressing' | 'erase commands' | 'speed'
  readonly is: PointVerdict
  readonly say: string
}

export interface SubstituteVerdict {
  readonly verdict: 'fits' | 'fits with change' | 'refuse' | 'cannot tell'
  readonly points: readonly SubstitutePoint[]
}

const kib = (bytes: number) => (bytes >= 1_048_576 ? `${bytes / 1_048_576} MiB` : `${bytes / 1024} KiB`)

/**
 * Whether a chip can stand in for a board’s own, point by point. One point that refuses refuses the whole; one that is not
 * known leaves it open, for a chip of the right size can still be refused by its ID or its commands.
 */
export function substitute(wanted: ChipWanted, chip: FlashChip): SubstituteVerdict {
  const points: SubstitutePoint[] = [
    both('voltage', wanted.volts, chip.volts, (a, b) =>
      Math.abs(a - b) <= 0.1 * Math.min(a, b)
        ? ['fits', `${b} V, as the board gives`]
        : ['refuse', `${b} V; the board gives ${a} V: one destroys the other, or it is not read`],
    ),
    both('size', wanted.bytes, chip.bytes, (a, b) =>
      a === b
        ? ['fits', kib(b)]
        : b < a
          ? ['refuse', `${kib(b)}: the image has ${kib(a)}`]
          : ['with change', `${kib(b)} for ${kib(a)}: the image has to be laid where the board looks for it`],
    ),
    both('package', wanted.package, chip.package, (a, b) =>
      a === b ? ['fits', b] : ['refuse', `${b}; the pads are for ${a}`],
    ),
    idPoint(wanted, chip),
    quadPoint(wanted, chip),
    both('addressing', wanted.addressing, chip.addressing, (a, b) =>
      a === 'reserved' || b === 'reserved'
        ? ['not known', 'the table says nothing that is defined']
        : [...addresses(a)].every((n) => addresses(b).has(n))
          ? ['fits', b]
          : ['refuse', `${b}; the board speaks ${a}`],
    ),
    both('erase commands', wanted.erases, chip.erases, (a, b) => {
      const lacking = a.filter((e) => !b.some((o) => o.bytes === e.bytes && o.opcode === e.opcode))
      return lacking.length === 0
        ? ['fits', 'has every one the board uses']
        : [
            'refuse',
            `lacks ${lacking.map((e) => `${kib(e.bytes)} by 0x${e.opcode.toString(16).toUpperCase()}`).join(', ')}: settings could not be kept`,
          ]
    }),
    both('speed', wanted.mhz, chip.mhz, (a, b) =>
      b >= a ? ['fits', `${b} MHz, ${a} used`] : ['refuse', `${b} MHz; the board reads at ${a} MHz`],
    ),
  ]
  const has = (is: PointVerdict) => points.some((p) => p.is === is)
  return {
    verdict: has('refuse')
      ? 'refuse'
      : has('not known')
        ? 'cannot tell'
        : has('with change')
          ? 'fits with change'
          : 'fits',
    points,
  }
}

function both<T>(
  point: SubstitutePoint['point'],
  wanted: T | null,
  offered: T | null,
  judge: (wanted: T, offered: T) => readonly [PointVerdict, string],
): SubstitutePoint {
  if (wanted === null) return { point, is: 'not known', say: 'what the board wants is not known' }
  if (offered === null) return { point, is: 'not known', say: 'of this chip it is not known' }
  const [is, say] = judge(wanted, offered)
  return { point, is, say }
}

function idPoint({ checksId, takes }: ChipWanted, { id }: FlashChip): SubstitutePoint {
  const point = 'ID'
  if (id !== null && takes.some((known) => sameId(known, id)))
    return { point, is: 'fits', say: `${sayId(id)}: this board is known to take it` }
  if (checksId === false) return { point, is: 'fits', say: 'the board does not look at it' }
  if (checksId === null)
    return { point, is: 'not known', say: 'whether the board looks at the ID is not known' }
  if (id === null) return { point, is: 'not known', say: 'of this chip it is not known' }
  return {
    point,
    is: 'refuse',
    say: `${sayId(id)}: the board looks at the ID, and is not known to take this one`,
  }
}

function quadPoint(
  { usesQuad, quadEnable }: ChipWanted,
  { quadEnable: offered }: FlashChip,
): SubstitutePoint {
  const point = 'quad enable'
  if (usesQuad === false) return { point, is: 'fits', say: 'the board reads over one or two lines' }
  if (usesQuad === null)
    return { point, is: 'not known', say: 'whether the board reads over four lines is not known' }
  return both(point, quadEnable, offered, (a, b) =>
    a === b
      ? ['fits', b]
      : b === 'none' || b === 'reserved'
        ? ['refuse', 'the chip cannot be switched to four lines']
        : ['with change', `switched on by ${b}; the board’s own by ${a}: set it once with the programmer`],
  )
}

/** Bytes of address a chip can be spoken to with. */
const addresses = (of: NonNullable<FlashChip['addressing']>): ReadonlySet<number> =>
  new Set(of === '3 bytes' ? [3] : of === '4 bytes' ? [4] : of === '3 or 4 bytes' ? [3, 4] : [])

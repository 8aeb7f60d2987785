import { compare } from './compare'
import type { Compared, Run } from './compare'
import { headerOf, inspect } from './inspect'
import type { Inspection } from './inspect'
import { ownersOf } from './owner'
import type { OwnedStretch, Owner } from './owner'
import { placementOf } from './placement'

export type LaidStretch = Compared<OwnedStretch>

/** A release laid on a chip, its byte 0 at `at`; stretches and runs are counted from there. */
export interface Laid {
  readonly release: Uint8Array
  readonly chip: Uint8Array
  readonly at: number
  readonly stretches: readonly LaidStretch[]
  readonly code: readonly LaidStretch[]
  /** Runs that differ, code or not. */
  readonly runs: readonly Run[]
}

/** @param own stretches of the release that a person says are the board’s */
export function layOn(
  chip: Uint8Array,
  release: Uint8Array,
  file: Inspection,
  at: number,
  own: readonly Run[] = [],
): Laid {
  const header = headerOf(file)
  const payload = release.subarray(header)
  const owners = ownersOf(release, file, own)
  const shifted = owners.map((s) => ({ ...s, from: s.from - header, to: s.to - header }))
  const { stretches, runs } = compare(payload, chip.subarray(at), shifted)
  return { release: payload, chip, at, stretches, runs, code: ofOwner({ stretches }, 'code') }
}

/** Another release on a chip that was looked into; null when where it belongs is not known. */
export function layWherePlaced(chip: Uint8Array, inspection: Inspection, release: Uint8Array): Laid | null {
  const file = inspect(release)
  const { at } = placementOf(inspection, file)
  return at === null ? null : layOn(chip, release, file, at)
}

export const ofOwner = ({ stretches }: Pick<Laid, 'stretches'>, owner: Owner): LaidStretch[] =>
  stretches.filter((s) => s.owner === owner)

/** Bytes that differ, by whose they are. */
export function differingByOwner({ stretches }: Laid): Record<Owner, number> {
  const sum: Record<Owner, number> = { code: 0, empty: 0, own: 0, unknown: 0 }
  for (const { owner, differing } of stretches) sum[owner] += differing
  return sum
}

/** Whether all code of a release is on the chip. */
export const isWhole = ({ code }: Laid): boolean => code.length > 0 && code.every((s) => s.differing === 0)

const isFull = (byte: number) => byte !== 0xff && byte !== 0

/** Bytes of some stretches between two addresses of the release that are alike and no erased space. */
export function alikeBytes(
  { release, chip, at, code }: Laid,
  from: number,
  to: number,
  among: readonly LaidStretch[] = code,
): number {
  let count = 0
  for (const s of among)
    for (let i = Math.max(from, s.from); i < Math.min(to, s.to); i++)
      if (release[i] === chip[at + i] && isFull(release[i]!)) count++
  return count
}

/** Bytes of code between two addresses of the release that are no erased space. */
export function fullBytes({ release, code }: Laid, from: number, to: number): number {
  let count = 0
  for (const s of code)
    for (let i = Math.max(from, s.from); i < Math.min(to, s.to); i++) if (isFull(release[i]!)) count++
  return count
}

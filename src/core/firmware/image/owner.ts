import { ImageBytes } from './image-bytes'
import { headerOf } from './inspect'
import type { Inspection, Stretch } from './inspect'
import { fileSystems } from './volume'

/**
 * Whose bytes these are. `own`: the board writes them itself (settings, keys, serial and event log, network address, the
 * management part). `empty`: padding and free space. `unknown`: neither code by its structure nor known to be its own.
 */
export type Owner = 'code' | 'empty' | 'own' | 'unknown'

export interface OwnedStretch extends Stretch {
  readonly owner: Owner
}

/** The volume that holds settings, keys and what the board notes down. Source: UEFI PI, non-volatile data. */
const SETTINGS_VOLUME = 'FFF12B8D-7696-4C8B-A985-2747075B4F50'
/** Regions of the descriptor that belong to the board. */
const ownRegions: ReadonlySet<string> = new Set(['management', 'network address', 'board data'])
/** Bytes a descriptor gives each master its rights in, five masters of four bytes. */
const RIGHTS_BYTES = 20

export const isCodeVolume = (volume: { readonly guid: string }): boolean => fileSystems.has(volume.guid)

/**
 * Whose each byte of a release is, as it would lie on a chip: its stretches with an owner, in order.
 * What a release leaves erased outside of its volumes is room the board may write in.
 * @param own stretches a person says are the board's; they make nothing of a volume's files anything but code
 */
export function ownersOf(
  release: Uint8Array,
  inspection: Inspection,
  own: readonly { readonly from: number; readonly to: number }[] = [],
): OwnedStretch[] {
  const all = inspection.stretches
    .filter((s) => s.kind !== 'capsule header')
    .flatMap((stretch) => ofStretch(release, inspection, stretch))
  return all.flatMap((stretch) => (stretch.owner === 'unknown' ? saidToBeOwn(stretch, own) : [stretch]))
}

function ofStretch(release: Uint8Array, inspection: Inspection, stretch: Stretch): OwnedStretch[] {
  const as = (owner: Owner, part: Partial<Stretch> = {}): OwnedStretch => ({ ...stretch, ...part, owner })
  switch (stretch.kind) {
    case 'volume header':
    case 'file':
    case 'microcode':
      return [as('code')]
    case 'padding':
    case 'free':
      return [as('empty')]
    case 'volume data':
      return [as(stretch.name === SETTINGS_VOLUME ? 'own' : 'unknown')]
    case 'erased':
      return [as(release[stretch.from] === 0xff ? 'own' : 'unknown')]
    case 'region': {
      if (ownRegions.has(stretch.name)) return [as('own')]
      if (stretch.name !== 'descriptor') return [as('unknown')]
      // Who may write which region is set when a board leaves its maker.
      const start = headerOf(inspection)
      const rights = start + ((new ImageBytes(release).u32(start + 24) & 0xff) << 4)
      const to = rights + RIGHTS_BYTES
      if (rights <= stretch.from || to >= stretch.to) return [as('unknown')]
      return [
        as('unknown', { to: rights }),
        as('own', { from: rights, to, name: 'access rights' }),
        as('unknown', { from: to }),
      ]
    }
    default:
      return [as('unknown')]
  }
}

function saidToBeOwn(
  stretch: OwnedStretch,
  own: readonly { readonly from: number; readonly to: number }[],
): OwnedStretch[] {
  const parts: OwnedStretch[] = []
  let at = stretch.from
  for (const said of [...own].sort((a, b) => a.from - b.from)) {
    const [from, to] = [Math.max(said.from, at), Math.min(said.to, stretch.to)]
    if (from >= to) continue
    if (from > at) parts.push({ ...stretch, from: at, to: from })
    parts.push({ ...stretch, from, to, owner: 'own' })
    at = to
  }
  if (at < stretch.to) parts.push({ ...stretch, from: at })
  return parts
}

/** What an image says it is, what the board writes itself left out. */
export function codeVersions(image: Uint8Array, inspection: Inspection): string[] {
  const own = ownersOf(image, inspection).filter((s) => s.owner === 'own')
  return inspection.versions
    .filter((v) => !own.some((s) => v.at >= s.from && v.at < s.to))
    .map((v) => v.version)
}

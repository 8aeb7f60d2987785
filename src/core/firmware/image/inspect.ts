import { capsuleOf } from './capsule'
import type { Capsule } from './capsule'
import { regionsOf } from './descriptor'
import type { Region } from './descriptor'
import { ImageBytes, hex } from './image-bytes'
import type { ImageFinding } from './image-bytes'
import { microcodesIn } from './microcode'
import type { Microcode } from './microcode'
import { versionsIn } from './version-text'
import type { VersionText } from './version-text'
import { firstOther, volumesIn } from './volume'
import type { Volume } from './volume'

/** What a stretch of an image is. */
export type StretchKind =
  | 'capsule header'
  | 'region'
  | 'volume header'
  | 'file'
  | 'padding'
  | 'free'
  | 'volume data'
  | 'microcode'
  | 'erased'
  | 'data'

/** Bytes that belong together, from the first up to the one after the last. */
export interface Stretch {
  readonly from: number
  readonly to: number
  readonly kind: StretchKind
  readonly name: string
}

export interface Inspection {
  readonly bytes: number
  readonly capsule: Capsule | null
  /** Regions of its descriptor; null where it has none. */
  readonly regions: readonly Region[] | null
  readonly volumes: readonly Volume[]
  readonly microcodes: readonly Microcode[]
  /** Which versions it says it is, in plain text. */
  readonly versions: readonly VersionText[]
  /** Every byte of it, once and in order. */
  readonly stretches: readonly Stretch[]
  readonly findings: readonly ImageFinding[]
}

/** Bytes of an image before what goes on the chip: its capsule’s header. */
export const headerOf = ({ capsule }: Pick<Inspection, 'capsule'>): number => capsule?.headerBytes ?? 0

/** Largest image that is read, bytes. */
export const MOST_BYTES = 64 * 1024 * 1024
const PADDING_TYPE = 0xf0

/**
 * What is in a firmware image: capsule, descriptor, volumes with their files and sums, microcode, what is empty.
 * Anything malformed is a finding with its byte. Every byte is in exactly one stretch.
 * @throws RangeError for more than 64 MiB
 */
export function inspect(image: Uint8Array): Inspection {
  if (image.length > MOST_BYTES) throw new RangeError(`${image.length} bytes are more than ${MOST_BYTES}`)
  const bytes = new ImageBytes(image)
  const findings: ImageFinding[] = []
  const capsule = capsuleOf(bytes, findings)
  const from = capsule?.headerBytes ?? 0
  const regions = regionsOf(bytes, from, findings)
  const volumes = volumesIn(bytes, from, bytes.length, findings)
  const microcodes = microcodesIn(bytes, from, bytes.length, findings)
  if (image.length === 0) findings.push({ at: 0, text: 'the image is empty: it has no bytes' })
  else if (volumes.length === 0)
    findings.push({
      at: 0,
      text: 'no firmware volume is in it: an image of another kind, or only a part of one',
    })
  return {
    bytes: image.length,
    capsule,
    regions,
    volumes,
    microcodes,
    versions: versionsIn(bytes, from, bytes.length),
    stretches: stretchesOf(bytes, { capsule, regions, volumes, microcodes }),
    findings: findings.sort((a, b) => a.at - b.at),
  }
}

/** What is known of the image, laid end to end; what nobody names is erased space or data. */
function stretchesOf(
  bytes: ImageBytes,
  {
    capsule,
    regions,
    volumes,
    microcodes,
  }: Pick<Inspection, 'capsule' | 'regions' | 'volumes' | 'microcodes'>,
): Stretch[] {
  const named: Stretch[] = [
    ...(capsule
      ? [{ from: 0, to: capsule.headerBytes, kind: 'capsule header' as const, name: 'capsule' }]
      : []),
    ...volumes.flatMap(stretchesOfVolume),
    ...microcodes
      .filter((m) => !volumes.some((v) => m.from >= v.from && m.from < v.to))
      .map((m) => ({ from: m.from, to: m.to, kind: 'microcode' as const, name: hex(m.signature, 8) })),
    // A region is one stretch where nothing in it is known by itself.
    ...(regions ?? [])
      .filter((r) => !volumes.some((v) => v.from < r.to && v.to > r.from))
      .map((r) => ({ from: r.from, to: r.to, kind: 'region' as const, name: r.name })),
  ].sort((a, b) => a.from - b.from || b.to - a.to)
  const all: Stretch[] = []
  let at = 0
  for (const stretch of named) {
    if (stretch.to <= at) continue
    if (stretch.from > at) all.push(...unnamed(bytes, at, stretch.from))
    all.push({ ...stretch, from: Math.max(at, stretch.from) })
    at = stretch.to
  }
  all.push(...unnamed(bytes, at, bytes.length))
  return all
}

function stretchesOfVolume(volume: Volume): Stretch[] {
  const headerTo = volume.files[0]?.from ?? Math.min(volume.to, volume.freeFrom)
  const all: Stretch[] = []
  const put = (from: number, to: number, kind: StretchKind, name: string) => {
    if (to > from) all.push({ from, to, kind, name })
  }
  if (volume.files.length === 0 && volume.freeFrom === volume.to)
    return [{ from: volume.from, to: volume.to, kind: 'volume data', name: volume.guid }]
  put(volume.from, headerTo, 'volume header', volume.guid)
  volume.files.forEach((file, i) => {
    const next = volume.files[i + 1]?.from ?? volume.freeFrom
    put(file.from, Math.min(next, volume.to), file.type === PADDING_TYPE ? 'padding' : 'file', file.guid)
  })
  put(volume.freeFrom, volume.to, volume.lostAt === null ? 'free' : 'volume data', volume.guid)
  return all
}

/** Smallest run of one byte that counts as erased space between data. */
const LEAST_ERASED = 256

function unnamed(bytes: ImageBytes, from: number, to: number): Stretch[] {
  const all: Stretch[] = []
  let dataFrom = from
  for (let at = from; at < to;) {
    const value = bytes.u8(at)
    const erased = value === 0xff || value === 0
    const end = erased ? (firstOther(bytes, at, to, value) ?? to) : at + 1
    if (erased && (end - at >= LEAST_ERASED || end - at === to - from)) {
      if (at > dataFrom) all.push({ from: dataFrom, to: at, kind: 'data', name: '' })
      all.push({ from: at, to: end, kind: 'erased', name: hex(value, 2) })
      dataFrom = end
    }
    at = end
  }
  if (to > dataFrom) all.push({ from: dataFrom, to, kind: 'data', name: '' })
  return all
}

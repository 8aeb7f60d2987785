import { brokenOff } from './broken-off'
import type { Run } from './compare'
import { hex } from './image-bytes'
import type { Inspection } from './inspect'
import { alikeBytes, isWhole, layWherePlaced } from './laid'
import type { Laid } from './laid'
import { isCodeVolume } from './owner'
import { straysIn, unsoundIn } from './soundness'
import type { Unsound } from './soundness'
import type { Found, Versions } from './same-code'

/** Least of the release on a chip, bytes, for what differs to be told as damage of it. */
const LEAST_ALIKE = 4096

/** What a chip whose code differs from the release holds. */
export function judgeDiffering({
  laid,
  chip,
  older,
  gone,
  versions,
  label,
}: {
  readonly laid: Laid
  readonly chip: Inspection
  /** The release before, if it is at hand. */
  readonly older: Uint8Array | null
  /** What the release has and the chip has lost. */
  readonly gone: readonly Unsound[]
  readonly versions: Versions
  /** The version the chip is said to hold. */
  readonly label: string | null
}): Found {
  const before = older && layWherePlaced(laid.chip, chip, older)
  if (before && isWhole(before))
    return {
      verdict: 'another release',
      say: 'Another release: the older one, byte for byte. No update has reached its code.',
    }
  const other = otherVersion(versions)
  const unsound = [...unsoundIn(chip), ...gone].sort((a, b) => a.from - b.from)
  const unsummed = chip.volumes
    .filter(isCodeVolume)
    .flatMap((v) => v.files.filter((f) => f.checks === 'not summed'))
  const edge = brokenOff(laid, seamsOf(laid, chip, unsound, unsummed, versions), before)
  if (edge)
    return { verdict: 'broken off', say: edge.say, why: edge.why, at: [{ from: edge.at, to: edge.at }] }

  // By its own sums it can be damaged only where it has any.
  const mute = other === null ? differsUnsummed(laid, chip) : []
  if (unsound.length + mute.length > 0) return damaged(laid, unsound, mute, other)
  return anotherRelease(laid, chip, { versions, label, other, unsummed: unsummed.length })
}

/** The chip’s version where it is another than the file’s; null where it says nothing, or the same. */
const otherVersion = ({ original, release }: Versions): string | null =>
  original.length > 0 && !original.some((v) => release.includes(v)) ? original.join(', ') : null

const seamsOf = (
  laid: Laid,
  chip: Inspection,
  unsound: readonly Unsound[],
  unsummed: readonly Run[],
  versions: Versions,
) => ({
  unsound: [...unsound, ...straysIn(chip)].sort((a, b) => a.from - b.from),
  unsummed,
  others: [
    ...chip.microcodes.filter(
      (m) => m.sumGood && laid.runs.some((r) => r.from + laid.at < m.to && r.to + laid.at > m.from),
    ),
    ...chip.versions
      .filter((v) => versions.original.includes(v.version) && !versions.release.includes(v.version))
      .map((v) => ({ from: v.at })),
  ],
})

function damaged(
  laid: Laid,
  unsound: readonly Unsound[],
  mute: readonly Unsound[],
  other: string | null,
): Found {
  if (unsound.length === 0 && shareDiffering(laid) >= 0.5)
    return {
      verdict: 'cannot tell',
      say: 'most of it differs in files that have no sum of their own: another build, or damaged.',
    }
  if (other === null && alikeBytes(laid, 0, Infinity) < LEAST_ALIKE)
    return {
      verdict: 'cannot tell',
      say: 'next to nothing of the release is on the chip, and what is there is not sound in itself.',
      why: unsound.slice(0, 4).map((u) => `wrong: ${u.text}`),
    }
  const at = other === null ? differingRuns(laid) : unsound
  return {
    verdict: 'damaged',
    say: `Damaged ${sayPlaces(at)}${other === null ? '' : `; by its own text it is ${other}`}. Write it, once what damaged it is known.`,
    why: [...unsound, ...mute].slice(0, 4).map((u) => `wrong: ${u.text}`),
    at,
  }
}

/** What is sound by its own sums, and not this release. */
function anotherRelease(
  laid: Laid,
  chip: Inspection,
  {
    versions,
    label,
    other,
    unsummed,
  }: {
    readonly versions: Versions
    readonly label: string | null
    readonly other: string | null
    readonly unsummed: number
  },
): Found {
  if (label !== null && versions.original.includes(label) && !versions.release.includes(label))
    return {
      verdict: 'cannot tell',
      say: `the file is ${versions.release.join(', ') || 'of no version it names'} by its own text, the chip ${label}, as its label says: fetch the file of ${label}.`,
      why: ['the chip’s code is sound by its own sums'],
    }
  // An update that stopped just between two volumes leaves each of them sound.
  const volumes = differingByVolume(laid, chip)
  if (other === null && volumes.some((n) => n === 0) && volumes.some((n) => n > 0))
    return {
      verdict: 'cannot tell',
      say: 'some volumes are of this release and others are not, each sound in itself: give the release it held before.',
    }
  const named = other === null ? null : onlyNameDiffers(laid, chip)
  if (named !== null)
    return {
      verdict: 'broken off',
      say: `Update broken off below ${hex(named)}: all code is the release’s but the file that names it, which says ${other}. Write it whole.`,
      why: ['an update that came downwards and stopped, or a file put together by hand'],
      at: [{ from: named, to: named }],
    }
  const own = versions.original.join(', ')
  return {
    verdict: 'another release',
    say:
      other === null
        ? `Another build than the file${own ? `, though both are ${own} by their own text` : ''}; sound by its own sums.`
        : `Another release${label === null || versions.original.includes(label) ? '' : ' than the label says'}: ${own}, sound by its own sums.`,
    why: [
      `${Math.max(1, Math.round(100 * shareDiffering(laid)))} % of the code’s bytes differ`,
      ...(other === null ? [] : [`compare it with the file of ${own} to be sure of every byte`]),
      ...(unsummed > 0 ? [`${unsummed} files have no sum: they cannot speak for themselves`] : []),
    ],
  }
}

/** Share of the release’s code that differs. */
function shareDiffering({ code }: Laid): number {
  const [differing, all] = code.reduce(([d, n], s) => [d + s.differing, n + s.to - s.from], [0, 0])
  return differing / all
}

/** For each volume of the chip how many of the release’s code bytes differ in it. */
const differingByVolume = ({ code, at }: Laid, { volumes }: Inspection): number[] =>
  volumes
    .map((v) => code.filter((s) => s.from + at >= v.from && s.to + at <= v.to))
    .filter((inIt) => inIt.length > 0)
    .map((inIt) => inIt.reduce((sum, s) => sum + s.differing, 0))

/** Where the file that names the version ends, when nothing else of the code differs; null when more does. */
function onlyNameDiffers(laid: Laid, chip: Inspection): number | null {
  const [only, ...more] = laid.code.filter((s) => s.differing > 0)
  if (!only || more.length > 0) return null
  const [from, to] = [only.from + laid.at, only.to + laid.at]
  return chip.versions.some((v) => v.at >= from && v.at < to) ? to : null
}

/** Bytes of a file’s header. */
const FILE_HEADER = 24

/** Files without a sum whose headers are the release’s and whose bytes are not. */
function differsUnsummed(laid: Laid, chip: Inspection): Unsound[] {
  const files = new Map(chip.volumes.flatMap((v) => v.files).map((f) => [f.from, f]))
  return laid.code.flatMap((s) => {
    const file = files.get(s.from + laid.at)
    if (s.differing === 0 || file?.checks !== 'not summed' || s.first! < s.from + FILE_HEADER) return []
    const { from, to } = file
    return [{ from, to, text: `the file at ${hex(from)} has no sum, and is not the release’s` }]
  })
}

/** Runs of code that differ, where they stand on the chip. */
function differingRuns({ runs, code, at }: Laid): Run[] {
  const differing = code.filter((s) => s.differing > 0)
  return runs
    .filter((r) => differing.some((s) => r.from < s.to && r.to > s.from))
    .map((r) => ({ from: r.from + at, to: r.to + at }))
}

/** Most places that are named in a sentence. */
const MOST_PLACES = 3

export function sayPlaces(at: readonly Run[]): string {
  const named = at.slice(0, MOST_PLACES).map((r) => `${hex(r.from)} to ${hex(r.to)}`)
  const more = at.length - named.length
  return `at ${named.join(', ')}${more > 0 ? ` and ${more} more places` : ''}`
}

import { compare } from './compare'
import type { Compared, Comparison, Run } from './compare'
import { dumpQuality } from './dump'
import { alikeBytes, brokenOff, isWhole } from './broken-off'
import type { Laid } from './broken-off'
import { hex } from './image-bytes'
import { inspect } from './inspect'
import type { Inspection } from './inspect'
import { codeVersions, isCodeVolume, ownersOf } from './owner'
import type { OwnedStretch, Owner } from './owner'
import { placementOf } from './placement'
import { straysIn, unsoundIn } from './soundness'
import type { Unsound } from './soundness'

/** What the chip's contents are, compared with a release. */
export const verdicts = ['same code', 'broken off', 'damaged', 'another release', 'cannot tell'] as const
export type Verdict = (typeof verdicts)[number]

export interface Judgement {
  readonly verdict: Verdict
  /** One sentence, with what follows from it. */
  readonly say: string
  /** What it rests on, and what it leaves open. */
  readonly why: readonly string[]
  /** Where on the chip it is broken off or damaged. */
  readonly at: readonly Run[]
  /** Where on the chip the release’s first byte belongs; null when that is not known. */
  readonly placedAt: number | null
  readonly versions: { readonly original: readonly string[]; readonly release: readonly string[] }
  /** Bytes that differ, by whose they are. */
  readonly differing: Readonly<Record<Owner, number>>
  /** What was left out of the comparing because the board writes it itself, with how much of it differs. */
  readonly masked: readonly {
    readonly name: string
    readonly from: number
    readonly to: number
    readonly differing: number
  }[]
}

export interface SameCodeQuestion {
  /** What was read of the chip. */
  readonly original: Uint8Array
  /** Another read of it. */
  readonly second?: Uint8Array | null
  /** The maker's file of the release it is said to hold. */
  readonly release: Uint8Array
  /** The release it held before, if an update was under way. */
  readonly older?: Uint8Array | null
  /** The version a label or a screen says. */
  readonly label?: string | null
  /** Stretches of the release that are known to be the board's own. */
  readonly own?: readonly Run[]
}

const nothingDiffers: Judgement['differing'] = { code: 0, empty: 0, own: 0, unknown: 0 }
/** Least code alike on the new side of a break, bytes: less could be chance. */
const LEAST_ALIKE = 4096
const SECTOR = 4096

/**
 * Whether a chip holds the code of a release, before anything is erased.
 *
 * A raw comparison nearly always differs, because settings, keys, serial, network address and event log live on the same
 * chip. So each byte of the release is given an owner by the image's own structure, and only its code is compared. Code
 * that differs is judged by its own sums: whole and sound, it is another release; sound up to one place with another
 * release's files or erased space behind it, an update was broken off there; otherwise it is damaged where it differs.
 * What cannot be placed, read or told from the board's own is said to be so, never taken for good.
 */
export function judgeSameCode(question: SameCodeQuestion): Judgement {
  const { original, second = null, release, older = null, label = null } = question
  const quality = dumpQuality(original, second)
  const [chip, file] = [inspect(original), inspect(release)]
  const versions = { original: codeVersions(original, chip), release: codeVersions(release, file) }
  const cannotTell = (
    because: string,
    why: readonly string[] = [],
    known: Partial<Judgement> = {},
  ): Judgement => ({
    verdict: 'cannot tell',
    say: `Cannot tell, because ${because}`,
    why,
    at: [],
    placedAt: null,
    versions,
    differing: nothingDiffers,
    masked: [],
    ...known,
  })
  if (quality.quality === 'bad')
    return cannotTell(
      'the read cannot be believed.',
      quality.findings.map((f) => f.text),
    )
  const broken = unsoundIn(file)
  if (release.length === 0 || broken.length > 0 || cutOff(file))
    return cannotTell('the release’s own file is damaged or cut off: fetch it again.', [
      ...broken.map((b) => `wrong in the file: ${b.text}`),
      ...file.findings.slice(0, 3).map((f) => f.text),
    ])
  const placement = placementOf(chip, file)
  if (placement.at === null)
    return cannotTell('it is not known where the file belongs on this chip.', [placement.why])

  const compared = layOn(question, file, placement.at)
  const { stretches } = compared
  const known = { placedAt: placement.at, differing: byOwner(stretches), masked: maskedOf(stretches) }
  const why = [
    ...(second
      ? ['two reads of the chip are equal']
      : ['the chip was read only once: a second read that is equal proves it']),
    placement.why,
  ]
  const judged = (
    verdict: Verdict,
    say: string,
    more: readonly string[] = [],
    at: readonly Run[] = [],
  ): Judgement => ({
    verdict,
    say,
    why: [...more, ...why],
    at,
    versions,
    ...known,
  })
  const saysOther = label !== null && versions.release.length > 0 && !versions.release.includes(label)

  const gone = [...lostStructures(chip, file, placement.at), ...erasedOwn(question, compared, placement.at)]
  if (known.differing.code === 0 && gone.length > 0)
    return judged(
      'damaged',
      `Damaged ${places(gone)}: what has to stand there is gone.`,
      gone.map((g) => g.text),
      gone,
    )
  if (known.differing.code === 0 && known.differing.unknown > 0)
    return cannotTell(
      'what differs is neither code nor known to be the board’s own.',
      [...unknownOnes(stretches, placement.at), 'name it as the board’s own if it is', ...why],
      known,
    )
  if (known.differing.code === 0) {
    const empty =
      known.differing.empty > 0
        ? [`${known.differing.empty} bytes of padding and free space differ: no code is in them`]
        : []
    return saysOther
      ? judged(
          'another release',
          `Another release than the label says: ${versions.release.join(', ')}, whole, byte for byte. The code is sound.`,
          [`the label says ${label}`, ...empty],
        )
      : judged('same code', 'Same code: it is not the firmware. Do not write it.', [
          'every byte of code is as in the release',
          ...empty,
        ])
  }

  const unsound = [...unsoundIn(chip), ...gone].sort((a, b) => a.from - b.from)
  const laid: Laid = {
    release: release.subarray(file.capsule?.headerBytes ?? 0),
    chip: original,
    at: placement.at,
    code: ofOwner(stretches, 'code'),
  }
  const before = older && olderOn(original, chip, older)
  if (before && isWhole(before))
    return judged(
      'another release',
      'Another release: the older one, byte for byte. No update has reached its code.',
    )
  const other = otherVersion(versions)
  const unsummed = differsUnsummed(chip, compared, placement.at)
  const files = chip.volumes.filter(isCodeVolume).flatMap((v) => v.files)
  const seams = {
    unsound: [...unsound, ...straysIn(original, chip)].sort((a, b) => a.from - b.from),
    unsummed: files.filter((f) => f.checks === 'not summed'),
    others: [
      ...chip.microcodes.filter(
        (m) => m.sumGood && compared.runs.some((r) => r.from + laid.at < m.to && r.to + laid.at > m.from),
      ),
      ...chip.versions
        .filter((v) => versions.original.includes(v.version) && !versions.release.includes(v.version))
        .map((v) => ({ from: v.at })),
    ],
  }
  const edge = brokenOff(laid, seams, before)
  if (edge) return judged('broken off', edge.say, edge.why, [{ from: edge.at, to: edge.at }])

  const share = known.differing.code / codeBytes(stretches)
  const lone = other === null ? unsummed : []
  if (unsound.length === 0 && lone.length > 0 && share >= 0.5)
    return cannotTell(
      'most of it differs in files that have no sum of their own: another build, or damaged.',
      why,
      known,
    )
  if (unsound.length > 0 || lone.length > 0) {
    if (other === null && alikeBytes(laid, 0, Infinity) < LEAST_ALIKE)
      return cannotTell(
        'next to nothing of the release is on the chip, and what is there is not sound in itself.',
        [...unsound.slice(0, 4).map((u) => `wrong: ${u.text}`), ...why],
        known,
      )
    const at = other === null ? differingRuns(compared, placement.at) : unsound
    return judged(
      'damaged',
      `Damaged ${places(at)}${other === null ? '' : `; by its own text it is ${other}`}. Write it, once what damaged it is known.`,
      [...unsound, ...lone].slice(0, 4).map((u) => u.text),
      at,
    )
  }

  const own = versions.original.join(', ')
  if (saysOther && versions.original.includes(label))
    return cannotTell(
      `the file is ${versions.release.join(', ')} by its own text, the chip ${label}, as its label says: fetch the file of ${label}.`,
      ['the chip’s code is sound by its own sums', ...why],
      known,
    )
  // An update that stopped just between two volumes leaves each of them sound.
  const volumes = differingByVolume(chip, stretches, placement.at)
  if (other === null && volumes.some((n) => n === 0) && volumes.some((n) => n > 0))
    return cannotTell(
      'some volumes are of this release and others are not, each sound in itself: give the release it held before.',
      why,
      known,
    )
  const named = other === null ? null : onlyNameDiffers(chip, stretches, placement.at)
  if (named !== null)
    return judged(
      'broken off',
      `Broken off below ${hex(named)}: all code is the release’s but the file that names it, which says ${other}. Write it whole.`,
      ['an update that came downwards and stopped, or a file put together by hand'],
      [{ from: named, to: named }],
    )
  const without = seams.unsummed.length
  return judged(
    'another release',
    other === null
      ? `Another build than the file${own ? `, though both are ${own} by their own text` : ''}; sound by its own sums.`
      : `Another release${label === null || label === own ? '' : ' than the label says'}: ${own}, sound by its own sums. Compare it with that one.`,
    [
      `${Math.max(1, Math.round(100 * share))} % of the code’s bytes differ`,
      ...(without > 0 ? [`${without} files have no sum: they cannot speak for themselves`] : []),
    ],
  )
}

/** Whether the last thing in a file is said to be longer than the file. */
const cutOff = ({ findings }: Inspection) => findings.some((f) => /past the end|cut off/.test(f.text))

/** The chip’s version where it is another than the file’s; null where it says nothing, or the same. */
const otherVersion = ({ original, release }: Judgement['versions']): string | null =>
  original.length > 0 && !original.some((v) => release.includes(v)) ? original.join(', ') : null

/** The release laid on the chip at its place; stretches and runs are counted from there. */
function layOn(
  { original, release, own = [] }: Pick<SameCodeQuestion, 'original' | 'release' | 'own'>,
  file: Inspection,
  at: number,
): Comparison<OwnedStretch> {
  const header = file.capsule?.headerBytes ?? 0
  const shifted = ownersOf(release, file, own).map((s) => ({
    ...s,
    from: s.from - header,
    to: s.to - header,
  }))
  return compare(release.subarray(header), original.subarray(at), shifted)
}

/** The older release on the chip; null when where it belongs is not known. */
function olderOn(original: Uint8Array, chip: Inspection, older: Uint8Array): Laid | null {
  const file = inspect(older)
  const { at } = placementOf(chip, file)
  if (at === null) return null
  const { stretches } = layOn({ original, release: older }, file, at)
  return {
    release: older.subarray(file.capsule?.headerBytes ?? 0),
    chip: original,
    at,
    code: ofOwner(stretches, 'code'),
  }
}

function byOwner(stretches: readonly Compared<OwnedStretch>[]): Record<Owner, number> {
  const sum = { ...nothingDiffers } as Record<Owner, number>
  for (const { owner, differing } of stretches) sum[owner] += differing
  return sum
}

const ofOwner = (stretches: readonly Compared<OwnedStretch>[], owner: Owner) =>
  stretches.filter((s) => s.owner === owner)
const codeBytes = (stretches: readonly Compared<OwnedStretch>[]) =>
  ofOwner(stretches, 'code').reduce((sum, s) => sum + s.to - s.from, 0)
const maskedOf = (stretches: readonly Compared<OwnedStretch>[]): Judgement['masked'] =>
  ofOwner(stretches, 'own').map(({ from, to, kind, name, differing }) => ({
    name:
      kind === 'erased'
        ? 'room to write in'
        : kind === 'volume data'
          ? 'settings and keys'
          : name || 'named by hand',
    from,
    to,
    differing,
  }))
const unknownOnes = (stretches: readonly Compared<OwnedStretch>[], at: number) =>
  ofOwner(stretches, 'unknown')
    .filter((s) => s.differing > 0)
    .slice(0, 4)
    .map(
      (s) =>
        `${s.differing} bytes between ${hex(at + s.from)} and ${hex(at + s.to)}, first at ${hex(at + s.first!)}`,
    )

/** Volumes and the descriptor of the release that are not on the chip, though nothing else stands in their place. */
function lostStructures(chip: Inspection, file: Inspection, at: number): Unsound[] {
  const header = file.capsule?.headerBytes ?? 0
  const lost: Unsound[] = file.volumes.flatMap((v) => {
    const from = v.from - header + at
    return chip.volumes.some(
      (c) => c.from < from + v.to - v.from && c.to > from && (c.headerGood || c.from !== from),
    )
      ? []
      : [{ from, to: from + 72, text: `the header of the volume at ${hex(from)}` }]
  })
  const regions = ({ regions }: Inspection, shift: number) =>
    regions && JSON.stringify(regions.map((r) => [r.name, r.from + shift]))
  if (file.regions && regions(file, at - header) !== regions(chip, 0))
    lost.unshift({ from: at, to: at + SECTOR, text: 'the flash descriptor' })
  return lost
}

/** Parts of the board’s own that the release fills and that are erased on the chip. */
function erasedOwn(
  { original, release }: SameCodeQuestion,
  { stretches }: Comparison<OwnedStretch>,
  at: number,
): Unsound[] {
  const header = release.length - stretches.at(-1)!.to
  return ofOwner(stretches, 'own').flatMap((s) => {
    const filled = release.subarray(header + s.from, header + s.to).some((b) => b !== 0xff)
    const erased = original.subarray(at + s.from, at + s.to).every((b) => b === 0xff)
    return filled && erased
      ? [
          {
            from: at + s.from,
            to: at + s.to,
            text: `${s.name || 'what'} stands erased from ${hex(at + s.from)}`,
          },
        ]
      : []
  })
}

/** For each volume of the chip how many of the release’s code bytes differ in it. */
function differingByVolume(
  chip: Inspection,
  stretches: readonly Compared<OwnedStretch>[],
  at: number,
): number[] {
  return chip.volumes
    .map((v) => ofOwner(stretches, 'code').filter((s) => s.from + at >= v.from && s.to + at <= v.to))
    .filter((inIt) => inIt.length > 0)
    .map((inIt) => inIt.reduce((sum, s) => sum + s.differing, 0))
}

/** Where the file that names the version ends, when nothing else of the code differs; null when more does. */
function onlyNameDiffers(
  chip: Inspection,
  stretches: readonly Compared<OwnedStretch>[],
  at: number,
): number | null {
  const differing = ofOwner(stretches, 'code').filter((s) => s.differing > 0)
  const [only] = differing
  const names = chip.versions.some((v) => only && v.at >= only.from + at && v.at < only.to + at)
  return differing.length === 1 && names ? only!.to + at : null
}

/** Files without a sum whose headers are the release’s and whose bytes are not. */
function differsUnsummed(chip: Inspection, { stretches }: Comparison<OwnedStretch>, at: number): Unsound[] {
  const files = new Map(chip.volumes.flatMap((v) => v.files).map((f) => [f.from, f]))
  return ofOwner(stretches, 'code').flatMap((s) => {
    const file = files.get(s.from + at)
    return s.differing > 0 && file?.checks === 'not summed' && s.first! >= s.from + 24
      ? [
          {
            from: file.from,
            to: file.to,
            text: `the file at ${hex(file.from)} has no sum, and is not the release’s`,
          },
        ]
      : []
  })
}

/** Runs of code that differ, where they stand on the chip. */
function differingRuns({ runs, stretches }: Comparison<OwnedStretch>, at: number): Run[] {
  const code = ofOwner(stretches, 'code').filter((s) => s.differing > 0)
  return runs
    .filter((r) => code.some((s) => r.from < s.to && r.to > s.from))
    .map((r) => ({ from: r.from + at, to: r.to + at }))
}

/** Most places that are named in a sentence. */
const MOST_PLACES = 3

function places(at: readonly Run[]): string {
  const named = at.slice(0, MOST_PLACES).map((r) => `${hex(r.from)} to ${hex(r.to)}`)
  const more = at.length - named.length
  return `at ${named.join(', ')}${more > 0 ? ` and ${more} more places` : ''}`
}

import type { Run } from './compare'
import { judgeDiffering, sayPlaces } from './differing-code'
import { dumpQuality } from './dump'
import { goneFrom } from './gone'
import { hex } from './image-bytes'
import { inspect } from './inspect'
import { alikeBytes, differingByOwner, layOn, ofOwner } from './laid'
import type { Laid } from './laid'
import { codeVersions } from './owner'
import type { Owner } from './owner'
import { placementOf } from './placement'
import { fileFaults, soundFilesIn } from './soundness'
import type { Unsound } from './soundness'
import { versionsSaid } from './version-text'

/** What the chip's contents are, compared with a release. */
export const verdicts = ['same code', 'broken off', 'damaged', 'another release', 'cannot tell'] as const
export type Verdict = (typeof verdicts)[number]

/** Which versions chip and file say they are, in their code. */
export interface Versions {
  readonly original: readonly string[]
  readonly release: readonly string[]
}

/** A verdict with its own reasons. Of *cannot tell* the sentence is the reason alone. */
export interface Found {
  readonly verdict: Verdict
  readonly say: string
  readonly why?: readonly string[]
  readonly at?: readonly Run[]
}

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
  readonly versions: Versions
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

/** Least that has to be alike for code to be called the same, bytes that are no erased space. */
const LEAST_SAME = 4096

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
  const { original, second = null, release, older = null, own = [] } = question
  const [chip, file] = [inspect(original), inspect(release)]
  const versions = { original: codeVersions(original, chip), release: codeVersions(release, file) }
  const judged = ({ verdict, say, why = [], at = [] }: Found, laid: Laid | null): Judgement => ({
    verdict,
    say: verdict === 'cannot tell' ? `Cannot tell, because ${say}` : say,
    why,
    at: at.map(({ from, to }) => ({ from, to })),
    versions,
    placedAt: laid?.at ?? null,
    differing: laid ? differingByOwner(laid) : { code: 0, empty: 0, own: 0, unknown: 0 },
    masked: laid ? maskedOf(laid) : [],
  })
  const cannotTell = (say: string, why: readonly string[]) =>
    judged({ verdict: 'cannot tell', say, why }, null)

  const quality = dumpQuality(original, second)
  if (quality.quality === 'bad')
    return cannotTell(
      'the read cannot be believed.',
      quality.findings.map((f) => f.text),
    )
  const faults = fileFaults(file)
  if (faults.length > 0)
    return cannotTell('the release’s own file is damaged or cut off: fetch it again.', faults.slice(0, 4))
  const placement = placementOf(chip, file)
  if (placement.at === null) {
    const twice = dumpQuality(release).findings.find((f) => f.cause === 'stuck address line')
    return twice
      ? cannotTell('the release’s file holds the same more than once: fetch another.', [
          placement.why,
          `in the file: ${twice.text}`,
        ])
      : cannotTell('it is not known where the file belongs on this chip.', [placement.why])
  }

  const laid = layOn(original, release, file, placement.at, own)
  const gone = goneFrom(laid, chip, file)
  const label = labelOf(question)
  const found =
    differingByOwner(laid).code > 0
      ? judgeDiffering({ laid, chip, older, gone, versions, label })
      : judgeAlike(laid, gone, versions, label)
  const read = second
    ? 'two reads of the chip are equal'
    : 'the chip was read only once: a second read that is equal proves it'
  return judged({ ...found, why: [...(found.why ?? []), read, placement.why] }, laid)
}

/** The version in what a person said, or null where there is none in it. */
const labelOf = ({ label }: SameCodeQuestion): string | null => versionsSaid(label ?? '')[0] ?? null

/** What a chip holds on which every byte of the release’s code stands. */
function judgeAlike(laid: Laid, gone: readonly Unsound[], versions: Versions, label: string | null): Found {
  const cannotTell = (say: string, why: readonly string[]): Found => ({ verdict: 'cannot tell', say, why })
  if (gone.length > 0)
    return {
      verdict: 'damaged',
      say: `Damaged ${sayPlaces(gone)}: what has to stand there is gone.`,
      why: gone.map((g) => g.text),
      at: gone,
    }
  const unknown = ofOwner(laid, 'unknown').filter((s) => s.differing > 0)
  if (unknown.length > 0)
    return cannotTell('what differs is neither code nor known to be the board’s own.', [
      ...unknown
        .slice(0, 4)
        .map(
          (s) =>
            `${s.differing} bytes between ${hex(laid.at + s.from)} and ${hex(laid.at + s.to)}, first at ${hex(laid.at + s.first!)}`,
        ),
      'name it as the board’s own if it is',
    ])
  const compared = [...laid.code, ...ofOwner(laid, 'unknown')]
  if (alikeBytes(laid, 0, Infinity, compared) < LEAST_SAME)
    return cannotTell('next to no code can be told in the release’s file.', [])
  const empty = ofOwner(laid, 'empty').filter((s) => s.differing > 0)
  const strangers = empty.flatMap((s) => [...soundFilesIn(laid.chip, laid.at + s.from, laid.at + s.to)])
  if (strangers.length > 0)
    return cannotTell(
      'the chip has files where the release has none: an older release’s, or the file is not whole.',
      [
        `${strangers.length} of them, the first at ${hex(strangers[0]!.from)}`,
        'every byte of code is as in the release',
      ],
    )
  const rest = [
    ...(empty.length > 0
      ? [
          `${empty.reduce((n, s) => n + s.differing, 0)} bytes of padding and free space differ: no code is in them`,
        ]
      : []),
    ...leftOut(laid),
  ]
  return label !== null && versions.release.length > 0 && !versions.release.includes(label)
    ? {
        verdict: 'another release',
        say: `Another release than the label says: ${versions.release.join(', ')}, whole, byte for byte. The code is sound.`,
        why: [`the label says ${label}`, ...rest],
      }
    : {
        verdict: 'same code',
        say: 'Same code: it is not the firmware. Do not write it.',
        why: ['every byte of code is as in the release', ...rest],
      }
}

const nameOf = ({ kind, name }: Pick<Laid['stretches'][number], 'kind' | 'name'>): string =>
  kind === 'erased'
    ? 'room to write in'
    : kind === 'volume data'
      ? 'settings and keys'
      : name || 'named by hand'

const maskedOf = (laid: Laid): Judgement['masked'] =>
  ofOwner(laid, 'own').map((s) => ({ name: nameOf(s), from: s.from, to: s.to, differing: s.differing }))

/** What of the board’s own differs: it was not judged, and a fault may still be in it. */
function leftOut(laid: Laid): string[] {
  const sums = new Map<string, number>()
  for (const { name, differing } of maskedOf(laid))
    if (differing > 0) sums.set(name, (sums.get(name) ?? 0) + differing)
  return sums.size === 0
    ? []
    : [
        `not judged, the board writes it itself: ${[...sums].map(([name, n]) => `${name} (${n} bytes differ)`).join(', ')}`,
      ]
}

import { hex, SECTOR } from './image-bytes'
import { alikeBytes, fullBytes } from './laid'
import type { Laid } from './laid'
import { soundFilesIn } from './soundness'
import type { Unsound } from './soundness'

/** Where the chip’s own sums break, in order, and its files that have none to break. */
export interface Seams {
  readonly unsound: readonly Unsound[]
  readonly unsummed: readonly { readonly from: number; readonly to: number }[]
  /** Its microcode that adds up, and its version texts, that are not the release’s. */
  readonly others: readonly { readonly from: number }[]
}

export interface Break {
  /** On the chip; a whole sector. */
  readonly at: number
  readonly say: string
  readonly why: readonly string[]
}

/** Least code alike on the new side, bytes: less could be chance. */
const LEAST_ALIKE = 1024
/** Least length of what differs to its end, when nothing else speaks for an update, bytes. */
const LEAST_REST = 0x10000
/** Share of code alike that chance and common files leave on the old side. */
const MOST_ALIKE = 0.05
/** How far behind the last file is looked, bytes. */
const BEHIND = 256
const HEADER = 24

/**
 * Where an update was broken off, if it was: on one side of a sector all code is the release’s, and what differs on the
 * other side is another release’s files, erased, or unlike to its very end. Whoever writes goes upwards or downwards.
 * The release’s own sums must break where the two meet, unless the older release itself is at hand to show the join;
 * a chip that is sound up to there and beyond holds another release.
 */
export function brokenOff(laid: Laid, seams: Seams, older: Laid | null): Break | null {
  const span = differingSpan(laid)
  if (!span) return null
  return upwards(laid, span, seams, older) ?? downwards(laid, span, seams, older)
}

function differingSpan({ release, chip, at, code }: Laid): { first: number; end: number } | null {
  const differing = code.filter((s) => s.differing > 0)
  const last = differing.at(-1)
  if (!last) return null
  let end = last.to
  while (release[end - 1] === chip[at + end - 1]) end--
  return { first: differing[0]!.first!, end }
}

function upwards(laid: Laid, { first, end }: Span, seams: Seams, older: Laid | null): Break | null {
  if (alikeBytes(laid, 0, first) < LEAST_ALIKE) return null
  const edge = first + laid.at
  const sector = edge - (edge % SECTOR)
  const codeEnd = endOfCode(laid, end)
  const gap = erasedFrom(laid.chip, edge)
  const last = end + laid.at
  if (older && gap < last && covers(older, edge, last) && isOlder(older, gap > edge ? gap : sector, Infinity))
    return {
      at: sector,
      say: `Update broken off at ${hex(sector)}: new up to it, the older release after it. Write it whole.`,
      why: ['from there on every byte of code is the older release’s'],
    }
  const next = sector + SECTOR - laid.at
  const restErased = fullBytes(laid, next, codeEnd) >= LEAST_ALIKE && isErased(laid, next, codeEnd)
  const allErased = fullBytes(laid, first, codeEnd) >= LEAST_ALIKE && isErased(laid, first, codeEnd)
  if (restErased || allErased)
    return {
      at: sector,
      say: `Update broken off at ${hex(sector)}: new up to it, erased after it. Write it whole.`,
      why: ['no code stands after it'],
    }
  if (!meetAt(seams, edge, edge + HEADER)) return null
  const left = othersParts(laid, seams, edge, last)
  const between = gap > edge + SECTOR ? `, erased to ${hex(gap)}` : ''
  if (left > 0)
    return {
      at: sector,
      say: `Update broken off at ${hex(sector)}: new up to it${between}, old after it. Write it whole.`,
      why: [`${left} sound parts of another release stand after it`],
    }
  const beyond = gap - laid.at
  const unlike = (from: number, to: number, most: number) =>
    alikeBytes(laid, from, to) < most * fullBytes(laid, from, to)
  const foreign =
    between === ''
      ? (codeEnd - first >= LEAST_REST || goesOn(laid, codeEnd)) && unlike(first, codeEnd, MOST_ALIKE)
      : gap < last && unlike(beyond, end, 0.5)
  return foreign
    ? {
        at: sector,
        say: `Update broken off at ${hex(sector)}: new up to it${between}, something else after it. Write it whole.`,
        why: ['nothing after it is the release’s: an older release, or damaged to its end'],
      }
    : null
}

function downwards(laid: Laid, { first, end }: Span, seams: Seams, older: Laid | null): Break | null {
  if (alikeBytes(laid, end, Infinity) < LEAST_ALIKE) return null
  const edge = end + laid.at
  const sector = Math.ceil(edge / SECTOR) * SECTOR
  const gap = erasedUpTo(laid.chip, edge)
  if (older && gap > first + laid.at && covers(older, first + laid.at, edge) && isOlder(older, 0, gap))
    return {
      at: sector,
      say: `Update broken off at ${hex(sector)}: the older release below it, new from it on. Write it whole.`,
      why: ['below it every byte of code is the older release’s'],
    }
  const codeFrom = laid.code.findLast((s, i) => s.from <= first && laid.code[i - 1]?.to !== s.from)!.from
  if (first - codeFrom < SECTOR && isErased(laid, codeFrom, end))
    return {
      at: sector,
      say: `Update broken off at ${hex(sector)}: erased below it, new from it on. Write it whole.`,
      why: ['no code stands below it'],
    }
  if (!meetAt(seams, gap - HEADER, edge)) return null
  const left = othersParts(laid, seams, first + laid.at, edge)
  return left > 0
    ? {
        at: sector,
        say: `Update broken off at ${hex(sector)}: old below it, new from it on. Write it whole.`,
        why: [`${left} sound parts of another release stand below it`],
      }
    : null
}

/**
 * Whether the chip’s own sums first break between two addresses. A file that the break runs through may have no sum to
 * show it: then what follows it is out of step.
 */
function meetAt({ unsound, unsummed }: Seams, from: number, to: number): boolean {
  const first = unsound[0]
  if (!first) return false
  const through = unsummed.some((f) => f.from <= to && f.to >= from && first.from >= f.to)
  return through || (first.from <= to && first.to >= from)
}

type Span = NonNullable<ReturnType<typeof differingSpan>>

/** Whether a release has code between two addresses of the chip. */
const covers = ({ at, code }: Laid, from: number, to: number): boolean =>
  code.some((s) => s.from + at < to && s.to + at > from)

/** Whether all code of the older release between two addresses of the chip stands there, and is more than chance. */
function isOlder(older: Laid, from: number, to: number): boolean {
  let full = 0
  for (const s of older.code)
    for (let i = Math.max(from - older.at, s.from); i < Math.min(to - older.at, s.to); i++) {
      if (older.release[i] !== older.chip[older.at + i]) return false
      full++
    }
  return full >= LEAST_ALIKE
}

/** Where the code ends that runs on without a gap past this address. */
const endOfCode = ({ code }: Laid, from: number) =>
  code.find((s, i) => s.to >= from && code[i + 1]?.from !== s.to)!.to

/** Whether something stands on the chip right behind the release’s last file, where the release is erased. */
function goesOn({ release, chip, at }: Laid, from: number): boolean {
  const behind = (bytes: Uint8Array, start: number) => bytes.subarray(start, start + BEHIND)
  return behind(release, from).every((b) => b === 0xff) && behind(chip, at + from).some((b) => b !== 0xff)
}

/** Whether the chip is erased wherever the release has code between two of its addresses. */
function isErased({ chip, at, code }: Laid, from: number, to: number): boolean {
  for (const s of code)
    for (let i = Math.max(from, s.from); i < Math.min(to, s.to); i++) if (chip[at + i] !== 0xff) return false
  return true
}

/** The last byte before there that is not erased, and the one after it. */
function erasedUpTo(chip: Uint8Array, to: number): number {
  let at = to
  while (at > 0 && chip[at - 1] === 0xff) at--
  return at
}

/** The first byte from there that is not erased. */
function erasedFrom(chip: Uint8Array, from: number): number {
  let at = from
  while (at < chip.length && chip[at] === 0xff) at++
  return at
}

/** Sound files, microcode and version texts on the chip between two addresses that the release does not have. */
function othersParts({ release, chip, at }: Laid, { others }: Seams, from: number, to: number): number {
  // What differs first may stand within a header, or at the end of a text.
  let count = others.filter((m) => m.from >= from - HEADER && m.from < to).length
  for (const file of soundFilesIn(chip, from - HEADER, to)) {
    // One with the release’s header, its body’s sum included, may be its own, damaged where no sum shows it.
    const isRelease = (i: number) => chip[file.from + i] === release[file.from - at + i]
    if (!Array.from({ length: HEADER }, (_, i) => i).every(isRelease)) count++
  }
  return count
}

import { hex } from './image-bytes'
import type { ImageBytes, ImageFinding } from './image-bytes'

/** A microcode update: for which CPU it is, which it is, and of when. */
export interface Microcode {
  readonly from: number
  readonly to: number
  /** Family, model and stepping as the CPU itself gives them. */
  readonly signature: number
  /** Platforms it is for, one bit each. */
  readonly platforms: number
  readonly revision: number
  /** Year, month, day. */
  readonly date: string
  readonly sumGood: boolean
}

const HEADER = 48
/** Size of an update that gives none. */
const USUAL = 2048

/** Figures of a date, each four bits. */
const isBcd = (value: number) => [...value.toString(16)].every((figure) => figure <= '9')

/**
 * Microcode updates between two bytes, on eight bytes as the files of volumes stand.
 * Source: the published header of x86 microcode updates: version 1, revision, date as month, day, year in BCD,
 * signature, sum, loader 1, platforms, sizes; the 32-bit words of the whole add up to zero.
 * What only looks like one (sizes that do not fit, a day that is none) is passed over without a word.
 */
export function microcodesIn(
  bytes: ImageBytes,
  from: number,
  to: number,
  findings: ImageFinding[],
): Microcode[] {
  const found: Microcode[] = []
  for (let at = from; at + HEADER <= to;) {
    const update = bytes.u32(at) === 1 ? microcodeAt(bytes, at, to) : null
    if (update) {
      found.push(update)
      if (!update.sumGood)
        findings.push({
          at,
          text: `the microcode at ${hex(at)} for CPU ${hex(update.signature, 8)} does not add up: it is damaged`,
        })
    }
    at = update ? from + Math.ceil((update.to - from) / 8) * 8 : at + 8
  }
  return found
}

function microcodeAt(bytes: ImageBytes, from: number, end: number): Microcode | null {
  const [revision, date, signature] = [bytes.u32(from + 4), bytes.u32(from + 8), bytes.u32(from + 12)]
  const dataBytes = bytes.u32(from + 28)
  const total = dataBytes === 0 ? USUAL : bytes.u32(from + 32)
  const [month, day, year] = [date >>> 24, (date >>> 16) & 0xff, date & 0xffff]
  const plausible =
    bytes.u32(from + 20) === 1 &&
    revision !== 0 &&
    signature !== 0 &&
    isBcd(date) &&
    month >= 1 &&
    month <= 0x12 &&
    day >= 1 &&
    day <= 0x31 &&
    year >= 0x1995 &&
    year <= 0x2099 &&
    dataBytes % 4 === 0 &&
    total % 4 === 0 &&
    total >= dataBytes + HEADER &&
    from + total <= end
  if (!plausible) return null
  let sum = 0
  for (let at = from; at < from + total; at += 4) sum = (sum + bytes.u32(at)) >>> 0
  const figures = (value: number, count: number) => value.toString(16).padStart(count, '0')
  return {
    from,
    to: from + total,
    signature,
    platforms: bytes.u32(from + 24),
    revision,
    date: `${figures(year, 4)}-${figures(month, 2)}-${figures(day, 2)}`,
    sumGood: sum === 0,
  }
}

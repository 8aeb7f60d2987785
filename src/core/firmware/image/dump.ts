import { hex } from './image-bytes'
import type { ImageFinding } from './image-bytes'

/** What reads of a chip are worth. */
export interface DumpQuality {
  /** `not proved`: nothing speaks against it, but it was read only once. */
  readonly quality: 'good' | 'not proved' | 'bad'
  readonly findings: readonly DumpFinding[]
  /** Bytes in which two reads differ; null where there is one. */
  readonly differs: number | null
}

export interface DumpFinding extends ImageFinding {
  readonly cause:
    'nothing read' | 'stuck data line' | 'stuck address line' | 'reads differ' | 'sizes differ' | 'size'
}

/** Smallest address line that is looked for: shorter repeats are what data does by itself. */
const LEAST_LINE = 12

/**
 * Whether a read of a chip can be believed, and what spoils it if not.
 *
 * A bit that is the same in every byte while others change is a data line that is stuck; an image that is the same with
 * one address bit flipped, whole, is an address line that does not arrive (or a chip half as large as was said); two
 * reads of one chip that differ were not both right. A single read is never called good: it is not proved.
 * @param second another read of the same chip, if there is one
 */
export function dumpQuality(first: Uint8Array, second: Uint8Array | null = null): DumpQuality {
  const findings: DumpFinding[] = []
  const find = (cause: DumpFinding['cause'], at: number, text: string) => findings.push({ cause, at, text })
  for (const [i, read] of [first, second].entries()) {
    if (read === null) continue
    const name = second ? `read ${i + 1}` : 'the read'
    const fault = lone(read)
    if (fault) find(fault.cause, fault.at, `${name}: ${fault.text}`)
  }
  let differs: number | null = null
  if (second && second.length !== first.length)
    find(
      'sizes differ',
      Math.min(first.length, second.length),
      `one read has ${first.length} bytes, the other ${second.length}`,
    )
  else if (second) {
    const { count, at, bits } = difference(first, second)
    differs = count
    if (count > 0)
      find(
        'reads differ',
        at,
        `the two reads differ in ${count} ${count === 1 ? 'byte' : 'bytes'}, first at ${hex(at)}${bits.length === 1 ? `, always in bit ${bits[0]}: its line is loose` : ': a contact of the clip or the supply is not steady'}`,
      )
  }
  const quality = findings.length > 0 ? 'bad' : second ? 'good' : 'not proved'
  return { quality, findings, differs }
}

/** The first thing that speaks against a read by itself. */
function lone(read: Uint8Array): DumpFinding | null {
  const length = read.length
  if (length === 0) return { cause: 'nothing read', at: 0, text: 'it has no bytes' }
  let [all, any] = [0xff, 0]
  for (let at = 0; at < length; at++) {
    all &= read[at]!
    any |= read[at]!
  }
  if (all === any)
    return {
      cause: 'nothing read',
      at: 0,
      text: `every byte is ${hex(all, 2)}: ${all === 0xff ? 'the chip is blank, or it did not answer' : 'it did not answer'}`,
    }
  const [high, low] = [bitsOf(all), bitsOf(~any & 0xff)]
  if (high.length + low.length > 0)
    return {
      cause: 'stuck data line',
      at: 0,
      text: [...high.map((b) => `bit ${b} is always 1`), ...low.map((b) => `bit ${b} is always 0`)].join(
        ', ',
      ),
    }
  if ((length & (length - 1)) !== 0)
    return {
      cause: 'size',
      at: length,
      text: `${length} bytes are no size a chip has: the read was cut off, or is no read of a whole chip`,
    }
  for (let line = LEAST_LINE; 2 ** line < length; line++)
    if (repeatsAt(read, 2 ** line))
      return {
        cause: 'stuck address line',
        at: 2 ** line,
        text: `what stands at ${hex(2 ** line)} is what stands at ${hex(0)}, and so throughout: address line ${line} does not arrive${2 ** (line + 1) === length ? ', or the chip is half as large' : ''}`,
      }
  return null
}

/** Whether nothing changes when this address bit is flipped, though not all of it is one byte. */
function repeatsAt(read: Uint8Array, step: number): boolean {
  for (let block = 0; block < read.length; block += 2 * step)
    for (let at = block; at < block + step; at++) if (read[at] !== read[at + step]) return false
  return true
}

function difference(a: Uint8Array, b: Uint8Array): { count: number; at: number; bits: number[] } {
  let [count, first, mask] = [0, -1, 0]
  for (let at = 0; at < a.length; at++) {
    const changed = a[at]! ^ b[at]!
    if (changed === 0) continue
    if (first < 0) first = at
    count++
    mask |= changed
  }
  return { count, at: first, bits: bitsOf(mask) }
}

const bitsOf = (mask: number) => [0, 1, 2, 3, 4, 5, 6, 7].filter((bit) => (mask >> bit) & 1)

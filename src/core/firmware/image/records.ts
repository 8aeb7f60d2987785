import type { Finding } from '../../tables/finding'

/** Bytes at their addresses, as a file of records has them. */
export interface Recorded {
  /** Address of the first byte. */
  readonly base: number
  readonly bytes: Uint8Array
}

/** Widest stretch of addresses that is laid out as one image, bytes. */
const MOST_SPAN = 64 * 1024 * 1024

interface Piece {
  readonly at: number
  readonly data: Uint8Array
}

/** Whether a text looks like hex records, S-records or neither. */
export function recordsKind(text: string): 'hex records' | 'S-records' | null {
  const first = /^\s*(\S)(\S?)/.exec(text)
  if (first?.[1] === ':') return 'hex records'
  return first?.[1] === 'S' && /\d/.test(first[2] ?? '') ? 'S-records' : null
}

/**
 * Reads a file of records into one stretch of bytes; what no record gives is erased (0xFF).
 * Sources: the hex-record format of 8-bit loaders (types 00 to 05) and S-records (S0 to S9); both are public.
 * A wrong sum, a length that does not fit or a missing end is an error with its line.
 */
export function readRecords(text: string): { recorded: Recorded | null; findings: Finding[] } {
  const kind = recordsKind(text)
  const findings: Finding[] = []
  const say = (line: number, field: string, words: string) =>
    findings.push({ level: 'error', line, field, text: words })
  if (!kind) {
    say(
      1,
      'file',
      'neither hex records (lines that begin with a colon) nor S-records (lines that begin with S)',
    )
    return { recorded: null, findings }
  }
  const pieces: Piece[] = []
  let upper = 0
  let ended = false
  for (const [i, raw] of text.split(/\r?\n/).entries()) {
    const record = raw.trim()
    if (record === '') continue
    const line = i + 1
    if (ended) {
      say(line, 'end', 'there are records after the one that ends the file')
      break
    }
    const bytes = bytesOf(record.slice(kind === 'hex records' ? 1 : 2))
    if (!bytes || bytes.length < 3 || record[0] !== (kind === 'hex records' ? ':' : 'S')) {
      say(line, 'record', 'it is no record: an odd count of figures, or others than 0 to 9 and A to F')
      continue
    }
    const sum = bytes.reduce((a, b) => (a + b) & 0xff, 0)
    if (kind === 'hex records') {
      if (bytes.length !== bytes[0]! + 5)
        say(line, 'length', `it says ${bytes[0]} bytes and has ${bytes.length - 5}`)
      else if (sum !== 0) say(line, 'sum', 'its sum is wrong: a figure was lost or changed')
      else {
        const [type, data] = [bytes[3]!, bytes.subarray(4, -1)]
        if (type === 0) pieces.push({ at: upper + bytes[1]! * 256 + bytes[2]!, data })
        else if (type === 1) ended = true
        else if (type === 2 && data.length === 2) upper = (data[0]! * 256 + data[1]!) * 16
        else if (type === 4 && data.length === 2) upper = (data[0]! * 256 + data[1]!) * 65_536
        else if (type !== 3 && type !== 5) say(line, 'type', `type ${type} is none that is known`)
      }
    } else {
      const type = Number(record[1])
      if (bytes.length !== bytes[0]! + 1)
        say(line, 'length', `it says ${bytes[0]} bytes and has ${bytes.length - 1}`)
      else if (sum !== 0xff) say(line, 'sum', 'its sum is wrong: a figure was lost or changed')
      else if (type >= 1 && type <= 3) {
        const width = type + 1
        const at = bytes.subarray(1, 1 + width).reduce((a, b) => a * 256 + b, 0)
        pieces.push({ at, data: bytes.subarray(1 + width, -1) })
      } else if (type >= 7) ended = true
      else if (type === 4 || Number.isNaN(type)) say(line, 'type', `S${record[1]} is none that is known`)
    }
  }
  if (!ended) say(0, 'end', 'the record that ends the file is missing: it is cut off')
  return { recorded: laidOut(pieces, say), findings }
}

function laidOut(
  pieces: readonly Piece[],
  say: (line: number, field: string, words: string) => void,
): Recorded | null {
  const filled = pieces.filter((p) => p.data.length > 0)
  if (filled.length === 0) {
    say(0, 'data', 'no record holds any data')
    return null
  }
  const base = filled.reduce((least, p) => Math.min(least, p.at), Infinity)
  const end = filled.reduce((most, p) => Math.max(most, p.at + p.data.length), 0)
  if (end - base > MOST_SPAN) {
    say(0, 'address', `its addresses span ${end - base} bytes: more than any image here`)
    return null
  }
  const bytes = new Uint8Array(end - base).fill(0xff)
  for (const { at, data } of filled) bytes.set(data, at - base)
  return { base, bytes }
}

function bytesOf(figures: string): Uint8Array | null {
  if (figures.length % 2 === 1 || !/^[0-9A-Fa-f]*$/.test(figures)) return null
  return Uint8Array.from({ length: figures.length / 2 }, (_, i) =>
    parseInt(figures.slice(2 * i, 2 * i + 2), 16),
  )
}

const ROW = 32
const figuresOf = (bytes: readonly number[]) =>
  bytes.map((b) => b.toString(16).toUpperCase().padStart(2, '0')).join('')

/** Hex records of an image, 32 bytes a record. */
export function writeHexRecords({ base, bytes }: Recorded): string {
  const lines: string[] = []
  const put = (at: number, type: number, data: readonly number[]) => {
    const record = [data.length, (at >> 8) & 0xff, at & 0xff, type, ...data]
    lines.push(`:${figuresOf([...record, -record.reduce((a, b) => a + b, 0) & 0xff])}`)
  }
  let upper = 0
  for (let from = 0; from < bytes.length;) {
    const at = base + from
    const page = Math.floor(at / 65_536)
    if (page !== upper) {
      put(0, 4, [page >> 8, page & 0xff])
      upper = page
    }
    // No record crosses into the next 64 KiB.
    const to = Math.min(bytes.length, from + ROW, from + 65_536 - (at % 65_536))
    put(at % 65_536, 0, [...bytes.subarray(from, to)])
    from = to
  }
  put(0, 1, [])
  return `${lines.join('\n')}\n`
}

/** S-records of an image with addresses of four bytes, 32 bytes a record. */
export function writeSRecords({ base, bytes }: Recorded): string {
  const lines: string[] = []
  const put = (type: number, at: number, width: number, data: readonly number[]) => {
    const address = Array.from({ length: width }, (_, i) => Math.floor(at / 256 ** (width - 1 - i)) & 0xff)
    const record = [width + data.length + 1, ...address, ...data]
    lines.push(`S${type}${figuresOf([...record, ~record.reduce((a, b) => a + b, 0) & 0xff])}`)
  }
  put(0, 0, 2, [])
  for (let from = 0; from < bytes.length; from += ROW)
    put(3, base + from, 4, [...bytes.subarray(from, from + ROW)])
  put(7, base, 4, [])
  return `${lines.join('\n')}\n`
}

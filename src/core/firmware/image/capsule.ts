import { hex } from './image-bytes'
import type { ImageBytes, ImageFinding } from './image-bytes'

/** The wrapping of an update: what follows its header goes on the chip. */
export interface Capsule {
  readonly guid: string
  readonly headerBytes: number
}

/** Capsules that carry a whole image after their header. */
const capsules: ReadonlySet<string> = new Set([
  '3B6686BD-0D76-4030-B70E-B5519E2FC5A0',
  '4A3CA68B-7723-48FB-803D-578CC1FEC44D',
  '6DCBD5ED-E82D-4C44-BDA1-7194199AD92A',
])

/**
 * The capsule an image is wrapped in; null when it is in none.
 * Source: UEFI Specification, "Update Capsule": GUID, header size, flags, size of the whole, 28 bytes.
 */
export function capsuleOf(bytes: ImageBytes, findings: ImageFinding[]): Capsule | null {
  if (!bytes.has(0, 28)) return null
  const guid = bytes.guid(0)
  if (!capsules.has(guid)) return null
  const [headerBytes, whole] = [bytes.u32(16), bytes.u32(24)]
  if (headerBytes < 28 || headerBytes > bytes.length) {
    findings.push({
      at: 16,
      text: `the capsule gives its header ${headerBytes} bytes: what it wraps cannot be told`,
    })
    return null
  }
  if (whole !== bytes.length)
    findings.push({
      at: 24,
      cutOff: true,
      text: `the capsule says it is ${hex(whole)} bytes long; the file has ${hex(bytes.length)}: it is cut off, or more was put behind it`,
    })
  return { guid, headerBytes }
}

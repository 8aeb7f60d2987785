import { expose, transfer } from 'comlink'
import { buildImage } from '@/core/firmware/image/build'
import type { Built } from '@/core/firmware/image/build'
import { compare } from '@/core/firmware/image/compare'
import { blockEntropy } from '@/core/firmware/image/entropy'
import { inspect } from '@/core/firmware/image/inspect'
import type { Inspection } from '@/core/firmware/image/inspect'
import { codeVersions, ownersOf } from '@/core/firmware/image/owner'
import type { OwnedStretch } from '@/core/firmware/image/owner'
import { readRecords, recordsKind, writeHexRecords, writeSRecords } from '@/core/firmware/image/records'
import { judgeSameCode } from '@/core/firmware/image/same-code'
import type { SaveAs } from './save-as'

/** What is in an image, with how packed each block of it is. */
export interface Seen {
  readonly inspection: Inspection
  readonly entropy: Float32Array
  /** Whose each byte is, as the image itself has it. */
  readonly owners: readonly OwnedStretch[]
  /** Versions it says it is, the board’s own left out. */
  readonly versions: readonly string[]
}

/** Images in hand, by their hash: each is fetched and inspected once. */
const inHand = new Map<string, Promise<{ readonly bytes: Uint8Array; readonly inspection: Inspection }>>()

/** Images kept in hand at once: the largest have 64 MiB. */
const MOST_IN_HAND = 4

function take(url: string) {
  let taken = inHand.get(url)
  if (!taken) {
    taken = fetch(url)
      .then(async (answer) => {
        if (!answer.ok) throw new Error(`The image could not be fetched (${answer.status}).`)
        const bytes = new Uint8Array(await answer.arrayBuffer())
        return { bytes, inspection: inspect(bytes) }
      })
      .catch((error: unknown) => {
        inHand.delete(url)
        throw error
      })
    inHand.set(url, taken)
    if (inHand.size > MOST_IN_HAND) inHand.delete(inHand.keys().next().value!)
  }
  return taken
}

const bytesOf = async (url: string | null) => (url === null ? null : (await take(url)).bytes)

/** Longest text of records that is looked for in a file. */
const HEAD = 64

const worker = {
  /** The bytes of a file a person opened: as they are, or out of its records. */
  async decode(file: File): Promise<{ readonly bytes: Uint8Array } | { readonly fault: string }> {
    const bytes = new Uint8Array(await file.arrayBuffer())
    const latin = new TextDecoder('latin1')
    if (!recordsKind(latin.decode(bytes.subarray(0, HEAD)))) return transfer({ bytes }, [bytes.buffer])
    const { recorded, findings } = readRecords(latin.decode(bytes))
    const first = findings[0]
    if (first || !recorded)
      return { fault: `${file.name}, line ${first?.line ?? 0}: ${first?.text ?? 'nothing is in it'}.` }
    return transfer({ bytes: recorded.bytes }, [recorded.bytes.buffer])
  },
  async see(url: string): Promise<Seen> {
    const { bytes, inspection } = await take(url)
    return {
      inspection,
      entropy: blockEntropy(bytes),
      owners: ownersOf(bytes, inspection),
      versions: codeVersions(bytes, inspection),
    }
  },
  async page(url: string, from: number, to: number): Promise<Uint8Array> {
    const page = (await take(url)).bytes.slice(from, to)
    return transfer(page, [page.buffer])
  },
  async compare(first: string, second: string) {
    const [a, b] = [await take(first), await take(second)]
    return compare(a.bytes, b.bytes, a.inspection.stretches)
  },
  async judge(of: {
    readonly original: string
    readonly second: string | null
    readonly release: string
    readonly older: string | null
    readonly label: string | null
  }) {
    return judgeSameCode({
      original: (await take(of.original)).bytes,
      second: await bytesOf(of.second),
      release: (await take(of.release)).bytes,
      older: await bytesOf(of.older),
      label: of.label,
    })
  },
  /** The image to write, and where each of its bytes comes from; or why it cannot be built. */
  async build(original: string, release: string): Promise<Built | string> {
    const built = buildImage((await take(original)).bytes, (await take(release)).bytes)
    return typeof built === 'string' ? built : transfer(built, [built.image.buffer])
  },
  async save(url: string, as: SaveAs): Promise<Blob> {
    const { bytes } = await take(url)
    if (as === 'BIN')
      return new Blob([bytes as Uint8Array<ArrayBuffer>], { type: 'application/octet-stream' })
    const write = as === 'S-records' ? writeSRecords : writeHexRecords
    return new Blob([write({ base: 0, bytes })], { type: 'text/plain' })
  },
}

export type ImageWorker = typeof worker

expose(worker)

/** Bytes of one block of the field that an image is drawn as. */
export const BLOCK = 4096

/** n·log₂ n for every count a block can have. */
const nLogN = Float64Array.from({ length: BLOCK + 1 }, (_, n) => (n === 0 ? 0 : n * Math.log2(n)))

/**
 * Entropy of each block of 4 KiB, bits a byte: 0 where all are alike, near 8 where they are packed or enciphered.
 * H = log₂ N − (Σ n·log₂ n)/N over the counts n of each byte. Source: Shannon (1948).
 */
export function blockEntropy(bytes: Uint8Array): Float32Array {
  const blocks = new Float32Array(Math.ceil(bytes.length / BLOCK))
  const counts = new Uint32Array(256)
  for (let block = 0; block < blocks.length; block++) {
    const from = block * BLOCK
    const to = Math.min(bytes.length, from + BLOCK)
    counts.fill(0)
    for (let at = from; at < to; at++) counts[bytes[at]!]!++
    let sum = 0
    for (let value = 0; value < 256; value++) sum += nLogN[counts[value]!]!
    blocks[block] = Math.max(0, Math.log2(to - from) - sum / (to - from))
  }
  return blocks
}

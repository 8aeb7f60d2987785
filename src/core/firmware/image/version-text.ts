import type { ImageBytes } from './image-bytes'

/** A version that an image says it is. */
export interface VersionText {
  readonly at: number
  readonly version: string
}

/** Longest text that is read on from the word, characters. */
const LONGEST = 40
const isWord = /^(?:version|ver|release|rev)[ .:=_-]{0,3}([0-9]+(?:\.[0-9]+)+[A-Za-z]?)(?![0-9A-Za-z.])/i
/** Versions in what a person wrote: a label, a file's name, “V1.40 (beta)”. */
export const versionsSaid = (text: string): readonly string[] =>
  text.match(/[0-9]+(?:\.[0-9]+)+(?:[A-Za-z](?![0-9A-Za-z]))?/g) ?? []

/** First letters, in small, of the words a version follows. */
const firstLetters: ReadonlySet<number> = new Set([0x76, 0x72]) // v r

/**
 * Versions written in an image as text of one or of two bytes a letter, each once, in order: a word for it, then
 * figures with at least one point between. What is packed or enciphered keeps its version to itself.
 */
export function versionsIn({ bytes }: ImageBytes, from: number, to: number): VersionText[] {
  const found = new Map<string, VersionText>()
  for (let at = from; at + 4 < to; at++) {
    if (!firstLetters.has(bytes[at]! | 0x20) || (bytes[at]! & 0xc0) !== 0x40) continue
    const wide = bytes[at + 1] === 0
    // The second letter is an e in each of them.
    if ((bytes[at + (wide ? 2 : 1)]! | 0x20) !== 0x65) continue
    const version = isWord.exec(textAt(bytes, at, to, wide ? 2 : 1))?.[1]
    if (version !== undefined && !found.has(version)) found.set(version, { at, version })
  }
  return [...found.values()]
}

function textAt(bytes: Uint8Array, from: number, to: number, step: 1 | 2): string {
  let text = ''
  for (let at = from; at < to && text.length < LONGEST; at += step) {
    const code = bytes[at]!
    if (code < 0x20 || code > 0x7e || (step === 2 && bytes[at + 1] !== 0)) break
    text += String.fromCharCode(code)
  }
  return text
}

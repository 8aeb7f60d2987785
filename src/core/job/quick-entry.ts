import { sayEntry } from './job-state'
import type { Entry } from './job-state'
import { slices } from '../slices'
import type { Bodies, Kind } from '../slices'
import type { Bench, Command } from '../tape/command'

/** A typed line, understood: what to put on the tape. */
export type Typed = {
  [K in Kind]: { readonly kind: K; readonly body: Bodies[K]; readonly strikes: number | null }
}[Kind]

export type Parsed =
  | { readonly ok: true; readonly entry: Typed; readonly say: string }
  | { readonly ok: false; readonly say: string; readonly example: string }

/** The words of every slice. */
export const words: readonly Command[] = slices.flatMap((s) => s.commands ?? [])

const unplaced = { id: '', seq: 0, at: '', by: '', v: 1 }

/** Distance in single-letter changes, for “did you mean”. Source: Levenshtein (1966). */
function letterDistance(a: string, b: string): number {
  let row = Array.from({ length: b.length + 1 }, (_, i) => i)
  for (let i = 1; i <= a.length; i++) {
    const next = [i]
    for (let j = 1; j <= b.length; j++)
      next.push(Math.min(row[j]! + 1, next[j - 1]! + 1, row[j - 1]! + (a[i - 1] === b[j - 1] ? 0 : 1)))
    row = next
  }
  return row[b.length]!
}

/**
 * Reads one line of the quick entry. Never throws; what makes no sense comes back with a sentence and an example.
 * A line that starts with no known word is not guessed to be a note: it might be a reading that was mistyped.
 */
export function readLine(line: string, bench: Bench = { cpu: null }): Parsed {
  const text = line.trim().replace(/\s+/g, ' ')
  const [first = '', ...rest] = text.split(' ')
  const word = words.find((w) => w.word === first.toLowerCase())
  if (!word) {
    for (const { understands, example } of words) {
      const meant = understands?.([first, ...rest]) ?? null
      if (typeof meant === 'string') return readLine(meant, bench)
      if (meant) return { ok: false, say: meant.say, example }
    }
    const near = words
      .map((w) => ({ w, d: letterDistance(first.toLowerCase(), w.word) }))
      .sort((a, b) => a.d - b.d)[0]!
    if (near.d <= 2 && first.length > 1)
      return {
        ok: false,
        say: `“${first}” is not a word of the tape; did you mean ${near.w.word}?`,
        example: near.w.example,
      }
    return {
      ok: false,
      say: first
        ? `“${first}” is not a word of the tape; begin with ${words.map((w) => w.word).join(', ')}`
        : 'type a word and a reading',
      example: first ? `note ${text}` : words[0]!.example,
    }
  }
  const read = word.read(rest, rest.join(' '), bench)
  return typeof read === 'string'
    ? { ok: false, say: read, example: word.example }
    : {
        ok: true,
        entry: read as Typed,
        say: read.kind === 'rail' ? sayEntry({ ...unplaced, ...read } as Entry) : word.form,
      }
}

/** Completions for a line being typed: first words, then rails and kinds where they fit. */
export function completions(line: string): readonly { readonly text: string; readonly say: string }[] {
  const parts = line.replace(/^\s+/, '').split(/\s+/)
  const [first = ''] = parts
  if (parts.length <= 1)
    return words
      .filter((w) => w.word.startsWith(first.toLowerCase()))
      .map((w) => ({ text: `${w.word} `, say: w.form }))
  const word = words.find((w) => w.word === first.toLowerCase())
  if (!word) return []
  const choices = word.choices?.[parts.length - 1]
  if (choices) {
    const before = parts.slice(0, -1).join(' ')
    return choices
      .filter((c) => c.startsWith(parts.at(-1)!.toLowerCase()))
      .map((c) => ({ text: `${before} ${c} `, say: word.form }))
  }
  return [{ text: '', say: `${word.form} — ${word.say}` }]
}

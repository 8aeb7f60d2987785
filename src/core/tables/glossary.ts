export interface GlossaryWord {
  readonly word: string
  /** What it is called elsewhere. */
  readonly elsewhere: string
  readonly means: string
}

/** The first table of a Markdown page, three columns: the word, what it is called elsewhere, what it means. */
export function readGlossary(markdown: string): GlossaryWord[] {
  const words: GlossaryWord[] = []
  let begun = false
  for (const line of markdown.split('\n')) {
    const cells = line.startsWith('|')
      ? line
          .slice(1, -1)
          .split('|')
          .map((c) => c.trim())
      : null
    if (!cells) {
      if (begun) break
      continue
    }
    begun = true
    const [word = '', elsewhere = '', means = ''] = cells
    if (word !== 'here' && !/^-+$/.test(word)) words.push({ word, elsewhere, means })
  }
  return words
}

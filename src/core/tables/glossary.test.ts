import { readFileSync } from 'node:fs'
import { expect, test } from 'vitest'
import { readGlossary } from './glossary'

test('the page of words gives each word of the bench with its meaning', () => {
  const words = readGlossary(readFileSync('docs/words.md', 'utf8'))
  expect(words.length).toBeGreaterThan(30)
  for (const { word, means } of words) expect([word, means.length > 8]).toEqual([word, true])
  expect(words.map((w) => w.word)).toContain('POST code')
  // What only those who build it say stands in the second table.
  expect(words.map((w) => w.word)).not.toContain('slice')
})

test('a page without a table gives none', () => {
  expect(readGlossary('# Words\n\nnone yet\n')).toEqual([])
})

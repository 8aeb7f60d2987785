import fc from 'fast-check'
import { expect, it } from 'vitest'
import { readCsv } from './read-csv'
import { writeCsv } from './write-csv'

it.each(['=1+1', '+1', '@sum', '-1+cmd', '\tx', '-x'])(
  '%j is marked as words, and read back as it was',
  (word) => {
    const csv = writeCsv(['a', 'b'], [[word, '-0.5']])
    expect(csv).toContain("'")
    expect(readCsv(csv).rows).toEqual([{ a: word, b: '-0.5' }])
  },
)
it('numbers stay numbers', () => {
  expect(writeCsv(['a', 'b', 'c'], [['-0.5', -3, '-1e-7']])).toBe('a,b,c\r\n-0.5,-3,-1e-7\n')
})
it('reads back whatever words it is given', () => {
  const words = fc
    .string({ minLength: 1, maxLength: 12 })
    .filter((s) => s.trim() === s && !/[\r\n\uFEFF]/.test(s) && !s.startsWith("'"))
  fc.assert(
    fc.property(words, words, (a, b) => {
      expect(readCsv(writeCsv(['x', 'y'], [[a, b]])).rows).toEqual([{ x: a, y: b }])
    }),
  )
})
it('a table beyond measure is refused before it is parsed', () => {
  const wide = `${'a,'.repeat(400)}\n${'1,'.repeat(400)}\n`
  expect(readCsv(wide)).toMatchObject({
    rows: [],
    uneven: [{ text: expect.stringMatching(/more than 200 values/) }],
  })
  expect(readCsv('a\n'.repeat(500_001)).uneven[0]!.text).toMatch(/more than 500,000 lines/)
})

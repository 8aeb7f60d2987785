import fc from 'fast-check'
import { expect, it } from 'vitest'
import { tape } from '@/core/job/tape.testing'
import { readCsv } from '@/tables/read-csv'
import { tapeCsv } from './tape-csv'

it('a tape as CSV has every line in words and as it was written, whatever was typed', () => {
  fc.assert(
    fc.property(
      fc.string({ minLength: 1 }).filter((s) => s.trim() === s && s.isWellFormed() && !s.includes('\0')),
      (text) => {
        const t = tape().put('note', { text }).put('strike', { why: 'no' }, 1)
        const { rows, columns } = readCsv(tapeCsv(t.entries))
        expect(columns).toEqual(['line', 'at', 'by', 'kind', 'says', 'strikes', 'body'])
        expect(rows).toHaveLength(2)
        expect(JSON.parse(rows[0]!.body!)).toEqual({ text })
        expect(rows[1]).toMatchObject({ line: '2', kind: 'strike', strikes: '1', says: 'struck line 1: no' })
      },
    ),
  )
})

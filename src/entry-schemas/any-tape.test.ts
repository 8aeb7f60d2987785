import fc from 'fast-check'
import { expect, it } from 'vitest'
import { anyTape } from '@/core/job/any-tape.testing'
import { checkEntry } from './entry-schema'

it('the edge lets in every kind of line as it is, and nothing with a field too many or too few', () => {
  fc.assert(
    fc.property(anyTape(8), (tape) => {
      for (const { seq: _, by: __, v: ___, ...entry } of tape) {
        const read = checkEntry(entry)
        if (!read.ok)
          throw new Error(
            `${entry.kind} ${JSON.stringify(entry.body)}: ${read.fault.field} ${read.fault.text}`,
          )
        expect(read.value.body).toEqual(entry.body)
        expect(checkEntry({ ...entry, body: { ...entry.body, stranger: 1 } }).ok).toBe(false)
        expect(checkEntry({ ...entry, body: {} }).ok).toBe(false)
      }
    }),
  )
})

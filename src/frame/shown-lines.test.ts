import { describe, expect, it } from 'vitest'
import { tape } from '@/core/job/tape.testing'
import { struckBy } from '@/core/tape/line'
import { shownLines, wordsOf } from './shown-lines'

const shown = (t: ReturnType<typeof tape>) =>
  shownLines(t.entries, struckBy(t.entries)).map(({ entry, count }) => wordsOf(entry, count))

describe('the tape as it is shown', () => {
  it('says the looks of a sweep as one line that counts, and those after a mark as another', () => {
    const t = tape()
      .put('looked', { contacts: ['A1', 'A2'] })
      .put('looked', { contacts: ['A3'] })
      .put('mark', { contacts: ['A4'], mark: { kind: 'low' } })
      .put('looked', { contacts: ['A5'] })
    expect(shown(t)).toEqual([
      'inspection: 3 contacts',
      expect.stringContaining('A4 low'),
      'inspection: 1 contact',
    ])
  })
  it('says a whole field as one, and leaves what was struck readable by itself', () => {
    const t = tape()
      .put('looked', { contacts: ['A1'] })
      .put('looked', { contacts: 'all' })
    expect(shown(t)).toEqual(['inspection: whole field'])
    const struck = tape()
      .put('looked', { contacts: ['A1'] })
      .put('strike', { why: 'slipped' }, 1)
    expect(shown(struck)).toHaveLength(2)
  })
  it('keeps the place of the last line it stands for', () => {
    const t = tape()
      .put('looked', { contacts: ['A1'] })
      .put('looked', { contacts: ['A2'] })
    expect(shownLines(t.entries, struckBy(t.entries))).toMatchObject([
      { index: 1, count: 2, entry: { seq: 2 } },
    ])
  })
})

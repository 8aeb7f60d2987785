import { randomUUID } from 'node:crypto'
import { expect, it } from 'vitest'
import { describeDatabase } from './database.testing'
import { keepPutFirst, putFirst } from './put-first'

describeDatabase('the order by hand', () => {
  it('is made out of the one that was seen: of two that move jobs at once, the second sees the first’s', async () => {
    const [a, b, c] = [randomUUID(), randomUUID(), randomUUID()]
    expect(await keepPutFirst([a], await putFirst())).toBe(true)
    const both = await Promise.all([keepPutFirst([b, a], [a]), keepPutFirst([c, a], [a])])
    expect(both.toSorted()).toEqual([false, true])
    expect(await putFirst()).toEqual(both[0] ? [b, a] : [c, a])
    expect(await keepPutFirst([], await putFirst())).toBe(true)
    expect(await putFirst()).toEqual([])
  })
})

import { describe, expect, it } from 'vitest'
import { latestOnly } from './latest-only'

/** Work that ends when it is told to. */
function slow() {
  const done: number[] = []
  const open: { end: () => void; fail: () => void }[] = []
  const ask = latestOnly<number>(
    (n) =>
      new Promise<void>((resolve, reject) => {
        open.push({
          end: () => {
            done.push(n)
            resolve()
          },
          fail: () => reject(new Error('it failed')),
        })
      }),
  )
  return { ask, done, open }
}
const turn = () => new Promise((resolve) => setImmediate(resolve))

describe('the newest of what is asked', () => {
  it('is done after what is under way; what was asked between is passed over', async () => {
    const { ask, done, open } = slow()
    ask(1)
    ask(2)
    ask(3)
    open[0]!.end()
    await turn()
    open[1]!.end()
    await turn()
    expect([done, open.length]).toEqual([[1, 3], 2])
  })
  it('is done whenever it is asked, also in the very turns in which the one before ends', async () => {
    for (let turns = 0; turns < 8; turns++) {
      const { ask, done, open } = slow()
      ask(1)
      open[0]!.end()
      let later = Promise.resolve()
      for (let i = 0; i < turns; i++) later = later.then(() => undefined)
      await later
      ask(2)
      await turn()
      open[1]?.end()
      await turn()
      expect([turns, done]).toEqual([turns, [1, 2]])
    }
  })
  it('is done although the one before failed', async () => {
    const { ask, done, open } = slow()
    ask(1)
    ask(2)
    open[0]!.fail()
    await turn()
    open[1]!.end()
    await turn()
    expect(done).toEqual([2])
  })
})

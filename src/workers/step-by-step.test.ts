import { expect, test } from 'vitest'
import { breath, stepByStep } from './step-by-step'

function* work() {
  yield 0.5
  yield 0.9
  return 'done'
}

/** A page that hears what it is told a while later, in order: progress goes to it by a way of its own. */
function slowPage() {
  const heard: number[] = []
  let way = Promise.resolve()
  const tell = (share: number) => {
    way = way.then(async () => {
      for (let i = 0; i < 20; i++) await breath()
      heard.push(share)
    })
    return way
  }
  return { heard, tell }
}

test('the answer comes after all that was told of its progress: nothing still runs beside it', async () => {
  const page = slowPage()
  expect(await stepByStep(work(), page.tell, () => false)).toBe('done')
  expect(page.heard).toEqual([0.5, 0.9])
})

test('what is dropped on the way has no answer, and tells nothing afterwards', async () => {
  const page = slowPage()
  let steps = 0
  expect(await stepByStep(work(), page.tell, () => ++steps === 2)).toBeNull()
  expect(page.heard).toEqual([0.5, 0.9])
})

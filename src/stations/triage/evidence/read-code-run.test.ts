import { describe, expect, it } from 'vitest'
import { readCodeRun } from './read-code-run'

describe('a recording of codes', () => {
  it('keeps each change of code with its second, and how long it was watched', () => {
    expect(readCodeRun('s;code\n0.4;10\n1;10\n2;4c\n90;4C\n')).toEqual({
      run: { codes: ['10', '4C'], atS: [0.4, 2], watchedS: 90 },
    })
  })
  it.each([
    ['s,code\n1,4C\n0.5,10\n', 'line 3, s: time runs backwards, 0.5 s after 1 s'],
    ['s,code\n1,4G\n', 'line 2, code: “4G” is no code'],
    ['s,code\nlater,4C\n', 'line 2, s: “later” is not a number'],
    ['t,code\n1,4C\n', 'no column “s”'],
    ['s,code\n', 'no codes'],
    ['s,code\n1,4C,9\n', 'line 2: more values than columns'],
    [
      `s,code\n${Array.from({ length: 600 }, (_, i) => `${i},${i % 2 ? '10' : '4C'}`).join('\n')}`,
      'the most taken is 500',
    ],
  ])('refuses %j', (text, fault) => {
    expect(readCodeRun(text)).toMatchObject({ fault: expect.stringContaining(fault) as string })
  })
})

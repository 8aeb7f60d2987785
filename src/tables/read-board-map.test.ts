import { readFileSync } from 'node:fs'
import { expect, it } from 'vitest'
import { checkMapFile, placementsIn } from './read-board-map'

it('says what a file of a board’s map holds, or that nothing of it can be placed, and why', () => {
  expect(checkMapFile('netlist', readFileSync('docs/examples/k61.ipc', 'utf8'))).toEqual({
    say: '121 parts, 639 nets, 2054 places',
    findings: [],
  })
  const letter = checkMapFile('netlist', 'Dear all,\nthe board is fine.\n')
  expect(letter.say).toBeNull()
  expect(letter.findings.length).toBeGreaterThan(0)
  const list = 'part;x mm;y mm;side;value\nR1;1;2;top;33\nR2;3;4;bottom;\n'
  expect(checkMapFile('placements', list)).toEqual({ say: '2 parts', findings: [] })
  expect(placementsIn(list).placements[0]).toMatchObject({
    ref: 'R1',
    xMm: 1,
    yMm: 2,
    side: 'top',
    value: '33',
  })
  const none = checkMapFile('placements', 'name of a person\nAnna\n')
  expect(none.say).toBeNull()
  expect(none.findings[0]!.level).toBe('error')
})

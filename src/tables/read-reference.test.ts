import { describe, expect, it } from 'vitest'
import { readReference, referenceCsv } from './read-reference'

const csv = {
  codes: 'code;stage;say;rest_s\n4C;memory training;training;180\n70;graphics;;\n',
  rails: '\uFEFFrail,ohms_cpu_out,ohms_cpu_in,volts\r\nvcore,6.1,1.2,1.05\r\n12v,480,,12\r\n',
  current: `s\ta\n${Array.from({ length: 60 }, (_, i) => `${i / 10}\t${i < 30 ? 0.05 : 1.2}`).join('\n')}\n`,
} as const

describe('a reference of a board', () => {
  it.each(['codes', 'rails', 'current'] as const)('%s read back as they were written', (kind) => {
    const { body, findings } = readReference(kind, 'a board', csv[kind])
    expect(findings).toEqual([])
    expect(readReference(kind, 'a board', referenceCsv(kind, body!)).body).toEqual(body)
  })
  it('says what it read', () => {
    expect(readReference('codes', '', csv.codes).say).toBe('2 codes')
    expect(readReference('rails', '', csv.rails).say).toBe('2 rails')
    expect(readReference('current', '', csv.current).say).toContain('settles at 1.20 A')
  })
  it('refuses lines with too many values and says which', () => {
    const { body, findings, say } = readReference('rails', '', `${csv.rails}vmem,1,2,3,4,5\n`)
    expect(body).toBeNull()
    expect(say).toBe('')
    expect(findings).toMatchObject([{ line: 4, text: 'more values than columns' }])
  })
})

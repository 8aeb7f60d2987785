import { betweenTables } from '@/core/firmware/route/table-csv'
import { describe, expect, it } from 'vitest'
import { readReference, referenceCsv } from './read-reference'

const csv = {
  codes: 'code;stage;say;rest_s\n4C;memory training;training;180\n70;graphics;;\n',
  rails: '\uFEFFrail,ohms_cpu_out,ohms_cpu_in,volts\r\nvcore,6.1,1.2,1.05\r\n12v,480,,12\r\n',
  current: `s\ta\n${Array.from({ length: 60 }, (_, i) => `${i / 10}\t${i < 30 ? 0.05 : 1.2}`).join('\n')}\n`,
  releases:
    'release,date,needs,holds,state,source,trust\n1.02,2024-03-01,,,,maker,0.9\n1.30,,1.02,,unstable withdrawn,,\n1.31,,,1.30,,,\n',
  cpus: 'cpu,family,from,until,state,source,date,trust,signature\nOrrin 31,3x,1.02,1.30,,list,2024-03-01,0.8,60A51\nOrrin 44,4x,1.30,,unstable,,,,\n',
  chips:
    'chip,id,volts,mib,package,quad,addressing,erases,mhz,checks_id\nLSN-16V,7F 7F 33 60 15,1.8,2,SOIC-8,bit 6 of status 1,3 bytes,4:20 64:D8,104,yes\nFERN-32V,,,,,,,,,\n',
  ways: 'way,by,minutes,risk,price,from,downgrades,stepping,holds\nupdater,,,,,,no,,\nprogrammer,header,20,0.03,900,,,,\nsecond chip,,,,,,,,1.02\n',
} as const

describe('a reference of a board', () => {
  it.each(['codes', 'rails', 'current', 'releases', 'cpus', 'ways', 'chips'] as const)(
    '%s read back as they were written',
    (kind) => {
      const { body, findings } = readReference(kind, 'a board', csv[kind])
      expect(findings).toEqual([])
      expect(readReference(kind, 'a board', referenceCsv(kind, body!)).body).toEqual(body)
    },
  )
  it('says what it read', () => {
    expect(readReference('codes', '', csv.codes).say).toBe('2 codes')
    expect(readReference('rails', '', csv.rails).say).toBe('2 rails')
    expect(readReference('current', '', csv.current).say).toContain('settles at 1.20 A')
  })
  it.each([
    ['releases', 'release\n1\n1\n', 'line 3, release: 1 stands twice'],
    ['releases', 'release,needs\n1,2\n2,1\n', 'line 2, needs: 1 needs 2, which is not older'],
    ['releases', 'release,date\n1,3/14/26\n', 'line 2, date: “3/14/26” is no day'],
    ['releases', 'release,state\n1,lost\n', 'line 2, state: “lost” is none of: unstable, withdrawn'],
    ['releases', 'date\n2026-01-01\n', 'line 1, release: no column “release”'],
    ['releases', 'release\n', 'line 2, rows: the table has a header but no releases'],
    ['cpus', 'cpu,from,trust\nx,1,2\n', 'line 2, trust: 2 is not between 0 and 1'],
    ['cpus', 'cpu,from\n,1\n', 'line 2, cpu: nothing stands here'],
    ['cpus', 'cpu,from,signature\nx,1,ZZ\n', 'line 2, signature: “ZZ” are no hexadecimal figures'],
    ['chips', 'chip,id\nx,7F\n', 'line 2, id: “7F” is no ID'],
    ['chips', 'chip,erases\nx,4K\n', 'line 2, erases: “4K” is no erase'],
    ['chips', 'chip,volts\nx,33\n', 'line 2, volts: 33 is not between 0.5 and 12'],
    ['ways', 'way\nferry\n', 'line 2, way: “ferry” is none of'],
    ['ways', 'way,by\nbutton,clip\n', 'line 2, by: only a programmer'],
    ['ways', 'way,holds\nupdater,1\n', 'line 2, holds: only a boot block'],
    ['ways', 'way,downgrades\nupdater,perhaps\n', 'line 2, downgrades: “perhaps” is neither yes nor no'],
  ] as const)('%s: %j is refused', (kind, text, says) => {
    const { body, findings } = readReference(kind, '', text)
    expect(body).toBeNull()
    expect(findings.map((f) => `line ${f.line}, ${f.field}: ${f.text}`).join('\n')).toContain(says)
  })
  it('of firmware names only what stands in its releases', () => {
    const of = (kind: 'releases' | 'cpus' | 'ways', text: string) =>
      readReference(kind, '', text).body as never
    const releases = of('releases', 'release\n1\n')
    const cpus = of('cpus', 'cpu,from\nx,2\n')
    expect(betweenTables(null, null, null, 'cpus')).toEqual([])
    expect(betweenTables(null, cpus, null, 'cpus')[0]?.text).toMatch(/import those first/)
    const good = [of('cpus', 'cpu,from\nx,1\n'), of('ways', 'way,from\nbutton,1\n')] as const
    expect(betweenTables(releases, ...good, 'ways')).toEqual([])
    expect(betweenTables(releases, cpus, null, 'cpus')).toMatchObject([{ line: 2, field: 'from' }])
    // Releases that would leave the CPUs' rows without theirs.
    expect(betweenTables(releases, cpus, null, 'releases')).toMatchObject([
      { line: 0, field: 'the CPUs', text: 'line 2 of the CPUs: 2 is no release here' },
    ])
    const ways = of('ways', 'way,holds\nsecond chip,2\n')
    expect(betweenTables(releases, null, ways, 'ways')).toMatchObject([{ line: 2, field: 'holds' }])
  })
  it('refuses lines with too many values and says which', () => {
    const { body, findings, say } = readReference('rails', '', `${csv.rails}vmem,1,2,3,4,5\n`)
    expect(body).toBeNull()
    expect(say).toBe('')
    expect(findings).toMatchObject([{ line: 4, text: 'more values than columns' }])
  })
})

import { describe, expect, it } from 'vitest'
import { smallField } from '@/core/socket/model/field.testing'
import { contactCsv, marksCsv, readContactCsv } from './contact-csv'

const socket = smallField()
const csv = contactCsv(socket)

describe('a contact table as CSV', () => {
  it('goes out and comes back equal', () => {
    expect(readContactCsv(csv)).toMatchObject({
      contacts: socket.contacts,
      pitchMm: 1,
      unit: 'mm',
      findings: [],
    })
  })
  it.each([
    ['a byte-order mark', '\uFEFF' + csv],
    ['semicolons', csv.replaceAll(',', ';')],
    ['tabs', csv.replaceAll(',', '\t')],
    ['line ends of another system', csv.replaceAll('\r\n', '\n')],
    ['capitals and blanks in its header', csv.replace('name,x_mm', ' Name , X_MM')],
    ['empty lines', csv.replaceAll('\n', '\n\n')],
  ])('is read with %s', (_, text) => expect(readContactCsv(text).contacts).toEqual(socket.contacts))
  it('with a wrong delimiter says the columns are not split', () => {
    expect(readContactCsv(csv.replaceAll(',', '/')).findings[0]!.text).toMatch(/no column/)
  })
  it('with a short or a long row names it', () => {
    const lines = csv.trim().split(/\r?\n/)
    lines[3] = 'A3,1'
    lines[5] += ',extra'
    expect(readContactCsv(lines.join('\n')).findings.map((f) => `${f.line} ${f.text}`)).toEqual(
      expect.arrayContaining(['4 fewer values than columns', '6 more values than columns']),
    )
  })
  it('that is empty, or no table at all, gives findings only', () => {
    for (const text of ['', '\n\n', 'hello', '\0\0\0']) {
      const table = readContactCsv(text)
      expect(table.contacts).toEqual([])
      expect(table.findings.length).toBeGreaterThan(0)
    }
  })
})

it('marked contacts go out with their measures', () => {
  const marks = {
    A1: { kind: 'touching', leanMm: [0.2, -0.1], touches: 'A2', unsure: true },
    A2: { kind: 'intact' },
  } as const
  expect(marksCsv(socket, { marks }).trim().split(/\r?\n/)).toEqual([
    'name,group,net,kind,lean_x_mm,lean_y_mm,height_mm,touches,unsure',
    'A1,memory A,memory_A_0,touching,0.2,-0.1,,A2,yes',
  ])
})

import Papa from 'papaparse'
import { contactColumns, contactRows, readContactTable } from '@/core/socket/contact-table'
import type { ContactRow, ContactTable } from '@/core/socket/contact-table'
import { isDamage } from '@/core/socket/mark'
import type { Pass } from '@/core/socket/pass'
import type { Socket } from '@/core/socket/socket'

/** Reads a contact table as text: comma, semicolon, tab or bar; with or without a byte-order mark. */
export function readContactCsv(text: string): ContactTable {
  const parsed = Papa.parse<ContactRow>(text.replace(/^\uFEFF/, '').replace(/\r\n?/g, '\n'), {
    header: true,
    skipEmptyLines: 'greedy',
    delimitersToGuess: [',', ';', '\t', '|'],
    transformHeader: (name) => name.trim().toLowerCase(),
  })
  const table = readContactTable(parsed.data, parsed.meta.fields ?? [])
  const uneven = parsed.errors.filter((e) => e.type === 'FieldMismatch').slice(0, 20)
  if (uneven.length === 0) return table
  const findings = uneven.map((e) => ({
    level: 'error' as const,
    line: (e.row ?? 0) + 2,
    field: 'row',
    text: e.code === 'TooManyFields' ? 'more values than columns' : 'fewer values than columns',
  }))
  return { contacts: [], pitchMm: null, findings: [...table.findings, ...findings] }
}

/** The contact table of a socket as CSV. */
export const contactCsv = (socket: Pick<Socket, 'contacts'>): string =>
  Papa.unparse({ fields: [...contactColumns], data: contactRows(socket.contacts) }) + '\n'

/** The marked contacts of a pass as CSV. */
export function marksCsv(socket: Socket, pass: Pick<Pass, 'marks'> | null): string {
  const fields = ['name', 'group', 'net', 'kind', 'lean_x_mm', 'lean_y_mm', 'height_mm', 'touches', 'unsure']
  const data = socket.contacts.flatMap((c) => {
    const mark = pass?.marks[c.name]
    if (!mark || !isDamage(mark)) return []
    const [x, y] = mark.leanMm ?? ['', '']
    return [
      [
        c.name,
        c.group,
        c.net,
        mark.kind,
        x,
        y,
        mark.heightMm ?? '',
        mark.touches ?? '',
        mark.unsure ? 'yes' : '',
      ],
    ]
  })
  return Papa.unparse({ fields, data }) + '\n'
}

import { contactColumns, contactRows, readContactTable } from '@/core/socket/table/contact-table'
import type { ContactTable, TableChoice } from '@/core/socket/table/contact-table'
import { isDamage } from '@/core/socket/damage/mark'
import type { Pass } from '@/core/socket/damage/pass'
import type { Socket } from '@/core/socket/model/socket'
import { readCsv } from '@/tables/read-csv'
import { writeCsv } from '@/tables/write-csv'

/** Reads a contact table as text. */
export function readContactCsv(text: string, choice: TableChoice = {}): ContactTable {
  const { rows, columns, uneven } = readCsv(text)
  const table = readContactTable(rows, columns, choice)
  return uneven.length === 0
    ? table
    : { ...table, contacts: [], pitchMm: null, findings: [...table.findings, ...uneven] }
}

/** The contact table of a socket as CSV. */
export const contactCsv = (socket: Pick<Socket, 'contacts'>): string =>
  writeCsv(contactColumns, contactRows(socket.contacts))

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
  return writeCsv(fields, data)
}

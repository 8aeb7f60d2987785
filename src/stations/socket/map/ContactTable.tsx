'use client'
import {
  createColumnHelper,
  flexRender,
  getCoreRowModel,
  getSortedRowModel,
  useReactTable,
} from '@tanstack/react-table'
import type { SortingState } from '@tanstack/react-table'
import { useMemo, useState } from 'react'
import { percent } from '@/core/maths/percent'
import { contactVerdict } from '@/core/socket/contact/contact-force'
import { isDamage, sayMark } from '@/core/socket/damage/mark'
import type { Plan } from '@/core/socket/straighten/plan'
import { letGo } from '@/ui/keys'
import type { Surface } from './use-surface'

interface Row {
  readonly name: string
  readonly does: string
  readonly seen: string
  readonly contact: number
  readonly next: string
}

const column = createColumnHelper<Row>()
const columns = [
  column.accessor('name', { header: 'Contact', sortingFn: 'alphanumeric' }),
  column.accessor('does', { header: 'Does' }),
  column.accessor('seen', { header: 'Seen' }),
  column.accessor('contact', { header: 'Makes contact', cell: (c) => percent(c.getValue()) }),
  column.accessor('next', { header: 'To do' }),
]

/** The map's twin in words: every marked contact, kept in step with it. */
export function ContactTable({ surface, planned }: { surface: Surface; planned: Plan | null }) {
  const { socket, marks, cursor, go } = surface
  const [sorting, setSorting] = useState<SortingState>([])
  const rows = useMemo(() => {
    const todo = new Map(planned?.steps.map((s) => [s.contact, s.say]))
    return socket.contacts.flatMap((c): Row[] => {
      const mark = marks[c.name]
      if (!mark || !isDamage(mark)) return []
      return [
        {
          name: c.name,
          does: `${c.group}, ${c.net}`,
          seen: sayMark(mark),
          contact: contactVerdict(mark, socket.kind).makesContact,
          next: todo.get(c.name) ?? '',
        },
      ]
    })
  }, [socket, marks, planned])
  const table = useReactTable({
    data: rows,
    columns,
    state: { sorting },
    onSortingChange: setSorting,
    getCoreRowModel: getCoreRowModel(),
    getSortedRowModel: getSortedRowModel(),
  })
  if (rows.length === 0) return <p className="text-soft">No contact is marked.</p>
  return (
    <table className="w-full" aria-label="Marked contacts">
      <thead>
        {table.getHeaderGroups().map((group) => (
          <tr key={group.id}>
            {group.headers.map((header) => {
              const sorted = header.column.getIsSorted()
              return (
                <th
                  key={header.id}
                  aria-sort={sorted === 'asc' ? 'ascending' : sorted === 'desc' ? 'descending' : 'none'}
                >
                  <button type="button" onClick={header.column.getToggleSortingHandler()}>
                    {flexRender(header.column.columnDef.header, header.getContext())}
                    <span aria-hidden="true">{sorted === 'asc' ? ' ↑' : sorted === 'desc' ? ' ↓' : ''}</span>
                  </button>
                </th>
              )
            })}
          </tr>
        ))}
      </thead>
      <tbody>
        {table.getRowModel().rows.map((row) => (
          <tr key={row.original.name} className={row.original.name === cursor ? 'bg-brass-bg' : ''}>
            {row.getVisibleCells().map((cell, i) => (
              <td key={cell.id} className={i === 0 || i === 3 ? 'num' : ''}>
                {i === 0 ? (
                  <button
                    type="button"
                    className="underline decoration-line underline-offset-4"
                    onClick={(event) => {
                      letGo(event)
                      go(row.original.name)
                    }}
                  >
                    {row.original.name}
                  </button>
                ) : (
                  flexRender(cell.column.columnDef.cell, cell.getContext())
                )}
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </table>
  )
}

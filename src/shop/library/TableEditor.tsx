'use client'
import { useEffect, useState } from 'react'
import type { Finding } from '@/core/tables/finding'
import { readCsv } from '@/tables/read-csv'
import { writeCsv } from '@/tables/write-csv'
import { Button } from '@/ui/Button'

interface EditedRow {
  readonly id: number
  readonly values: readonly string[]
}

/** A table of the library as rows to write in; it is kept whole, or not at all. */
export function TableEditor({
  at,
  what,
  columns,
  findings,
  busy,
  onKeep,
  onClose,
}: {
  at: string
  what: string
  columns: readonly string[]
  /** What was wrong when it was last kept; line 2 is the first row. */
  findings: readonly Finding[]
  busy: boolean
  onKeep: (csv: string) => void
  onClose: () => void
}) {
  const [rows, setRows] = useState<readonly EditedRow[] | null>(null)
  const [fault, setFault] = useState('')
  const [next, setNext] = useState(1)
  const empty = columns.map(() => '')
  useEffect(() => {
    const control = new AbortController()
    void fetch(at, { signal: control.signal })
      .then(async (answer) => {
        // Nothing is kept yet: it begins with one empty row.
        const read = answer.ok ? readCsv(await answer.text()).rows : []
        const all =
          read.length > 0 ? read.map((r) => columns.map((c) => r[c] ?? '')) : [columns.map(() => '')]
        setRows(all.map((values, id) => ({ id, values })))
        setNext(all.length)
      })
      .catch(
        () => control.signal.aborted || setFault('The table does not come from the server. Open it again.'),
      )
    return () => control.abort()
  }, [at, columns])
  if (fault)
    return (
      <p role="alert" className="font-semibold text-ember">
        {fault}
      </p>
    )
  if (!rows) return <p role="status">Opening the table…</p>
  const write = (i: number, k: number, text: string) =>
    setRows(
      rows.map((r, n) => (n === i ? { ...r, values: r.values.map((v, m) => (m === k ? text : v)) } : r)),
    )
  const move = (i: number, by: number) => {
    const to = [...rows]
    const [row] = to.splice(i, 1)
    to.splice(i + by, 0, row!)
    setRows(to)
  }
  const add = () => {
    setRows([...rows, { id: next, values: empty }])
    setNext(next + 1)
  }
  const wrong = (i: number, column: string) =>
    findings.find((f) => f.line === i + 2 && f.field === column)?.text
  return (
    <form
      aria-label={`${what}: rows`}
      className="col-span-full mt-2"
      onSubmit={(e) => {
        e.preventDefault()
        onKeep(
          writeCsv(
            columns,
            rows.filter((r) => r.values.some((v) => v.trim() !== '')).map((r) => r.values),
          ),
        )
      }}
    >
      <div className="overflow-x-auto" tabIndex={0} role="region" aria-label={`${what}: table`}>
        <table className="w-full">
          <thead>
            <tr>
              {columns.map((c) => (
                <th key={c} scope="col">
                  {c.replaceAll('_', ' ')}
                </th>
              ))}
              <th scope="col">
                <span className="sr-only">row</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row, i) => (
              <tr key={row.id}>
                {columns.map((c, k) => (
                  <td key={c} className="pr-1.5! py-0.5!">
                    <input
                      aria-label={`${c.replaceAll('_', ' ')}, row ${i + 1}`}
                      aria-invalid={wrong(i, c) ? true : undefined}
                      title={wrong(i, c)}
                      value={row.values[k]}
                      onChange={(e) => write(i, k, e.target.value)}
                      className="w-full min-w-20 px-1.5! py-0.5!"
                    />
                  </td>
                ))}
                <td className="py-0.5! whitespace-nowrap">
                  <Button
                    look="bare"
                    className="py-0!"
                    aria-label={`Move row ${i + 1} up`}
                    disabled={i === 0}
                    onClick={() => move(i, -1)}
                  >
                    ↑
                  </Button>
                  <Button
                    look="bare"
                    className="py-0!"
                    aria-label={`Move row ${i + 1} down`}
                    disabled={i === rows.length - 1}
                    onClick={() => move(i, 1)}
                  >
                    ↓
                  </Button>
                  <Button
                    look="bare"
                    className="py-0!"
                    aria-label={`Take row ${i + 1} out`}
                    onClick={() => setRows(rows.filter((r) => r.id !== row.id))}
                  >
                    out
                  </Button>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="mt-2 flex flex-wrap gap-2">
        <Button type="submit" look="first" disabled={busy}>
          Keep the table
        </Button>
        <Button onClick={add}>Add a row</Button>
        <Button look="bare" onClick={onClose}>
          Close
        </Button>
      </p>
    </form>
  )
}

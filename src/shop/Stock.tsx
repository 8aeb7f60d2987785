'use client'
import { useState } from 'react'
import { freeOf, isLow, stockColumns } from '@/core/parts/stock/stock-item'
import type { AtHandItem } from '@/core/parts/stock/stock-item'
import { HeldFor } from './HeldFor'
import { TableEditor } from './library/TableEditor'
import { Button } from '@/ui/Button'
import { FileButton } from '@/ui/FileButton'
import { TableSays } from '@/ui/TableSays'
import { Count } from '@/ui/reader'
import { useTable } from '@/ui/use-table'

/** Small parts, chips, modules and consumables: what is left, who holds it, what is low. */
export function Stock({ stock }: { stock: readonly AtHandItem[] }) {
  const { answer, busy, send } = useTable('/api/stock')
  const [editing, setEditing] = useState(false)
  const low = stock.filter(isLow)
  return (
    <section className="mt-10 max-w-[60rem]" aria-label="Parts and consumables" id="stock">
      <div className="flex items-end justify-between gap-6">
        <div>
          <h2>Parts and consumables</h2>
          <p className="text-soft">
            {stock.length === 0
              ? 'Nothing is counted yet. Import what is in the drawers, or write it here.'
              : low.length === 0
                ? 'Nothing is low.'
                : `${low.length} ${low.length === 1 ? 'thing is' : 'things are'} low.`}{' '}
            What a job fits or uses is counted down; a table that is kept is a new count.
          </p>
        </div>
        <div className="flex shrink-0 items-center gap-3">
          <FileButton label="Table of the shelf to import" disabled={busy} onFile={(file) => void send(file)}>
            {busy ? 'Reading…' : 'Import'}
          </FileButton>
          <Button look="bare" aria-expanded={editing} onClick={() => setEditing(!editing)}>
            Edit
          </Button>
          <a href="/api/stock" download className="underline">
            CSV
          </a>
        </div>
      </div>
      <TableSays answer={answer}>Counted: {answer?.say}</TableSays>
      {editing && (
        <TableEditor
          at="/api/stock"
          what="the shelf"
          columns={stockColumns}
          findings={answer?.findings ?? []}
          busy={busy}
          onKeep={(csv) => void send(new File([csv], 'shelf.csv'))}
          onClose={() => setEditing(false)}
        />
      )}
      <ul className="mt-2">
        {stock.map((of) => (
          <li
            key={of.item}
            className="grid grid-cols-[minmax(0,1.4fr)_minmax(0,1fr)_7rem_minmax(0,1.2fr)] items-baseline gap-4 border-b border-line py-1.5"
          >
            <b className="font-semibold">{of.item}</b>
            <span className="text-soft">{of.place}</span>
            <span className="num text-right">
              <Count n={freeOf(of)} /> free
            </span>
            <span className="text-[0.94rem]">
              {isLow(of) && <span className="font-semibold text-brass">▽ low </span>}
              <HeldFor of={of} />
            </span>
          </li>
        ))}
      </ul>
    </section>
  )
}

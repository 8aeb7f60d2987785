'use client'
import Link from 'next/link'
import { useState } from 'react'
import { cutText } from '@/core/tables/plain-text'
import type { ReferenceKind } from '@/core/job/references'
import { mapFiles } from '@/core/parts/board-map/map-files'
import type { MapFile } from '@/core/parts/board-map/map-files'
import { Button } from '@/ui/Button'
import { FileButton } from '@/ui/FileButton'
import { TableSays } from '@/ui/TableSays'
import { referenceWords } from '@/tables/read-reference'
import { TableEditor } from './TableEditor'
import { useTable } from '@/ui/use-table'

const sections = [
  { id: 'references', title: 'What triage compares with', kinds: ['shows', 'codes', 'rails', 'current'] },
  { id: 'firmware', title: 'Firmware', kinds: ['releases', 'cpus', 'ways', 'chips'] },
] as const

/** What is known of a board, kind by kind; a table in, the same table out. */
export function BoardReferences({
  boardId,
  kept,
}: {
  boardId: string
  kept: Readonly<Record<ReferenceKind, string | null>>
}) {
  return (
    <>
      {sections.map(({ id, title, kinds }) => (
        <section key={id} className="mt-8" id={id}>
          <h2 className="border-b-2 border-ink pb-1">{title}</h2>
          {kinds.map((kind) => (
            <Reference key={kind} boardId={boardId} kind={kind} kept={kept[kind]} />
          ))}
        </section>
      ))}
    </>
  )
}

function Reference({ boardId, kind, kept }: { boardId: string; kind: ReferenceKind; kept: string | null }) {
  const { what, columns } = referenceWords(kind)
  return (
    <KeptTable
      at={`/api/boards/${boardId}/references/${kind}`}
      what={what}
      hint={`CSV with ${columns.join(', ')}`}
      kept={kept}
      columns={kind === 'current' ? null : columns}
    />
  )
}

const mapWords: Readonly<Record<MapFile, readonly [what: string, hint: string]>> = {
  netlist: ['Netlist', 'IPC-D-356A, as a board’s design or its test gives it out'],
  placements: ['Placements', 'CSV with part, x, y, and where it says them side, value, package'],
}

/** Where parts and nets of a board are: its netlist, and the list of its parts. */
export function BoardMapFiles({
  boardId,
  kept,
}: {
  boardId: string
  kept: Readonly<Record<MapFile, string | null>>
}) {
  return (
    <section className="mt-8" id="map">
      <h2 className="border-b-2 border-ink pb-1">Board map</h2>
      {mapFiles.map((kind) => (
        <KeptTable
          key={kind}
          at={`/api/boards/${boardId}/map/${kind}`}
          what={mapWords[kind][0]}
          hint={mapWords[kind][1]}
          kept={kept[kind]}
          columns={null}
          accept=".ipc,.356,.net,.txt,.csv,text/plain,text/csv"
        />
      ))}
    </section>
  )
}

/** A table of the board: what is kept of it, another to import, out again; edited by hand where its columns are told. */
function KeptTable({
  at,
  what,
  hint,
  kept,
  columns,
  accept,
}: {
  at: string
  what: string
  hint: string
  kept: string | null
  columns: readonly string[] | null
  accept?: string
}) {
  const { answer, busy, send, drop } = useTable(at)
  const [editing, setEditing] = useState(false)
  const keep = (file: File) => void send(file, { name: cutText(file.name.replace(/\.csv$/i, ''), 80) })

  return (
    <div className="grid items-baseline md:grid-cols-[minmax(0,1fr)_auto] gap-x-8 border-b border-line py-2.5">
      <div>
        <p>
          <b className="font-semibold">{what}</b>{' '}
          <span className={kept ? '' : 'text-soft'}>{kept ?? 'nothing yet'}</span>
        </p>
        <p className="text-[0.92rem] text-soft">{hint}</p>
        <TableSays answer={answer}>
          Kept: {answer?.say}
          {answer?.touches && answer.touches.length > 0 && (
            <>
              . Open jobs on this board:{' '}
              {answer.touches.map((tag) => (
                <Link key={tag} href={`/jobs/${tag}/firmware`} className="mr-2 underline">
                  {tag}
                </Link>
              ))}
            </>
          )}
        </TableSays>
      </div>
      <div className="flex items-center gap-2">
        <FileButton label={`${what}: table to import`} accept={accept} disabled={busy} onFile={keep}>
          {busy ? 'Reading…' : kept ? 'Import another' : 'Import'}
        </FileButton>
        {columns && (
          <Button look="bare" aria-expanded={editing} onClick={() => setEditing(!editing)}>
            Edit
          </Button>
        )}
        {kept && (
          <>
            <a href={at} className="underline" download>
              {accept ? 'File' : 'CSV'}
            </a>
            <Button look="bare" onClick={() => void drop()} disabled={busy}>
              Drop
            </Button>
          </>
        )}
      </div>
      {editing && columns && (
        <TableEditor
          at={at}
          what={what}
          columns={columns}
          findings={answer?.findings ?? []}
          busy={busy}
          onKeep={(csv) => void send(new File([csv], 'table.csv'), { name: '' })}
          onClose={() => setEditing(false)}
        />
      )}
    </div>
  )
}

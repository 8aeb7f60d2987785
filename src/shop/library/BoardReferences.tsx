'use client'
import Link from 'next/link'
import { useState } from 'react'
import { cutText } from '@/core/tables/plain-text'
import type { ReferenceKind } from '@/core/job/references'
import { Button } from '@/ui/Button'
import { FileButton } from '@/ui/FileButton'
import { Findings } from '@/ui/Findings'
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
  const at = `/api/boards/${boardId}/references/${kind}`
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
        <p className="text-[0.92rem] text-soft">CSV with {columns.join(', ')}</p>
        {answer?.error && (
          <p role="alert" className="font-semibold text-ember">
            {answer.error.text}
          </p>
        )}
        <Findings findings={answer?.findings ?? []} />
        {answer?.kept && (
          <p role="status" className="text-verd">
            Kept: {answer.say}
            {answer.touches && answer.touches.length > 0 && (
              <>
                . Open jobs on this board:{' '}
                {answer.touches.map((tag) => (
                  <Link key={tag} href={`/jobs/${tag}/firmware`} className="mr-2 underline">
                    {tag}
                  </Link>
                ))}
              </>
            )}
          </p>
        )}
      </div>
      <div className="flex items-center gap-2">
        <FileButton label={`${what}: table to import`} disabled={busy} onFile={keep}>
          {busy ? 'Reading…' : kept ? 'Import another' : 'Import'}
        </FileButton>
        {kind !== 'current' && (
          <Button look="bare" aria-expanded={editing} onClick={() => setEditing(!editing)}>
            Edit
          </Button>
        )}
        {kept && (
          <>
            <a href={at} className="underline" download>
              CSV
            </a>
            <Button look="bare" onClick={() => void drop()} disabled={busy}>
              Drop
            </Button>
          </>
        )}
      </div>
      {editing && (
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

'use client'
import { useActionState } from 'react'
import type { SocketSummary } from '@/data/sockets'
import { Button } from '@/ui/Button'
import { SelectField, TextArea, TextField } from '@/ui/Field'
import { addBoardAction } from './library-actions'

export function AddBoard({ sockets }: { sockets: readonly SocketSummary[] }) {
  const [state, act, busy] = useActionState(addBoardAction, { faults: {}, typed: {} })
  return (
    <details className="mt-4" open={Object.keys(state.faults).length > 0 || undefined}>
      <summary className="font-semibold">Add a board</summary>
      <form action={act} className="mt-3 grid grid-cols-2 gap-3">
        <TextField label="Maker" name="maker" defaultValue={state.typed.maker} error={state.faults.maker} />
        <TextField label="Model" name="name" defaultValue={state.typed.name} error={state.faults.name} />
        <TextField label="Revision" name="revision" defaultValue={state.typed.revision} />
        <SelectField label="Socket" name="socketId" defaultValue={state.typed.socketId}>
          <option value="">not known yet</option>
          {sockets.map((s) => (
            <option key={s.id} value={s.id}>
              {s.name}
            </option>
          ))}
        </SelectField>
        <TextArea label="Notes" name="notes" wide defaultValue={state.typed.notes} />
        <div className="col-span-full flex items-center gap-4">
          <Button type="submit" look="first" disabled={busy}>
            Add the board
          </Button>
          {state.done && (
            <p role="status" className="text-verd">
              {state.done}
            </p>
          )}
        </div>
      </form>
    </details>
  )
}

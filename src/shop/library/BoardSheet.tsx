'use client'
import Link from 'next/link'
import { useActionState, useState } from 'react'
import type { BoardModel, Landmark } from '@/data/boards'
import type { ReferenceKind } from '@/core/job/references'
import { Button } from '@/ui/Button'
import { TextField } from '@/ui/Field'
import type { MapFile } from '@/core/parts/board-map/map-files'
import { BoardMapFiles, BoardReferences } from './BoardReferences'
import { addLandmarkAction, removeLandmarkAction } from './library-actions'

/** Where things are on this board model, and what is in the way. */
export function BoardSheet({
  board,
  landmarks,
  references,
  map,
}: {
  board: BoardModel
  landmarks: readonly Landmark[]
  references: Readonly<Record<ReferenceKind, string | null>>
  map: Readonly<Record<MapFile, string | null>>
}) {
  return (
    <>
      <h1>
        {board.maker} {board.name}
        {board.revision && ` rev ${board.revision}`}
      </h1>
      <p className="mt-0.5 text-soft">
        {board.socketId ? (
          <>
            socket{' '}
            <Link href={`/library/sockets/${board.socketId}`} className="underline">
              {board.socketName}
            </Link>
          </>
        ) : (
          'socket not named'
        )}
        {board.notes && `; ${board.notes}`}
      </p>
      <div className="mt-4 grid gap-10 md:grid-cols-[minmax(0,1.5fr)_minmax(0,1fr)]">
        <section>
          <h2 className="border-b-2 border-ink pb-1">Landmarks</h2>
          {landmarks.length === 0 && (
            <p className="py-2 text-soft">
              None yet. Note where the flash button, the debug LEDs, the clear-settings pins, the coin cell
              and the firmware chip are.
            </p>
          )}
          <ul>
            {landmarks.map((mark) => (
              <li
                key={mark.id}
                className="grid grid-cols-[9rem_1fr_auto] items-start gap-4 border-b border-line py-2"
              >
                <b className="font-semibold">{mark.what}</b>
                <span>
                  {mark.place}
                  {mark.blockedBy && <span className="block text-soft">in the way: {mark.blockedBy}</span>}
                  {mark.photoSha256 && (
                    <img
                      src={`/api/boards/${board.id}/files/${mark.photoSha256}`}
                      alt={`${mark.what} on the board`}
                      className="mt-1.5 h-36 object-contain"
                    />
                  )}
                </span>
                <form action={removeLandmarkAction}>
                  <input type="hidden" name="boardId" value={board.id} />
                  <input type="hidden" name="id" value={mark.id} />
                  <Button type="submit" look="bare" aria-label={`Remove ${mark.what}`}>
                    Remove
                  </Button>
                </form>
              </li>
            ))}
          </ul>
        </section>
        <AddLandmark boardId={board.id} />
      </div>
      <BoardReferences boardId={board.id} kept={references} />
      <BoardMapFiles boardId={board.id} kept={map} />
    </>
  )
}

function AddLandmark({ boardId }: { boardId: string }) {
  const [state, act, busy] = useActionState(addLandmarkAction, { faults: {}, typed: {} })
  const [photo, setPhoto] = useState('')
  const [say, setSay] = useState('')
  async function send(file: File) {
    setSay('Sending the photo…')
    try {
      const answer = await fetch(`/api/boards/${boardId}/photos`, { method: 'POST', body: file })
      const reply = (await answer.json()) as { file?: { sha256: string }; error?: { text: string } }
      setPhoto(reply.file?.sha256 ?? '')
      setSay(reply.file ? 'The photo is here.' : (reply.error?.text ?? 'The server refused it.'))
    } catch {
      setSay('The server does not answer. Pick the photo again in a moment.')
    }
  }
  return (
    <form action={act} className="flex flex-col gap-3">
      <h2 className="border-b-2 border-ink pb-1">Add a landmark</h2>
      <input type="hidden" name="boardId" value={boardId} />
      <input type="hidden" name="photo" value={photo} />
      <TextField
        label="What"
        name="what"
        defaultValue={state.typed.what}
        error={state.faults.what}
        placeholder="coin cell"
      />
      <TextField
        label="Where"
        name="place"
        defaultValue={state.typed.place}
        error={state.faults.place}
        placeholder="below the second slot"
      />
      <TextField
        label="In the way"
        name="blockedBy"
        defaultValue={state.typed.blockedBy}
        placeholder="a long card"
      />
      <label className="flex flex-col gap-1">
        <span className="text-[0.94rem] text-soft">Photo</span>
        <input
          type="file"
          accept="image/*"
          onChange={(e) => e.target.files?.[0] && void send(e.target.files[0])}
        />
      </label>
      {say && <p role="status">{say}</p>}
      <Button type="submit" look="first" disabled={busy} className="self-start">
        Note it
      </Button>
      {state.done && (
        <p role="status" className="text-verd">
          {state.done}
        </p>
      )}
    </form>
  )
}

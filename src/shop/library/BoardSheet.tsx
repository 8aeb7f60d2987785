'use client'
import Link from 'next/link'
import { useActionState, useState } from 'react'
import { buildWords } from '@/core/shop/build'
import type { Build } from '@/core/shop/build'
import type { BoardModel, Landmark } from '@/data/boards'
import type { ReferenceKind } from '@/core/job/references'
import { Button } from '@/ui/Button'
import { TextField } from '@/ui/Field'
import type { MapFile } from '@/core/parts/board-map/map-files'
import { BoardMapFiles, BoardReferences } from './BoardReferences'
import { addLandmarkAction, keepBuildAction, removeLandmarkAction } from './library-actions'

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
      <BuildForm board={board} />
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

const buildFields: readonly (readonly [field: keyof Build, label: string, placeholder: string])[] = [
  ['memoryKind', 'Memory, as printed', 'long, 288 contacts'],
  ['memorySlots', 'Memory slots', '4'],
  ['cardSlots', 'Card slots, lanes of each', '16, 4, 1'],
  ['sizeMm', 'Size, mm', '244 × 305'],
  ['supplyPins', 'Supply plugs, pins of each', '24, 8'],
]

/** What goes onto it: by this a board of verified stock is known to take another’s memory, cards and case. */
function BuildForm({ board }: { board: BoardModel }) {
  const [state, act, busy] = useActionState(keepBuildAction, { faults: {}, typed: {} })
  const kept = { ...buildWords(board.build), ...state.typed }
  return (
    <form action={act} className="mt-8">
      <h2 className="border-b-2 border-ink pb-1">What goes onto it</h2>
      <input type="hidden" name="boardId" value={board.id} />
      <div className="mt-3 grid gap-3 sm:grid-cols-3 lg:grid-cols-5">
        {buildFields.map(([field, label, placeholder]) => (
          <TextField
            key={field}
            label={label}
            name={field}
            defaultValue={kept[field]}
            error={state.faults[field]}
            placeholder={placeholder}
          />
        ))}
      </div>
      <div className="mt-3 flex items-center gap-4">
        <Button type="submit" disabled={busy}>
          Keep it
        </Button>
        <p role="status" className={state.done ? 'text-verd' : 'text-soft'}>
          {state.done ?? 'Empty is not known: an exchange then asks to look.'}
        </p>
      </div>
    </form>
  )
}

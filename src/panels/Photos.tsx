'use client'
import { Camera, X } from 'lucide-react'
import { useEffect, useRef, useState } from 'react'
import { Button } from '@/ui/Button'
import { DropArea } from '@/ui/DropArea'
import { Sheet } from '@/ui/Sheet'
import { When } from '@/ui/When'
import { useJob } from '@/job/JobProvider'
import { usePhotos } from '@/job/use-photos'
import type { WaitingPhoto } from '@/job/use-photos'

/** Photos of the job: dropped, pasted or picked; each with its time and hash. */
export function Photos() {
  const tag = useJob((j) => j.tag)
  const photos = useJob((j) => j.state.work.photos)
  const { waiting, add, cancel } = usePhotos()
  const [open, setOpen] = useState<string | null>(null)
  const input = useRef<HTMLInputElement>(null)
  useEffect(() => {
    const onPaste = (event: ClipboardEvent) => {
      const files = [...(event.clipboardData?.files ?? [])]
      if (files.length === 0) return
      event.preventDefault()
      add(files)
    }
    window.addEventListener('paste', onPaste)
    return () => window.removeEventListener('paste', onPaste)
  }, [add])
  const shown = photos.find((p) => p.file === open)
  return (
    <DropArea label="Photos" className="border-t border-line pt-3" onFiles={add}>
      <div className="flex items-baseline justify-between gap-4">
        <h2>Photos</h2>
        <Button look="bare" onClick={() => input.current?.click()}>
          <Camera size={17} aria-hidden="true" className="mr-1.5 inline align-[-3px]" />
          Add a photo
        </Button>
      </div>
      <input
        ref={input}
        type="file"
        accept="image/*"
        multiple
        className="sr-only"
        tabIndex={-1}
        aria-label="Photo to add"
        onChange={(event) => {
          add(event.target.files ?? [])
          event.target.value = ''
        }}
      />
      {photos.length + waiting.length === 0 && (
        <p className="text-soft">
          Drop one here, paste one, or pick a file: the field from above, and from one side for height.
        </p>
      )}
      <ul className="mt-2 flex flex-wrap gap-3">
        {photos.map((photo) => (
          <li key={photo.seq}>
            <button
              type="button"
              onClick={() => setOpen(photo.file)}
              className="block border border-line"
              aria-label={`Open ${photo.caption || photo.name}`}
            >
              <img
                src={`/api/jobs/${tag}/files/${photo.file}`}
                alt=""
                className="h-20 w-28 object-cover"
                loading="lazy"
              />
            </button>
            <span className="block max-w-28 truncate text-[0.85rem] text-soft">
              {photo.caption || photo.name}
            </span>
          </li>
        ))}
        {waiting.map((photo) => (
          <Waiting key={photo.id} photo={photo} onCancel={() => cancel(photo.id)} />
        ))}
      </ul>
      {shown && (
        <Sheet open title={shown.caption || shown.name} onClose={() => setOpen(null)} wide>
          <img
            src={`/api/jobs/${tag}/files/${shown.file}`}
            alt={shown.caption || shown.name}
            className="max-h-[62vh] w-full object-contain"
          />
          <p className="mt-3 text-soft">
            {shown.by}, <When at={shown.at} />, {(shown.bytes / 1_048_576).toFixed(1)} MB, SHA-256{' '}
            <span className="num break-all text-[0.85rem]">{shown.file}</span>
          </p>
        </Sheet>
      )}
    </DropArea>
  )
}

function Waiting({ photo, onCancel }: { photo: WaitingPhoto; onCancel: () => void }) {
  return (
    <li
      className={photo.refused ? 'basis-full border-l-4 border-ember pl-3' : ''}
      role={photo.refused ? 'alert' : 'status'}
    >
      {photo.refused ? (
        <p>
          <b className="font-semibold">{photo.name}</b> <span className="text-ember">{photo.refused}</span>{' '}
          <Button look="bare" onClick={onCancel}>
            Put it away
          </Button>
        </p>
      ) : (
        <>
          <span className="relative block">
            <img src={photo.url} alt="" className="h-20 w-28 object-cover opacity-60" />
            <button
              type="button"
              onClick={onCancel}
              aria-label={`Stop sending ${photo.name}`}
              className="absolute top-1 right-1 bg-sheet p-0.5"
            >
              <X size={16} aria-hidden="true" />
            </button>
          </span>
          <progress
            value={photo.sent}
            max={1}
            className="block h-1.5 w-28"
            aria-label={`Sending ${photo.name}`}
          />
        </>
      )}
    </li>
  )
}

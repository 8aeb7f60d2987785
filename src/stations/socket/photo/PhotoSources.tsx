'use client'
import { useState } from 'react'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { DropArea } from '@/ui/DropArea'
import { cameraViews, SIDE_TILT } from './camera-views'
import type { CameraView } from './camera-views'
import type { PhotoMapping } from './use-photo-map'

/** Where photos come from: a file, the job's own, or the simulated camera over a board on the simulated bench. */
export function PhotoSources({ mapping, more = false }: { mapping: PhotoMapping; more?: boolean }) {
  const tag = useJob((j) => j.tag)
  const ask = useJob((j) => j.ask)
  const kept = useJob((j) => j.state.work.photos)
  const simulated = useJob((j) => j.simulated !== 'no')
  const [busy, setBusy] = useState<CameraView | null>(null)
  const [say, setSay] = useState('')
  const take = async (view: CameraView) => {
    setBusy(view)
    setSay('')
    try {
      const answer = await ask(`camera?view=${encodeURIComponent(view)}`)
      if (answer.ok)
        await mapping.add(await answer.blob(), `camera, ${view}.jpg`, {
          side: view === 'near side' ? SIDE_TILT : null,
          part: view === 'above' || view === 'near side' ? 'whole' : view,
        })
      else setSay(((await answer.json()) as { error: { text: string } }).error.text)
    } catch {
      setSay('The camera does not answer. Try again in a moment.')
    }
    setBusy(null)
  }
  const again = async (file: string, name: string) => {
    try {
      const answer = await fetch(`/api/jobs/${tag}/files/${file}`)
      if (!answer.ok) throw new Error()
      await mapping.add(await answer.blob(), name, { kept: true })
    } catch {
      setSay(`${name} did not come from the server. Try again in a moment.`)
    }
  }
  return (
    <DropArea
      className={more ? 'mt-3 border-t border-line pt-2' : 'border border-dashed border-line p-5'}
      onFiles={(files) => {
        for (const file of files) void mapping.add(file, file.name)
      }}
    >
      {more ? (
        <h3 className="font-semibold">Another photo</h3>
      ) : (
        <>
          <p className="text-lg">
            Photograph the field from straight above, the light low and steady, the CPU out.
          </p>
          <p className="mt-1 text-soft">
            Drop the picture here or pick it. 70 pixels to a millimetre find every tip; if one picture cannot
            hold that, take the field in parts: each gets its own four clicks, and they are put together. A
            second one from the side, tilted by 30° or more, adds heights.
          </p>
        </>
      )}
      <p className="mt-2 flex flex-wrap gap-2">
        <label className="cursor-pointer rounded-sheet border-[1.5px] border-line px-3 py-1 font-semibold focus-within:outline-2 focus-within:outline-brass hover:border-slate">
          Pick a picture
          <input
            type="file"
            accept="image/png,image/jpeg"
            multiple
            className="sr-only"
            aria-label="Picture of the field"
            onChange={(event) => {
              for (const file of event.target.files ?? []) void mapping.add(file, file.name)
              event.target.value = ''
            }}
          />
        </label>
        {kept.map((p) => (
          <Button key={p.seq} className="py-1!" onClick={() => void again(p.file, p.name)}>
            {p.caption || p.name}
          </Button>
        ))}
      </p>
      {simulated && (
        <>
          <p className="mt-3 text-[0.9rem] text-soft">The camera over the simulated bench takes it:</p>
          <p className="mt-1 flex flex-wrap gap-2">
            {cameraViews.map((view) => (
              <Button key={view} className="py-1!" disabled={busy !== null} onClick={() => void take(view)}>
                {busy === view
                  ? 'taking it…'
                  : view === 'above'
                    ? 'from above'
                    : view === 'near side'
                      ? 'from the near side'
                      : view}
              </Button>
            ))}
          </p>
        </>
      )}
      {say && (
        <p role="alert" className="mt-1 font-semibold text-ember">
          {say}
        </p>
      )}
    </DropArea>
  )
}

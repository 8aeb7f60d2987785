'use client'
import { useState } from 'react'
import { percent } from '@/core/maths/percent'
import { partPlaces } from '@/core/parts/found'
import type { PartPlace } from '@/core/parts/found'
import { useKeyHint, useKeys } from '@/frame/use-keys'
import { useJob } from '@/job/JobProvider'
import { usePhotos } from '@/job/use-photos'
import { Button } from '@/ui/Button'
import { Choice } from '@/ui/Choice'
import { SelectField, TextField } from '@/ui/Field'
import { FileButton } from '@/ui/FileButton'
import { isOnTape } from './use-compare'
import type { Comparing, Judged, Role } from './use-compare'

const roles = ['photo', 'other'] as const
const roleWords: Readonly<Record<Role, string>> = {
  photo: 'This board',
  other: 'A good board, or this one before',
}
const judgedWords: Readonly<Record<Judged, string>> = {
  missing: 'missing',
  moved: 'off its pads',
  nothing: 'nothing',
}

const MISSED =
  'Some black parts on a black board are missed, and what stands behind something tall; parts longer than some 4 mm are left to the eye.'

/** Which photos are compared, and what is said of each place that differs. */
export function ComparePanel({
  comparing,
  isOpen,
  onNoted,
}: {
  comparing: Comparing
  isOpen: boolean
  onNoted: (ref: string) => void
}) {
  const { pictures, marks, chosen, judged, choose, share, ready, compared, wide, say } = comparing
  const [name, setName] = useState('')
  const [side, setSide] = useState<'top' | 'bottom'>('top')
  const [place, setPlace] = useState<PartPlace | ''>('')
  const hint = useKeyHint()
  const judge = (as: Judged) => {
    const ref = comparing.judge(as, { name, side, place })
    setName('')
    if (ref !== null) onNoted(ref)
  }
  const step = (by: number) => choose((chosen + by + marks.length) % marks.length)
  useKeys(
    isOpen
      ? {
          ...(ready && share === null ? { comparePhotos: () => void comparing.compare() } : {}),
          ...(marks.length > 0
            ? {
                nextPlace: () => step(1),
                previousPlace: () => step(-1),
                placeMissing: () => judge('missing'),
                placeMoved: () => judge('moved'),
                placeNothing: () => judge('nothing'),
              }
            : {}),
        }
      : {},
  )
  const open = judged.filter((j) => j === null).length
  const isSaid = isOnTape(judged[chosen])
  return (
    <div className="pb-4">
      {roles.map((role) => (
        <Source key={role} role={role} comparing={comparing} />
      ))}
      <div className="mt-3 grid grid-cols-[minmax(0,1fr)_auto] items-end gap-3">
        <TextField
          label="Width of the board in the first photo, mm"
          inputMode="decimal"
          value={wide}
          onChange={(e) => comparing.setWide(e.target.value)}
          error={say?.field === 'wide' ? say.text : undefined}
          className="num"
          placeholder="85"
        />
        {share === null ? (
          <Button
            look="first"
            disabled={!ready}
            keyHint={hint('comparePhotos')}
            onClick={() => void comparing.compare()}
          >
            Compare
          </Button>
        ) : (
          <Button onClick={comparing.stop}>Stop</Button>
        )}
      </div>
      {share !== null && (
        <p role="status" className="mt-2 flex items-center gap-3 text-soft">
          <progress value={share} max={1} className="h-2 w-40" aria-label="Comparing" />
          {share < 0.4
            ? 'finding one in the other…'
            : share < 0.85
              ? 'bringing the light alike…'
              : 'looking closely…'}
        </p>
      )}
      {say && say.field !== 'wide' && (
        <p role="alert" className="mt-2 font-semibold text-ember">
          {pictures[say.field]?.name ?? roleWords[say.field]}: {say.text}.
        </p>
      )}
      {compared && (
        <section aria-label="Places that differ" className="mt-3 border-t border-line pt-3">
          <p aria-live="polite">
            {marks.length === 0 ? (
              <>
                <strong>Nothing differs as a small part does.</strong> {MISSED}
              </>
            ) : (
              <>
                <strong>
                  {marks.length} {marks.length === 1 ? 'place' : 'places'} may be parts, surest first:
                </strong>{' '}
                {open === 0 ? 'all said.' : `${open} to say.`}{' '}
                <span className="text-soft">
                  {percent(compared.share)} of the photo is on both. {MISSED}
                </span>
              </>
            )}
          </p>
          {marks.length > 0 && (
            <>
              <ol className="mt-2 flex flex-wrap gap-1.5" aria-label="Places, surest first">
                {marks.map((m, i) => (
                  <li key={i}>
                    <button
                      type="button"
                      aria-pressed={i === chosen}
                      onClick={() => choose(i)}
                      className="num rounded-sheet border-[1.5px] border-line px-2 py-0.5 hover:border-slate aria-pressed:border-brass aria-pressed:font-semibold"
                    >
                      {i + 1}{' '}
                      <span className="text-soft">
                        {judged[i] ? judgedWords[judged[i]] : percent(m.odds)}
                      </span>
                    </button>
                  </li>
                ))}
              </ol>
              <p className="mt-2.5 flex flex-wrap gap-2">
                <Button
                  look="first"
                  keyHint={hint('placeMissing')}
                  disabled={isSaid}
                  onClick={() => judge('missing')}
                >
                  Missing
                </Button>
                <Button keyHint={hint('placeMoved')} disabled={isSaid} onClick={() => judge('moved')}>
                  Off its pads
                </Button>
                <Button keyHint={hint('placeNothing')} disabled={isSaid} onClick={() => judge('nothing')}>
                  Nothing
                </Button>
                <Button look="bare" keyHint={hint('previousPlace')} onClick={() => step(-1)}>
                  before
                </Button>
                <Button look="bare" keyHint={hint('nextPlace')} onClick={() => step(1)}>
                  next
                </Button>
              </p>
              <div className="mt-3 grid grid-cols-2 gap-3">
                <TextField
                  label="Its name on the board"
                  value={name}
                  maxLength={60}
                  onChange={(e) => setName(e.target.value)}
                  placeholder={`place ${chosen + 1}`}
                  className="num"
                />
                <SelectField
                  label="Where"
                  value={place}
                  onChange={(e) => setPlace(e.target.value as PartPlace | '')}
                >
                  <option value="">not said</option>
                  {partPlaces.map((p) => (
                    <option key={p}>{p}</option>
                  ))}
                </SelectField>
              </div>
              <div className="mt-2">
                <Choice label="Side" value={side} options={['top', 'bottom']} onChange={setSide} />
              </div>
            </>
          )}
          <Keep comparing={comparing} />
        </section>
      )}
    </div>
  )
}

/** Where one of the two comes from: a file, the job’s own photos, or the camera over the simulated bench. */
function Source({ role, comparing }: { role: Role; comparing: Comparing }) {
  const tag = useJob((j) => j.tag)
  const ask = useJob((j) => j.ask)
  const photos = useJob((j) => j.state.work.photos)
  const simulated = useJob((j) => j.simulated !== 'no')
  const [say, setSay] = useState('')
  const [busy, setBusy] = useState(false)
  const { [role]: picture } = comparing.pictures
  const fetched = async (asked: () => Promise<Response>, name: string, kept: boolean) => {
    setSay('')
    setBusy(true)
    try {
      const answer = await asked()
      if (!answer.ok) throw new Error()
      const wide = Number(answer.headers.get('x-wide-mm'))
      comparing.take(role, await answer.blob(), name, kept, role === 'photo' && wide > 0 ? wide : undefined)
    } catch {
      setSay(`${name} did not come. Try again in a moment.`)
    }
    setBusy(false)
  }
  return (
    <fieldset className="mt-2 first:mt-0" disabled={comparing.share !== null}>
      <legend className="text-[0.94rem] text-soft">
        {roleWords[role]}
        {picture && (
          <>
            : <b className="font-semibold text-ink">{picture.name}</b>
          </>
        )}
      </legend>
      <div className="mt-1 flex flex-wrap items-baseline gap-2">
        <FileButton
          label={`Photo: ${roleWords[role]}`}
          accept="image/png,image/jpeg"
          onFile={(file) => comparing.take(role, file, file.name, false)}
        >
          Pick a picture
        </FileButton>
        {photos.map((p) => (
          <Button
            key={p.seq}
            className="py-1!"
            disabled={busy}
            onClick={() =>
              void fetched(() => fetch(`/api/jobs/${tag}/files/${p.file}`), p.caption || p.name, true)
            }
          >
            {p.caption || p.name}
          </Button>
        ))}
        {simulated && (
          <Button
            className="py-1!"
            disabled={busy}
            onClick={() =>
              void fetched(
                () => ask(`board-camera?of=${role === 'photo' ? 'this' : 'good'}`),
                role === 'photo' ? 'this board, by the camera.jpg' : 'a good one, by the camera.jpg',
                false,
              )
            }
          >
            {busy ? 'taking it…' : 'by the camera'}
          </Button>
        )}
      </div>
      {say && (
        <p role="alert" className="mt-1 font-semibold text-ember">
          {say}
        </p>
      )}
    </fieldset>
  )
}

/** Photos that are not on the job yet can be kept there, so that what was said of them can be looked at again. */
function Keep({ comparing }: { comparing: Comparing }) {
  const { add } = usePhotos()
  const loose = roles.filter((role) => comparing.pictures[role]?.kept === false)
  if (loose.length === 0) return null
  return (
    <p className="mt-3">
      <Button
        look="bare"
        onClick={() => {
          for (const role of loose) {
            const { file, name } = comparing.pictures[role]!
            add([new File([file], name, { type: file.type })])
            comparing.kept(role)
          }
        }}
      >
        Keep {loose.length === 1 ? 'the photo' : 'both photos'} on the job
      </Button>
    </p>
  )
}

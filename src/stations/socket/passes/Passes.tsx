'use client'
import { Count } from '@/ui/reader'
import { useState } from 'react'
import { comparePasses, passMarks } from '@/core/socket/damage/pass'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { SelectField, TextField } from '@/ui/Field'
import { When } from '@/ui/When'
import type { Surface } from '@/stations/socket/map/use-surface'
import { useTheme } from '@/ui/use-theme'

const changeWords = { new: 'new', mended: 'repaired', other: 'changed', same: 'as before' } as const
const changeTone = {
  new: 'font-semibold text-ember',
  mended: 'text-verd',
  other: 'text-brass',
  same: 'text-soft',
} as const

/** The looks over the whole field, one against another; and the map as a file. */
export function Passes({ surface }: { surface: Surface }) {
  const passes = useJob((j) => j.state.socket.passes)
  const tag = useJob((j) => j.tag)
  const append = useJob((j) => j.append)
  const theme = useTheme()
  const [from, setFrom] = useState(0)
  const [to, setTo] = useState<number | null>(null)
  const [name, setName] = useState('')
  const last = passes.length - 1
  const until = to ?? last
  const changes =
    passes.length === 0 ? [] : comparePasses(passes[from]?.found ?? {}, passMarks(passes, until))
  const count = (change: keyof typeof changeWords) => changes.filter((c) => c.change === change).length
  const { view } = surface
  const file = (as: string) =>
    `/api/jobs/${tag}/map?as=${as}&pass=${until + 1}&turn=${view.quarterTurns}&mirror=${view.mirrored ? 1 : 0}&theme=${theme}`
  return (
    <div className="grid @3xl:grid-cols-[minmax(0,1fr)_minmax(0,1.6fr)] gap-x-8">
      <section>
        <h3 className="font-semibold">Inspections</h3>
        <ol>
          {passes.map((pass, i) => (
            <li key={pass.at + pass.name} className="border-b border-line py-1">
              {i + 1}. {pass.name}, <When at={pass.at} as="time" />
              <span className="text-soft">
                ; {Object.keys(pass.found).length} marked, <Count n={Object.keys(pass.looked).length} />{' '}
                inspected
              </span>
            </li>
          ))}
        </ol>
        <form
          className="mt-3 flex items-end gap-2"
          onSubmit={(event) => {
            event.preventDefault()
            append('pass', {
              name: name.trim() || (passes.length === 0 ? 'before' : `after try ${passes.length}`),
            })
            setName('')
          }}
        >
          <TextField
            label="Re-inspection"
            value={name}
            onChange={(e) => setName(e.target.value)}
            placeholder={passes.length === 0 ? 'before' : `after try ${passes.length}`}
          />
          <Button type="submit" className="shrink-0">
            Begin it
          </Button>
        </form>
        <p className="mt-1 text-[0.9rem] text-soft">
          Marks are carried over; what was inspected is not, so that the field is inspected again.
        </p>
        {passes.length > 0 && (
          <p className="mt-3 flex gap-4">
            {['svg', 'png', 'csv'].map((as) => (
              <a key={as} href={file(as)} download className="underline decoration-line underline-offset-4">
                map as {as.toUpperCase()}
              </a>
            ))}
          </p>
        )}
      </section>
      {passes.length < 2 ? (
        <p className="text-soft">
          After a re-inspection the two are compared here: what is repaired, what is new, what has changed.
        </p>
      ) : (
        <section>
          <div className="flex items-end gap-3">
            <SelectField
              label="From"
              className="w-40"
              value={from}
              onChange={(e) => setFrom(Number(e.target.value))}
            >
              {passes.map((p, i) => (
                <option key={p.at + p.name} value={i}>
                  {i + 1}. {p.name}
                </option>
              ))}
            </SelectField>
            <SelectField
              label="to"
              className="w-40"
              value={until}
              onChange={(e) => setTo(Number(e.target.value))}
            >
              {passes.map((p, i) => (
                <option key={p.at + p.name} value={i}>
                  {i + 1}. {p.name}
                </option>
              ))}
            </SelectField>
            <p className="pb-2 text-soft">
              {count('mended')} repaired, {count('new')} new, {count('other')} changed, {count('same')} as
              before
            </p>
          </div>
          <ul className="mt-2 max-h-72 overflow-y-auto" tabIndex={0} aria-label="Changes between the passes">
            {changes.map((c) => (
              <li key={c.contact} className="grid grid-cols-[4rem_6rem_1fr] gap-2 border-b border-line py-1">
                <button type="button" className="num text-left" onClick={() => surface.go(c.contact)}>
                  {c.contact}
                </button>
                <span className={changeTone[c.change]}>{changeWords[c.change]}</span>
                <span className="text-soft">
                  {c.change === 'same' ? c.after : `${c.before}, now ${c.after}`}
                </span>
              </li>
            ))}
          </ul>
          {changes.length === 0 && <p className="mt-2 text-soft">No damage in either.</p>}
        </section>
      )}
    </div>
  )
}

'use client'
import { useReader } from '@/ui/reader'
import Link from 'next/link'
import { useRouter } from 'next/navigation'
import { useMemo, useState } from 'react'
import { useForm } from 'react-hook-form'
import type { FormEvent, ReactNode } from 'react'
import { chosenBy, sayEdit, some } from '@/core/socket/model/edit-field'
import { trusts } from '@/core/socket/model/socket'
import { functionGroups } from '@/core/board/function-group'
import type { Socket, Trust } from '@/core/socket/model/socket'
import type { FunctionGroup } from '@/core/board/function-group'
import { typedNumber } from '@/ui/typed-number'
import { Button } from '@/ui/Button'
import { SelectField, TextField } from '@/ui/Field'
import { useKeyHint, useKeys } from '@/frame/use-keys'
import { useEscapeLeaves } from '@/ui/keys'
import { sentence } from '@/core/sentence'
import { EditPicture } from './EditPicture'
import { KeepField } from './KeepField'
import { useFieldEdits } from './use-field-edits'
import type { FieldEdits } from './use-field-edits'

/** Another field from one in the library: gaps, beams, functions, places and names of contacts chosen on it. */
export function FieldEditor({ socket }: { socket: Socket }) {
  const router = useRouter()
  const work = useFieldEdits(socket)
  const { now, gaps, edits } = work
  const [names, setNames] = useState<readonly string[]>([])
  const [words, setWords] = useState('')
  const [unclear, setUnclear] = useState('')
  const chosen = useMemo(() => new Set(names), [names])
  const standing = now.contacts.filter((c) => chosen.has(c.name)).map((c) => c.name)
  const out = gaps.filter((g) => chosen.has(g.name)).map((g) => g.name)
  const takeOut = () => standing.length > 0 && work.edit({ edit: 'gap', contacts: standing })
  useEscapeLeaves()
  const { number } = useReader()
  const hint = useKeyHint()
  useKeys({
    fieldUndo: work.undo,
    fieldRedo: work.redo,
    takeOut,
    chooseNone: () => setNames([]),
  })
  const choose = (event: FormEvent) => {
    event.preventDefault()
    const found = chosenBy([...now.contacts, ...gaps], words)
    setUnclear(typeof found === 'string' ? found : '')
    if (typeof found !== 'string') setNames(found)
  }
  return (
    <>
      <h1>
        {edits.length === 0
          ? `Another field, made from ${socket.name}`
          : `${number(now.contacts.length)} contacts, made from ${socket.name}`}
      </h1>
      <p className="mt-0.5 text-soft">
        {socket.name} stays as it is: what is changed here is kept as a socket of its own.{' '}
        <Link href={`/library/sockets/${socket.id}`} className="underline decoration-line underline-offset-4">
          Back to {socket.name}
        </Link>
      </p>
      <div className="mt-4 grid grid-cols-[minmax(0,1fr)_330px] gap-8">
        <div>
          <EditPicture
            socket={now}
            gaps={gaps}
            chosen={chosen}
            onChoose={(picked, more) => setNames(more ? [...new Set([...names, ...picked])] : picked)}
          />
          <p className="mt-1 text-[0.9rem] text-soft">
            Click a contact, drag a rectangle, shift adds. Each contact has its beam, drawn from the tip back
            to the foot; a cross is a gap.
          </p>
        </div>
        <div className="flex flex-col gap-3">
          <form onSubmit={choose}>
            <TextField
              label="Choose"
              value={words}
              placeholder="A1 H12"
              error={unclear}
              hint="two corners, a list, row C, column 12, a function, left, far, all"
              onChange={(e) => setWords(e.target.value)}
            />
          </form>
          <p aria-live="polite" className="font-semibold">
            {names.length === 0 ? 'None is chosen.' : sentence(`${some(names)} chosen`)}
          </p>
          {names.length > 0 && <Changes key={names.join()} work={work} standing={standing} out={out} />}
          {names.length === 0 && <AddContact work={work} />}
          {work.fault && (
            <p role="alert" className="border-l-4 border-ember pl-3">
              {sentence(work.fault)}
            </p>
          )}
          <section className="border-t border-line pt-2">
            <h2 className="font-semibold">
              {edits.length === 0 ? 'Nothing is changed yet' : `Changed, ${edits.length}`}
            </h2>
            <ol className="max-h-40 overflow-y-auto text-[0.95rem]" aria-label="Changes">
              {edits.map((e, i) => (
                <li key={i} className="border-b border-line">
                  {sayEdit(e)}
                </li>
              ))}
            </ol>
            <p className="mt-2 flex flex-wrap gap-2">
              <Button
                keyHint={hint('fieldUndo')}
                onClick={work.undo}
                disabled={edits.length === 0}
                className="py-1!"
              >
                Undo
              </Button>
              <Button
                keyHint={hint('fieldRedo')}
                onClick={work.redo}
                disabled={!work.mayRedo}
                className="py-1!"
              >
                Do again
              </Button>
              <Button look="bare" onClick={work.forget} disabled={edits.length === 0}>
                Start over
              </Button>
            </p>
          </section>
          {edits.length > 0 && (
            <KeepField
              socket={now}
              from={socket}
              onKept={(id) => {
                work.forget()
                router.push(`/library/sockets/${id}`)
              }}
            />
          )}
        </div>
      </div>
    </>
  )
}

function Line({ onDo, children }: { onDo: () => void; children: ReactNode }) {
  return (
    <form
      className="flex items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault()
        onDo()
      }}
    >
      {children}
    </form>
  )
}

/** What can be done with the contacts that are chosen. */
function Changes({
  work,
  standing,
  out,
}: {
  work: FieldEdits
  standing: readonly string[]
  out: readonly string[]
}) {
  const hint = useKeyHint()
  const first = work.now.contacts.find((c) => c.name === standing[0])
  const [beam, setBeam] = useState(first ? String(first.beamDeg) : '')
  const [group, setGroup] = useState<FunctionGroup>(first?.group ?? 'unknown')
  const [trust, setTrust] = useState<Trust>(first?.trust === 'none' ? 'region' : (first?.trust ?? 'region'))
  const [right, setRight] = useState('0')
  const [away, setAway] = useState('0')
  const [as, setAs] = useState(standing[0] ?? '')
  return (
    <div className="flex flex-col gap-2">
      <p className="flex flex-wrap gap-2">
        {standing.length > 0 && (
          <Button keyHint={hint('takeOut')} onClick={() => work.edit({ edit: 'gap', contacts: standing })}>
            Take {standing.length === 1 ? 'it' : 'them'} out
          </Button>
        )}
        {out.length > 0 && (
          <Button onClick={() => work.edit({ edit: 'fill', contacts: out })}>
            Put {out.length === 1 ? out[0] : `${out.length} gaps`} back
          </Button>
        )}
      </p>
      {standing.length > 0 && (
        <>
          {work.now.kind === 'land-grid' && (
            <Line onDo={() => work.edit({ edit: 'beams', contacts: standing, beamDeg: typedNumber(beam) })}>
              <TextField
                label="Beams run to, degrees"
                placeholder="0 right, 90 away"
                inputMode="decimal"
                value={beam}
                onChange={(e) => setBeam(e.target.value)}
              />
              <Button type="submit" className="py-1!">
                Turn
              </Button>
            </Line>
          )}
          <Line onDo={() => work.edit({ edit: 'function', contacts: standing, group, trust })}>
            <SelectField
              label="Function"
              value={group}
              onChange={(e) => setGroup(e.target.value as FunctionGroup)}
            >
              {functionGroups.map((g) => (
                <option key={g}>{g}</option>
              ))}
            </SelectField>
            <SelectField label="Known from" value={trust} onChange={(e) => setTrust(e.target.value as Trust)}>
              {trusts.map((t) => (
                <option key={t}>{t}</option>
              ))}
            </SelectField>
            <Button type="submit" className="py-1!">
              Set
            </Button>
          </Line>
          <Line
            onDo={() =>
              work.edit({ edit: 'move', contacts: standing, byMm: [typedNumber(right), typedNumber(away)] })
            }
          >
            <TextField
              label="Right, mm"
              inputMode="decimal"
              value={right}
              onChange={(e) => setRight(e.target.value)}
            />
            <TextField
              label="Away, mm"
              inputMode="decimal"
              value={away}
              onChange={(e) => setAway(e.target.value)}
            />
            <Button type="submit" className="py-1!">
              Move
            </Button>
          </Line>
          {standing.length === 1 && (
            <Line onDo={() => work.edit({ edit: 'rename', contact: standing[0]!, as })}>
              <TextField label="Its name" value={as} onChange={(e) => setAs(e.target.value)} />
              <Button type="submit" className="py-1!">
                Rename
              </Button>
            </Line>
          )}
        </>
      )}
    </div>
  )
}

/** A contact where there was none. */
function AddContact({ work }: { work: FieldEdits }) {
  const { register, handleSubmit, setValue } = useForm({ defaultValues: { name: '', x: '', y: '' } })
  const add = handleSubmit(({ name, x, y }) => {
    if (work.edit({ edit: 'add', contact: name, atMm: [typedNumber(x), typedNumber(y)] }))
      setValue('name', '')
  })
  return (
    <Line onDo={() => void add()}>
      <TextField label="Add" {...register('name')} placeholder="M14" />
      <TextField label="x, mm" inputMode="decimal" {...register('x')} />
      <TextField label="y, mm" inputMode="decimal" {...register('y')} />
      <Button type="submit" className="py-1!">
        Add
      </Button>
    </Line>
  )
}

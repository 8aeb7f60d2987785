'use client'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import { substitutes, uses } from '@/core/parts/substitute/substitute'
import type { Judged, Use, Wanted } from '@/core/parts/substitute/substitute'
import { freeOf, partsOf } from '@/core/parts/stock/stock-item'
import type { AtHandItem } from '@/core/parts/stock/stock-item'
import type { PartsState } from '@/core/parts/slice'
import { partKinds, readValue, sayValue } from '@/core/parts/value/quantity'
import { sizeCodes } from '@/core/parts/value/size-code'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { SelectField, TextField } from '@/ui/Field'
import { typedNumber } from '@/ui/typed-number'
import { wantedOf } from './wanted'
import type { TypedWanted } from './wanted'

/** What of the shelf may stand in for the part in hand, and why the rest may not; held or fitted by a press. */
export function FromShelf({ of, isOpen }: { of: string | null; isOpen: boolean }) {
  const tag = useJob((j) => j.tag)
  const parts = useJob((j) => j.state.parts)
  const append = useJob((j) => j.append)
  const { stock, fault, again } = useStock(tag, isOpen, parts.stock)
  const [typing, setTyping] = useState<Readonly<Record<string, TypedWanted>>>({})
  const key = of ?? ''
  const typed = typing[key] ?? wantedOf(of, of === null ? undefined : parts.pads[of])
  const change = (to: Partial<TypedWanted>) => setTyping({ ...typing, [key]: { ...typed, ...to } })
  const { wanted, errors } = useMemo(() => readWanted(typed), [typed])
  const judged = useMemo(
    () =>
      stock && wanted
        ? substitutes(
            wanted,
            partsOf(stock, tag).filter((s) => s.kind === wanted.kind),
          )
        : [],
    [stock, wanted, tag],
  )
  const fit = ({ parts: [id], value, grade, but }: Judged) => {
    if (of === null || id === undefined || !wanted) return
    append('part', { ref: of, did: 'fitted', value: sayValue(wanted.kind, value), stock: id })
    // What is good for a test alone must not go out with the board.
    if (grade === 'for a test')
      append('deferred', { text: `${of}: ${id} is fitted for a test, ${but[0]}`.slice(0, 300) })
  }
  if (fault)
    return (
      <p role="alert" className="text-ember">
        The shelf did not come from the server.{' '}
        <Button look="bare" onClick={again}>
          Try again
        </Button>
      </p>
    )
  if (!stock) return <p role="status">Looking on the shelf…</p>
  const others = stock.filter((s) => s.value === null)
  return (
    <div className="pb-4">
      <div className="grid grid-cols-3 gap-x-3 gap-y-2">
        <SelectField
          label={of === null ? 'A' : `For ${of}, a`}
          value={typed.kind}
          onChange={(e) => change({ kind: partKinds.find((k) => k === e.target.value)! })}
        >
          {partKinds.map((k) => (
            <option key={k}>{k}</option>
          ))}
        </SelectField>
        <TextField
          label="Value"
          className="num"
          value={typed.value}
          placeholder="33"
          error={errors.value}
          onChange={(e) => change({ value: e.target.value })}
        />
        <SelectField
          label="It does"
          value={typed.use}
          onChange={(e) => change({ use: uses.find((u) => u === e.target.value)! })}
        >
          {uses.map((u) => (
            <option key={u}>{u}</option>
          ))}
        </SelectField>
        <SelectField label="Size" value={typed.size} onChange={(e) => change({ size: e.target.value })}>
          <option value="">not known</option>
          {sizeCodes.map((code) => (
            <option key={code}>{code}</option>
          ))}
        </SelectField>
        <TextField
          label="Across it, V"
          className="num"
          value={typed.workingV}
          placeholder="3.3"
          error={errors.workingV}
          onChange={(e) => change({ workingV: e.target.value })}
        />
        <TextField
          label="Through it, A"
          className="num"
          value={typed.amps}
          placeholder="of beads, jumpers"
          error={errors.amps}
          onChange={(e) => change({ amps: e.target.value })}
        />
      </div>
      {wanted && (
        <section aria-label="What may stand in for it" className="mt-3" aria-live="polite">
          {judged.filter((j) => j.grade !== 'no').length === 0 && (
            <p className="font-semibold">Nothing on the shelf may stand in for it.</p>
          )}
          <ul>
            {judged.map((j) => {
              const id = j.parts[0]!
              const held = parts.stock[id]?.held ?? 0
              return (
                <li
                  key={`${id} ${j.how}`}
                  className="grid grid-cols-[minmax(0,1fr)_auto] items-start gap-3 border-b border-line py-1.5"
                >
                  <span>
                    <b className={`font-semibold ${j.grade === 'no' ? 'text-soft' : ''}`}>
                      {j.parts.length === 2 ? '2 × ' : ''}
                      {id}
                    </b>{' '}
                    <span className={gradeLook[j.grade]}>{j.grade === 'no' ? 'no' : j.grade}</span>
                    {j.but.length > 0 && (
                      <span className="block text-[0.92rem] text-soft">
                        {(j.grade === 'no' ? j.but.slice(0, 1) : j.but).join('; ')}
                      </span>
                    )}
                    {held > 0 && <span className="block text-[0.92rem]">{held} held for this job</span>}
                  </span>
                  {j.grade !== 'no' && (
                    <span className="flex gap-2">
                      <Button
                        onClick={() => append('stock', { item: id, did: held > 0 ? 'released' : 'reserved' })}
                      >
                        {held > 0 ? 'Let go' : 'Hold'}
                      </Button>
                      {of !== null && j.parts.length === 1 && <Button onClick={() => fit(j)}>Fitted</Button>}
                    </span>
                  )}
                </li>
              )
            })}
          </ul>
        </section>
      )}
      {others.length > 0 && (
        <section aria-label="Other things on the shelf" className="mt-4">
          <h2>Other things</h2>
          <ul>
            {others.map((item) => (
              <Other key={item.item} item={item} tag={tag} />
            ))}
          </ul>
        </section>
      )}
    </div>
  )
}

function Other({ item, tag }: { item: AtHandItem; tag: string }) {
  const append = useJob((j) => j.append)
  const { held = 0, used = 0 } = useJob((j) => j.state.parts.stock[item.item]) ?? {}
  return (
    <li className="grid grid-cols-[minmax(0,1fr)_auto] items-center gap-3 border-b border-line py-1.5">
      <span>
        <b className="font-semibold">{item.item}</b>{' '}
        <span className="text-soft">
          {[
            item.place,
            `${freeOf(item, tag)} free`,
            held > 0 && `${held} held for this job`,
            used > 0 && `${used} used here`,
          ]
            .filter(Boolean)
            .join(', ')}
        </span>
      </span>
      <span className="flex gap-2">
        <Button onClick={() => append('stock', { item: item.item, did: held > 0 ? 'released' : 'reserved' })}>
          {held > 0 ? 'Let go' : 'Hold'}
        </Button>
        {/* A CPU is the kit’s, and goes back to it. */}
        {item.kind !== 'CPU' && (
          <Button onClick={() => append('stock', { item: item.item, did: 'used' })}>Used one</Button>
        )}
      </span>
    </li>
  )
}

const gradeLook: Readonly<Record<Judged['grade'], string>> = {
  'like for like': 'text-verd',
  good: 'text-verd',
  'for a test': 'text-brass',
  no: 'text-soft',
}

/** What lies on the shelf, asked for when it is wanted; what this job has used since is counted down at once. */
function useStock(tag: string, isOpen: boolean, own: PartsState['stock']) {
  const [came, setCame] = useState<{ stock: readonly AtHandItem[]; own: PartsState['stock'] } | null>(null)
  const [fault, setFault] = useState(false)
  const [asked, setAsked] = useState(0)
  const now = useRef(own)
  useEffect(() => {
    now.current = own
  })
  useEffect(() => {
    if (!isOpen) return
    const control = new AbortController()
    void fetch(`/api/jobs/${tag}/stock`, { signal: control.signal })
      .then(async (answer) => {
        if (!answer.ok) throw new Error()
        setCame({ stock: (await answer.json()) as AtHandItem[], own: now.current })
        setFault(false)
      })
      .catch(() => control.signal.aborted || setFault(true))
    return () => control.abort()
  }, [tag, isOpen, asked])
  const stock = useMemo(
    () =>
      came &&
      came.stock.map((of) => ({
        ...of,
        left: Math.max(0, of.left - ((own[of.item]?.used ?? 0) - (came.own[of.item]?.used ?? 0))),
      })),
    [came, own],
  )
  return { stock, fault, again: useCallback(() => setAsked((n) => n + 1), []) }
}

/** Reads what is wanted; an error names its field and the mend. */
function readWanted({ kind, value, use, size, workingV, amps }: TypedWanted): {
  readonly wanted: Wanted | null
  readonly errors: Readonly<Partial<Record<'value' | 'workingV' | 'amps', string>>>
} {
  const is = value.trim() === '' ? null : readValue(kind, value)
  const figure = (text: string) => (text.trim() === '' ? undefined : typedNumber(text))
  const [volts, through] = [figure(workingV), figure(amps)]
  const wrong = (n: number | undefined) => n !== undefined && !(n >= 0)
  const errors = {
    ...(value.trim() !== '' && is === null
      ? { value: kind === 'capacitor' ? 'pF, nF or µF: 100n' : 'Ω: 33 or 4k7' }
      : {}),
    ...(wrong(volts) ? { workingV: 'volts, like 3.3' } : {}),
    ...(wrong(through) ? { amps: 'amps, like 0.5' } : {}),
  }
  if (is === null || Object.keys(errors).length > 0) return { wanted: null, errors }
  const wanted: Wanted = {
    kind,
    value: is,
    use: use as Use,
    ...(size ? { size } : {}),
    ...(volts === undefined ? {} : { workingV: volts }),
    ...(through === undefined ? {} : { amps: through }),
  }
  return { wanted, errors }
}

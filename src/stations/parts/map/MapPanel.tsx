'use client'
import { useRef } from 'react'
import { lifeOf } from '@/core/parts/life'
import { useKeyHint, useKeys } from '@/frame/use-keys'
import { useJob } from '@/job/JobProvider'
import { Button } from '@/ui/Button'
import { Findings } from '@/ui/Findings'
import { mapPlaces } from './use-board-map'
import type { BoardMapInHand } from './use-board-map'

/** What is looked for on the map, and what it says of the part or the net in hand. */
export function MapPanel({
  map,
  isOpen,
  onNoted,
}: {
  map: BoardMapInHand
  isOpen: boolean
  onNoted: (ref: string) => void
}) {
  const { opened, typed, found, find, part, net, choosePart, chooseNet, meets } = map
  const append = useJob((j) => j.append)
  const parts = useJob((j) => j.state.parts)
  const field = useRef<HTMLInputElement>(null)
  const hint = useKeyHint()
  const life = part && parts.noted.some((p) => p.ref === part.ref) ? lifeOf(parts, part.ref) : null
  const isNoted = (did: string) => life?.last.did === did
  const note = (how?: 'cracked') => {
    if (!part) return
    if (isNoted(how ? 'found damaged' : 'found missing')) return
    append('part', {
      ref: part.ref,
      did: how ? 'found damaged' : 'found missing',
      ...(how ? { how } : {}),
      side: part.side,
      ...(part.net === null ? {} : { net: part.net }),
    })
    onNoted(part.ref)
  }
  useKeys(
    isOpen && opened
      ? {
          findOnMap: () => field.current?.focus(),
          ...(part ? { boardMissing: () => note(), boardDamaged: () => note('cracked') } : {}),
        }
      : {},
  )
  if (!opened) return null
  return (
    <div className="pb-4">
      <form
        role="search"
        onSubmit={(e) => {
          e.preventDefault()
          map.takeFirst()
        }}
      >
        <label className="flex flex-col gap-1 text-[0.94rem] text-soft">
          Find a part or a net
          <input
            ref={field}
            className="num w-full text-ink"
            value={typed}
            placeholder={`R214, MISO${hint('findOnMap') ? `   ${hint('findOnMap')}` : ''}`}
            onChange={(e) => find(e.target.value)}
            onKeyDown={(e) => {
              if (e.key === 'Escape') field.current?.blur()
            }}
          />
        </label>
      </form>
      <p className="mt-1 flex flex-wrap gap-x-3 text-[0.92rem] text-soft">
        {mapPlaces.map((place) => (
          <button
            key={place}
            type="button"
            className="underline decoration-line underline-offset-4 hover:text-ink"
            onClick={() => map.seekAt(place)}
          >
            {place}
          </button>
        ))}
      </p>
      {found && (
        <p aria-live="polite" className="mt-1 flex flex-wrap gap-x-3 gap-y-0.5">
          {found.parts.length + found.nets.length === 0 && (
            <span className="text-soft">Nothing on this map is called so.</span>
          )}
          {found.parts.map((ref) => (
            <Name key={ref} name={ref} onPress={() => choosePart(ref)} />
          ))}
          {found.nets.map((name) => (
            <Name key={name} name={name} onPress={() => chooseNet(name)} quiet />
          ))}
        </p>
      )}
      {meets.length > 0 && (
        <section aria-label="Where damage meets" className="mt-3 border-l-4 border-ember pl-3">
          <h2 className="font-semibold">Damage meets on</h2>
          <ul>
            {meets.map((m) => (
              <li key={m.net}>
                <Name name={m.net} onPress={() => chooseNet(m.net)} />:{' '}
                {[...m.contacts.map((c) => `contact ${c}`), ...m.parts].join(', ')}
              </li>
            ))}
          </ul>
        </section>
      )}
      {part && (
        <section aria-label={`Part ${part.ref}`} aria-live="polite" className="mt-3">
          <h2 className="text-[1.15rem] font-semibold">
            <span className="num">{part.ref}</span>{' '}
            <span className="text-[0.94rem] font-normal text-soft">
              {[`${part.side} side`, part.value && `${part.value} by the list`, part.body]
                .filter(Boolean)
                .join(', ')}
            </span>
          </h2>
          {life && <p className="text-ember">{[life.last.did, life.last.how].filter(Boolean).join(', ')}</p>}
          <div className="my-2 flex flex-wrap gap-2">
            <Button keyHint={hint('boardMissing')} disabled={isNoted('found missing')} onClick={() => note()}>
              It is missing
            </Button>
            <Button
              keyHint={hint('boardDamaged')}
              disabled={isNoted('found damaged')}
              onClick={() => note('cracked')}
            >
              It is cracked
            </Button>
          </div>
          <Rows title="Pins">
            {part.pins.slice(0, 40).map(({ pin, net: on }) => (
              <Row key={pin} what={pin}>
                {on === '' ? (
                  <span className="text-soft">connected to nothing</span>
                ) : (
                  <Name name={on} onPress={() => chooseNet(on)} />
                )}
              </Row>
            ))}
            {part.pins.length > 40 && (
              <p className="text-soft">and {part.pins.length - 40} more; find a net by its name</p>
            )}
          </Rows>
          {part.twins.length > 0 && (
            <Rows title="Twins">
              <p className="flex flex-wrap gap-x-3">
                {part.twins.map((ref) => (
                  <Name key={ref} name={ref} onPress={() => choosePart(ref)} />
                ))}
              </p>
            </Rows>
          )}
          {part.near.length > 0 && (
            <Rows title="Near it">
              {part.near.map(({ ref, mm, side }) => (
                <Row key={ref} what={<Name name={ref} onPress={() => choosePart(ref)} />}>
                  <span className="num">{mm.toFixed(1)} mm</span>
                  {side === part.side ? '' : ', on the other side'}
                </Row>
              ))}
            </Rows>
          )}
        </section>
      )}
      {net && (
        <section aria-label={`Net ${net.net}`} aria-live="polite" className="mt-3">
          <h2 className="text-[1.15rem] font-semibold">
            <span className="num">{net.net}</span>{' '}
            <span className="text-[0.94rem] font-normal text-soft">{net.parts.length} pins</span>
          </h2>
          <Rows title="">
            {net.parts.slice(0, 60).map(({ ref, pin }) => (
              <Row key={`${ref} ${pin}`} what={<Name name={ref} onPress={() => choosePart(ref)} />}>
                pin <span className="num">{pin}</span>
                {ref === opened.socket?.ref && map.damaged.includes(pin) && (
                  <span className="font-semibold text-ember">, damaged</span>
                )}
              </Row>
            ))}
            {net.parts.length > 60 && <p className="text-soft">and {net.parts.length - 60} more</p>}
          </Rows>
        </section>
      )}
      {!part && !net && (
        <p className="mt-3 text-soft">
          {opened.parts} parts, {opened.nets} nets.{' '}
          {opened.socket
            ? `The socket is ${opened.socket.ref}${opened.socket.unknown > 0 ? `; ${opened.socket.unknown} contacts are not on it` : ''}.`
            : 'The socket is not on this map, or is counted in another way.'}{' '}
          Press a part, or find it by its name.
        </p>
      )}
      <Findings findings={opened.findings} />
    </div>
  )
}

const Name = ({ name, quiet = false, onPress }: { name: string; quiet?: boolean; onPress: () => void }) => (
  <button
    type="button"
    className={`num underline decoration-line underline-offset-4 ${quiet ? 'text-soft' : ''}`}
    onClick={onPress}
  >
    {name}
  </button>
)

const Rows = ({ title, children }: { title: string; children: React.ReactNode }) => (
  <div className="mt-2">
    {title && <h3 className="text-[0.94rem] text-soft">{title}</h3>}
    {children}
  </div>
)

const Row = ({ what, children }: { what: React.ReactNode; children: React.ReactNode }) => (
  <p className="grid grid-cols-[6rem_1fr] gap-2 border-b border-line py-1">
    <span className="num">{what}</span>
    <span>{children}</span>
  </p>
)

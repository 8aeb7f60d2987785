'use client'
import type { Station } from '@/core/board/station'

import { Sheet } from '@/ui/Sheet'

const everywhere: readonly (readonly [string, string])[] = [
  ['t', 'type on the tape'],
  ['g 1 … 7', 'go to a station'],
  ['z', 'undo'],
  ['shift z', 'redo'],
  ['?', 'these keys'],
  ['Esc', 'leave a field, put a sheet away'],
]

const onSurface: Partial<Record<Station, readonly (readonly [string, string])[]>> = {
  socket: [
    ['arrows', 'walk the contacts as you see them'],
    ['. and ,', 'next and previous marked contact'],
    ['1 … 9', 'intact, leaning, low, high, twisted, folded, touching, tip gone, snapped'],
    ['h, l, p', 'housing scuffed, something lodged, paste'],
    ['shift arrows', 'lean it 0.05 mm that way'],
    ['+ and −', 'raise or lower it by 0.05 mm'],
    ['u', 'not sure of it'],
    ['s', 'begin or end a swath; marks and leans go to all of it'],
    ['space', 'looked at; at a step of the order: there now'],
    ['[ and ]', 'one stroke fewer, one more'],
    ['x', 'it snapped'],
    ['o, b, j', 'after the strokes still short, past it, touching a neighbour'],
    ['y', 'map from photos, and back'],
    ['w', 'sweep the whole field: space proves one look and goes on'],
    ['n', 'look along the row: this contact and the next nine'],
    ['r, m, k', 'turn the view, mirror it, exaggerate leans'],
    ['i, d, f', 'nearer, farther, whole field'],
    ['v', 'read the contact aloud'],
  ],
  triage: [
    ['b', 'note a power-up'],
    ['1 … 9', 'what the test in hand gave'],
    ['c', 'carry it out on the simulated bench'],
  ],
  proof: [
    ['p', 'the next test passed'],
    ['n', 'the next test failed'],
  ],
}

export function KeysSheet({
  open,
  station,
  onClose,
}: {
  open: boolean
  station: Station | null
  onClose: () => void
}) {
  const here = station ? onSurface[station] : undefined
  return (
    <Sheet open={open} title="Keys" onClose={onClose} wide={here !== undefined}>
      <div className={here ? 'grid gap-8 sm:grid-cols-2' : ''}>
        {here && <KeyList title={`On ${station}`} keys={here} />}
        <KeyList title="Everywhere" keys={everywhere} />
      </div>
      <p className="mt-4 text-[0.92rem] text-soft">Single keys rest while you type in a field.</p>
    </Sheet>
  )
}

function KeyList({ title, keys }: { title: string; keys: readonly (readonly [string, string])[] }) {
  return (
    <section>
      <h3 className="mb-1 font-semibold">{title}</h3>
      <dl>
        {keys.map(([key, does]) => (
          <div key={key} className="grid grid-cols-[7rem_1fr] border-t border-line py-1">
            <dt className="num">{key}</dt>
            <dd>{does}</dd>
          </div>
        ))}
      </dl>
    </section>
  )
}

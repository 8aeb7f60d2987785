'use client'
import { useState } from 'react'
import { readMarking } from '@/core/parts/value/marking'
import { sayValue } from '@/core/parts/value/quantity'
import { TextField } from '@/ui/Field'

/** What the figures on a part say, as they are typed. */
export function Marking() {
  const [text, setText] = useState('')
  const readings = readMarking(text)
  return (
    <section className="px-1 pb-4">
      <TextField
        label="Figures and letters on the part"
        value={text}
        onChange={(e) => setText(e.target.value.slice(0, 12))}
        placeholder="103, 68X, 104K, J5"
        className="num max-w-60"
      />
      <ul aria-live="polite" className="mt-3">
        {readings.map((r) => (
          <li key={`${r.kind} ${r.code} ${r.value}`} className="border-b border-line py-2 leading-snug">
            <span className="num text-[1.15rem] font-semibold">{sayValue(r.kind, r.value)}</span>{' '}
            {r.kind === 'resistor' && r.value === 0 ? 'jumper' : r.kind}
            {r.tolerance !== null && <>, ± {Number((r.tolerance * 100).toPrecision(2))} %</>}
            {r.volts !== null && <>, {r.volts} V</>}
            <small className="block text-soft">
              {r.code}
              {r.odd && '; in no series of preferred values: read it again'}
            </small>
          </li>
        ))}
      </ul>
      {text.trim() !== '' && readings.length === 0 && (
        <p className="mt-3">
          No code that is known reads so. Turn the part: 6 and 9 look alike. Most small capacitors carry
          nothing.
        </p>
      )}
    </section>
  )
}

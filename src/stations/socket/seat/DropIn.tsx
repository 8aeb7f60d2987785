'use client'
import type { PinField } from '@/core/socket/straighten/reckon'
import type { Surface } from '@/stations/socket/map/use-surface'

const mm = (value: number) => `${value.toFixed(2)} mm`
/** A way to go in words, seen from above: “0.21 mm left, 0.05 mm away”. */
function sayWay([x, y]: readonly [number, number]): string {
  const sentences = [
    Math.abs(x) >= 0.01 && `${mm(Math.abs(x))} ${x < 0 ? 'left' : 'right'}`,
    Math.abs(y) >= 0.01 && `${mm(Math.abs(y))} ${y < 0 ? 'nearer' : 'away'}`,
  ]
  return sentences.filter(Boolean).join(', ') || 'nowhere'
}

/** Pin-grid: does it drop in without force, which pins bind, which lines are out, where to run the blade. */
export function DropIn({ surface, pins }: { surface: Surface; pins: PinField | null }) {
  if (!pins) return <p className="text-soft">Calculating…</p>
  const { fit, lines, channels } = pins
  const flat = Object.keys(surface.marks).filter((name) => surface.marks[name]!.kind === 'folded')
  const Pin = ({ name }: { name: string }) => (
    <button
      type="button"
      className="num underline decoration-line underline-offset-4"
      onClick={() => surface.go(name)}
    >
      {name}
    </button>
  )
  return (
    <div className="grid gap-x-8 @3xl:grid-cols-2">
      <section>
        <h3 className={`font-semibold ${fit.fits && flat.length === 0 ? 'text-verd' : 'text-ember'}`}>
          {flat.length > 0 && (
            <>
              {flat.map((name, i) => (
                <span key={name}>
                  {i > 0 && ', '}
                  <Pin name={name} />
                </span>
              ))}{' '}
              {flat.length === 1 ? 'lies' : 'lie'} flat: raise {flat.length === 1 ? 'it' : 'them'} first.{' '}
            </>
          )}
          {fit.fits
            ? flat.length > 0
              ? 'The others would drop in'
              : 'It should drop in by itself'
            : 'It would bind: do not push it'}
        </h3>
        <p className="text-soft">
          Laid in the best way ({Math.abs(fit.turnDeg).toFixed(2)}° turned), the worst pin is{' '}
          {mm(fit.worstMm)} from its hole; up to {mm(fit.clearanceMm)} drops in. Flat and missing pins are not
          in this.
        </p>
        {!fit.fits && (
          <ul aria-label="Pins that bind" className="mt-1">
            {fit.binding.map((b) => (
              <li key={b.name} className="border-b border-line py-1">
                <Pin name={b.name} /> binds: ease it {sayWay(b.goMm)}
              </li>
            ))}
          </ul>
        )}
        <h3 className="mt-3 font-semibold">Lines that are out</h3>
        {lines.length === 0 && <p className="text-soft">Every row and column runs straight.</p>}
        <ul>
          {lines.slice(0, 8).map((l) => (
            <li key={`${l.along} ${l.atMm}`} className="border-b border-line py-1">
              {l.along} of <Pin name={l.worst} />: {l.pins.length} {l.pins.length === 1 ? 'pin' : 'pins'} out,
              scatter {mm(l.sigmaMm)}
            </li>
          ))}
        </ul>
      </section>
      <section>
        <h3 className="font-semibold">Channels for the blade, in this order</h3>
        {channels.length === 0 && <p className="text-soft">Nothing leans: no channel needs a blade.</p>}
        <ol>
          {channels.slice(0, 10).map((c) => (
            <li
              key={`${c.along} ${c.betweenMm[0]} ${c.push}`}
              className="border-b border-line py-1 leading-snug"
            >
              Along the {c.along} beside <Pin name={c.pins[0]!} />, pushing {c.push}: {c.pins.length}{' '}
              {c.pins.length === 1 ? 'pin' : 'pins'} ({c.pins.slice(0, 6).join(', ')}
              {c.pins.length > 6 && '…'})
              {c.blockedBy.length > 0 && (
                <b className="font-semibold"> after raising {c.blockedBy.join(', ')}</b>
              )}
            </li>
          ))}
        </ol>
        <p className="mt-1 text-[0.9rem] text-soft">Blunt edge, blade away from the hand, eye protection.</p>
      </section>
    </div>
  )
}

'use client'
import { lifeOf, refsOf } from '@/core/parts/life'
import { useJob } from '@/job/JobProvider'

/** What each part has gone through, from found to fitted and measured; one of them is in hand. */
export function PartLives({ chosen, onChoose }: { chosen: string | null; onChoose: (ref: string) => void }) {
  const parts = useJob((j) => j.state.parts)
  const refs = refsOf(parts)
  return (
    <section className="pt-2.5 pb-4">
      <h2>Parts</h2>
      {refs.length === 0 && (
        <p className="text-soft">
          None noted. Look along the edges of the socket and round the firmware chip: empty pads with shiny
          solder, cracked ends, a part at an angle.
        </p>
      )}
      <dl>
        {refs.map((ref) => {
          const { noted, last, across } = lifeOf(parts, ref)
          const settled = across ? across.fits : last.did === 'fitted'
          const place = noted.findLast((p) => p.place ?? p.net)
          return (
            <div
              key={ref}
              className={`grid grid-cols-[5.4rem_1fr] gap-3 border-b border-line py-2 leading-snug ${ref === chosen ? 'bg-brass-bg' : ''}`}
            >
              <dt className="num text-[1.1rem]">
                <button
                  type="button"
                  aria-pressed={ref === chosen}
                  className="px-1 underline decoration-line underline-offset-4"
                  onClick={() => onChoose(ref)}
                >
                  {ref}
                </button>
              </dt>
              <dd>
                {noted.map((p, i) => (
                  <span key={p.seq}>
                    {i > 0 && ', then '}
                    <span
                      className={
                        i === noted.length - 1 ? `font-semibold ${settled ? 'text-verd' : ''}` : 'text-soft'
                      }
                    >
                      {p.did}
                      {p.how && `, ${p.how}`}
                    </span>
                    {[p.value, p.text].filter(Boolean).length > 0 && (
                      <span className="text-soft"> ({[p.value, p.text].filter(Boolean).join(', ')})</span>
                    )}
                  </span>
                ))}
                {place && (
                  <span className="text-soft">
                    ; {[place.place, place.net && `net ${place.net}`].filter(Boolean).join(', ')}
                  </span>
                )}
                {noted.findLast((p) => p.side)?.side && (
                  <span className="text-soft">; {noted.findLast((p) => p.side)!.side} side</span>
                )}
                {across && (
                  <span className={`block ${across.fits ? 'text-verd' : 'font-semibold text-ember'}`}>
                    {across.say}
                  </span>
                )}
              </dd>
            </div>
          )
        })}
      </dl>
    </section>
  )
}

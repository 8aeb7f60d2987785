'use client'
import { hex } from '@/core/firmware/image/image-bytes'
import type { Verdict } from '@/core/firmware/image/same-code'
import { comparedNow, inHand, writtenNow } from '@/core/firmware/slice'
import { useJob } from '@/job/JobProvider'

const look: Readonly<Record<Verdict, string>> = {
  'same code': 'border-verd',
  'broken off': 'border-ember',
  damaged: 'border-ember',
  'another release': 'border-brass',
  'cannot tell': 'border-slate',
}

/** What the chip’s contents are, what that rests on, and whether anything has come since. */
export function VerdictPanel() {
  const firmware = useJob((j) => j.state.firmware)
  const compared = comparedNow(firmware)
  const written = writtenNow(firmware)
  const { reads, release, older } = inHand(firmware)
  if (!compared)
    return (
      <section id="verdict" className="pt-2.5 pb-3">
        <h2>Is it the firmware?</h2>
        <p className="text-soft">
          Not known yet. Firmware is blamed often and wrongly: two equal reads of the chip beside the maker’s
          release tell, before anything is erased.
        </p>
      </section>
    )
  const before = written !== null && written.seq > compared.seq
  const since = [...reads, release, older].some((i) => i && i.seq > compared.seq)
  return (
    <section
      id="verdict"
      className={`mb-3 border-l-4 pt-2.5 pb-1 pl-3 ${before ? 'border-line' : look[compared.verdict]}`}
    >
      <h2>Is it the firmware?</h2>
      {before && <p>Before the chip was written, and read back byte for byte, it held this:</p>}
      <p className={before ? 'text-soft' : 'font-semibold'}>{compared.say}</p>
      <ul className="mt-1 list-disc pl-5 text-[0.9rem] text-soft">
        {compared.why.map((why) => (
          <li key={why}>{why}</li>
        ))}
        {compared.places.length > 1 && (
          <li className="num">
            {compared.places
              .slice(0, 6)
              .map((r) => hex(r.from))
              .join(', ')}
          </li>
        )}
      </ul>
      {since && <p className="mt-1 text-[0.9rem] text-brass">An image has come since: compare again.</p>}
    </section>
  )
}

import type { Step } from '../board/step'
import { sentence } from '../sentence'
import { percent } from '../maths/percent'
import { countsOwed } from './before-iron'
import type { Iron } from './before-iron'
import { expectedAt } from './count'
import { lifeOf, refsOf } from './life'
import type { PartLife } from './life'
import { waitsFor } from './slice'
import type { PartsState } from './slice'

const at = (say: string, why: string, more: Partial<Step> = {}): Step => ({
  station: 'parts',
  say,
  why,
  ...more,
})

/** What to do next with small parts: the first that is not settled, as far as it has got. */
export function partsStep(parts: PartsState, iron: Iron | null): Step {
  const inHand = partInHand(parts)
  if (inHand) return inHand.step
  const owed = countsOwed(parts, iron)[0]
  if (owed)
    return at(
      `Count the small parts ${owed.place} again: ${expectedAt(parts, owed.place)} should be there.`,
      `Not counted since ${iron!.what}. Hot air and the iron’s tip carry small parts off.`,
      { part: 'count', takes: '1 min' },
    )
  const waits = waitsFor(parts)
  if (waits)
    return at(
      `Waits for ${waits.what}.`,
      waits.expectedOn === null
        ? 'Nobody has said when it comes: no day is promised until then.'
        : 'The bench list reckons with the day it is expected; what can be done without it may go on.',
      { part: 'awaited' },
    )
  if (parts.noted.length === 0)
    return at(
      'Look round the socket and the firmware chip for missing or cracked small parts.',
      'A missing resistor can look like dead firmware.',
    )
  return at(
    'Every part noted is settled: mark the station done, or note another.',
    'Each part found, taken off and fitted stands on the tape; what is off holds the power gate.',
  )
}

/** The first part that is not settled, and what is next for it; null where all are. */
export function partInHand(parts: PartsState): { readonly ref: string; readonly step: Step } | null {
  for (const ref of refsOf(parts)) {
    const step = stepOf(lifeOf(parts, ref))
    if (step) return { ref, step }
  }
  return null
}

/** What is next for one part; null where nothing is. */
function stepOf({ ref, last, found, across, inference }: PartLife): Step | null {
  if (across && !across.fits)
    return at(`${ref} does not read as it must: look at its joints, or take it off.`, sentence(across.say), {
      part: 'pads',
    })
  if (last.did === 'measured' || (!found && last.did !== 'fitted')) return null
  if (last.did === 'fitted')
    return across === null && inference?.expects
      ? at(`Measure across ${ref}.`, `A good joint reads ${inference.expects.say}.`, {
          part: 'pads',
          takes: '1 min',
        })
      : null
  if (last.did === 'found damaged')
    return at(
      `Take ${ref} off, and read its two pads.`,
      'A cracked part reads anything; its pads say what it did.',
      {
        part: 'pads',
      },
    )
  if (!inference)
    return at(
      `What was ${ref}? Read its two pads, unplugged.`,
      'What each pad is on says what the part did.',
      {
        part: 'pads',
        takes: '5 min',
      },
    )
  const [top] = inference.roles
  if (inference.value)
    return at(
      `Fit ${inference.value.say}${inference.sizes[0] ? `, ${inference.sizes[0]},` : ''} at ${ref}.`,
      sentence(
        `${top!.role}, ${percent(top!.odds)}; ${inference.value.by === 'twin' ? 'as its twins' : 'an educated guess on a low-current data line'}`,
      ),
      { part: 'pads' },
    )
  const [next] = inference.next
  // A reading that tells much comes first; where none does, the way on is to look it up.
  if (next && next.tells >= WORTH_READING)
    return at(
      `${ref}: read pad ${next.pad.toUpperCase()}, ${next.what}.`,
      `It tells most of what ${ref} did: ${percent(top!.odds)} ${top!.role} so far.`,
      { part: 'pads', takes: '1 min' },
    )
  return at(`${ref}: ${inference.refused!.ways[0]!}.`, `${inference.refused!.because}.`, { part: 'pads' })
}

/** Least a reading must tell to be asked for before it is looked up, bits (bench default). */
const WORTH_READING = 0.15

import { sayOhms } from '../maths/units'
import { railsOf, sayRail } from '../board/rail'
import { OPEN_OHM, railState } from '../board/rail-limits'
import { some } from './gate-say'
import type { Say } from './gate-say'
import type { PowerEvidence } from './gate-evidence'

/** Said of what was not looked at in a machine that runs. */
export const ITS_LAST_START = '; it came up at its last start'

/** What the readings to ground and the volts say, and which readings are owed. */
export function railReasons(e: PowerEvidence, say: Say): void {
  for (const { say: text, mend } of e.questions) say('closed', 'question', text, 'triage', 'rails', mend)
  for (const reading of e.rails) {
    const state = railState(reading, e.ownRails)
    if (state === 'short')
      say(
        'closed',
        'rail short',
        `${sayRail(reading.rail)} is shorted to ground: ${sayOhms(reading.ohms)}, CPU ${reading.cpu}`,
        'triage',
        'rails',
        `Find the short, then measure it again with the CPU ${reading.cpu}`,
      )
    if (state === 'low')
      say(
        'limit',
        'rail low',
        `${sayRail(reading.rail)} reads low: ${sayOhms(reading.ohms)}, CPU ${reading.cpu}`,
        'triage',
        'rails',
        'Measure again, compare with a good board',
      )
    if (reading.ohms >= OPEN_OHM)
      say(
        'limit',
        'rail open',
        `${sayRail(reading.rail)} read open twice`,
        'triage',
        'rails',
        'Find where the rail is broken off',
      )
  }
  const figured = new Set(e.rails.map((r) => r.rail))
  const told = e.railsToldGood
  const listed = railsOf(e.ownRails)
  const unmeasured = listed.filter((rail) => !figured.has(rail) && !told.includes(rail))
  if (told.length > 0)
    say(
      'limit',
      'rail told',
      `${some(told.map(sayRail))} ${told.length === 1 ? 'is' : 'are'} said to be good, without a figure`,
      'triage',
      'rails',
      'Note the ohms that were read',
    )
  if (unmeasured.length > 0)
    say(
      e.runs ? 'limit' : 'closed',
      'rail unmeasured',
      (unmeasured.length === listed.length
        ? 'No rail is measured yet'
        : `${unmeasured.map(sayRail).join(', ')} not measured`) + (e.runs ? ITS_LAST_START : ''),
      'triage',
      'rails',
      'Measure ohms to ground, unplugged',
    )
  const owed = e.railsOwed.filter((rail) => !unmeasured.includes(rail))
  if (owed.length > 0)
    say(
      e.runs ? 'limit' : 'closed',
      'rail owed',
      `${owed.length === listed.length ? 'Every rail is' : `${owed.map(sayRail).join(', ')} ${owed.length === 1 ? 'is' : 'are'}`} owed again: ${e.railsOwedWhy || 'the board was changed'}${e.runs ? ITS_LAST_START : ''}`,
      'triage',
      'rails',
      'Measure ohms to ground again, unplugged',
    )
  for (const v of e.volts) {
    const where = v.cpu === null ? '' : `, CPU ${v.cpu}`
    if (v.is === 'too high' && !v.workedOn)
      say(
        'closed',
        'volts high',
        `${sayRail(v.rail)} was at ${v.volts} V${where}: too high`,
        'triage',
        'rails',
        'Take the CPU out, put right what feeds the rail, measure every rail to ground',
      )
    else
      say(
        'limit',
        v.is === 'low' ? 'volts low' : 'volts high',
        `${sayRail(v.rail)} was at ${v.volts} V${where}: ${v.is}`,
        'triage',
        'rails',
        'Read its volts again under a limit, with the same fitted',
      )
  }
}

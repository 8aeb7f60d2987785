import { ITS_LAST_START, railReasons } from './gate-rails'
import { some } from './gate-say'
import type { Say } from './gate-say'
import { shortReasons } from './gate-shorts'
import type { PowerEvidence } from './gate-evidence'
import type { GateReason, PowerGate } from '../board/gate-reason'
import { FIRST_POWER_MOST_A } from '../board/power-history'

/** Share of the field that may be not looked at before the gate is closed; any of it limits (bench default). */
const NEARLY_ALL = 0.05
const seatSays = {
  proud: 'The CPU stayed proud when it was last seated',
  'needed force': 'The CPU needed force when it was last seated',
  turned: 'The CPU’s mark and the socket’s did not meet',
  'light push': 'The CPU wanted a light push',
} as const

/**
 * May this board be powered? A pure function of the evidence: the gravest reason decides the lamp.
 * Adding a hazard never opens the gate (a property that is tested). The gate advises; local rules and licensed
 * practice come first.
 */
export function powerGate(e: PowerEvidence): PowerGate {
  const reasons: GateReason[] = []
  const say: Say = (level, code, text, station, part, mend) =>
    reasons.push({ level, code, text, at: { station, part, say: mend } })

  shortReasons(e.shorts, say)
  for (const { contact, nets } of e.touchesUnnamed)
    say(
      'closed',
      'short',
      `${contact} touches a neighbour that is not named: ${nets}`,
      'socket',
      contact,
      `Say which neighbour ${contact} touches, and separate them`,
    )
  for (const name of e.lodged)
    say('closed', 'lodged', `Something is lodged at ${name}`, 'socket', name, 'Take it out, then look again')
  for (const item of e.unaccounted)
    say(
      'closed',
      'unaccounted',
      `${item} is not accounted for`,
      'socket',
      'ledger',
      'Find it, or say where it went',
    )
  railReasons(e, say)
  if (e.seat !== null)
    say(
      e.seat === 'light push' && e.pinGrid ? 'limit' : 'closed',
      'seat',
      seatSays[e.seat],
      'socket',
      'seat',
      'Take it out, find what holds it up, seat it again: it must fall flat by itself',
    )
  if (e.socketFound)
    say('closed', 'socket', `The socket: ${e.socketFound}`, 'socket', 'map', 'Part them, then look again')
  for (const name of e.lostSense)
    if (e.cpuFitted)
      say(
        'closed',
        'sense lost',
        `${name} carries voltage sense and makes no contact`,
        'socket',
        name,
        'Repair it or take the CPU out',
      )
  if (e.lostUnknown.length > 0 && e.cpuFitted)
    say(
      'limit',
      'unknown lost',
      `${some(e.lostUnknown)} ${e.lostUnknown.length === 1 ? 'makes' : 'make'} no contact, and nobody knows what ${e.lostUnknown.length === 1 ? 'it carries' : 'they carry'}`,
      'socket',
      e.lostUnknown[0]!,
      'Find its function, repair it or take the CPU out',
    )
  lookReasons(e, say)
  if (e.cpuFitted && !e.heatsink)
    say(
      'closed',
      'no heatsink',
      'CPU fitted, no heatsink noted',
      'triage',
      'fitted',
      'Fit the heatsink or take the CPU out',
    )
  if (e.clipOn) {
    say(
      'closed',
      'clip on',
      'The programmer’s clip is on the firmware chip',
      'firmware',
      'clip',
      'Take the clip off before any power',
    )
    if (e.chipVolts !== null && e.programmerVolts !== null && e.programmerVolts > e.chipVolts * 1.1)
      say(
        'closed',
        'chip volts',
        `Programmer at ${e.programmerVolts} V on a ${e.chipVolts} V chip`,
        'firmware',
        'chip',
        'Use the right adapter',
      )
  }
  if (e.chipFault)
    say('closed', 'chip fitted', e.chipFault, 'firmware', 'refit', 'Fit it, and look at it point by point')
  if (e.standbyHot)
    say('limit', 'standby', 'Standby draws too much', 'triage', 'baseline', 'Find what gets warm on standby')
  if (e.tripped)
    say('closed', 'supply trips', 'The supply tripped', 'triage', 'rails', 'Measure every rail again')
  if (!e.provedUnderLimit) {
    const noLimit = e.supplyLimitA === null || e.supplyLimitA > FIRST_POWER_MOST_A
    const text = noLimit
      ? `First power after a change${e.changedWhat ? ` (${e.changedWhat})` : ''}: set a current limit`
      : `First power after a change${e.changedWhat ? ` (${e.changedWhat})` : ''}: limit ${e.supplyLimitA} A, standby first`
    say(
      'limit',
      'first power',
      e.provedNothing ? `${text}; the last start proved nothing: ${e.provedNothing}` : text,
      'triage',
      'baseline',
      noLimit
        ? `Set a limit of up to ${FIRST_POWER_MOST_A} A, power up and note what it does`
        : 'Power up with the limit set and note what it does',
    )
  }
  reasons.sort((a, b) => (a.level === b.level ? 0 : a.level === 'closed' ? -1 : 1))
  const lamp = reasons.some((r) => r.level === 'closed')
    ? 'do not power'
    : reasons.length > 0
      ? 'limit the current'
      : 'clear'
  return { lamp, reasons }
}

function lookReasons(e: PowerEvidence, say: Say): void {
  if (e.contacts === 0)
    say(
      'limit',
      'no socket',
      'No socket is chosen, so its contacts are not judged',
      'intake',
      'board',
      'Choose the socket in the ticket',
    )
  else if (e.notLooked === e.contacts)
    say(
      e.runs ? 'limit' : 'closed',
      'not looked',
      `Nobody has looked at the socket yet${e.runs ? ITS_LAST_START : ''}`,
      'socket',
      'map',
      'Look at the whole field',
    )
  else {
    if (e.notLooked > 0)
      say(
        e.notLooked > NEARLY_ALL * e.contacts && !e.runs ? 'closed' : 'limit',
        'not looked',
        `${e.notLooked} of ${e.contacts} contacts not inspected`,
        'socket',
        'map',
        'Look at the rest',
      )
    if (e.notLookedNear.length > 0)
      say(
        'closed',
        'not looked near',
        `${some(e.notLookedNear)} close to damage and not inspected`,
        'socket',
        e.notLookedNear[0]!,
        'Look all round what is damaged',
      )
  }
  for (const hazard of e.hazards)
    say('closed', 'hazard', hazard, 'triage', 'look', 'Clean or clear it, then look again')
  for (const look of e.notTold)
    say(
      'closed',
      'not told',
      `${look}: nobody has said whether it speaks against power`,
      'triage',
      'look',
      'Look again and say what it is',
    )
  if (!e.lookedOutside)
    say(
      e.ranHere ? 'limit' : 'closed',
      'outside',
      'Nobody has looked over the outside of the board',
      'triage',
      'look',
      'Look over both sides before the first power',
    )
  for (const part of e.damagedParts)
    say('limit', 'part damaged', `${part} is damaged`, 'parts', part, 'Take it off or replace it')
  if (e.paste.length > 0)
    say(
      'limit',
      'paste',
      `Heat paste on ${some(e.paste)}`,
      'socket',
      e.paste[0]!,
      'Clean it: some pastes conduct',
    )
}

import { sayMark } from '../socket/mark'
import { railWords } from './entry'
import { hazardWords } from './hazard'
import { itemId } from './ledger'
import type { Entry } from './entry'

/** One line of the tape as it is read at the bench. */
export function sayEntry(entry: Entry): string {
  const e = entry
  switch (e.kind) {
    case 'ticket': {
      const fields = Object.keys(e.body.set)
      return e.body.set.complaint
        ? `ticket: ${e.body.set.complaint}`
        : `ticket: ${fields.map((f) => fieldWords[f] ?? f).join(', ')}`
    }
    case 'claim':
      return e.body.text
    case 'claim checked':
      return `checked line ${e.body.claim}: ${e.body.verdict}${e.body.how ? `, ${e.body.how}` : ''}`
    case 'consent':
      return `owner agreed to ${e.body.risks.length} ${e.body.risks.length === 1 ? 'risk' : 'risks'}${e.body.how ? `, ${e.body.how}` : ''}`
    case 'offer':
      return `changed offer: ${e.body.text}`
    case 'offer answered':
      return `owner ${e.body.approved ? 'approves' : 'refuses'} the offer${e.body.how ? ` (${e.body.how})` : ''}`
    case 'photo':
      return `photo, ${e.body.caption || e.body.name}`
    case 'note':
    case 'decision':
      return e.kind === 'decision' ? `decided: ${e.body.text}` : e.body.text
    case 'rail':
      return `${railWords[e.body.rail]} to ground ${e.body.ohms} Ω, CPU ${e.body.cpu}`
    case 'volts':
      return `${railWords[e.body.rail]} at ${e.body.volts} V`
    case 'cell':
      return `${e.body.isNew ? 'new ' : ''}cell ${e.body.volts} V${e.body.where === 'at the board' ? ' at the board' : ''}`
    case 'codes':
      return `codes ${e.body.codes.join(' ') || 'none'}${e.body.watchedS === undefined ? '' : `, watched ${Math.round(e.body.watchedS)} s`}`
    case 'current': {
      const b = e.body
      const said = {
        none: 'nothing',
        standby: 'standby only',
        steady: b.plateauA === null ? 'steady' : `steady ${b.plateauA.toFixed(2)} A`,
        cycling: b.periodS === null ? 'cycles' : `cycles every ${b.periodS.toFixed(1)} s`,
        trips: 'trips',
      }[b.pattern]
      return `current recorded: ${said}, peak ${b.peakA.toFixed(2)} A`
    }
    case 'swap':
      return `${e.body.what} ${e.body.part} in ${e.body.place}: ${e.body.outcome}`
    case 'runs': {
      const b = e.body
      const said = [
        b.seenMTs !== null && `memory at ${b.seenMTs}${b.ratedMTs === null ? '' : ` of ${b.ratedMTs}`} MT/s`,
        b.startS !== null && `starts in ${b.startS} s`,
        b.settingsKept !== null && `settings ${b.settingsKept ? 'kept' : 'lost'}`,
      ]
      return `runs: ${said.filter(Boolean).join(', ') || 'nothing noted'}`
    }
    case 'claim weighed':
      return `line ${e.body.claim} means ${e.body.test}: ${e.body.outcome}, believed ${Math.round(e.body.reliability * 100)} in a hundred`
    case 'baseline': {
      const b = e.body
      const said = [
        b.fans !== 'not noted' && `fans ${b.fans}`,
        b.current !== 'not noted' && `current ${b.current}${b.amps === null ? '' : ` ${b.amps} A`}`,
        b.lamp !== 'not noted' && `lamp ${b.lamp === 'cpu' ? 'CPU' : b.lamp}`,
        b.beeps && `beeps ${b.beeps}`,
        b.cpuHeat !== 'not noted' && `CPU ${b.cpuHeat}`,
        b.codes.length > 0 && `codes ${b.codes.join(' ')}`,
        b.picture !== 'not noted' && `picture ${b.picture}`,
      ]
      return `powered: ${said.filter(Boolean).join(', ') || 'nothing noted'}`
    }
    case 'fitted': {
      const b = e.body
      const said = [
        b.cpu !== undefined && (b.cpu === null ? 'CPU out' : `CPU ${b.cpu}`),
        b.heatsink !== undefined && `heatsink ${b.heatsink ? 'on' : 'off'}`,
        b.modules && `memory in ${b.modules.join(', ') || 'no slot'}`,
        b.card !== undefined && (b.card ? `card ${b.card}` : 'no card'),
      ]
      return `fitted: ${said.filter(Boolean).join(', ')}`
    }
    case 'supply':
      return e.body.limitA === null ? 'supply: limit off' : `supply: limit ${e.body.limitA} A`
    case 'look':
      return `looked at ${e.body.what}: ${e.body.seen}${e.body.hazard && e.body.hazard !== 'harmless' ? ` (${hazardWords[e.body.hazard]})` : ''}`
    case 'pass':
      return `new pass: ${e.body.name}`
    case 'looked':
      return e.body.contacts === 'all'
        ? 'whole field looked at'
        : `${e.body.contacts.length} contacts looked at`
    case 'mark':
      return e.body.contacts.length === 1
        ? `${e.body.contacts[0]} ${sayMark(e.body.mark)}`
        : `${e.body.contacts.length} contacts ${sayMark(e.body.mark)}`
    case 'stroke':
      return `${e.body.contact} ${e.body.technique}, ${e.body.strokes} ${e.body.strokes === 1 ? 'stroke' : 'strokes'}, ${e.body.result}`
    case 'left':
      return `${e.body.contact} left as it is: ${e.body.why}`
    case 'replaced': {
      const b = e.body
      const out = b.pulledOut.length > 0 ? `; ${b.pulledOut.join(', ')} came out with it` : ''
      return b.how === 'whole socket'
        ? `whole socket changed${b.holds ? '' : ', it does not hold'}`
        : `${b.contact}: ${b.how}${b.donor ? ` from ${b.donor}` : ''}, ${b.holds ? 'it holds' : 'it does not hold'}${out}`
    }
    case 'school':
      return e.body.school === 'A' ? 'order: easy ones first' : 'order: worst first'
    case 'seat':
      return `seated ${e.body.cpu}: ${e.body.drop}${e.body.corner ? ` at the ${e.body.corner} corner` : ''}${e.body.turned ? ', turned' : ''}`
    case 'missing':
      return `to be accounted for: ${e.body.what}`
    case 'accounted': {
      const [line, index] = itemId(e.body.item).split('/')
      return `line ${line}${index === '0' ? '' : `, piece ${Number(index) + 1},`} accounted for: ${e.body.where}`
    }
    case 'firmware': {
      const b = e.body
      const said = [
        b.version && `version ${b.version} seen`,
        b.chip && `chip ${b.chip}`,
        b.chipVolts !== undefined && `${b.chipVolts} V chip`,
        b.programmerVolts !== undefined && `programmer at ${b.programmerVolts} V`,
        b.clipOn !== undefined && `clip ${b.clipOn ? 'on' : 'off'}`,
        b.did,
      ]
      return said.filter(Boolean).join(', ')
    }
    case 'part':
      return [`${e.body.ref} ${e.body.did}`, e.body.value, e.body.text].filter(Boolean).join(', ')
    case 'trial':
      return `${e.body.test}: ${e.body.outcome}`
    case 'mended':
      return `mended: ${e.body.fault}`
    case 'proof':
      return `${e.body.test}: ${e.body.result}${e.body.reading ? `, ${e.body.reading}` : ''}${despite(e.body)}`
    case 'advice':
      return `advice: ${e.body.text}`
    case 'hand-back':
      return `${e.body.outcome === 'withdrawn' ? 'withdrawn: begun by mistake' : `handed back: ${e.body.outcome}`}${despite(e.body)}`
    case 'late outcome':
      return `later: ${e.body.text}`
    case 'clock':
      return e.body.run ? `clock on ${e.body.run}` : 'clock paused'
    case 'station':
      return `${e.body.station} ${e.body.mark}${e.body.why ? `: ${e.body.why}` : ''}`
    case 'strike':
      return e.strikes === null ? `struck nothing: ${e.body.why}` : `struck line ${e.strikes}: ${e.body.why}`
  }
}

const despite = (body: { readonly despite?: readonly string[] }) =>
  body.despite?.length ? ` (despite: ${body.despite.join('; ')})` : ''

export const fieldWords: Readonly<Record<string, string>> = {
  boardModelId: 'board model',
  board: 'board',
  revision: 'revision',
  serial: 'serial',
  socketId: 'socket',
  use: 'use',
  complaint: 'complaint',
  cpu: 'CPU',
  memory: 'memory',
  history: 'history',
  valueMinor: 'value',
  limitMinor: 'price limit',
  minutesPromised: 'minutes promised',
  promisedAt: 'promised',
  warranty: 'warranty',
  warrantyDecision: 'warranty decision',
  diskLock: 'disk lock',
}

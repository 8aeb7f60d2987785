import { damageKinds } from './mark'
import type { Mark } from './mark'
import { compass } from './open-side'
import type { Compass } from './open-side'
import { contactOf, readNumber } from '../../tables/read-number'

const short: Readonly<Record<string, Compass>> = {
  e: 'east',
  ne: 'north-east',
  n: 'north',
  nw: 'north-west',
  w: 'west',
  sw: 'south-west',
  s: 'south',
  se: 'south-east',
}
const wayOf = (word: string): Compass | null =>
  compass.find((c) => c === word || c.replace('-', '') === word) ?? short[word] ?? null

/** What of a mark can be measured, by its kind. */
const measure: Readonly<Partial<Record<Mark['kind'], 'lean' | 'height' | 'twist'>>> = {
  lean: 'lean',
  low: 'height',
  high: 'height',
  twisted: 'twist',
}

/**
 * What was seen of a contact, as typed after `mark`: a contact, a kind, how far and which way, on whom. Every word is
 * either understood or asked about: nothing is half read.
 * @returns the contact and its mark, or a sentence that says what is missing
 */
export function readMark(
  rest: readonly string[],
): { readonly contact: string; readonly mark: Mark } | string {
  const contact = contactOf(rest[0])
  if (!contact) return `“${rest[0] ?? ''}” is no contact; say it like M31`
  const said = rest.slice(1).join(' ').toLowerCase()
  const kind = [...damageKinds]
    .sort((a, b) => b.length - a.length)
    .find((k) => said === k || said.startsWith(`${k} `))
  if (!kind) return `what is wrong with ${contact}? one of ${damageKinds.join(', ')}`
  const tail = said.slice(kind.length).trim().split(/\s+/).filter(Boolean)

  const on = tail.indexOf('on')
  const touches = on >= 0 ? contactOf(tail[on + 1]) : null
  if (on >= 0 && !touches) return `on which contact? “${tail[on + 1] ?? ''}” is none`
  if (touches === contact) return `${contact} cannot touch itself`
  if (on >= 0 && tail.length > on + 2) return `“${tail.slice(on + 2).join(' ')}” is not understood`
  if (kind === 'touching' && !touches) return `which contact does ${contact} touch? end with: on P14`
  if (touches && (kind === 'snapped' || kind === 'intact' || kind === 'tip gone'))
    return `what is ${kind} touches nothing`

  let way: Compass | null = null
  let figure: string | null = null
  for (const word of on >= 0 ? tail.slice(0, on) : tail) {
    const read = wayOf(word)
    if (read ? way !== null : figure !== null) return `“${word}” is one too many`
    if (read) way = read
    else figure = word
  }
  const measured = measure[kind]
  if (figure !== null && !measured) return `“${figure}” is not understood: ${kind} is not measured`
  if (way !== null && measured !== 'lean')
    return `${kind} has no way; if it also leans, say so in a line of its own: mark ${contact} lean 0.2 ${way}`
  const size = figure === null ? null : readNumber(figure, measured === 'twist' ? '°' : 'mm')
  if (figure !== null && size === null)
    return measured === 'twist' ? `“${figure}” is no angle in degrees` : `“${figure}” is no distance in mm`
  const most = measured === 'twist' ? 360 : 5
  if (size !== null && Math.abs(size) > most)
    return measured === 'twist' ? `“${figure!}” is no angle up to 360°` : `“${figure!}” is no distance in mm`
  if (measured === 'lean' && (size === null || way === null || size <= 0))
    return `how far does it lean, and which way? like: mark ${contact} lean 0.2 west`
  const turn = way === null ? 0 : (compass.indexOf(way) * Math.PI) / 4
  const part = (share: number) => Math.round(size! * share * 1000) / 1000 + 0 // no −0
  return {
    contact,
    mark: {
      kind,
      ...(kind === 'low' && size !== null ? { heightMm: -Math.abs(size) } : {}),
      ...(kind === 'high' && size !== null ? { heightMm: Math.abs(size) } : {}),
      ...(kind === 'twisted' && size !== null ? { twistDeg: size } : {}),
      ...(kind === 'lean' ? { leanMm: [part(Math.cos(turn)), part(Math.sin(turn))] as const } : {}),
      ...(touches ? { touches } : {}),
    },
  }
}

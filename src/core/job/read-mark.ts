import { damageKinds } from '../socket/mark'
import type { Mark } from '../socket/mark'
import { compass } from '../socket/open-side'
import { contactOf, readNumber } from './read-number'

/**
 * What was seen of a contact, as typed after `mark`: a contact, a kind, how far and which way, on whom.
 * @returns the contact and its mark, or a sentence that says what is missing
 */
export function readMark(
  rest: readonly string[],
): { readonly contact: string; readonly mark: Mark } | string {
  const contact = contactOf(rest[0])
  if (!contact) return `“${rest[0] ?? ''}” is no contact; say it like M31`
  const said = rest.slice(1).join(' ').toLowerCase()
  const kind = [...damageKinds].sort((a, b) => b.length - a.length).find((k) => said.startsWith(k))
  if (!kind) return `what is wrong with ${contact}? one of ${damageKinds.join(', ')}`
  const tail = said.slice(kind.length).trim().split(/\s+/).filter(Boolean)

  const on = tail.indexOf('on')
  const touches = on >= 0 ? contactOf(tail[on + 1]) : null
  if (on >= 0 && !touches) return `on which contact? “${tail[on + 1] ?? ''}” is none`
  if (touches === contact) return `${contact} cannot touch itself`
  if (kind === 'touching' && !touches) return `which contact does ${contact} touch? end with: on P14`

  const before = on >= 0 ? tail.slice(0, on) : tail
  const way = compass.find((c) => before.includes(c)) ?? 'east'
  const figure = before.find((word) => !compass.some((c) => c === word))
  const mm = figure === undefined ? null : readNumber(figure)
  if (figure !== undefined && (mm === null || Math.abs(mm) > 5)) return `“${figure}” is no distance in mm`
  if (kind === 'lean' && mm === null)
    return `how far does it lean, and which way? like: mark ${contact} lean 0.2 west`
  const turn = (compass.indexOf(way) * Math.PI) / 4
  const part = (share: number) => Math.round(mm! * share * 1000) / 1000 + 0 // no −0
  return {
    contact,
    mark: {
      kind,
      ...(kind === 'low' && mm !== null ? { heightMm: -Math.abs(mm) } : {}),
      ...(kind === 'high' && mm !== null ? { heightMm: Math.abs(mm) } : {}),
      ...(kind === 'lean' ? { leanMm: [part(Math.cos(turn)), part(Math.sin(turn))] as const } : {}),
      ...(touches ? { touches } : {}),
    },
  }
}

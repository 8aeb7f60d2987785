import { micrometre } from '../../maths/units'
import { onSocket, neighboursOf } from '../model/walk'
import type { View } from '../map/display-list'
import { USUAL_LEAN_MM } from './mark'
import type { DamageKind, Mark } from './mark'
import type { Socket } from '../model/socket'

const intact: Mark = { kind: 'intact' }
const isHeight = (kind: DamageKind) => kind === 'low' || kind === 'high'

/** The mark without the fields that say nothing. */
function tidy(mark: Mark): Mark {
  return Object.fromEntries(
    Object.entries(mark).filter(([, value]) => value !== undefined),
  ) as unknown as Mark
}

/**
 * A kind set by hand: keeps the measures that still mean something; a lean set by its key alone is about the usual one,
 * to the right as it is seen, until arrows correct it. Which neighbour it touches or lies over is asked, never picked:
 * pressed again, it goes round them.
 */
export function withKind(socket: Socket, view: View, name: string, before: Mark, kind: DamageKind): Mark {
  if (kind === 'intact' || kind === 'snapped' || kind === 'tip gone') return { kind }
  const height = before.heightMm ?? 0
  const kept =
    (kind === 'low' && height > 0) || (kind === 'high' && height < 0) || kind === 'lean' ? 0 : height
  const [ux, uy] = onSocket(view, [1, 0])
  const first = [micrometre(ux * USUAL_LEAN_MM), micrometre(uy * USUAL_LEAN_MM)] as const
  const around = kind === 'touching' || kind === 'folded' ? neighboursOf(socket, name) : []
  const again = before.kind === kind && around.length > 0
  const touches = again
    ? around[(around.indexOf(before.touches ?? '') + 1) % around.length]
    : around.includes(before.touches ?? '')
      ? before.touches
      : undefined
  return tidy({
    kind,
    leanMm: kind === 'lean' ? (before.leanMm ?? first) : before.leanMm,
    heightMm: kept === 0 ? undefined : kept,
    touches,
    about: (kind === 'lean' && !before.leanMm) || (before.about && before.leanMm) ? true : undefined,
  })
}

/** A lean of this size; a contact that only leaned and leans no more is intact. */
export function leaning(before: Mark, leanMm: readonly [number, number]): Mark {
  const gone = before.kind === 'snapped' || before.kind === 'tip gone'
  const kind = before.kind === 'intact' || gone ? 'lean' : before.kind
  const none = Math.hypot(...leanMm) < 0.005
  if (none && kind === 'lean') return intact
  const lean = [micrometre(leanMm[0]), micrometre(leanMm[1])] as const
  return tidy({ ...(gone ? {} : before), kind, leanMm: none ? undefined : lean, about: undefined })
}

/** A height of this size, below zero for low; the kind follows unless it says something else than height. */
export function raised(before: Mark, heightMm: number): Mark {
  const gone = before.kind === 'snapped' || before.kind === 'tip gone'
  const mm = micrometre(heightMm)
  const plain = before.kind === 'intact' || before.kind === 'lean' || gone || isHeight(before.kind)
  const kept = gone ? intact : before
  if (!plain) return tidy({ ...kept, heightMm: mm === 0 ? undefined : mm })
  if (mm === 0) return kept.leanMm ? tidy({ ...kept, kind: 'lean', heightMm: undefined }) : intact
  return tidy({ ...kept, kind: mm < 0 ? 'low' : 'high', heightMm: mm })
}

/** Sure or not sure of it; an intact contact is not doubted. */
export const doubted = (before: Mark): Mark =>
  before.kind === 'intact' ? before : tidy({ ...before, unsure: before.unsure ? undefined : true })

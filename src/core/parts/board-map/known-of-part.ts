import { placeOfNet } from '../found'
import type { PartPlace } from '../found'
import { kindOfNet } from '../missing/pad'
import { kindOfRef, readValue } from '../value/quantity'
import { twinsOf } from './board-map'
import type { IndexedMap } from './board-map'

/** What a map knows of a part of two pads. */
export interface PadsByMap {
  readonly a: string
  readonly b: string
  /** From the middle of one pad to that of the other. */
  readonly padsMm: number
  readonly twins: readonly { readonly ref: string; readonly value: number | null }[]
}

/** Nets, spacing and twins of a part of two pads; null for any other. */
export function padsByMap(of: IndexedMap, ref: string): PadsByMap | null {
  const pins = of.parts.get(ref)?.pins
  if (pins?.length !== 2) return null
  const [a, b] = pins as [(typeof pins)[number], (typeof pins)[number]]
  return {
    a: a.net,
    b: b.net,
    padsMm: Math.round(Math.hypot(a.xMm - b.xMm, a.yMm - b.yMm) * 100) / 100,
    twins: twinsOf(of, ref).map((twin) => {
      const { value } = of.parts.get(twin)!
      return { ref: twin, value: value === '' ? null : readValue(kindOfRef(twin) ?? 'resistor', value) }
    }),
  }
}

/** The net that tells most of where a part belongs: the first that is neither ground nor supply; else the first that has a name. */
export function netOfPart({ parts }: IndexedMap, ref: string): string | null {
  const nets = (parts.get(ref)?.pins ?? []).map((p) => p.net).filter((net) => net !== '')
  const plain = (net: string) => {
    const kind = kindOfNet(net)
    return kind !== 'ground' && kind !== 'supply'
  }
  return nets.find(plain) ?? nets.find((net) => kindOfNet(net) !== 'ground') ?? nets[0] ?? null
}

/** Small parts (two pads) with a line of a place: those to look at when something is amiss there. */
export const smallPartsAt = ({ parts }: IndexedMap, place: PartPlace): readonly string[] =>
  [...parts.values()]
    .filter((p) => p.pins.length === 2 && p.pins.some((pin) => placeOfNet(pin.net) === place))
    .map((p) => p.ref)
    .sort((a, b) => a.localeCompare(b, 'en', { numeric: true }))

/** A net on which several things that were found come together. */
export interface Meeting {
  readonly net: string
  readonly contacts: readonly string[]
  readonly parts: readonly string[]
}

/**
 * Nets on which damage meets: damaged contacts and found parts, or two found parts. One cause may be behind both, and
 * what is seen of either may be the other’s doing. Everything is on ground: that says nothing.
 */
export function meetings(
  { parts }: IndexedMap,
  contactNets: ReadonlyMap<string, string>,
  contacts: readonly string[],
  refs: readonly string[],
): readonly Meeting[] {
  const by = new Map<string, { contacts: Set<string>; parts: Set<string> }>()
  const at = (net: string) => {
    const known = by.get(net) ?? { contacts: new Set<string>(), parts: new Set<string>() }
    by.set(net, known)
    return known
  }
  const says = (net: string | undefined): net is string =>
    net !== undefined && net !== '' && kindOfNet(net) !== 'ground'
  for (const contact of contacts) {
    const net = contactNets.get(contact)
    if (says(net)) at(net).contacts.add(contact)
  }
  for (const ref of refs)
    for (const { net } of parts.get(ref)?.pins ?? []) if (says(net)) at(net).parts.add(ref)
  return [...by]
    .filter(([, m]) => m.parts.size > 1 || (m.parts.size > 0 && m.contacts.size > 0))
    .map(([net, m]) => ({ net, contacts: [...m.contacts], parts: [...m.parts] }))
    .sort((a, b) => a.net.localeCompare(b.net, 'en', { numeric: true }))
}

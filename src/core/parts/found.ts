import { kindOfNet } from './missing/pad'

/** Where on the board a part was found missing or broken, as far as faults are told apart by it. */
export const partPlaces = [
  'at the firmware chip',
  'at the core regulator',
  'at memory',
  'at the chipset',
  'elsewhere',
] as const
export type PartPlace = (typeof partPlaces)[number]

/** What was wrong with a part that is still there. */
export const partDamages = ['cracked', 'burnt', 'bridged', 'off its pads'] as const
export type PartDamage = (typeof partDamages)[number]

/** Whether a line says that a part was found missing or broken. */
export const isFound = ({ did }: { readonly did: string }): boolean =>
  did === 'found missing' || did === 'found damaged'

/** Words in the name of a net that say where it belongs. */
const belongs: readonly (readonly [PartPlace, RegExp])[] = [
  ['at the firmware chip', /spi|flash|bios|firmware|(^|_)fw(_|$)/i],
  ['at memory', /mem|ddr|dimm|(^|_)(dq|ma|mb)_?\d/i],
  ['at the core regulator', /vcore|vr_|phase\d|(^|_)core(_|$)|vcc_?cpu/i],
  ['at the chipset', /pch|fch|chipset/i],
]

/** Where a net belongs, by its name; null where that says nothing. A sense or feedback line is the regulator’s. */
export function placeOfNet(net: string): PartPlace | null {
  const kind = kindOfNet(net)
  const named = belongs.find(([, words]) => words.test(net))?.[0] ?? null
  return named === null && (kind === 'sense' || kind === 'feedback') ? 'at the core regulator' : named
}

/** Where a found part is: as it was told, else by its net, else by how it was put in words. */
export const placeOfPart = ({
  place,
  net,
  text,
}: {
  readonly place?: PartPlace
  readonly net?: string
  readonly text?: string
}): PartPlace =>
  place ??
  (net === undefined ? null : placeOfNet(net)) ??
  (/\bchip\b/i.test(text ?? '') ? 'at the firmware chip' : 'elsewhere')

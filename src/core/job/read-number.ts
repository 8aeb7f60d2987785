const prefix: Readonly<Record<string, number>> = { k: 1e3, K: 1e3, M: 1e6, m: 1e-3 }

/** A number with or without its unit: `1.8`, `1,8`, `1.8ohm`, `4.7k`, `1M`, `250mV`; null when it is none. */
export function readNumber(text: string | undefined): number | null {
  const match = /^([+-]?\d+(?:[.,]\d+)?)\s*([kKmM]?)([vVaAΩω]|[oO]hms?|[mM]{2})?$/.exec((text ?? '').trim())
  if (!match) return null
  return Number(match[1]!.replace(',', '.')) * (prefix[match[2]!] ?? 1)
}

/** A contact's name as it is written on the map, or null. */
export const contactOf = (text: string | undefined) =>
  /^[a-z]{1,3}\d{1,3}$/i.test(text ?? '') ? text!.toUpperCase() : null

const prefix: Readonly<Record<string, number>> = { k: 1e3, K: 1e3, M: 1e6, m: 1e-3, '': 1 }

/** What is measured; a number with another unit behind it is none. */
export type Unit = 'Ω' | 'V' | 'A' | 'mm' | 's' | '°'

const unitOf = (text: string): Unit | null => {
  if (text === '') return null
  if (/^([Ωω\u2126]|ohms?)$/i.test(text)) return 'Ω'
  if (/^v$/i.test(text)) return 'V'
  if (/^a$/i.test(text)) return 'A'
  if (text === 'mm') return 'mm'
  if (/^s$/i.test(text)) return 's'
  return '°'
}

/**
 * A number with or without its unit: `1.8`, `1,8`, `.5`, `1.8ohm`, `4.7k`, `4k7`, `1M`, `250mV`; null when it is none.
 * `10,000` is none: it may be ten or ten thousand. `0,125` is one eighth.
 *
 * @param unit what is measured; another unit behind the number makes it none
 */
export function readNumber(text: string | undefined, unit?: Unit): number | null {
  const said = (text ?? '').trim()
  const infix = /^(\d+)([kKMRr])(\d+)\s*([Ωω\u2126]|[oO]hms?)?$/.exec(said)
  if (infix) {
    if (unit !== undefined && unit !== 'Ω') return null
    return Number(`${infix[1]}.${infix[3]}`) * (prefix[infix[2]!] ?? 1)
  }
  const match = /^([+-]?(?:\d+(?:[.,]\d+)?|[.,]\d+))\s*(mm|([kKmM]?)([vVaAsS°Ωω\u2126]|[oO]hms?|deg)?)$/.exec(
    said,
  )
  if (!match) return null
  const [, number, tail, scale = '', named = ''] = match
  const is = tail === 'mm' ? 'mm' : unitOf(named)
  if (unit !== undefined && is !== null && is !== unit) return null
  if (/^[+-]?[1-9]\d*,\d{3}$/.test(number!)) return null
  return Number(number!.replace(',', '.')) * (tail === 'mm' ? 1 : prefix[scale]!)
}

/** What to say of a text that is no number of that kind. */
export function notRead(text: string): string {
  if (/^o\.?l\.?$|^inf|^∞$/i.test(text.trim()))
    return `“${text}” is beyond the meter’s range: set a higher range, or see that the probe is on`
  if (/^[+-]?[1-9]\d*,\d{3}$/.test(text.trim()))
    return `“${text}” may be ${text.replace(',', '.')} or ${text.replace(',', '')}: write one of the two`
  return `“${text}” is no number here`
}

/** A contact’s name as it is written on the map, or null. */
export const contactOf = (text: string | undefined) =>
  /^[a-z]{1,3}\d{1,3}$/i.test(text ?? '') ? text!.toUpperCase() : null

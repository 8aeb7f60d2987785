/** For whom numbers, money and moments are written: the same on the server, in the browser and on paper. */
export interface Reader {
  /** A BCP 47 tag, such as `en-GB`. */
  readonly locale: string
  /** An IANA zone, such as `Europe/Oslo`. */
  readonly zone: string
  /** The shop's money, as it stands behind an amount. */
  readonly currency: string
}

export const usualReader: Reader = { locale: 'en-GB', zone: 'UTC', currency: 'kr' }

const moments = {
  time: { hour: 'numeric', minute: '2-digit' },
  day: { weekday: 'short', day: 'numeric', month: 'short' },
  moment: { weekday: 'short', day: 'numeric', month: 'short', hour: 'numeric', minute: '2-digit' },
  date: { day: 'numeric', month: 'short', year: 'numeric' },
  longDate: { day: 'numeric', month: 'long', year: 'numeric' },
} as const satisfies Record<string, Intl.DateTimeFormatOptions>
export type MomentStyle = keyof typeof moments

// Making a formatter is slow, and a long tape shows many moments.
const made = new Map<string, Intl.DateTimeFormat | Intl.NumberFormat>()
function kept<F extends Intl.DateTimeFormat | Intl.NumberFormat>(key: string, make: () => F): F {
  const known = made.get(key) ?? make()
  made.set(key, known)
  return known as F
}

/** A count. Measures are not written so: they stand with a point, as on the meter. */
export const sayNumber = ({ locale }: Reader, n: number): string =>
  kept(locale, () => new Intl.NumberFormat(locale)).format(n)

/** An amount in minor units, with the shop's currency; hundredths only where there are any. */
export function sayMoney({ locale, currency }: Reader, minor: number): string {
  const places = minor % 100 === 0 ? 0 : 2
  const format = kept(
    `${locale} ${places}`,
    () => new Intl.NumberFormat(locale, { minimumFractionDigits: places, maximumFractionDigits: places }),
  )
  return `${format.format(minor / 100)} ${currency}`
}

/** What somebody typed as an amount, with a point or a comma, in minor units; null when empty, NaN when it is none. */
export function readMoney({ currency }: Pick<Reader, 'currency'>, text: string): number | null {
  const bare = text.trim().toLowerCase()
  const word = currency.toLowerCase()
  const plain = (bare.endsWith(word) ? bare.slice(0, -word.length) : bare)
    .replace(/\s/g, '')
    .replace(',', '.')
  if (plain === '') return null
  return /^\d+(\.\d{1,2})?$/.test(plain) ? Math.round(Number(plain) * 100) : NaN
}

/** A moment as the clock on the wall shows it there: “2026-12-01T14:30”. */
export const wallClock = ({ zone }: Pick<Reader, 'zone'>, at: string): string =>
  kept(
    `wall ${zone}`,
    () => new Intl.DateTimeFormat('sv-SE', { dateStyle: 'short', timeStyle: 'short', timeZone: zone }),
  )
    .format(new Date(at))
    .replace(' ', 'T')
/** The moment at which the clock on the wall there shows this: “2026-12-01T14:30”; the earlier one where it does so twice. */
export function momentThere(reader: Pick<Reader, 'zone'>, local: string): string {
  const shown = Date.parse(`${local}Z`)
  const ahead = (at: number) => Date.parse(`${wallClock(reader, new Date(at).toISOString())}Z`) - at
  // The zone’s lead a day before and after: around a change one of them is right.
  const [before, after] = [shown - ahead(shown - 86_400_000), shown - ahead(shown + 86_400_000)]
  const right = [before, after].filter((at) => at + ahead(at) === shown)
  return new Date(right.length > 0 ? Math.min(...right) : before).toISOString()
}
/** What the clock on the wall shows, as it is said there. */
export const sayWallClock = ({ locale, currency }: Reader, local: string): string =>
  sayMoment({ locale, currency, zone: 'UTC' }, `${local}Z`)

export const sayMoment = ({ locale, zone }: Reader, at: string, style: MomentStyle = 'moment'): string =>
  kept(
    `${locale} ${zone} ${style}`,
    () => new Intl.DateTimeFormat(locale, { ...moments[style], timeZone: zone }),
  ).format(new Date(at))

/** The first of these languages that numbers and dates can be written in. */
export function localeOf(acceptLanguage: string | null): string {
  for (const part of (acceptLanguage ?? '').split(',')) {
    const [tag = '', q = ''] = part.trim().split(';')
    if (tag === '' || tag === '*' || q.trim() === 'q=0') continue
    try {
      const [known] = Intl.DateTimeFormat.supportedLocalesOf(tag)
      if (known) return known
    } catch {
      // Not a language tag: the next one.
    }
  }
  return usualReader.locale
}

/** A zone as the browser names it, or the usual one where the name is none. */
export function zoneOf(name: string | undefined): string {
  try {
    return new Intl.DateTimeFormat('en', { timeZone: name ?? usualReader.zone }).resolvedOptions().timeZone
  } catch {
    return usualReader.zone
  }
}

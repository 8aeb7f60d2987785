/** Text that a database can keep and a screen can show: no NUL, no half of a character. */
const plain = (text: string): boolean => !text.includes('\u0000') && text.isWellFormed()

/** The first text in a value that can not be kept, as a path; null when all can. */
export function oddText(value: unknown, path: readonly string[] = []): string | null {
  if (typeof value === 'string') return plain(value) ? null : path.join('.')
  if (value === null || typeof value !== 'object') return null
  for (const [key, inner] of Object.entries(value)) {
    if (!plain(key)) return path.join('.') || 'body'
    const odd = oddText(inner, [...path, key])
    if (odd !== null) return odd
  }
  return null
}

/** Words cut to a length without halving a character. */
export const cutText = (text: string, most: number): string =>
  text
    .slice(0, most)
    .toWellFormed()
    .replace(/\uFFFD$/, '')

/**
 * A moment in ISO 8601 that is in the calendar, between the years 2000 and 2200: 30 February is none.
 * @returns the moment in ms, or null
 */
export function momentOf(iso: string): number | null {
  const ms = Date.parse(iso)
  const day = /^(\d{4})-(\d{2})-(\d{2})/.exec(iso)
  if (!day || Number.isNaN(ms)) return null
  const [year, month, date] = [Number(day[1]), Number(day[2]), Number(day[3])]
  const real = new Date(Date.UTC(year, month - 1, date))
  if (year < 2000 || year > 2200 || real.getUTCMonth() !== month - 1 || real.getUTCDate() !== date)
    return null
  return ms
}

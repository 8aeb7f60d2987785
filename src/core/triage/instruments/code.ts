/** A code of the display: two hex figures, or four. */
export const CODE = /^[0-9A-F]{2}([0-9A-F]{2})?$/

/** What to say of a text that is no code. */
export const notACode = (text: string): string => `“${text}” is no code: two hex figures each, like 4C`

/** Typed codes, parted by spaces or commas; the first that is none, if there is one. */
export function readCodesTyped(text: string): {
  readonly codes: readonly string[]
  readonly odd: string | null
} {
  const codes = text
    .toUpperCase()
    .split(/[\s,]+/)
    .filter(Boolean)
  return { codes, odd: codes.find((c) => !CODE.test(c)) ?? null }
}

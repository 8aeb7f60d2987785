/** Series of preferred values, IEC 60063: how many there are in a decade. */
export const seriesSizes = [3, 6, 12, 24, 48, 96, 192] as const
export type SeriesSize = (typeof seriesSizes)[number]

const e24 = [
  1.0, 1.1, 1.2, 1.3, 1.5, 1.6, 1.8, 2.0, 2.2, 2.4, 2.7, 3.0, 3.3, 3.6, 3.9, 4.3, 4.7, 5.1, 5.6, 6.2, 6.8,
  7.5, 8.2, 9.1,
]

/** One decade of a series, 1 up to 10. E24 and below are rounded by hand in the standard; from E48 on it is 10^(i/n). */
export function decade(size: SeriesSize): readonly number[] {
  if (size <= 24) return e24.filter((_, i) => i % (24 / size) === 0)
  return Array.from({ length: size }, (_, i) => {
    const value = Math.round(10 ** (i / size) * 100) / 100
    // The one place at which the standard departs from the formula.
    return size === 192 && value === 9.19 ? 9.2 : value
  })
}

/** Rounds away what floating point adds, to nine figures. */
const clean = (value: number) => Number(value.toPrecision(9))

/** Values of a series from `least` to `most`, in order. @throws RangeError unless 0 < least ≤ most */
export function between(least: number, most: number, size: SeriesSize): readonly number[] {
  if (!(least > 0 && least <= most)) throw new RangeError('the range must lie above zero, the least first')
  const values: number[] = []
  for (let d = Math.floor(Math.log10(least)) - 1; 10 ** d <= most; d++)
    for (const v of decade(size)) {
      const value = clean(v * 10 ** d)
      if (value >= least && value <= most) values.push(value)
    }
  return values
}

/** The value of a series that is nearest as a ratio. @throws RangeError unless the value is above zero */
export function nearest(value: number, size: SeriesSize): number {
  const off = (v: number) => Math.abs(Math.log(v / value))
  return between(value / 2.5, value * 2.5, size).reduce((best, v) => (off(v) < off(best) ? v : best))
}

/** The coarsest series that has the value; null where none does. */
export function seriesOf(value: number): SeriesSize | null {
  if (!(value > 0)) return null
  return seriesSizes.find((size) => Math.abs(Math.log(nearest(value, size) / value)) < 1e-6) ?? null
}

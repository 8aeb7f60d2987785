import fc from 'fast-check'

/** Numbers spread evenly over a range; `fc.double` draws most of its numbers close to nought. */
export const between = (min: number, max: number): fc.Arbitrary<number> =>
  fc.integer({ min: 0, max: 10_000 }).map((k) => min + ((max - min) * k) / 10_000)

/** What an hour at the bench counts, minor units (bench default). */
export const RATE_MINOR_PER_HOUR = 60_000
/** What a board is taken to be worth while its ticket does not say, minor units (bench default). */
export const USUAL_WORTH_MINOR = 100_000
/** Minutes of one stroke with the look that follows it (bench default). */
export const STROKE_MINUTES = 1

/** What so many minutes cost, minor units. */
export const minutesMinor = (minutes: number): number => (minutes / 60) * RATE_MINOR_PER_HOUR

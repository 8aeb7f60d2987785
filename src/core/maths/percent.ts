/** Odds are said at the bench no surer than these. */
export const LEAST_SAID = 0.005
export const MOST_SAID = 0.995

/** Odds as they are said at the bench and stand in tables: “9 %”, “< 1 %”, “> 99 %”; never surer than that. */
export const percent = (odds: number): string =>
  odds > MOST_SAID ? '> 99 %' : odds < LEAST_SAID ? '< 1 %' : `${Math.round(odds * 100)} %`

/** Odds as they are said at the bench and stand in tables: “9 %”, “< 1 %”, “> 99 %”; never surer than that. */
export const percent = (odds: number): string =>
  odds > 0.995 ? '> 99 %' : odds < 0.005 ? '< 1 %' : `${Math.round(odds * 100)} %`

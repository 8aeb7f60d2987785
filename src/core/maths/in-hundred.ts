/** Odds as a figure of a table, out of a hundred: “2”, “< 1”, “> 99”. */
export const figureInHundred = (odds: number): string =>
  odds > 0.995 ? '> 99' : odds < 0.005 ? '< 1' : String(Math.round(odds * 100))

/** Odds as they are said at the bench, out of a hundred: “2”, “fewer than 1”. */
export const inHundred = (odds: number): string =>
  odds < 0.005 ? 'fewer than 1' : String(Math.round(odds * 100))

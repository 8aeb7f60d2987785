/** Odds as they are said at the bench, out of a hundred: “2”, “fewer than 1”. */
export const inHundred = (odds: number): string =>
  odds < 0.005 ? 'fewer than 1' : String(Math.round(odds * 100))

/** Millimetres to the nearest thousandth, never −0. */
export const micrometre = (mm: number): number => Math.round(mm * 1000) / 1000 + 0

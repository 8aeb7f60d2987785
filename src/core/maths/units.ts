/** Millimetres to the nearest thousandth, never −0. */
export const micrometre = (mm: number): number => Math.round(mm * 1000) / 1000 + 0

/** Ohms as a meter shows them. */
export const sayOhms = (ohms: number): string =>
  ohms >= 1e6
    ? `${Number((ohms / 1e6).toPrecision(3))} MΩ`
    : ohms >= 1e4
      ? `${Number((ohms / 1e3).toPrecision(3))} kΩ`
      : `${ohms} Ω`

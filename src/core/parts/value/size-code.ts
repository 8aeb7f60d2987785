/** Sizes of chip parts, hundredths of an inch: body, and the gap between its pads on the board (IPC-7351 middle density). */
export interface Size {
  readonly code: string
  readonly lengthMm: number
  readonly widthMm: number
  /** From middle to middle of its two pads. */
  readonly padsMm: number
  /** What a thick-film resistor of this size takes at 70 °C, W. */
  readonly watts: number
  /** What it may have across it, V. */
  readonly volts: number
  /** What a jumper of this size carries, A. */
  readonly jumperA: number
}

export const sizes: readonly Size[] = [
  { code: '0201', lengthMm: 0.6, widthMm: 0.3, padsMm: 0.6, watts: 0.05, volts: 25, jumperA: 0.5 },
  { code: '0402', lengthMm: 1.0, widthMm: 0.5, padsMm: 1.0, watts: 0.063, volts: 50, jumperA: 1 },
  { code: '0603', lengthMm: 1.6, widthMm: 0.8, padsMm: 1.6, watts: 0.1, volts: 75, jumperA: 1 },
  { code: '0805', lengthMm: 2.0, widthMm: 1.25, padsMm: 1.9, watts: 0.125, volts: 150, jumperA: 2 },
  { code: '1206', lengthMm: 3.2, widthMm: 1.6, padsMm: 3.1, watts: 0.25, volts: 200, jumperA: 2 },
  { code: '1210', lengthMm: 3.2, widthMm: 2.5, padsMm: 3.1, watts: 0.5, volts: 200, jumperA: 2 },
  { code: '2512', lengthMm: 6.3, widthMm: 3.2, padsMm: 6.2, watts: 1, volts: 250, jumperA: 4 },
]

export const sizeCodes: readonly string[] = sizes.map((s) => s.code)
export const sizeOf = (code: string): Size | undefined => sizes.find((s) => s.code === code)

/** How far pads may be apart from what their size has, as a ratio. */
const PADS_OFF = 0.25

/**
 * Sizes that fit two pads so far apart, middle to middle, nearest first. Several may: 1206 and 1210 differ in width only.
 * @param padWidthMm across, where it was measured
 */
export function sizesFor(padsMm: number, padWidthMm?: number): readonly Size[] {
  const off = (s: Size) =>
    Math.abs(Math.log(padsMm / s.padsMm)) +
    (padWidthMm === undefined ? 0 : Math.abs(Math.log(padWidthMm / s.widthMm)) / 2)
  return sizes
    .filter((s) => Math.abs(Math.log(padsMm / s.padsMm)) <= PADS_OFF)
    .sort((a, b) => off(a) - off(b))
}

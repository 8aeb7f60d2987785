export const partKinds = ['resistor', 'capacitor', 'bead'] as const
export type PartKind = (typeof partKinds)[number]

/** What a part is by its name on the board; null where its letters say nothing of it. */
export const kindOfRef = (ref: string): PartKind | null =>
  /^r\d/i.test(ref) ? 'resistor' : /^c\d/i.test(ref) ? 'capacitor' : /^(fb|l)\d/i.test(ref) ? 'bead' : null

/** What a value is counted in: a bead is told by its impedance at 100 MHz. */
const unitOf: Readonly<Record<PartKind, string>> = { resistor: 'Ω', capacitor: 'F', bead: 'Ω' }

const powers = { p: 1e-12, n: 1e-9, µ: 1e-6, m: 1e-3, '': 1, k: 1e3, M: 1e6 } as const
type Prefix = keyof typeof powers
const down: readonly Prefix[] = ['M', 'k', '', 'm', 'µ', 'n', 'p']

/** A value as it is said: 4.7 kΩ, 100 nF, 0 Ω. */
export function sayValue(kind: PartKind, value: number): string {
  const unit = unitOf[kind]
  if (value === 0) return `0 ${unit}`
  const prefix =
    down.find((p) => Math.abs(value) >= powers[p] * 0.9999 && !(kind === 'capacitor' && p === 'm')) ?? 'p'
  return `${Number((value / powers[prefix]).toPrecision(3))} ${prefix}${unit}`
}

/**
 * A value as it is written, of a resistor or a bead in Ω, of a capacitor in F: `33`, `33 Ω`, `4k7`, `4R7`, `0.1 µF`, `100n`.
 * @returns null for what is no value. A capacitor’s plain number is none: pF or µF, nobody knows.
 */
export function readValue(kind: PartKind, written: string): number | null {
  const text = written
    .trim()
    .replaceAll(',', '.')
    .replaceAll('μ', 'µ')
    .replace(/\s*(?:ohms?|Ω|Ω|f)$/i, '')
    .trim()
  const at =
    kind === 'capacitor' ? /^(\d*)(?:\.(\d+))?\s*([pnuµm])(\d*)$/i : /^(\d*)(?:\.(\d+))?\s*([rkm])?(\d*)$/i
  const found = at.exec(text)
  if (!found) return null
  const [, whole = '', point, letter, after = ''] = found
  // 4k7 is 4.7 k; 4.7k7 is nothing, nor is a letter without a figure.
  if ((point !== undefined && after !== '') || (letter === undefined && after !== '')) return null
  const figures = `${whole || '0'}.${point ?? (after || '0')}`
  if (whole === '' && point === undefined && after === '') return null
  const power =
    kind === 'capacitor'
      ? { p: 1e-12, n: 1e-9, u: 1e-6, µ: 1e-6, m: 1e-3 }[letter!.toLowerCase()]!
      : letter === undefined || /r/i.test(letter)
        ? 1
        : // Of resistors near a chip nobody means milli by m unless it is small and lower case.
          /k/i.test(letter)
          ? 1e3
          : letter === 'm'
            ? 1e-3
            : 1e6
  return Number((Number(figures) * power).toPrecision(12))
}

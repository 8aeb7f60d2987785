import Papa from 'papaparse'

/** What a spreadsheet would take for a formula: anything it could begin one with that is not a plain number. */
const FORMULA = /^[=+@\t\r]|^-(?!\d*\.?\d+(e[+-]?\d+)?$)/i

/** A table as CSV; words that a spreadsheet would run are marked as words, and read back as they were. */
export const writeCsv = (
  fields: readonly string[],
  data: readonly (readonly (string | number | null | undefined)[])[],
): string =>
  `${Papa.unparse({ fields: [...fields], data: data.map((row) => [...row]) }, { escapeFormulae: FORMULA })}\n`

/** A value without the mark that `writeCsv` puts before what looks like a formula. */
export const unmarked = (value: string): string => (/^'[=+\-@\t\r]/.test(value) ? value.slice(1) : value)

/** A number as it is typed, a comma or a point before its decimals; NaN for none. */
export const typedNumber = (text: string): number =>
  text.trim() === '' ? NaN : Number(text.trim().replace(',', '.'))

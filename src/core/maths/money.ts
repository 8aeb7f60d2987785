/** Crowns of the demo's harbour; minor units in, reader's locale out. */
export function crowns(minor: number): string {
  return `${new Intl.NumberFormat(undefined, { maximumFractionDigits: minor % 100 === 0 ? 0 : 2 }).format(minor / 100)} kr`
}

/** What somebody typed as an amount, in minor units; null when empty, NaN when it is none. */
export function readCrowns(text: string): number | null {
  const plain = text.replace(/[\s\u00a0]|kr/gi, '').replace(',', '.')
  if (plain === '') return null
  return /^\d+(\.\d{1,2})?$/.test(plain) ? Math.round(Number(plain) * 100) : NaN
}

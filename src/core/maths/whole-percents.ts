/**
 * Parts of one as whole percents that sum to 100: each is rounded down, and what is left goes to the largest remainders.
 * None is given as 100 while another is above zero; the last part, the rest of a list, then has the one.
 */
export function wholePercents(parts: readonly number[]): number[] {
  const total = parts.reduce((sum, p) => sum + p, 0)
  if (total <= 0) return parts.map(() => 0)
  const exact = parts.map((p) => (100 * p) / total)
  const whole = exact.map(Math.floor)
  const order = [...exact.keys()].sort((a, b) => exact[b]! - whole[b]! - (exact[a]! - whole[a]!))
  const left = 100 - whole.reduce((sum, p) => sum + p, 0)
  for (const i of order.slice(0, left)) whole[i]!++
  const all = whole.indexOf(100)
  if (all >= 0 && parts.filter((p) => p > 0).length > 1) {
    whole[all] = 99
    whole[all === parts.length - 1 ? 0 : parts.length - 1] = 1
  }
  return whole
}

import type { Uniform } from './seeded'

/** The index of one of some weights, drawn as likely as each weighs. */
export function pick(weights: ArrayLike<number>, draw: Uniform): number {
  let u = draw() * Array.from(weights).reduce((a, b) => a + b, 0)
  let i = 0
  while (i < weights.length - 1 && (u -= weights[i]!) > 0) i++
  return i
}

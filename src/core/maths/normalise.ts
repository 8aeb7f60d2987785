/** Makes weights sum to one, in place; all zero stay so. */
export function normalise(weights: Float64Array): Float64Array {
  let sum = 0
  for (const w of weights) sum += w
  if (sum > 0) for (let i = 0; i < weights.length; i++) weights[i]! /= sum
  return weights
}

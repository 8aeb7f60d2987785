/** A stream of uniform numbers in [0, 1). */
export type Uniform = () => number

/**
 * Seeded uniform stream, so that every sampled figure can be repeated.
 * @param seed any integer
 * Source: mulberry32, T. Ettinger (public domain); period 2³², ample for some 10⁶ draws.
 */
export function seeded(seed: number): Uniform {
  let a = seed >>> 0
  return () => {
    a = (a + 0x6d2b79f5) >>> 0
    let t = Math.imul(a ^ (a >>> 15), 1 | a)
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

/** Standard normal draw by Box and Muller (1958). */
export function normalDraw(uniform: Uniform): number {
  return Math.sqrt(-2 * Math.log(1 - uniform())) * Math.cos(2 * Math.PI * uniform())
}
